import type { Announcements } from '@dnd-kit/core';

/** What a screen reader says of a grip. */
export const HOW_TO_MOVE =
  'Space picks the stage up and puts it down, the arrow keys move it, Escape leaves it where it was.';

/** What a screen reader hears while a stage is dragged: its name and its place, counted from the antenna. */
export function dragWords(stages: readonly { readonly id: number; readonly name: string }[]): Announcements {
  const nameOf = (id: string | number): string => stages.find((stage) => stage.id === Number(id))?.name ?? 'The stage';
  const placeOf = (id: string | number): string =>
    `place ${1 + stages.findIndex((stage) => stage.id === Number(id))} of ${stages.length} from the antenna`;
  return {
    onDragStart: ({ active }) => `${nameOf(active.id)} picked up at ${placeOf(active.id)}.`,
    onDragOver: ({ active, over }) => (over ? `${nameOf(active.id)} is over ${placeOf(over.id)}.` : undefined),
    onDragEnd: ({ active, over }) =>
      over ? `${nameOf(active.id)} put down at ${placeOf(over.id)}.` : `${nameOf(active.id)} put down where it was.`,
    onDragCancel: ({ active }) => `${nameOf(active.id)} stays at ${placeOf(active.id)}.`,
  };
}
