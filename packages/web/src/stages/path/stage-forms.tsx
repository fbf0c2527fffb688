import { SCHEMAS, BLANK, type Saved, type Values } from '@velvet-reed/contract';
import { edgesForBand, filterName, namedByShape } from '@velvet-reed/core/filter';
import { type FigureSpec, STAGE_FIGURES, STAGE_KINDS, type StageKind } from '@velvet-reed/core/path';
import { cableRunM } from '@velvet-reed/core/plot';
import { lengthText } from '@velvet-reed/core/units';
import { useState } from 'react';
import { entry, useWrite } from '../../data/station';
import { Button } from '../../ui/button';
import { CABLE_OPTIONS } from '../../ui/place-fields';
import { RecordForm, type FieldSpec } from '../../ui/record-form';
import { DeleteButton } from '../../ui/record-row';
import { Section } from '../../ui/stage';
import { typedFrequency, typedLength, typedNumber } from '../../ui/typed';

/** Kinds that are made here; parts come from the shelf. */
const KINDS = STAGE_KINDS.filter((kind) => kind !== 'part');
const NAME: FieldSpec = { name: 'name', label: 'Name', kind: 'text' };

const ACTIVE: readonly FieldSpec[] = [
  { name: 'gainDb', label: 'Gain', kind: 'quantity', dimension: 'gain' },
  { name: 'noiseFigureDb', label: 'Noise figure', kind: 'quantity', dimension: 'gain' },
  {
    name: 'iip2Dbm',
    label: '2nd-order input intercept',
    kind: 'quantity',
    dimension: 'level',
    bareUnit: 'dBm',
    hint: 'output intercept minus gain',
  },
  { name: 'iip3Dbm', label: '3rd-order input intercept', kind: 'quantity', dimension: 'level', bareUnit: 'dBm' },
];

