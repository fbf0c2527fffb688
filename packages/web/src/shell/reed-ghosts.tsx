import { foldAlias } from '@velvet-reed/core/path';
import { frequencyText } from '@velvet-reed/core/units';
import type { FocusBand } from '../data/focus';
import type { StationData } from '@velvet-reed/station/record';

/** Ghosts are looked for up to this many sample rates. */
const RATES = 3;

/** Where else a signal appears in the focus band of a receiver that samples directly: rings on the path's lane. */
export function Ghosts({
  data,
  band,
  scale,
  baseY,
}: {
  readonly data: StationData;
  readonly band: FocusBand;
  readonly scale: (freqHz: number) => number;
  readonly baseY: number;
}) {
  const path = data.paths[0];
  const receiver = data.receivers.find((one) => one.id === path?.receiverId);
  if (!receiver || receiver.complexSamples) return null;
  const centre = Math.sqrt(band.lowHz * band.highHz);
  if (centre > receiver.sampleRateHz / 2) return null;
  const { sameBinHz } = foldAlias(centre, receiver.sampleRateHz, RATES * receiver.sampleRateHz);
  return (
    <g>
      {sameBinHz
        .filter((ghost) => Math.abs(ghost - centre) > 1)
        .map((ghost) => (
          <circle key={ghost} cx={scale(ghost)} cy={baseY} r="3" fill="none" stroke="var(--caution)" strokeWidth="1.3">
            <title>{`${frequencyText(ghost, 4)} appears at ${frequencyText(centre, 4)} in ${receiver.name}`}</title>
          </circle>
        ))}
    </g>
  );
}
