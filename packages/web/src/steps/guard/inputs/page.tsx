import { createOf, type Saved, SCHEMAS, updateOf } from '@velvet-reed/contract';
import { type GuardProof, toldMarginDb } from '@velvet-reed/core/guard';
import { fixed, frequencyText, plain, showPower, inDb } from '@velvet-reed/core/units';
import { useState, type ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';
import { useCouplings } from '../../../data/couplings';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useStationId, useWrite } from '../../../data/station';
import { plannedTransmitters, unplannedTransmitters, type PlannedTransmitter } from '@velvet-reed/station/transmitters';
import { cellsOf, guardVerdict, isDrawn, judgedGuard } from '@velvet-reed/station/guard/judge';
import { inputNode } from '@velvet-reed/station/guard/drawing';
import { Button } from '../../../ui/button';
import { Disclosure } from '../../../ui/disclosure';
import { RecordForm } from '../../../ui/record-form';
import { DeleteButton } from '../../../ui/record-row';
import { Room } from '../../../ui/room';
import { Next, Section } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { typedFrequency, typedPower } from '../../../ui/typed';
import { Value } from '../../../ui/value';
import { MissingFigures } from '../missing-figures';
import { Margin } from './margin';
import { inputFields } from './input-fields';
import { PLAN_FIELDS, PLAN_SCHEMA } from '../plan-form';
import { saidGuard } from '@velvet-reed/station/guard/said';
import { SaidVerdict } from '../../../ui/said';
import { levelProvenance, lookOf } from '../guard-state';

export default function GuardPage() {
  return <StationPage>{(data) => <GuardChooser data={data} />}</StationPage>;
}

