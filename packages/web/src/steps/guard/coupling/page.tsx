import { type Saved, updateOf } from '@velvet-reed/contract';
import type { AntennaState, Holding } from '@velvet-reed/core/evidence';
import { friisCoupling, type GuardGraph, TRUSTED_LOSS_DB, wiredTogether } from '@velvet-reed/core/guard';
import {
  fixed,
  frequencyText,
  lengthText,
  listText,
  plain,
  showPower,
  wattsToDbm,
  inDb,
} from '@velvet-reed/core/units';
import { useState } from 'react';
import { Link } from 'react-router';
import { useCouplings } from '../../../data/couplings';
import { judgedGuard, type JudgedGuard } from '@velvet-reed/station/guard/judge';
import { transmitFrequencies } from '@velvet-reed/station/guard/drawing';
import { couplingHolds } from '@velvet-reed/station/guard/evidence';
import { type CouplingAsk, forgetFault, knownCoupling } from '@velvet-reed/station/guard/couplings';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useStationId, useWrite } from '../../../data/station';
import type { PlannedTransmitter } from '@velvet-reed/station/transmitters';
import { Button } from '../../../ui/button';
import { QuickAnswer } from '../../../ui/quick-answer';
import { DeleteButton } from '../../../ui/record-row';
import { Next, Section, Wide } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';
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

/** Couplings of one's own transmitter at every frequency, the closest first; those nobody knows, and what the closest delivers. */
function couplingsOf({ question: { bands }, drawn }: JudgedGuard) {
  const names = new Map(drawn.graph.nodes.map(({ id, name }) => [id, name]));
  const all = bands.flatMap(({ freqHz, graph }) =>
    graph.couplings
      .filter(({ oneWay }) => oneWay !== true)
      .map(({ a, b, loss }) => ({ freqHz, a, b, loss, limitDbm: leastLimit(graph, b) })),
  );
  const known = all.flatMap((one) => (one.loss.db === undefined ? [] : [{ ...one, db: one.loss.db }]));
  return {
    names,
    all,
    closest: [...known].sort((one, other) => one.db - other.db)[0],
    missing: all.length - known.length,
  };
}

/** The lowest limit of what hangs on an antenna without a switch between; undefined: nothing does. */
function leastLimit(graph: GuardGraph, antenna: string): number | undefined {
  const switches = new Set(graph.nodes.flatMap(({ kind, id }) => (kind === 'switch' ? [id] : [])));
  const together = wiredTogether(graph, antenna, switches);
  const limits = graph.nodes.flatMap((node) =>
    node.kind === 'receiver' && together.has(node.id) ? [node.limitDbm] : [],
  );
  return limits.length === 0 ? undefined : Math.min(...limits);
}

