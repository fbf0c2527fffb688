import type { Saved, Values } from '@velvet-reed/contract';
import type { GoalBand } from '@velvet-reed/core/filter';
import { isChoice, type PathSignal, type StageField, stageKind, type StageKind } from '@velvet-reed/core/path';
import { cableRunM } from '@velvet-reed/core/plot';
import { lengthText } from '@velvet-reed/core/units';
import type { FieldSpec } from '../../../ui/record-form';
import { typedFrequency, typedLength, typedNumber } from '../../../ui/typed';

const NAME: FieldSpec = { name: 'name', label: 'Name', kind: 'text' };
const PLUGS: readonly FieldSpec[] = [
  { name: 'connectorIn', label: 'Plug, antenna side', kind: 'text', hint: 'family and gender, like N-f, or empty' },
  { name: 'connectorOut', label: 'Plug, receiver side', kind: 'text', hint: 'the same' },
];

/** A field of the core as a field of the form; what only this kind has goes into its group. */
function formField(field: StageField): FieldSpec {
  const base = {
    ...{ name: field.id, label: field.label },
    ...(field.hint === undefined ? {} : { hint: field.hint }),
    ...(field.shared ? {} : { group: isChoice(field) ? 'choices' : 'figures' }),
  };
  return isChoice(field)
    ? { ...base, kind: 'choice', options: field.options }
    : {
        ...{ ...base, kind: 'quantity', dimension: field.dimension, optional: field.optional ?? false },
        ...(field.bareUnit === undefined ? {} : { bareUnit: field.bareUnit }),
      };
}

/** Fields of a stage; a line may take its length from a cable run on the plan. */
export function stageFields(kind: StageKind, runs: readonly Saved<'plotFeatures'>[]): readonly FieldSpec[] {
  const { fields, fromShelf, alongPlan } = stageKind(kind);
  return [
    NAME,
    ...fields.map(formField),
    ...(fromShelf ? [] : PLUGS),
    ...(alongPlan && runs.length > 0
      ? [
          {
            ...{ name: 'plotFeatureId', label: 'Length from the Plot', kind: 'choice' as const, numeric: true },
            options: [
              { value: '', label: 'as typed' },
              ...runs.map((run) => ({ value: String(run.id), label: `${run.name}, ${lengthText(cableRunM(run))}` })),
            ],
          },
        ]
      : []),
  ];
}

/** A number as a person would type it again. */
function numberText(field: Exclude<StageField, { readonly options: unknown }>, value: number): string {
  switch (field.dimension) {
    case 'plain':
      return typedNumber(value);
    case 'frequency':
      return typedFrequency(value);
    case 'length':
      return typedLength(value);
    case 'level':
      return `${typedNumber(value)} dBm`;
    default:
      return `${typedNumber(value)} dB`;
  }
}

const ends = { plotFeatureId: '', connectorIn: '', connectorOut: '' };

/** What a new stage of a kind begins with; a filter begins for everything that is wanted and against every carrier. */
export function newStage(
  kind: StageKind,
  target: Saved<'targets'> | undefined,
  others: readonly GoalBand[] = [],
  carriers: readonly PathSignal[] = [],
): Record<string, string> {
  const spec = stageKind(kind);
  const { fields, name } = spec;
  const set = (target && spec.startFor?.(target, others, carriers)) ?? {};
  const { name: setName = name } = set;
  return {
    ...Object.fromEntries(
      fields.map((field) => {
        const value = set[field.id] as number | string | undefined;
        if (typeof value === 'number' && !isChoice(field)) return [field.id, numberText(field, value)];
        return [field.id, typeof value === 'string' && isChoice(field) ? value : field.start];
      }),
    ),
    ...{ ...ends, name: String(setName) },
  };
}

/** A stage as a person would type it again. */
export function typedStage(stage: Saved<'pathStages'>): Record<string, string> {
  const stored: Readonly<Record<string, unknown>> = { ...stage, ...stage.figures, ...stage.choices };
  return {
    ...Object.fromEntries(
      stageKind(stage.kind).fields.map((field) => {
        const own = field.shared || field.id in stage.figures || field.id in stage.choices;
        const value = own ? stored[field.id] : undefined;
        if (isChoice(field)) return [field.id, typeof value === 'string' ? value : field.start];
        if (typeof value === 'number') return [field.id, numberText(field, value)];
        return [field.id, field.optional ? '' : field.start];
      }),
    ),
    ...{ name: stage.name, connectorIn: stage.connectorIn, connectorOut: stage.connectorOut },
    plotFeatureId: stage.plotFeatureId === null ? '' : String(stage.plotFeatureId),
  };
}

/** A stage whose name nobody chose is called by what it has become. */
export const named = (values: Values<'pathStages'>): Values<'pathStages'> => ({
  ...values,
  name: stageKind(values.kind).nameOf?.(values) ?? values.name,
});
