import { type Saved, SCHEMAS, updateOf, type Values } from '@velvet-reed/contract';
import { holdsFor } from '@velvet-reed/core/evidence';
import { checkedPad, testAgainstModel } from '@velvet-reed/core/guard';
import { capital, countText, fixed, frequencyText, plain, showPower, wattsToDbm } from '@velvet-reed/core/units';
import { useState } from 'react';
import { toast } from 'sonner';
import { useSearchParams } from 'react-router';
import { judgedGuard } from '@velvet-reed/station/guard/judge';
import { inputNode, transmitFrequencies } from '@velvet-reed/station/guard/drawing';
import { judgedTest, testEvidence } from '@velvet-reed/station/guard/evidence';
import { plug, readInstrument, useInstruments } from '../../../data/instruments';
import { entry, type StationData } from '@velvet-reed/station/record';
import { showTrouble, useWrite } from '../../../data/station';
import type { PlannedTransmitter } from '@velvet-reed/station/transmitters';
import { Announced } from '../../../ui/announced';
import { Button } from '../../../ui/button';
import { Disclosure } from '../../../ui/disclosure';
import { QuickAnswer } from '../../../ui/quick-answer';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { DeleteButton } from '../../../ui/record-row';
import { Next, Wide } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { GuardRoom } from '../guard-room';

export default function PowerTestRoom() {
  return (
    <StationPage>
      {(data) => (
        <GuardRoom data={data} title="Stepwise test, Guard" verdict={(plan) => <Verdict data={data} plan={plan} />}>
          {(plan) => <PowerTests key={plan.id} data={data} plan={plan} />}
        </GuardRoom>
      )}
    </StationPage>
  );
}

const testsOf = (data: StationData, plan: PlannedTransmitter): readonly Saved<'powerTests'>[] =>
  data.powerTests.filter(({ guardPlanId }) => guardPlanId === plan.id);

function useShownTest(data: StationData, plan: PlannedTransmitter) {
  const [params, setParams] = useSearchParams();
  const tests = testsOf(data, plan);
  return {
    tests,
    test: tests.find(({ id }) => id === Number(params.get('test'))) ?? tests.at(-1),
    show: (id: number) => setParams({ plan: String(plan.id), test: String(id) }),
  };
}

function Verdict({ data, plan }: { readonly data: StationData; readonly plan: PlannedTransmitter }) {
  const { test } = useShownTest(data, plan);
  if (!test)
    return (
      <>
        Nothing of this station was tested with power yet.{' '}
        <Next>Next: choose a receiver input, put a pad before it, and begin with the dummy load.</Next>
      </>
    );
  const { judged } = judgedTest(data, test, plan);
  const { loss, atFullDbm = 0, atFullMostDbm = 0, allowedW } = judged;
  const beyond = loss && plan.powerW > 4 * loss.upToW * (1 + 1e-9);
  const stop = judged.next.state === 'stop' || judged.next.state === 'ask';
  return (
    <>
      {loss && loss.rungs >= 2 ? (
        <>
          {fixed(loss.db, 1)} dB lie between the transmitter and this input (95 % {fixed(loss.lowDb, 1)} to{' '}
          {fixed(loss.highDb, 1)}, measured at {frequencyText(test.freqHz, 4)} up to {plain(showPower(loss.upToW))}):{' '}
          {beyond ? 'forecast ' : ''}
          {fixed(atFullDbm, 1)} dBm, {fixed(atFullMostDbm, 1)} at most, at {plain(showPower(plan.powerW))}
          {allowedW !== undefined && allowedW < plan.powerW
            ? `; the margin is surely kept up to ${plain(showPower(allowedW))}`
            : ''}
          .
        </>
      ) : (
        `${capital(countText(judged.rungs.length, 'step'))} so far.`
      )}{' '}
      <Next>
        <span className={stop ? 'text-danger' : ''}>{judged.next.sentence}</span>
      </Next>
    </>
  );
}

function PowerTests({ data, plan }: { readonly data: StationData; readonly plan: PlannedTransmitter }) {
  const { tests, test, show } = useShownTest(data, plan);
  return (
    <>
      {test ? (
        <Running key={test.id} data={data} plan={plan} test={test} />
      ) : (
        <div data-evidence className="grid min-h-44 place-items-center border border-dashed border-dim p-6">
          <Empty>
            Dummy load first, pad in place, lowest power: each step says what the next should show, and when to stop.
          </Empty>
        </div>
      )}
      {tests.length > 1 && (
        <label className="mb-3 block text-sm text-dim">
          Test
          <select className="ml-2 text-ink" value={test?.id} onChange={(event) => show(Number(event.target.value))}>
            {tests.map(({ id, atMs, guardInputId }) => (
              <option key={id} value={id}>
                {data.guardInputs.find((one) => one.id === guardInputId)?.name ?? 'deleted input'},{' '}
                {new Date(atMs).toISOString().slice(0, 16).replace('T', ' ')}
              </option>
            ))}
          </select>
        </label>
      )}
      <Begin data={data} plan={plan} first={tests.length === 0} onMade={show} />
      <div className="h-6" />
      <PadCheck />
    </>
  );
}

