import type { Saved } from '@velvet-reed/contract';
import { friisCoupling } from '@velvet-reed/core/guard';
import { fixed, frequencyText, lengthText } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Link } from 'react-router';
import { type CouplingAsk, knownCoupling, useCouplings } from '../../../data/couplings';
import { judgedGuard } from '../../../data/guard';
import { entry, useStationId, useWrite, type StationData } from '../../../data/station';
import type { PlannedTransmitter } from '../../../data/transmitters';
import { Button } from '../../../ui/button';
import { QuickAnswer } from '../../../ui/quick-answer';
import { DeleteButton } from '../../../ui/record-row';
import { Next, Section, Wide } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { inDb, Value } from '../../../ui/value';
import { useJob } from '../../../workers/use-job';
import { GuardRoom } from '../guard-room';

export default function CouplingRoom() {
  return (
    <StationPage>
      {(data) => (
        <GuardRoom data={data} title="Coupling, Guard" verdict={(plan) => <Verdict data={data} plan={plan} />}>
          {(plan) => <Couplings key={plan.id} data={data} plan={plan} />}
        </GuardRoom>
      )}
    </StationPage>
  );
}

function Verdict({ data, plan }: { readonly data: StationData; readonly plan: PlannedTransmitter }) {
  const { drawn } = judgedGuard(data, plan);
  const names = new Map(drawn.graph.nodes.map(({ id, name }) => [id, name]));
  const own = drawn.graph.couplings.filter(({ a }) => !a.startsWith('away:'));
  const known = own.flatMap(({ a, b, loss }) => (loss.db === undefined ? [] : [{ a, b, db: loss.db }]));
  const [closest] = [...known].sort((one, other) => one.db - other.db);
  const missing = own.length - known.length;
  if (own.length === 0)
    return (
      <>
        No antenna hangs behind the transmitter and none elsewhere, so nothing couples.{' '}
        <Next>Next: draw in Routes which antenna is fed.</Next>
      </>
    );
  return (
    <>
      {closest
        ? `${names.get(closest.b) ?? ''} hands on most: ${fixed(closest.db, 0)} dB below what goes into ${names.get(closest.a) ?? ''}.`
        : 'No coupling is known yet.'}{' '}
      <Next>
        {missing > 0
          ? `Next: ${missing} ${missing === 1 ? 'pair has' : 'pairs have'} no figure: lay both antennas on the Plot, or type what was measured.`
          : 'Next: prove the closest by the stepwise test.'}
      </Next>
    </>
  );
}

function Couplings({ data, plan }: { readonly data: StationData; readonly plan: PlannedTransmitter }) {
  const stationId = useStationId();
  const { drawn } = judgedGuard(data, plan);
  const coming = useCouplings([...drawn.asks.values()].flat());
  const names = new Map(drawn.graph.nodes.map(({ id, name }) => [id, name]));
  const pairs = drawn.graph.couplings.filter(({ a }) => !a.startsWith('away:'));
  const typed = data.guardCouplings.filter(({ guardPlanId }) => guardPlanId === plan.id);
  return (
    <>
      {pairs.length === 0 ? (
        <div data-evidence className="grid min-h-44 place-items-center border border-dashed border-dim p-6">
          <Empty>
            Draw in <Link to={`/s/${stationId}/guard/routes?plan=${plan.id}`}>Routes</Link> which antenna the
            transmitter feeds.
          </Empty>
        </div>
      ) : (
        <Wide evidence label="Couplings">
          <table className="w-full max-w-5xl">
            <thead>
              <tr>
                <th scope="col">From</th>
                <th scope="col">To</th>
                <th scope="col">Frequency</th>
                <th scope="col">Loss into 50 Ω</th>
                <th scope="col">at best match</th>
                <th scope="col">Far field alone</th>
                <th scope="col">Open feed at {fixed(plan.powerW, 0)} W</th>
              </tr>
            </thead>
            <tbody>
              {pairs.flatMap(({ a, b }) => {
                const asks = drawn.asks.get(`${a} ${b}`) ?? [];
                const own = typed.filter(
                  ({ aNode, bNode }) => [aNode, bNode].includes(a) && [aNode, bNode].includes(b),
                );
                return [
                  ...own.map((one) => (
                    <TypedRow
                      key={`typed ${one.id}`}
                      coupling={one}
                      from={names.get(a) ?? ''}
                      to={names.get(b) ?? ''}
                    />
                  )),
                  ...asks.map((ask) => (
                    <ComputedRow
                      key={`${a} ${b} ${ask.freqHz}`}
                      ask={ask}
                      from={names.get(a) ?? ''}
                      to={names.get(b) ?? ''}
                      powerW={plan.powerW}
                    />
                  )),
                  ...(asks.length === 0 && own.length === 0
                    ? [
                        <tr key={`${a} ${b}`}>
                          <th scope="row" className="text-ink">
                            {names.get(a)}
                          </th>
                          <td>{names.get(b)}</td>
                          <td colSpan={5} className="text-caution">
                            not known: lay both on the <Link to={`/s/${stationId}/plot/plan`}>Plot</Link>, or type it
                            below
                          </td>
                        </tr>,
                      ]
                    : []),
                ];
              })}
            </tbody>
          </table>
        </Wide>
      )}
      <div className="h-5" />
      {coming > 0 && (
        <p role="status" className="text-sm text-dim">
          {coming} still being computed.
        </p>
      )}
      <Sensitivity asks={[...drawn.asks.values()].flat()} />
      <TypeOne data={data} plan={plan} pairs={pairs} names={names} />
      <FarField plan={plan} />
    </>
  );
}