function GuardChooser({ data }: { readonly data: StationData }) {
  const [params, setParams] = useSearchParams();
  const plans = plannedTransmitters(data);
  const plan = plans.find((one) => one.id === Number(params.get('plan'))) ?? plans.at(-1);
  if (!plan)
    return (
      <Room
        title="Inputs, Guard"
        verdict={
          <>
            No transmitter has a Guard plan yet.{' '}
            <Next>Next: enter its power; if you never transmit, leave this step empty.</Next>
          </>
        }
      >
        <NewPlan data={data} onMade={() => undefined} />
      </Room>
    );
  const show = (id: number): void => setParams({ plan: String(id) });
  return (
    <Guard
      key={plan.id}
      data={data}
      plan={plan}
      chooser={
        <div className="mb-5 flex flex-wrap items-end gap-4">
          <label className="text-sm text-dim">
            Transmitter
            <select className="ml-2 text-ink" value={plan.id} onChange={(event) => show(Number(event.target.value))}>
              {plans.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </select>
          </label>
          <DeleteButton resource="guardPlans" record={plan} name={plan.name} />
          <Disclosure label="Another transmitter">
            {(close) => (
              <NewPlan
                data={data}
                onCancel={close}
                onMade={(id) => {
                  close();
                  show(id);
                }}
              />
            )}
          </Disclosure>
        </div>
      }
    />
  );
}

/** A transmitter to plan for: the own one that Listen or the plan of the place knows already, or a new one. */
function NewPlan({
  data,
  onMade,
  onCancel,
}: {
  readonly data: StationData;
  readonly onMade: (id: number) => void;
  readonly onCancel?: () => void;
}) {
  const { save } = useWrite();
  const known = unplannedTransmitters(data);
  const [chosen, setChosen] = useState<number | undefined>(known[0]?.id);
  const transmitter = known.find(({ id }) => id === chosen);
  return (
    <>
      {known.length > 0 && (
        <label className="mb-3 block text-sm text-dim">
          Transmitter
          <select
            className="ml-2 text-ink"
            value={chosen ?? ''}
            onChange={(event) => setChosen(event.target.value === '' ? undefined : Number(event.target.value))}
          >
            {known.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
            <option value="">another one</option>
          </select>
        </label>
      )}
      <RecordForm
        key={chosen ?? 'new'}
        fields={PLAN_FIELDS}
        schema={PLAN_SCHEMA}
        start={{
          name: transmitter?.name ?? 'My transmitter',
          powerW: transmitter ? typedPower(transmitter.powerW) : '100 W',
          freqHz: typedFrequency(transmitter?.freqHz ?? 29.7e6),
          ...{ bands: '', powerSteps: '' },
          marginToKeepDb: '10 dB',
          meterResolutionW: '1 W',
        }}
        submit="Plan for this transmitter"
        onCancel={onCancel}
        onSave={async ({ powerW, ...plan }) => {
          const { name, freqHz } = plan;
          const ids = await save(
            [
              transmitter
                ? updateOf('transmitters', transmitter, { powerW })
                : createOf(
                    'transmitters',
                    { name, freqHz, powerW, powerKind: 'output', distanceM: null, own: true },
                    'transmitter',
                  ),
              createOf('guardPlans', { ...plan, transmitterId: transmitter?.id ?? { new: 'transmitter' } }),
              entry('guard', `Guard planned for ${name}.`),
            ],
            'Planned.',
          );
          onMade(ids[1]);
        }}
      />
    </>
  );
}

function Guard({
  data,
  plan,
  chooser,
}: {
  readonly data: StationData;
  readonly plan: PlannedTransmitter;
  readonly chooser: ReactNode;
}) {
  const { save, trySave } = useWrite();
  const [editing, setEditing] = useState<number>();
  const judged = judgedGuard(data, plan);
  const { rows, proof, drawn } = judged;
  const verdict = guardVerdict(judged);
  useCouplings([...drawn.asks.values()].flat());
  const stationId = useStationId();
  return (
    <Room title="Inputs, Guard" verdict={<SaidVerdict said={saidGuard(judged)} />} margin={<Margin />}>
      <Section title="Receiver inputs while transmitting" hint={`${plain(showPower(plan.powerW))} on the air`}>
        <MissingFigures proof={proof} planId={plan.id} />
        {rows.length === 0 ? (
          <Empty>
            No receiver input entered. Enter every antenna that stays connected to any receiver, also the ones you do
            not listen on.
          </Empty>
        ) : (
          <ul data-evidence className="evidence max-w-4xl overflow-y-auto border-t border-rule">
            {rows.map((row) => {
              const { down, worst } = cellsOf(proof, row.id);
              if (!down || !worst) return null;
              const look = lookOf(worst);
              return (
                <li key={row.id} className="border-b border-rule py-2">
                  <div className="grid grid-cols-[auto_1fr] items-baseline gap-x-4 gap-y-1 md:grid-cols-[8rem_1fr_auto_auto]">
                    <span className={`font-semibold whitespace-nowrap ${look.ink}`}>
                      {look.mark} {look.word}
                    </span>
                    <span>
                      <strong>{row.name}</strong> on {feederOf(data, row)}
                    </span>
                    <span className="max-md:col-start-2">
                      {down.route && down.marginDb !== undefined && (
                        <>
                          <Value
                            strong
                            shown={inDb(down.route.dbm, 1, 'dBm')}
                            provenance={levelProvenance(down, plan)}
                          />
                          {'  '}
                          <Value
                            shown={inDb(toldMarginDb(down.marginDb), 1, 'dB margin')}
                            provenance={{ ...levelProvenance(down, plan), formula: 'limit − level' }}
                          />
                        </>
                      )}
                    </span>
                    <span className="max-md:col-start-2">
                      <Button look="quiet" aria-label={`Change ${row.name}`} onClick={() => setEditing(row.id)}>
                        Change
                      </Button>
                      <DeleteButton resource="guardInputs" record={row} name={row.name} />
                    </span>
                  </div>
                  <p className="text-sm">Key down: {down.sentence}</p>
                  <Bands proof={proof} input={row.id} />
                  {row.isolationDb !== null && isDrawn(data, plan, inputNode(row.id)) && (
                    <p className="text-sm text-dim">
                      The typed {fixed(row.isolationDb, 0)} dB are not used: Routes says what this input is connected
                      to.
                    </p>
                  )}
                  {worst !== down && (
                    <p className={`text-sm ${look.ink}`}>
                      {worst.state.name}: {worst.sentence}{' '}
                      <Link to={`/s/${stationId}/guard/states?plan=${plan.id}`}>every state</Link>
                    </p>
                  )}
                  {editing === row.id && (
                    <RecordForm
                      fields={inputFields(data)}
                      schema={SCHEMAS.guardInputs}
                      fixed={{ guardPlanId: plan.id }}
                      start={{
                        name: row.name,
                        antennaName: feederOf(data, row),
                        isolationDb: row.isolationDb === null ? '' : `${row.isolationDb} dB`,
                        limitDbm: `${row.limitDbm} dBm`,
                        disconnects: row.disconnects,
                      }}
                      submit="Save the input"
                      onCancel={() => setEditing(undefined)}
                      version={row.version}
                      onSave={async (values, version) => {
                        await save(
                          [{ op: 'update', resource: 'guardInputs', id: row.id, version, values }],
                          'Input changed.',
                        );
                        setEditing(undefined);
                      }}
                    />
                  )}
                </li>
              );
            })}
          </ul>
        )}
        <div className="mt-3 flex flex-wrap gap-3">
          <Disclosure label="Add a receiver input" look={rows.length === 0 ? 'main' : 'plain'}>
            {(close) => (
              <RecordForm
                fields={inputFields(data)}
                schema={SCHEMAS.guardInputs}
                fixed={{ guardPlanId: plan.id }}
                start={{ name: '', antennaName: '', isolationDb: '', limitDbm: '0 dBm', disconnects: false }}
                submit="Add the input"
                onCancel={close}
                onSave={async (values) => {
                  await save(
                    [
                      { op: 'create', resource: 'guardInputs', values },
                      entry('guard', `Receiver input added: ${values.name} on ${values.antennaName}.`),
                    ],
                    'Input added.',
                  );
                  close();
                }}
              />
            )}
          </Disclosure>
          {proof.worst && (
            <Button
              look="quiet"
              onClick={() =>
                void trySave(
                  [entry('guard', `${plan.name}: ${verdict.sentence} ${verdict.next}`)],
                  'Added to the notebook.',
                )
              }
            >
              Note this in the Notebook
            </Button>
          )}
        </div>
      </Section>
      <Section title="The transmitter">
        {chooser}
        <RecordForm
          fields={PLAN_FIELDS}
          schema={PLAN_SCHEMA}
          start={{
            name: plan.name,
            powerW: typedPower(plan.powerW),
            freqHz: typedFrequency(plan.freqHz),
            ...{ bands: plan.bands, powerSteps: plan.powerSteps },
            marginToKeepDb: `${plan.marginToKeepDb} dB`,
            meterResolutionW: typedPower(plan.meterResolutionW),
          }}
          submit="Save the transmitter"
          version={plan.version}
          onSave={({ powerW, ...values }, version) => {
            const transmitter = data.transmitters.find(({ id }) => id === plan.transmitterId);
            return save(
              [
                updateOf('guardPlans', { id: plan.id, version }, values),
                ...(transmitter && transmitter.powerW !== powerW
                  ? [updateOf('transmitters', transmitter, { powerW })]
                  : []),
              ],
              'Saved.',
            );
          }}
        />
      </Section>
    </Room>
  );
}

/** Every transmit frequency by itself with the key down, where there are several. */
function Bands({ proof, input }: { readonly proof: GuardProof; readonly input: number }) {
  const own = proof.bands.flatMap(({ cells }) =>
    cells.filter(({ receiver, state }) => receiver === inputNode(input) && state.kind === 'key down'),
  );
  if (own.length < 2) return null;
  return (
    <ul className="flex flex-wrap gap-x-5 text-sm">
      {own.map((cell) => {
        const look = lookOf(cell);
        return (
          <li key={cell.freqHz} className="whitespace-nowrap">
            {frequencyText(cell.freqHz)}{' '}
            <span className={look.ink}>
              {look.mark} {look.word}
            </span>
            {cell.route && <span className="ml-1 font-mono">{fixed(cell.route.dbm, 1)} dBm</span>}
          </li>
        );
      })}
    </ul>
  );
}

/** The antenna that feeds an input, by its present name. */
const feederOf = (data: StationData, row: Saved<'guardInputs'>): string =>
  data.antennas.find(({ id }) => id === row.antennaId)?.name ?? row.antennaName;