function Verdict({ data, plan }: { readonly data: StationData; readonly plan: PlannedTransmitter }) {
  const judged = judgedGuard(data, plan);
  const { names, all, closest, missing } = couplingsOf(judged);
  if (judged.pending > 0)
    return (
      <>
        {judged.pending} {judged.pending === 1 ? 'coupling is' : 'couplings are'} still being computed.{' '}
        <Next>Next: wait for {judged.pending === 1 ? 'it' : 'them'}, or type what was measured.</Next>
      </>
    );
  if (all.length === 0)
    return (
      <>
        The transmitter feeds no antenna, or there is no other, so nothing couples.{' '}
        <Next>Next: draw in Routes which antenna is fed.</Next>
      </>
    );
  const requiredDb = closest?.limitDbm === undefined ? undefined : wattsToDbm(plan.powerW) - closest.limitDbm;
  return (
    <>
      {closest
        ? `${names.get(closest.a) ?? ''} couples most to ${names.get(closest.b) ?? ''}: ${fixed(closest.db, 0)} dB at ${frequencyText(closest.freqHz)}${requiredDb === undefined ? '' : `; its receiver requires ${fixed(requiredDb, 0)} dB`}.`
        : 'No coupling is known yet.'}{' '}
      <Next>
        {missing > 0
          ? `Next: ${missing} of ${all.length} have no figure: lay both antennas on the Plot, or type what was measured.`
          : requiredDb !== undefined && closest && closest.db < requiredDb
            ? 'Next: put a switch between, or move the antennas apart.'
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
  const frequencies = transmitFrequencies(data, plan);
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
                <th scope="col">At {plain(showPower(plan.powerW))}</th>
                <th scope="col">Far field alone, to compare</th>
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
                      plan={plan}
                      limitDbm={leastLimit(drawn.graph, b)}
                      holding={(freqHz) => couplingHolds(one, freqHz, [drawn.stateOf(a), drawn.stateOf(b)])}
                      frequencies={frequencies}
                      antennas={[drawn.stateOf(a), drawn.stateOf(b)]}
                    />
                  )),
                  ...asks.map((ask, i) => (
                    <ComputedRow
                      key={`${a} ${b} ${ask.freqHz} ${i}`}
                      limitDbm={leastLimit(drawn.graph, b)}
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
      <TypeOne data={data} plan={plan} pairs={pairs} names={names} stateOf={drawn.stateOf} />
      <FarField plan={plan} />
    </>
  );
}

/** What a loss leaves at a receiver against its limit; far below it is no matter. */
function Delivered({
  lossDb,
  powerW,
  limitDbm,
}: {
  readonly lossDb: number;
  readonly powerW: number;
  readonly limitDbm: number | undefined;
}) {
  const levelDbm = wattsToDbm(powerW) - lossDb;
  return (
    <>
      <span className="font-mono whitespace-nowrap">{fixed(levelDbm, 1)} dBm</span>
      {limitDbm !== undefined && (
        <span className={`block text-sm ${levelDbm > limitDbm ? 'text-danger' : ''}`}>
          limit {fixed(limitDbm, 0)} dBm: {fixed(wattsToDbm(powerW) - limitDbm, 0)} dB required
        </span>
      )}
    </>
  );
}

function TypedRow({
  coupling,
  from,
  to,
  plan,
  limitDbm,
  holding,
  frequencies,
  antennas,
}: {
  readonly coupling: Saved<'guardCouplings'>;
  readonly from: string;
  readonly to: string;
  readonly plan: PlannedTransmitter;
  readonly limitDbm: number | undefined;
  readonly holding: (freqHz: number) => Holding;
  readonly frequencies: readonly number[];
  readonly antennas: readonly AntennaState[];
}) {
  const { trySave } = useWrite();
  const held = frequencies.filter((freqHz) => holding(freqHz).state !== 'not');
  const refused = frequencies.map(holding).find(({ state }) => state === 'not');
  return (
    <tr>
      <th scope="row" className="text-ink">
        {from}
      </th>
      <td>{to}</td>
      <td className="font-mono">{coupling.freqHz === null ? 'not said' : frequencyText(coupling.freqHz, 4)}</td>
      <td>
        <Value
          strong
          shown={inDb(coupling.lossDb, 1)}
          provenance={{ origin: coupling.origin, formula: 'as entered', source: 'your entry' }}
        />
      </td>
      <td>
        <Delivered lossDb={coupling.lossDb} powerW={plan.powerW} limitDbm={limitDbm} />
      </td>
      <td colSpan={2}>
        <span className={`block text-sm ${refused ? 'text-caution' : 'text-dim'}`}>
          {held.length === 0
            ? 'counts at no transmit frequency'
            : `counts at ${listText(held.map((freqHz) => frequencyText(freqHz)))}`}
          {refused?.state === 'not' ? `: ${refused.reason}` : ''}
        </span>
        {coupling.origin === 'measured' && coupling.takenOn.antennas === undefined && (
          <Button
            look="quiet"
            onClick={() => void trySave([updateOf('guardCouplings', coupling, { takenOn: { antennas } })], 'Noted.')}
          >
            The antennas stand as they stood then
          </Button>
        )}
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
  limitDbm,
}: {
  readonly ask: CouplingAsk;
  readonly limitDbm: number | undefined;
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
  if (!known || !('coupling' in known))
    return (
      <tr>
        {head}
        <td colSpan={4} className={known ? 'text-caution' : 'text-dim'}>
          {!known ? 'being computed…' : 'refusal' in known ? known.refusal : known.fault}{' '}
          {known && 'fault' in known && (
            <Button look="quiet" onClick={() => forgetFault(ask)}>
              Try again
            </Button>
          )}
        </td>
      </tr>
    );
  const { coupling } = known;
  // the least with place and bearing as far off as a builder can hold, less its amplifier
  const countedDb = Math.max(0, Math.min(TRUSTED_LOSS_DB, coupling.safeDb - coupling.amplifierDb));
  const provenance = {
    origin: 'model',
    formula:
      coupling.by === 'wires'
        ? 'both antennas as wires in one moment-method model, the second ending in 50 Ω; the least loss with the second 30 cm and 3° off'
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
        <Value strong shown={inDb(countedDb, 1)} provenance={provenance} />
        <span className="block text-sm">
          {fixed(coupling.lossDb, 1)} dB exactly as laid
          {countedDb === TRUSTED_LOSS_DB ? `; no more than ${TRUSTED_LOSS_DB} dB counts without a test` : ''}
          {coupling.amplifierDb > 0 ? `; its amplifier adds ${fixed(coupling.amplifierDb, 0)} dB` : ''}
        </span>
      </td>
      <td>
        <Delivered lossDb={countedDb} powerW={powerW} limitDbm={limitDbm} />
      </td>
      <td>
        <span className="font-mono text-dim">{fixed(coupling.farFieldLossDb, 1)} dB</span>
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
      return known && 'coupling' in known ? [{ ask, db: known.coupling.safeDb - known.coupling.amplifierDb }] : [];
    })
    .sort((a, b) => a.db - b.db);
  if (!closest) return null;
  return (
    <Section
      title="How sure is the closest?"
      hint={`${closest.ask.sender.name} to ${closest.ask.other.name}, ${frequencyText(closest.ask.freqHz, 4)}`}
    >
      <Button busy={job.busy} onClick={() => job.start(closest.ask)}>
        {job.busy ? 'Computing…' : 'Vary place, bearing, height and ground'}
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
  stateOf,
}: {
  readonly data: StationData;
  readonly stateOf: (node: string) => AntennaState;
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
            takenOn: { antennas: [stateOf(chosen.a), stateOf(chosen.b)] },
          },
        },
        entry('guard', `Coupling ${text}`),
      ],
      'Kept.',
    );
  };
  return (
    <Section
      title="Type a coupling"
      hint="measured counts before the model, the model before assumed; measured without a frequency it counts nowhere"
    >
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
    hint="free space, to compare only: over ground, across polarisation or into a null it may be 30 dB off"
    specs={[
      { name: 'freq', label: 'Frequency', dimension: 'frequency', bareUnit: 'MHz', start: `${plan.freqHz / 1e6} MHz` },
      { name: 'distance', label: 'Distance', dimension: 'length', bareUnit: 'm', start: '25 m' },
      { name: 'send', label: 'Gain of the sender', dimension: 'gain', start: '2.15 dBi' },
      { name: 'hear', label: 'Gain of the other', dimension: 'gain', start: '2.15 dBi' },
      { name: 'size', label: 'Longest extent of either', dimension: 'length', bareUnit: 'm', start: '10 m' },
      { name: 'limit', label: 'Limit of the receiver', dimension: 'level', bareUnit: 'dBm', start: '0 dBm' },
    ]}
    answer={(value) => {
      const found = friisCoupling({
        ...{ freqHz: value('freq'), distanceM: value('distance'), powerW: plan.powerW },
        ...{ transmitGainDbi: value('send'), receiveGainDbi: value('hear'), apertureM: value('size') },
      });
      const overDb = found.receivedDbm - value('limit');
      return (
        <p>
          {fixed(found.pathLossDb, 2)} dB of free space: {fixed(found.receivedDbm, 1)} dBm arrive from{' '}
          {plain(showPower(plan.powerW))} (model), {fixed(Math.abs(overDb), 1)} dB {overDb > 0 ? 'over' : 'below'} the
          limit; the limit is met {lengthText(value('distance') * 10 ** (overDb / 20), 3)} apart. λ/2π is{' '}
          {lengthText(found.reactiveM, 3)}, 2D²/λ {lengthText(found.farFieldM, 3)}
          {found.valid ? '' : ': nearer than that this formula says nothing'}. Let the wire model or a test decide.
        </p>
      );
    }}
  />
);