function TypedRow({
  coupling,
  from,
  to,
}: {
  readonly coupling: Saved<'guardCouplings'>;
  readonly from: string;
  readonly to: string;
}) {
  return (
    <tr>
      <th scope="row" className="text-ink">
        {from}
      </th>
      <td>{to}</td>
      <td className="font-mono">{coupling.freqHz === null ? 'any' : frequencyText(coupling.freqHz, 4)}</td>
      <td>
        <Value
          strong
          shown={inDb(coupling.lossDb, 1)}
          provenance={{ origin: coupling.origin, formula: 'as entered', source: 'your entry' }}
        />
      </td>
      <td colSpan={3}>
        <DeleteButton resource="guardCouplings" record={coupling} name={`coupling of ${from} and ${to}`} />
      </td>
    </tr>
  );
}

function ComputedRow({
  ask,
  from,
  to,
  powerW,
}: {
  readonly ask: CouplingAsk;
  readonly from: string;
  readonly to: string;
  readonly powerW: number;
}) {
  const known = knownCoupling(ask);
  const head = (
    <>
      <th scope="row" className="text-ink">
        {from}
      </th>
      <td>{to}</td>
      <td className="font-mono whitespace-nowrap">{frequencyText(ask.freqHz, 4)}</td>
    </>
  );
  if (!known || 'fault' in known)
    return (
      <tr>
        {head}
        <td colSpan={4} className={known ? 'text-caution' : 'text-dim'}>
          {known ? known.fault : 'being computed…'}
        </td>
      </tr>
    );
  const { coupling } = known;
  const provenance = {
    origin: 'model',
    formula:
      coupling.by === 'wires'
        ? 'both antennas as wires in one moment-method model, the second ending in 50 Ω'
        : 'near field at its place times the gain of its kind',
    inputs: [
      ['distance', lengthText(coupling.distanceM, 3)],
      ['ground', ask.groundId],
    ],
    source: 'heights and bearings as laid on the Plot; feed lines, towers and houses are not in it',
  } as const;
  return (
    <tr>
      {head}
      <td>
        <Value strong shown={inDb(coupling.lossDb, 1)} provenance={provenance} />
        {coupling.amplifierDb > 0 && (
          <span className="block text-sm">its amplifier adds {fixed(coupling.amplifierDb, 0)} dB</span>
        )}
      </td>
      <td className="font-mono">{coupling.leastLossDb === undefined ? '–' : `${fixed(coupling.leastLossDb, 1)} dB`}</td>
      <td className={coupling.farFieldHolds ? '' : 'text-caution'}>
        <span className="font-mono">{fixed(coupling.farFieldLossDb, 1)} dB</span>
        {!coupling.farFieldHolds && (
          <span className="block text-sm">
            does not hold: {lengthText(coupling.distanceM, 2)} apart, λ/2π is {lengthText(coupling.reactiveM, 2)}, 2D²/λ{' '}
            {lengthText(coupling.farFieldM, 2)}
          </span>
        )}
      </td>
      <td className="font-mono">
        {coupling.openVoltsPerRootWatt === undefined
          ? '–'
          : `${(coupling.openVoltsPerRootWatt * Math.sqrt(powerW)).toPrecision(2)} V peak`}
      </td>
    </tr>
  );
}

/** How far the closest coupling moves with height and ground. */
function Sensitivity({ asks }: { readonly asks: readonly CouplingAsk[] }) {
  const job = useJob('couplingRanges');
  const [closest] = asks
    .flatMap((ask) => {
      const known = knownCoupling(ask);
      return known && 'coupling' in known ? [{ ask, db: known.coupling.lossDb - known.coupling.amplifierDb }] : [];
    })
    .sort((a, b) => a.db - b.db);
  if (!closest) return null;
  return (
    <Section
      title="How sure is the closest?"
      hint={`${closest.ask.sender.name} to ${closest.ask.other.name}, ${frequencyText(closest.ask.freqHz, 4)}`}
    >
      <Button busy={job.busy} onClick={() => job.start(closest.ask)}>
        {job.busy ? 'Computing…' : 'Vary height and ground'}
      </Button>
      {job.fault && (
        <p role="alert" className="mt-1 text-danger">
          {job.fault}
        </p>
      )}
      {job.answer && (
        <ul className="mt-2 list-disc pl-5" role="status">
          {job.answer.map(({ because, lowDb, highDb }) => (
            <li key={because}>
              With {because}: {fixed(lowDb, 1)} to {fixed(highDb, 1)} dB (model).
            </li>
          ))}
        </ul>
      )}
    </Section>
  );
}

