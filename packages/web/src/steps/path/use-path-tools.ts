import { partStage, reachesThrough, type SearchGoal, stageKind } from '@velvet-reed/core/path';
import { useMemo } from 'react';
import { askPath } from '@velvet-reed/station/path/question';
import { toPathReceiver, toPathStage } from '@velvet-reed/station/path/stages';
import type { PathState } from './path-room';

/** What the rooms that plan beside the chain ask of a path: its goals, its stages, its shelf. */
export function usePathTools({ data, path, target, receiver, asked, first }: PathState) {
  const { stored } = first;
  const carriers = useMemo(() => asked.question.signals.filter(({ assumed }) => !assumed), [asked]);
  const wanted = useMemo(
    () => ({ name: target.name, lowHz: target.lowHz, highHz: target.highHz }),
    [target.name, target.lowHz, target.highHz],
  );
  const { goals, signals } = useMemo(() => {
    const ends = data.targets
      .filter((one) => reachesThrough(first.stages, receiver, one.lowHz, one.highHz))
      .flatMap((one) => {
        const end = askPath(data, path, one);
        return end.state === 'judged' ? [{ name: one.name, question: end.question }] : [];
      });
    // what fills the receiver at one target fills it at all of them
    const every = new Map(ends.flatMap(({ question }) => question.signals.map((signal) => [signal.name, signal])));
    return {
      goals: ends.map(({ name, question: { signals: _signals, ...question } }): SearchGoal => ({ ...question, name })),
      signals: [...every.values()],
    };
  }, [data, path, receiver, first.stages]);
  const targets = useMemo(() => goals.map(({ name, lowHz, highHz }) => ({ name, lowHz, highHz })), [goals]);
  const stages = useMemo(() => stored.map((stage) => toPathStage(data, stage)), [stored, data]);
  const own = useMemo(
    () =>
      stored.map(({ kind }, i) => ({
        stage: stages[i],
        needed: stageKind(kind).stays === true,
        cost: stageKind(kind).stays ? 0 : 1,
      })),
    [stored, stages],
  );
  const place = useMemo(
    () => ({
      stages,
      receiver: toPathReceiver(receiver),
      question: asked.question,
      ...(asked.head ? { head: asked.head } : {}),
    }),
    [stages, receiver, asked],
  );
  const shelf = useMemo(
    () => data.parts.map((part) => ({ stage: partStage(part.name, part), cost: part.cost })),
    [data.parts],
  );
  return { carriers, signals, wanted, goals, targets, own, place, shelf };
}
