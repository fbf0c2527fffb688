interface Held {
  readonly active: { readonly id: string | number };
  readonly over?: { readonly id: string | number } | null;
}

/** What a screen reader says of a grip. */
export const HOW_TO_MOVE =
  'Space picks the stage up and puts it down, the arrow keys move it, Escape leaves it where it was.';

/** What a screen reader hears while a stage is dragged: its name and its place, counted from the antenna. */
export function dragWords(stages: readonly { readonly id: number; readonly name: string }[]) {
  const nameOf = (id: string | number): string => stages.find((stage) => stage.id === Number(id))?.name ?? 'The stage';
  const placeOf = (id: string | number): string =>
    `place ${1 + stages.findIndex((stage) => stage.id === Number(id))} of ${stages.length} from the antenna`;
  return {
    onDragStart: ({ active }: Held): string => `${nameOf(active.id)} picked up at ${placeOf(active.id)}.`,
    onDragOver: ({ active, over }: Held): string | undefined =>
      over ? `${nameOf(active.id)} is over ${placeOf(over.id)}.` : undefined,
    onDragEnd: ({ active, over }: Held): string =>
      over ? `${nameOf(active.id)} put down at ${placeOf(over.id)}.` : `${nameOf(active.id)} put down where it was.`,
    onDragCancel: ({ active }: Held): string => `${nameOf(active.id)} stays at ${placeOf(active.id)}.`,
  };
}
