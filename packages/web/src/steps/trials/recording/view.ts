import type { PictureView } from '@velvet-reed/core/recording';
import { frequencyText } from '@velvet-reed/core/units';

/** What of the recording is looked at. */
export type Look = Omit<PictureView, 'columns' | 'rows'>;

/** Narrowest that is looked at. */
const LEAST_HZ = 20;
const LEAST_S = 0.05;

const within = (low: number, high: number, least: number, most: number): readonly [number, number] => {
  const width = Math.min(high - low, most - least);
  const from = Math.min(Math.max(low, least), most - width);
  return [from, from + width];
};

/** A look made wider by a factor (narrower under 1) about a place, inside the whole. */
export function zoomedLook(
  look: Look,
  whole: Look,
  factor: number,
  at: { readonly x: number; readonly y: number },
): Look {
  const hz = Math.max(LEAST_HZ, (look.highHz - look.lowHz) * factor);
  const s = Math.max(LEAST_S, (look.toS - look.fromS) * factor);
  const low = look.lowHz + at.x * (look.highHz - look.lowHz) - at.x * hz;
  const from = look.fromS + at.y * (look.toS - look.fromS) - at.y * s;
  const [lowHz, highHz] = within(low, low + hz, whole.lowHz, whole.highHz);
  const [fromS, toS] = within(from, from + s, whole.fromS, whole.toS);
  return { lowHz, highHz, fromS, toS };
}

/** A look moved by shares of itself, inside the whole. */
export function movedLook(look: Look, whole: Look, x: number, y: number): Look {
  const [hz, s] = [look.highHz - look.lowHz, look.toS - look.fromS];
  const [lowHz, highHz] = within(look.lowHz + x * hz, look.highHz + x * hz, whole.lowHz, whole.highHz);
  const [fromS, toS] = within(look.fromS + y * s, look.toS + y * s, whole.fromS, whole.toS);
  return { lowHz, highHz, fromS, toS };
}

/** A frequency to the hertz, as far as the recording resolves it. */
export const exactHz = (hz: number): string =>
  Math.abs(hz) >= 1000 ? frequencyText(hz, Math.max(5, Math.ceil(Math.log10(Math.abs(hz))))) : `${hz.toFixed(0)} Hz`;

/** Seconds as minutes and seconds where there are minutes. */
export function timeText(s: number): string {
  if (s < 59.95) return `${s.toFixed(1)} s`;
  const whole = Math.round(s); // rounded as a whole: never "1:60"
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')} min`;
}

/** Level in the unit that is known. */
export const levelText = (dbfs: number, fullScaleDbm: number | undefined): string =>
  `${(dbfs + (fullScaleDbm ?? 0)).toFixed(1).replace('-', '−')} ${fullScaleDbm === undefined ? 'dBFS' : 'dBm'}`;