/** A coupling that was measured, or is taken for now. */
function TypeOne({
  data,
  plan,
  pairs,
  names,
}: {
  readonly data: StationData;
  readonly plan: PlannedTransmitter;
  readonly pairs: readonly { readonly a: string; readonly b: string }[];
  readonly names: ReadonlyMap<string, string>;
}) {
  const { trySave } = useWrite();
  const [pair, setPair] = useState('');
  const [origin, setOrigin] = useState<Saved<'guardCouplings'>['origin']>('measured');
  const typed = useTypedNumbers([
    { name: 'loss', label: 'Loss', dimension: 'gain', start: '' },
    { name: 'freq', label: 'Frequency', dimension: 'frequency', bareUnit: 'MHz', start: '', optional: true },
  ]);
  const lossDb = typed.value('loss');
  const chosen = pairs.find(({ a, b }) => `${a} ${b}` === pair) ?? pairs[0];
  if (!chosen) return null;
  const keep = async (): Promise<void> => {
    if (lossDb === undefined) return;
    const text = `${names.get(chosen.a) ?? ''} to ${names.get(chosen.b) ?? ''}: ${fixed(lossDb, 1)} dB, ${origin}.`;
    await trySave(
      [
        {
          ...{ op: 'create', resource: 'guardCouplings' },
          values: {
            ...{ guardPlanId: plan.id, aNode: chosen.a, bNode: chosen.b, lossDb: Math.abs(lossDb), origin },
            freqHz: typed.value('freq') ?? null,
          },
        },
        entry('guard', `Coupling ${text}`),
      ],
      'Kept.',
    );
  };
  return (
    <Section title="Type a coupling" hint="what was measured counts before the model; the model before what is assumed">
      <TypedFields of={typed}>
        <label className="max-w-full min-w-0 text-sm text-dim">
          Antennas
          <select
            className="mt-1 block w-full max-w-72 text-ink"
            value={pair}
            onChange={(event) => setPair(event.target.value)}
          >
            {pairs.map(({ a, b }) => (
              <option key={`${a} ${b}`} value={`${a} ${b}`}>
                {names.get(a)} to {names.get(b)}
              </option>
            ))}
          </select>
        </label>
        <label className="text-sm text-dim">
          It is
          <select
            className="mt-1 block text-ink"
            value={origin}
            onChange={(event) => setOrigin(event.target.value === 'assumed' ? 'assumed' : 'measured')}
          >
            <option value="measured">measured</option>
            <option value="assumed">assumed</option>
          </select>
        </label>
        <Button disabled={!typed.sound || data.guardPlans.length === 0} onClick={() => void keep()}>
          Keep it
        </Button>
      </TypedFields>
    </Section>
  );
}

/** Friis by itself, for a first look before anything is laid. */
const FarField = ({ plan }: { readonly plan: PlannedTransmitter }) => (
  <QuickAnswer
    title="By the far field alone"
    hint="free space; what a first look may use, and where it may not"
    specs={[
      { name: 'freq', label: 'Frequency', dimension: 'frequency', bareUnit: 'MHz', start: `${plan.freqHz / 1e6} MHz` },
      { name: 'distance', label: 'Distance', dimension: 'length', bareUnit: 'm', start: '25 m' },
      { name: 'send', label: 'Gain of the sender', dimension: 'gain', start: '2.15 dBi' },
      { name: 'hear', label: 'Gain of the other', dimension: 'gain', start: '2.15 dBi' },
      { name: 'size', label: 'Longest extent of either', dimension: 'length', bareUnit: 'm', start: '10 m' },
    ]}
    answer={(value) => {
      const found = friisCoupling({
        ...{ freqHz: value('freq'), distanceM: value('distance'), powerW: plan.powerW },
        ...{ transmitGainDbi: value('send'), receiveGainDbi: value('hear'), apertureM: value('size') },
      });
      return (
        <p className={found.valid ? '' : 'text-caution'}>
          {fixed(found.pathLossDb, 2)} dB of free space: {fixed(found.receivedDbm, 1)} dBm arrive from{' '}
          {fixed(plan.powerW, 0)} W (model). λ/2π is {lengthText(found.reactiveM, 3)}, 2D²/λ{' '}
          {lengthText(found.farFieldM, 3)}
          {found.valid ? '.' : ': at this distance it does not hold; let the wire model compute it.'}
        </p>
      );
    }}
  />
);