const FIELDS: readonly FieldSpec[] = [
  { name: 'freqHz', label: 'Frequency', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
  { name: 'lowestW', label: 'Lowest power of the transmitter', kind: 'quantity', dimension: 'power', bareUnit: 'W' },
  {
    ...{ name: 'attenuatorDb', label: 'Pad before the receiver', kind: 'quantity', dimension: 'gain' },
    hint: 'check it below first',
  },
  {
    ...{
      name: 'backgroundDbm',
      label: 'Reading into the dummy load',
      kind: 'quantity',
      dimension: 'level',
      bareUnit: 'dBm',
    },
    hint: 'lowest power into the dummy: what leaks without any antenna',
  },
  {
    name: 'conditions',
    label: 'Positions and switches',
    kind: 'text',
    hint: 'what stood where; it holds for that only',
  },
];

function Begin({
  data,
  plan,
  first,
  onMade,
}: {
  readonly data: StationData;
  readonly plan: PlannedTransmitter;
  readonly first: boolean;
  readonly onMade: (id: number) => void;
}) {
  const { save } = useWrite();
  const inputs = data.guardInputs.filter(({ guardPlanId }) => guardPlanId === plan.id);
  const [inputId, setInputId] = useState(inputs[0]?.id);
  const { proof, drawn } = judgedGuard(data, plan);
  // the model's expectation at a frequency, where every step of the route has a figure
  const expectedAt = (freqHz: number): number | null => {
    const down = proof.bands
      .find((band) => band.freqHz === freqHz)
      ?.cells.find(
        ({ receiver, state }) => inputId !== undefined && receiver === inputNode(inputId) && state.kind === 'key down',
      );
    return down?.route?.steps.every(({ footing }) => footing === 'model' || footing === 'measured')
      ? wattsToDbm(plan.powerW) - down.route.dbm
      : null;
  };
  const expected = expectedAt(plan.freqHz);
  const frequencies = transmitFrequencies(data, plan);
  // the first frequency that no test of this input was made at comes first
  const openHz =
    frequencies.find(
      (hz) =>
        !data.powerTests.some(
          (one) =>
            one.guardInputId === inputId &&
            Math.abs(one.freqHz / hz - 1) < 0.001 &&
            data.powerRungs.some(({ powerTestId }) => powerTestId === one.id),
        ),
    ) ?? plan.freqHz;
  if (inputs.length === 0) return <p className="text-sm text-dim">Enter a receiver input in Inputs first.</p>;
  return (
    <Disclosure label={first ? 'Begin a test' : 'Begin another test'} look={first ? 'main' : 'plain'}>
      {(close) => (
        <>
          <label className="mb-2 block text-sm text-dim">
            Receiver input
            <select
              className="mt-1 block text-ink"
              value={inputId}
              onChange={(event) => setInputId(Number(event.target.value))}
            >
              {inputs.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          </label>
          <RecordForm
            fields={FIELDS}
            schema={SCHEMAS.powerTests}
            key={inputId}
            fixed={{ guardPlanId: plan.id, guardInputId: inputId, expectedLossDb: null, atMs: 0 }}
            start={{
              ...{ freqHz: `${openHz / 1e6} MHz`, lowestW: '0.5 W', attenuatorDb: '40 dB' },
              ...{ backgroundDbm: '', conditions: '' },
            }}
            submit="Begin"
            onCancel={close}
            onSave={async (values) => {
              const input = inputs.find(({ id }) => id === inputId);
              const made: Values<'powerTests'> = SCHEMAS.powerTests.cast({
                ...{ ...values, atMs: Date.now(), expectedLossDb: expectedAt(values.freqHz) },
                // what it is taken on: it holds for that only
                takenOn: input ? drawn.scopeOf(input) : {},
              });
              const [id] = await save([{ op: 'create', resource: 'powerTests', values: made }], 'The test has begun.');
              onMade(id);
              close();
            }}
          />
          {expected !== null && (
            <p className="mt-1 text-sm text-dim">
              The model expects {fixed(expected, 0)} dB on this way at {frequencyText(plan.freqHz)}; it may be 15 dB
              off.
            </p>
          )}
        </>
      )}
    </Disclosure>
  );
}

/** Steps so far, and the next one: large enough for a phone beside the transmitter. */
function Running({
  data,
  plan,
  test,
}: {
  readonly data: StationData;
  readonly plan: PlannedTransmitter;
  readonly test: Saved<'powerTests'>;
}) {
  const { trySave } = useWrite();
  const { rungs, judged } = judgedTest(data, test, plan);
  const { next, loss } = judged;
  const input = data.guardInputs.find(({ id }) => id === test.guardInputId);
  const suggestedW = next.state === 'go' ? next.powerW : undefined;
  const add = async (powerW: number, readingDbm: number): Promise<void> => {
    await trySave([
      {
        ...{ op: 'create', resource: 'powerRungs' },
        values: { powerTestId: test.id, round: rungs.length, powerW, readingDbm },
      },
    ]);
  };
  const last = rungs.at(-1);
  return (
    <div data-evidence className="mb-6">
      <p className="mb-2">
        <strong>{input?.name ?? 'deleted input'}</strong> at {frequencyText(test.freqHz, 4)}, pad{' '}
        {fixed(test.attenuatorDb, 0)} dB, limit {fixed(input?.limitDbm ?? 0, 0)} dBm less{' '}
        {fixed(plan.marginToKeepDb, 0)} dB <DeleteButton resource="powerTests" record={test} name="this test" />
      </p>
      <Announced className="mb-3 border-l-4 border-plum pl-3 text-lg">
        <p className={next.state === 'stop' || next.state === 'ask' ? 'text-danger' : ''}>{next.sentence}</p>
        {next.state === 'ask' && last && (
          <div className="mt-2 flex flex-wrap gap-3">
            <Button
              look="main"
              onClick={() =>
                void trySave([
                  {
                    ...{ op: 'update', resource: 'powerRungs', id: last.id, version: last.version },
                    values: { readingDbm: Number(next.meantDbm.toFixed(2)) },
                  },
                ])
              }
            >
              {fixed(next.meantDbm, 1)} dBm was meant
            </Button>
            <DeleteButton resource="powerRungs" record={last} name="the last step" />
          </div>
        )}
      </Announced>
      {next.state === 'go' && suggestedW !== undefined && (
        <NextStep key={rungs.length} test={test} suggestedW={suggestedW} onAdd={add} />
      )}
      {judged.rungs.length > 0 && (
        <Wide label="Steps of the test">
          <table className="w-full max-w-3xl">
            <thead>
              <tr>
                <th scope="col">Power</th>
                <th scope="col">Reading</th>
                <th scope="col">Loss</th>
                <th scope="col">without the pad</th>
                <th scope="col">Remark</th>
              </tr>
            </thead>
            <tbody>
              {judged.rungs.map((rung, i) => (
                <tr key={rungs[i].id}>
                  <th scope="row" className="font-mono text-ink">
                    {plain(showPower(rung.powerW))}
                  </th>
                  <td className="font-mono">{fixed(rung.readingDbm, 1)} dBm</td>
                  <td className="font-mono">{rung.lossDb === undefined ? '–' : `${fixed(rung.lossDb, 1)} dB`}</td>
                  <td className="font-mono">
                    {rung.lossDb === undefined ? 'under ' : ''}
                    {fixed(rung.inputDbm, 1)} dBm
                  </td>
                  <td className={rung.remark ? 'text-caution' : ''}>{rung.remark ?? 'on the line'}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
      <Standing data={data} plan={plan} test={test} />
      {loss && loss.rungs >= 2 && (
        <p className="mt-2 max-w-prose">
          Without the pad {fixed(judged.atFullDbm ?? 0, 1)} dBm at {plain(showPower(plan.powerW))}, at most{' '}
          {fixed(judged.atFullMostDbm ?? 0, 1)} dBm
          {judged.allowedW === undefined || judged.allowedMiddleW === undefined
            ? ''
            : `; ${plain(showPower(judged.allowedW))} surely keep the margin (by the lower end of the loss; ${plain(showPower(judged.allowedMiddleW))} by its middle)`}
          . It holds at {frequencyText(test.freqHz, 4)}, up to {plain(showPower(loss.upToW))} (to{' '}
          {plain(showPower(4 * loss.upToW))} with 1 dB more doubt), and for these antennas and parts as they stood.
          {test.expectedLossDb !== null && <> {testAgainstModel(loss.db, test.expectedLossDb).sentence}</>}{' '}
          <Button
            look="quiet"
            onClick={() =>
              void trySave(
                [
                  entry(
                    'guard',
                    `Stepwise test of ${input?.name ?? ''}: ${fixed(loss.db, 1)} dB (${fixed(loss.lowDb, 1)} to ${fixed(loss.highDb, 1)}) at ${frequencyText(test.freqHz)}, ${judged.rungs.length} steps. ${next.sentence}`,
                  ),
                ],
                'Added to the notebook.',
              )
            }
          >
            Note this
          </Button>
        </p>
      )}
    </div>
  );
}

/** Whether the test still speaks for the station as it is drawn; a test of an earlier release is asked what it was taken on. */
function Standing({
  data,
  plan,
  test,
}: {
  readonly data: StationData;
  readonly plan: PlannedTransmitter;
  readonly test: Saved<'powerTests'>;
}) {
  const { trySave } = useWrite();
  const input = data.guardInputs.find(({ id }) => id === test.guardInputId);
  const evidence = testEvidence(test, judgedTest(data, test, plan).judged);
  if (!input || !evidence) return null;
  const now = judgedGuard(data, plan).drawn.scopeOf(input);
  const holding = holdsFor(evidence, now);
  if (holding.state === 'covers') return null;
  const unsaid = test.takenOn.parts === undefined;
  return (
    <p className="mt-2 max-w-prose text-caution">
      {holding.state === 'stretched'
        ? `It is stretched: ${holding.because}.`
        : `It does not hold for the station as it is drawn: ${holding.reason}.`}{' '}
      {unsaid ? (
        <Button
          look="quiet"
          onClick={() =>
            void trySave(
              [
                updateOf('powerTests', test, { takenOn: now }),
                entry('guard', `${input.name}: the station stands as it stood at the stepwise test.`),
              ],
              'Noted.',
            )
          }
        >
          The station stands as it stood then
        </Button>
      ) : (
        'Where the state returns it holds again; else repeat it.'
      )}
    </p>
  );
}

function NextStep({
  test,
  suggestedW,
  onAdd,
}: {
  readonly test: Saved<'powerTests'>;
  readonly suggestedW: number;
  readonly onAdd: (powerW: number, readingDbm: number) => Promise<void>;
}) {
  const { data: instruments } = useInstruments();
  const [busy, setBusy] = useState(false);
  const typed = useTypedNumbers([
    {
      name: 'power',
      label: 'Power',
      dimension: 'power',
      bareUnit: 'W',
      start: `${Number(suggestedW.toPrecision(3))} W`,
    },
    {
      name: 'reading',
      label: 'Reading behind the pad',
      dimension: 'level',
      bareUnit: 'dBm',
      start: '',
      optional: true,
    },
  ]);
  const [powerW, readingDbm] = [typed.value('power'), typed.value('reading')];
  const meters = (instruments ?? []).filter(({ kind }) => kind === 'power-meter');
  const tooMuch = powerW !== undefined && powerW > suggestedW * 1.02;
  const read = async (id: string, standIn: boolean): Promise<void> => {
    if (powerW === undefined) return;
    setBusy(true);
    try {
      if (standIn) await plug(id, { transmit: { powerW, padDb: test.attenuatorDb } });
      const { value, told } = await readInstrument(id, { what: 'power', freqHz: test.freqHz });
      await onAdd(powerW, value);
      if (told !== '') toast.info(told);
    } catch (error) {
      showTrouble(error);
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className="mb-4">
      <TypedFields of={typed}>
        <Button
          look="main"
          disabled={powerW === undefined || readingDbm === undefined}
          onClick={() => powerW !== undefined && readingDbm !== undefined && void onAdd(powerW, readingDbm)}
        >
          Log this step
        </Button>
        {meters.map(({ id, standIn }) => (
          <Button
            key={id}
            busy={busy}
            disabled={powerW === undefined || tooMuch}
            onClick={() => void read(id, standIn)}
          >
            {standIn ? 'Read the stand-in power meter' : `Read ${id}`}
          </Button>
        ))}
      </TypedFields>
      {tooMuch && (
        <p role="alert" className="mt-1 text-danger">
          More than {plain(showPower(suggestedW))} is not the next step: what comes then is not known yet. A step that
          was taken already can still be logged.
        </p>
      )}
    </div>
  );
}

/** The pad by a steady signal, before it is trusted. */
const PadCheck = () => (
  <QuickAnswer
    title="Is the pad what it says?"
    hint="a steady station or generator, read with and without it"
    specs={[
      { name: 'stated', label: 'Pad as stated', dimension: 'gain', start: '40 dB' },
      { name: 'without', label: 'Reading without it', dimension: 'level', bareUnit: 'dBm', start: '' },
      { name: 'with', label: 'Reading with it', dimension: 'level', bareUnit: 'dBm', start: '' },
    ]}
    answer={(value) => {
      const found = checkedPad(value('stated'), value('without'), value('with'));
      return <p className={found.agrees ? '' : 'text-danger'}>{found.sentence}</p>;
    }}
  />
);
