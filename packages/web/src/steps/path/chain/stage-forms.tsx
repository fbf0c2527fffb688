import { BLANK, createOf, SCHEMAS, updateOf, type Saved } from '@velvet-reed/contract';
import type { GoalBand } from '@velvet-reed/core/filter';
import { type PathSignal, STAGE_KINDS, stageKind, type StageKind } from '@velvet-reed/core/path';
import { useState } from 'react';
import { placeAtEnd, type StageOrder } from '@velvet-reed/station/path/orders';
import { entry } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { RecordForm } from '../../../ui/record-form';
import { DeleteButton } from '../../../ui/record-row';
import { Section } from '../../../ui/section';
import { named, newStage, stageFields, typedStage } from './stage-fields';

/** Kinds that are made here; parts come from the shelf. */
const KINDS = STAGE_KINDS.filter((kind) => !stageKind(kind).fromShelf);

/** Adds, changes and deletes the stages of a path. */
export function StageForms({
  path,
  orders,
  stages,
  runs,
  target,
  wanted,
  carriers,
}: {
  readonly path: Saved<'paths'>;
  /** A new stage goes to the end of each. */
  readonly orders: readonly StageOrder[];
  /** Target that the path is judged on. */
  readonly target: Saved<'targets'>;
  /** Everything that is to be heard through it. */
  readonly wanted: readonly GoalBand[];
  /** Transmitters as the antenna hands them on. */
  readonly carriers: readonly PathSignal[];
  /** Cable runs on the plan. */
  readonly runs: readonly Saved<'plotFeatures'>[];
  readonly stages: readonly Saved<'pathStages'>[];
}) {
  const { save } = useWrite();
  const [adding, setAdding] = useState<StageKind>();
  const [editing, setEditing] = useState<number>();
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
                fields={stageFields(stage.kind, runs)}
                schema={SCHEMAS.pathStages}
                fixed={{ ...SCHEMAS.pathStages.cast({ ...stage }, { stripUnknown: true }) }}
                start={typedStage(stage)}
                submit="Save the stage"
                onCancel={() => setEditing(undefined)}
                version={stage.version}
                onSave={async (values, version) => {
                  await save([updateOf('pathStages', { id: stage.id, version }, named(values))], 'Stage changed.');
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
            Add {stageKind(kind).article}
          </Button>
        ))}
      </div>
      {adding && (
        <RecordForm
          key={adding}
          takesFocus
          fields={stageFields(adding, runs)}
          schema={SCHEMAS.pathStages}
          fixed={{ ...BLANK.pathStages, pathId: path.id, kind: adding }}
          start={newStage(adding, target, wanted, carriers)}
          submit="Add this stage"
          onCancel={() => setAdding(undefined)}
          onSave={async (values) => {
            const stage = named(values);
            await save(
              [
                createOf('pathStages', stage, 'stage'),
                ...placeAtEnd(orders, { new: 'stage' }),
                entry('path', `${path.name}: added ${stage.name}.`),
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
