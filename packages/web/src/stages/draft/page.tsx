import type { Saved } from '@velvet-reed/contract';
import { antennaKind, type Design, tryDraft, withEntry, withPermission } from '@velvet-reed/core/antenna';
import { CoreError } from '@velvet-reed/core/errors';
import { arrivalOf, USUAL_ARRIVAL_DEG } from '@velvet-reed/core/site';
import { findResonances } from '@velvet-reed/core/sweep';
import { lengthText } from '@velvet-reed/core/units';
import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { bandsOf, designOf, laidHeightM, latestRevision, designValues, ownDimensions } from '../../data/derive';
import { useFocus } from '../../data/focus';
import { useMoment } from '../../data/moment';
import { modelOf, questionOf, sweepBand, useModel } from '../../data/model';
import { useSamples } from '../../data/samples';
import { entry, useStationId, useWrite, type StationData } from '../../data/station';
import { AntennaPicker } from '../../ui/antenna-picker';
import { Disclosure } from '../../ui/disclosure';
import type { FieldSpec } from '../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../ui/record-row';
import { Next, Section, Stage } from '../../ui/stage';
import { Empty } from '../../ui/states';
import { StationPage } from '../../ui/station-page';
import { BuildPlan } from './build-plan';
import { ComparePanel } from './compare-panel';
import { groundOptions, useComparison, type Comparison } from './comparison';
import { CutList, Figures } from './cut-list';
import { DimensionsPanel } from './dimensions-panel';
import { useEditing } from './editing';
import { ModelFile } from './model-file';
import { ModelView } from './model-view';
import { NewAntenna } from './new-antenna';
import { ThreeWays } from './three-ways';
import { TunePanel } from './tune-panel';
import { Verdict } from './verdict';
import { DraftNotes } from './draft-notes';

export default function DraftPage() {
  return <StationPage>{(data) => <DraftChooser data={data} />}</StationPage>;
}

