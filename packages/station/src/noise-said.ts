import { fixed, inDb } from '@velvet-reed/core/units';
import { riseOf } from '@velvet-reed/core/noise';
import type { OffOn } from './levels';
import type { StationData } from './record';
import { nextWords, type Said } from './said';
import { judgedNoise } from './verdicts';

/** Where the loss of SNR by a rise comes from. */
export const lossProvenance = (check: OffOn) =>
  ({
    origin: 'measured',
    formula: '−10 log (1 − 10^(−rise/10))',
    inputs: [
      ['off', `${fixed(check.offDbm, 1)} dBm`],
      ['on', `${fixed(check.onDbm, 1)} dBm`],
      ['rise', `${fixed(riseOf(check), 1)} dB`],
    ],
    source: 'your readings; a dummy at 290 K',
  }) as const;

/** What the readings of noise come to. */
export function saidNoise(data: StationData): Said {
  const { state, worst, snrLossDb, sentence, around, next } = judgedNoise(data);
  return {
    pieces:
      worst && around && typeof snrLossDb === 'number'
        ? [
            `${around[0]} `,
            { shown: inDb(snrLossDb, snrLossDb < 1 ? 2 : 1), provenance: lossProvenance(worst) },
            ` ${around[1]}`,
          ]
        : [sentence],
    next: { pieces: [nextWords(next)], ...(state === 'receiver decides' ? { room: 'path/chain' } : {}) },
  };
}
