import { antennaKind } from '@velvet-reed/core/antenna';
import { findResonances } from '@velvet-reed/core/sweep';
import { lengthText } from '@velvet-reed/core/units';
import { memo, useDeferredValue, useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import { laidHeightM } from '@velvet-reed/station/derive';
import { useSamples } from '../../../data/samples';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../../data/station';
import { Disclosure } from '../../../ui/disclosure';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Section } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { antennaFields } from '../antenna-fields';
import { Figures } from '../figures';
import { groundOptions } from '../ground-options';
import { DraftRoom } from '../draft-room';
import { NewAntenna } from '../new-antenna';
import { SwrCurves } from '../swr-curves';
import type { DraftState } from '../use-draft';
import { DimensionsPanel } from './dimensions-panel';
import { ModelFile } from './model-file';
import { ModelPatterns, ModelView } from './model-view';
import { ThreeWays } from './three-ways';

export default function ModelRoom() {
  return (
    <StationPage>
      {(data) => (
        <DraftRoom data={data} title="Model, Draft">
          {(draft) => <Model draft={draft} />}
        </DraftRoom>
      )}
    </StationPage>
  );
}

/** The dimensions, and beside them what the model makes of them: nothing scrolls while one is dragged. */
function Model({ draft: state }: { readonly draft: DraftState }) {
  const { data, design, question, antenna, revision, groundId, setGroundId, editing } = state;
  const stationId = useStationId();
  const kind = antennaKind(design.kind);
  const laidM = laidHeightM(data, revision);
  const { spot, sweep } = state.state;
  // while a dimension is dragged its patterns go first; the curve and what lies below follow as fast as there is time
  const curves = useDeferredValue(useMemo(() => [{ name: 'model', look: 0, spot, sweep }], [spot, sweep]));
  const later = useDeferredValue(state);
  return (
    <>
      <div className="grid items-start gap-x-7 gap-y-4 lg:grid-cols-[15rem_minmax(0,1fr)]">
        <div className="min-w-0 lg:order-2">
          {question ? (
            <>
              {/* what an amplifier reads has no SWR */}
              {!kind.head && (
                <div data-evidence>
                  <SwrCurves
                    curves={curves}
                    lowHz={question.lowHz}
                    highHz={question.highHz}
                    freqHz={question.freqHz}
                    bands={state.bands}
                  />
                </div>
              )}
              <ModelPatterns state={state.state} question={question} />
            </>
          ) : (
            state.draft && (
              <div data-evidence className="min-h-40">
                <Figures figures={state.draft.figures} />
                {kind.model === undefined && (
                  <p className="max-w-prose text-sm text-dim">
                    This is no wire antenna: its figures are closed form, with their limits.
                  </p>
                )}
              </div>
            )
          )}
        </div>
        <section aria-label="Dimensions" className="min-w-0 lg:order-1">
          <h2 className="text-[1.05rem] font-semibold">Dimensions</h2>
          <p className="mb-2 text-xs text-dim">drag or type; the model follows; an emptied field follows its formula</p>
          <DimensionsPanel editing={editing} onSave={() => void state.keep()} />
          {laidM !== undefined && (
            <p className="mt-1 text-sm text-dim">
              Its height follows the <Link to={`/s/${stationId}/plot/plan`}>Plot</Link>: {lengthText(laidM)} in the
              middle. Type another to set it by hand.
            </p>
          )}
          {question && !kind.ownGround && (
            <label className="mt-3 block text-sm text-dim">
              Ground
              <select
                className="mt-1 block w-full text-ink"
                value={groundId}
                onChange={(event) => setGroundId(event.target.value)}
              >
                {groundOptions.map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.name}
                  </option>
                ))}
              </select>
            </label>
          )}
        </section>
      </div>
      <Below draft={later} />
      <ThisAntenna data={data} antenna={antenna} revision={revision} only={state.revisions.length === 1} />
      {later.question && <ModelFile name={antenna.name} model={later.question.model} freqHz={later.design.freqHz} />}
    </>
  );
}

/** What stands below the pictures: figures, shape with currents, what each target gets. */
const Below = memo(function Below({ draft }: { readonly draft: DraftState }) {
  const { design, question } = draft;
  return (
    <>
      {question && (
        <ModelView
          design={design}
          groundId={draft.groundId}
          question={question}
          state={draft.state}
          wanted={draft.targets}
          onArrival={draft.setArrivalDeg}
        >
          {antennaKind(design.kind).trim && <Ways draft={draft} />}
        </ModelView>
      )}
      {question && draft.draft && <Figures figures={draft.draft.figures} />}
    </>
  );
});

/** Formula, model and measurement beside each other. */
function Ways({ draft: { data, antenna, design, state } }: { readonly draft: DraftState }) {
  const sweeps = data.sweeps.filter((sweep) => sweep.antennaId === antenna.id).slice(-1);
  const samples = useSamples(sweeps);
  const measured = sweeps[0] && samples.data?.get(sweeps[0].id);
  const measuredHz = measured ? findResonances(measured)[0]?.freqHz : undefined;
  return <ThreeWays design={design} state={state} measuredHz={measuredHz} />;
}

const ThisAntenna = memo(function ThisAntenna({
  data,
  antenna,
  revision,
  only,
}: {
  readonly data: StationData;
  readonly antenna: DraftState['antenna'];
  readonly revision: DraftState['revision'];
  readonly only: boolean;
}) {
  const [, setParams] = useSearchParams();
  return (
    <Section title="This antenna">
      <div className="flex flex-wrap items-end gap-4">
        <ChangeButton resource="antennas" record={antenna} name={antenna.name} fields={antennaFields(data)} />
        {!only && <DeleteButton resource="revisions" record={revision} name={`Revision ${revision.number}`} />}
        <DeleteButton resource="antennas" record={antenna} name={antenna.name} />
        <Disclosure label="New antenna">
          {(close) => (
            <NewAntenna antennas={data.antennas} onMade={(id) => setParams({ antenna: String(id) })} onClose={close} />
          )}
        </Disclosure>
      </div>
    </Section>
  );
});
