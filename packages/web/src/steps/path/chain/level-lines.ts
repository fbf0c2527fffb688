import type { OrderView } from '@velvet-reed/station/verdicts';

/** A signal that is just worth listening to stands so far above the noise from outside, dB. Assumed, to have something wanted to draw. */
const READABLE_DB = 10;
/** Carriers that are drawn, the strongest first. */
export const MOST_CARRIERS = 4;
const DASHES = ['', '7 4', '2 4', '9 3 2 3'];

/** One level along the chain. */
export interface Line {
  readonly id: string;
  readonly name: string;
  readonly levels: readonly number[];
  readonly ink: string;
  readonly width: number;
  readonly dash: string;
}

/** The levels that are drawn along a chain, at the input of each stage and of the receiver. */
export function levelLines(view: OrderView, targetName: string): readonly Line[] {
  const { reports, walks } = view.analysis;
  const strongest = [...walks]
    .sort((a, b) => Math.max(...b.levelsDbm) - Math.max(...a.levelsDbm))
    .slice(0, MOST_CARRIERS);
  const noise = reports.map(({ noiseDbm }) => noiseDbm);
  const wanted = reports.map(({ gainAheadDb }) => noise[0] + READABLE_DB + gainAheadDb);
  return [
    ...strongest.map(({ signal, levelsDbm }, i) => ({
      ...{ id: `carrier ${signal.name}`, name: signal.name, levels: levelsDbm, ink: 'var(--caution)', width: 1.8 },
      dash: DASHES[i % DASHES.length],
    })),
    { id: 'wanted', name: `${targetName}, just readable`, levels: wanted, ink: 'var(--plum)', width: 2.6, dash: '' },
    { id: 'noise', name: 'noise', levels: noise, ink: 'var(--ink)', width: 1.6, dash: '' },
  ];
}
