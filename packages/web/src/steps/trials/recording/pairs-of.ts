import type { TrialPair } from '@velvet-reed/core/trial';
import type { RecordedLevels } from '../../../workers/recording-jobs';

/** A pair out of a recording, dBFS, and when it was heard in it. */
export type RecordedPair = TrialPair & { readonly atS: number };

/** The pairs of a switched recording as a trial logs them. */
export const pairsOf = ({ switched }: RecordedLevels): readonly RecordedPair[] =>
  (switched?.turns ?? []).flatMap((a, i, turns) => {
    const b = turns[i + 1];
    if (i % 2 === 1 || !b) return [];
    return [
      {
        ...{ levelADbm: a.levelDbfs, noiseADbm: a.noiseDbfs, levelBDbm: b.levelDbfs, noiseBDbm: b.noiseDbfs },
        atS: b.startS,
      },
    ];
  });