/** What each kind of stage asks for beside its figures. */
const FIELDS: Readonly<Record<StageKind, readonly FieldSpec[]>> = {
  line: [
    NAME,
    {
      name: 'cableId',
      label: 'Cable',
      kind: 'choice',
      options: CABLE_OPTIONS,
    },
    { name: 'lengthM', label: 'Length', kind: 'quantity', dimension: 'length', bareUnit: 'm' },
  ],
  filter: [
    NAME,
    {
      name: 'shape',
      label: 'Passes',
      kind: 'choice',
      options: [
        { value: 'lowpass', label: 'low (below the upper edge)' },
        { value: 'highpass', label: 'high (above the lower edge)' },
        { value: 'bandpass', label: 'a band' },
        { value: 'bandstop', label: 'all but a band' },
      ],
    },
    {
      name: 'family',
      label: 'Family',
      kind: 'choice',
      options: [
        { value: 'chebyshev', label: 'Chebyshev (edge: ripple)' },
        { value: 'butterworth', label: 'Butterworth (edge: 3 dB)' },
      ],
    },
    { name: 'order', label: 'Order', kind: 'quantity', dimension: 'plain', hint: 'number of poles, 1 to 15' },
    { name: 'rippleDb', label: 'Ripple', kind: 'quantity', dimension: 'gain' },
    { name: 'edgeLowHz', label: 'Lower edge', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
    { name: 'edgeHighHz', label: 'Upper edge', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
    { name: 'lossDb', label: 'Insertion loss', kind: 'quantity', dimension: 'gain' },
  ],
  amplifier: [NAME, ...ACTIVE],
  pad: [NAME, { name: 'lossDb', label: 'Loss', kind: 'quantity', dimension: 'gain' }],
  part: [NAME],
  splitter: [NAME],
  switch: [NAME],
  limiter: [NAME],
  'bias feed': [NAME],
  converter: [NAME, ...ACTIVE],
};

const PLUGS: readonly FieldSpec[] = [
  { name: 'connectorIn', label: 'Plug, antenna side', kind: 'text', hint: 'family and gender, like N-f, or empty' },
  { name: 'connectorOut', label: 'Plug, receiver side', kind: 'text', hint: 'the same' },
];

/** A figure of the core as a field of the form. */
const figureField = ({ id, label, dimension, bareUnit, optional, hint, options }: FigureSpec): FieldSpec => ({
  ...{ name: id, label, group: 'figures' },
  ...(hint === undefined ? {} : { hint }),
  ...(options
    ? {
        kind: 'choice',
        numeric: true,
        options: options.map((option) => ({ value: String(option.value), label: option.label })),
      }
    : { kind: 'quantity', dimension, optional: optional ?? false, ...(bareUnit === undefined ? {} : { bareUnit }) }),
});

const START: Readonly<Record<StageKind, Record<string, string>>> = {
  line: { name: 'Coax', cableId: 'pe5', lengthM: '15 m', plotFeatureId: '' },
  filter: {
    name: 'Low-pass 30 MHz',
    shape: 'lowpass',
    family: 'chebyshev',
    order: '5',
    rippleDb: '0.1 dB',
    edgeLowHz: '1.8 MHz',
    edgeHighHz: '30 MHz',
    lossDb: '0.3 dB',
  },
  amplifier: { name: 'Amplifier', gainDb: '15 dB', noiseFigureDb: '3 dB', iip2Dbm: '40 dBm', iip3Dbm: '15 dBm' },
  pad: { name: '10 dB pad', lossDb: '10 dB' },
  part: { name: 'Part' },
  splitter: { name: 'Splitter' },
  switch: { name: 'Antenna switch' },
  limiter: { name: 'Limiter' },
  'bias feed': { name: 'Bias feed' },
  converter: {
    name: 'Converter',
    gainDb: '60 dB',
    noiseFigureDb: '0.5 dB',
    iip2Dbm: '0 dBm',
    iip3Dbm: '-40 dBm',
  },
};

/** A filter whose name nobody chose is called by what it has become. */
const named = (values: Values<'pathStages'>): Values<'pathStages'> =>
  values.kind === 'filter' && namedByShape(values.name)
    ? { ...values, name: filterName(values.shape, values.edgeLowHz, values.edgeHighHz) }
    : values;

/** What a new stage of a kind begins with; a filter begins for the band that the path is judged on. */
const startFor = (kind: StageKind, target: Saved<'targets'> | undefined): Record<string, string> => ({
  ...Object.fromEntries(STAGE_FIGURES[kind].map(({ id, start }) => [id, start])),
  ...START[kind],
  ...(kind === 'filter' && target ? forBand(target) : {}),
  connectorIn: '',
  connectorOut: '',
});

function forBand({ lowHz, highHz }: Saved<'targets'>): Record<string, string> {
  const { edgeLowHz, edgeHighHz } = edgesForBand(lowHz, highHz);
  return {
    name: filterName('lowpass', edgeLowHz, edgeHighHz),
    edgeLowHz: typedFrequency(edgeLowHz),
    edgeHighHz: typedFrequency(edgeHighHz),
  };
}

/** A figure as a person would type it again. */
function figureText(
  { id, dimension, start, optional, options }: FigureSpec,
  figures: Saved<'pathStages'>['figures'],
): string {
  if (!(id in figures)) return optional ? '' : start;
  if (options || dimension === 'plain') return typedNumber(figures[id]);
  return dimension === 'frequency' ? typedFrequency(figures[id]) : `${typedNumber(figures[id])} dB`;
}

const startOf = (stage: Saved<'pathStages'>): Record<string, string> => ({
  name: stage.name,
  cableId: stage.cableId,
  lengthM: typedLength(stage.lengthM),
  plotFeatureId: stage.plotFeatureId === null ? '' : String(stage.plotFeatureId),
  gainDb: `${stage.gainDb} dB`,
  noiseFigureDb: `${stage.noiseFigureDb} dB`,
  iip2Dbm: `${stage.iip2Dbm} dBm`,
  iip3Dbm: `${stage.iip3Dbm} dBm`,
  lossDb: `${stage.lossDb} dB`,
  shape: stage.shape,
  family: stage.family,
  order: String(stage.order),
  rippleDb: `${stage.rippleDb} dB`,
  edgeLowHz: typedFrequency(stage.edgeLowHz),
  edgeHighHz: typedFrequency(stage.edgeHighHz),
  connectorIn: stage.connectorIn,
  connectorOut: stage.connectorOut,
  ...Object.fromEntries(STAGE_FIGURES[stage.kind].map((spec) => [spec.id, figureText(spec, stage.figures)])),
});

/** Fields of a stage; a line may take its length from a cable run on the plan. */
function fieldsOf(kind: StageKind, runs: readonly Saved<'plotFeatures'>[]): readonly FieldSpec[] {
  const own = [...FIELDS[kind], ...STAGE_FIGURES[kind].map(figureField), ...(kind === 'part' ? [] : PLUGS)];
  if (kind !== 'line' || runs.length === 0) return own;
  return [
    ...own,
    {
      name: 'plotFeatureId',
      label: 'Length from the Plot',
      kind: 'choice',
      numeric: true,
      options: [
        { value: '', label: 'as typed' },
        ...runs.map((run) => ({ value: String(run.id), label: `${run.name}, ${lengthText(cableRunM(run))}` })),
      ],
    },
  ];
}

/** Adds, changes and deletes the stages of a path. */
export function StageForms({
  path,
  stages,
  runs,
  target,
}: {
  readonly path: Saved<'paths'>;
  /** Wish that the path is judged on. */
  readonly target: Saved<'targets'>;
  /** Cable runs on the plan. */
  readonly runs: readonly Saved<'plotFeatures'>[];
  readonly stages: readonly Saved<'pathStages'>[];
}) {
  const { save } = useWrite();
  const [adding, setAdding] = useState<StageKind>();
  const [editing, setEditing] = useState<number>();
  const place = 1 + Math.max(-1, ...stages.flatMap((stage) => [stage.firstPlace, stage.secondPlace]));
  return (
    <Section title="Stages">
      <ul className="max-w-4xl border-t border-rule">
        {stages.map((stage) => (
          <li key={stage.id} className="border-b border-rule">
            <div className="flex flex-wrap items-center gap-x-4">
              <span className="w-full grow sm:w-auto">
                {stage.name} <span className="text-sm text-dim">{stage.kind}</span>
              </span>
              <Button look="quiet" aria-label={`Change ${stage.name}`} onClick={() => setEditing(stage.id)}>
                Change
              </Button>
              <DeleteButton resource="pathStages" record={stage} name={stage.name} />
            </div>
            {editing === stage.id && (
              <RecordForm
                fields={fieldsOf(stage.kind, runs)}
                schema={SCHEMAS.pathStages}
                fixed={{ ...SCHEMAS.pathStages.cast({ ...stage }, { stripUnknown: true }) }}
                start={startOf(stage)}
                submit="Save the stage"
                onCancel={() => setEditing(undefined)}
                version={stage.version}
                onSave={async (values, version) => {
                  await save(
                    [
                      {
                        op: 'update',
                        resource: 'pathStages',
                        id: stage.id,
                        version,
                        values: named(values),
                      },
                    ],
                    'Stage changed.',
                  );
                  setEditing(undefined);
                }}
              />
            )}
          </li>
        ))}
      </ul>
      <div className="mt-3 flex flex-wrap gap-2">
        {KINDS.map((kind) => (
          <Button
            key={kind}
            aria-expanded={adding === kind}
            onClick={() => setAdding(adding === kind ? undefined : kind)}
          >
            Add {kind === 'amplifier' ? 'an amplifier' : `a ${kind}`}
          </Button>
        ))}
      </div>
      {adding && (
        <RecordForm
          key={adding}
          fields={fieldsOf(adding, runs)}
          schema={SCHEMAS.pathStages}
          fixed={{ ...BLANK.pathStages, pathId: path.id, kind: adding, firstPlace: place, secondPlace: place }}
          start={startFor(adding, target)}
          submit="Add this stage"
          onCancel={() => setAdding(undefined)}
          onSave={async (values) => {
            await save(
              [
                { op: 'create', resource: 'pathStages', values: named(values) },
                entry('path', `${path.name}: added ${named(values).name}.`),
              ],
              'Stage added.',
            );
            setAdding(undefined);
          }}
        />
      )}
    </Section>
  );
}
