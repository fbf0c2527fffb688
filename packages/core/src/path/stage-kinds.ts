import { amplifier } from './kinds/amplifier';
import { antennaSwitch } from './kinds/antenna-switch';
import { biasFeed } from './kinds/bias-feed';
import { converter } from './kinds/converter';
import { filter } from './kinds/filter';
import { limiter } from './kinds/limiter';
import { line } from './kinds/line';
import { pad } from './kinds/pad';
import { part } from './kinds/part';
import { splitter } from './kinds/splitter';
import { type FigureFault, isChoice, type StageKindSpec, type StageValues } from './stage-kind';

/** What can stand in a path. A new kind is one file and one entry here. */
const KINDS = [line, filter, amplifier, pad, part, splitter, antennaSwitch, limiter, biasFeed, converter] as const;
export type StageKind = (typeof KINDS)[number]['id'];
export const STAGE_KINDS: readonly StageKind[] = KINDS.map(({ id }) => id);

/** Everything about a kind. */
export function stageKind(id: StageKind): StageKindSpec<StageKind> {
  const found = KINDS.find((kind) => kind.id === id);
  // the type allows no other; a record of another is set aside before it comes here
  return found ?? pad;
}

/** Figures and choices that a kind does not have, lacks, or has out of range; empty when all is well. */
export function figureFaults(
  id: StageKind,
  figures: StageValues['figures'],
  choices: StageValues['choices'] = {},
): readonly FigureFault[] {
  const kind = stageKind(id);
  const own = kind.fields.filter(({ shared }) => !shared);
  const unknown = (given: object, asked: (one: (typeof own)[number]) => boolean): readonly FigureFault[] =>
    Object.keys(given)
      .filter((name) => !own.some((one) => one.id === name && asked(one)))
      .map((name) => ({ id: name, message: `A ${id} has no figure "${name}". Leave it out.` }));
  return [
    ...(kind.faults?.(figures) ?? []),
    ...unknown(figures, (one) => !isChoice(one)),
    ...unknown(choices, isChoice),
    ...own.flatMap((field): readonly FigureFault[] => {
      if (isChoice(field))
        // the first of its kind holds when nobody chose
        return field.id in choices && !field.options.some(({ value }) => value === choices[field.id])
          ? [{ id: field.id, message: `${field.label}: choose one of the list.` }]
          : [];
      const { label, least = -Infinity, most = Infinity, optional } = field;
      if (!(field.id in figures)) return optional ? [] : [{ id: field.id, message: `${label} is missing. Enter it.` }];
      const value = figures[field.id];
      return value >= least && value <= most
        ? []
        : [{ id: field.id, message: `${label} must lie between ${least} and ${most}. Correct it.` }];
    }),
  ];
}
