import type { Saved } from '@velvet-reed/contract';
import type { StationData } from '../record';
import { nextWords, type Said } from '../said';
import { judgedPath, unjudgedPath } from '../verdicts';

/** What a path comes to; the same words in Chain, Every target and Filter. */
export function saidPath(data: StationData, path: Saved<'paths'> | undefined): Said {
  const judged = path && judgedPath(data, path);
  const unjudged = path && !judged ? unjudgedPath(data, path) : undefined;
  if (unjudged)
    return {
      pieces: [unjudged.sentence],
      ...(unjudged.waiting ? {} : { tone: 'caution' }),
      next: { pieces: [`Next: ${unjudged.next}`] },
    };
  if (!judged)
    return {
      pieces: ['Nothing stands between antenna and receiver yet.'],
      next:
        data.receivers.length === 0 || data.targets.length === 0
          ? { pieces: ['Next: enter a receiver and a target in Listen.'], room: 'listen/wanted' }
          : { pieces: ['Next: make a path.'] },
    };
  const { better, sentence, next } = judged.verdict;
  return {
    pieces: [sentence],
    ...(better.state === 'fine' || better.state === 'noise' ? {} : { tone: 'caution' }),
    next: { pieces: [nextWords(next)] },
  };
}