function DraftChooser({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  const [params, setParams] = useSearchParams();
  const newest = data.antennas.at(-1);
  const antenna = data.antennas.find((one) => one.id === Number(params.get('antenna'))) ?? newest;
  const revision = antenna && latestRevision(data, antenna.id);
  if (!antenna || !revision)
    return (
      <Stage
        title="Draft"
        verdict={
          <>
            There is no antenna to draft yet.{' '}
            <Next>
              <Link to={`/s/${stationId}/choose`}>Next: choose one,</Link> or begin one of any kind below.
            </Next>
          </>
        }
      >
        <NewAntenna onMade={(id) => setParams({ antenna: String(id) })} onClose={() => undefined} />
        <Empty>Dimensions, model, cut list and build plan appear here once there is an antenna.</Empty>
      </Stage>
    );
  return (
    <DraftSheet
      key={`${antenna.id} ${revision.number}`}
      data={data}
      antenna={antenna}
      revision={revision}
      onPick={(id) => setParams({ antenna: String(id) })}
    />
  );
}

const antennaFields = (data: StationData): readonly FieldSpec[] => [
  { name: 'name', label: 'Name', kind: 'text' },
  {
    name: 'targetId',
    label: 'For',
    kind: 'choice',
    numeric: true,
    options: [
      { value: '', label: 'no target in particular' },
      ...data.targets.map((one) => ({ value: String(one.id), label: one.name })),
    ],
  },
  { name: 'sinceMs', label: 'In use since', kind: 'date' },
];

/** The question for the solver, when the wires can be drawn at all. */
function tryModel(design: Design, groundId: string, band: { lowHz: number; highHz: number }, arrivalDeg: number) {
  try {
    return questionOf(modelOf(design, groundId), design.freqHz, band, arrivalDeg);
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return undefined;
  }
}

function DraftSheet({
  data,
  antenna,
  revision,
  onPick,
}: {
  readonly data: StationData;
  readonly antenna: Saved<'antennas'>;
  readonly revision: Saved<'revisions'>;
  readonly onPick: (id: number) => void;
}) {
  const stationId = useStationId();
  const { trySave } = useWrite();
  const { band } = useFocus();
  const revisions = data.revisions
    .filter((one) => one.antennaId === antenna.id)
    .map((one) => ({ ...one, dimensions: designOf(data, one).dimensions }));
  const only = revisions.length === 1;
  const editing = useEditing(designOf(data, revision));
  const { design } = editing;
  const [groundId, setGroundId] = useState(data.station.groundId);
  const [comparison, setComparison] = useState<Comparison>({ by: 'nothing' });
  const kind = antennaKind(design.kind);
  const { draft, fault } = tryDraft(design);
  const { atMs } = useMoment();
  const wishes = useMemo(
    () => data.targets.map((target) => ({ ...target, arrival: arrivalOf(target, data.station, atMs) })),
    [data, atMs],
  );
  const own = wishes.find((wish) => wish.id === antenna.targetId);
  // the pattern begins at the angle of the wish that the antenna is for
  const [arrivalDeg, setArrivalDeg] = useState(() =>
    own ? Math.round(own.arrival.elevationDeg * 10) / 10 : USUAL_ARRIVAL_DEG,
  );
  const question = useMemo(() => tryModel(design, groundId, band, arrivalDeg), [design, groundId, band, arrivalDeg]);
  const state = useModel(question);
  const others = useComparison(comparison, design, groundId, band, revisions);
  const sweeps = data.sweeps.filter((sweep) => sweep.antennaId === antenna.id).slice(-1);
  const samples = useSamples(sweeps);
  const measured = sweeps[0] && samples.data?.get(sweeps[0].id);
  const measuredHz = measured ? findResonances(measured)[0]?.freqHz : undefined;
  const bands = useMemo(() => bandsOf(data), [data]);

  const keep = async (): Promise<void> => {
    const made = tryDraft(design).draft;
    await trySave(
      [
        {
          op: 'create',
          resource: 'revisions',
          values: {
            ...designValues(design),
            dimensions: ownDimensions(data, revision, design),
            antennaId: antenna.id,
            number: revision.number + 1,
          },
        },
        entry(
          'draft',
          `${antenna.name}, revision ${revision.number + 1}: ${made?.pieces.map((one) => `${one.count} × ${one.name} ${lengthText(one.cutM, 4)}`).join(', ') ?? ''}.`,
        ),
      ],
      'Revision saved.',
    );
  };
  return (
    <Stage
      title="Draft"
      verdict={
        draft ? (
          <Verdict design={design} draft={draft} state={state} data={data} revision={revision} antennaId={antenna.id} />
        ) : (
          <>{fault}</>
        )
      }
      margin={draft && <DraftNotes design={design} draft={draft} data={data} />}
    >
      <div className="mb-5 flex flex-wrap items-end gap-4">
        <AntennaPicker data={data} value={antenna.id} onPick={onPick} />
        <p className="text-sm text-dim">
          revision {revision.number}
          {editing.changed && ', unsaved changes'}
        </p>
        <Disclosure label="New antenna">{(close) => <NewAntenna onMade={onPick} onClose={close} />}</Disclosure>
        <ChangeButton resource="antennas" record={antenna} name={antenna.name} fields={antennaFields(data)} />
        {!only && <DeleteButton resource="revisions" record={revision} name={`Revision ${revision.number}`} />}
        <DeleteButton resource="antennas" record={antenna} name={antenna.name} />
      </div>
      <Section title="Dimensions" hint="drag or type; the model follows; an emptied field follows its formula">
        <DimensionsPanel editing={editing} onSave={() => void keep()} />
        {laidHeightM(data, revision) !== undefined && (
          <p className="mt-1 text-sm text-dim">
            Its height follows the <Link to={`/s/${stationId}/plot`}>Plot</Link>:{' '}
            {lengthText(laidHeightM(data, revision) ?? 0)} in the middle. Type another to set it by hand.
          </p>
        )}
      </Section>
      {question && (
        <ModelView
          design={design}
          groundId={groundId}
          question={question}
          state={state}
          others={others}
          bands={bands}
          wanted={wishes}
          onArrival={setArrivalDeg}
        >
          {kind.trim && <ThreeWays design={design} state={state} measuredHz={measuredHz} />}
          {!kind.ownGround && (
            <label className="mb-3 block text-sm text-dim">
              Ground
              <select className="ml-2 text-ink" value={groundId} onChange={(event) => setGroundId(event.target.value)}>
                {groundOptions.map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.name}
                  </option>
                ))}
              </select>
            </label>
          )}
        </ModelView>
      )}
      {kind.model === undefined && (
        <Section title="Model">
          <p className="max-w-prose">This is no wire antenna: its figures are closed form, below, with their limits.</p>
        </Section>
      )}
      {kind.model && (
        <>
          <ComparePanel
            comparison={comparison}
            onCompare={setComparison}
            design={design}
            curves={others}
            revisions={revisions}
          />
          <TunePanel
            design={design}
            groundId={groundId}
            band={sweepBand(design.freqHz, band)}
            onDesign={editing.take}
          />
        </>
      )}
      {draft && (
        <>
          <CutList design={design} draft={draft} />
          <Figures figures={draft.figures} />
          <BuildPlan
            key={revision.version}
            revision={revision}
            steps={withPermission(withEntry(draft.steps, data.station.noDrilling), data.station.askFirst)}
            antennaName={antenna.name}
          />
        </>
      )}
      {question && <ModelFile name={antenna.name} model={question.model} freqHz={design.freqHz} />}
    </Stage>
  );
}
