import {
  badness,
  type Cell,
  cheapestMending,
  COLOUR_WORDS,
  COLOURS,
  type GuardProof,
  type Offer,
} from '@velvet-reed/core/guard';
import { fixed, frequencyText, listText } from '@velvet-reed/core/units';
import { useMemo, useState } from 'react';
import { useCouplings } from '../../../data/couplings';
import { judgedGuard, type JudgedGuard } from '@velvet-reed/station/guard/judge';
import { entry, type StationData } from '@velvet-reed/station/record';
import { showTrouble, useWrite } from '../../../data/station';
import type { PlannedTransmitter } from '@velvet-reed/station/transmitters';
import { Button } from '../../../ui/button';
import { Section, Wide } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { GuardRoom } from '../guard-room';
import { saidGuard } from '@velvet-reed/station/guard/said';
import { SaidVerdict } from '../../../ui/said';
import { MissingFigures } from '../missing-figures';
import { lookOf, STATE } from '../guard-state';
import { snrCostOf } from './snr-cost';

export default function StatesRoom() {
  return (
    <StationPage>
      {(data) => (
        <GuardRoom
          data={data}
          title="States, Guard"
          verdict={(plan) => <SaidVerdict said={saidGuard(judgedGuard(data, plan))} />}
        >
          {(plan) => <States key={plan.id} data={data} plan={plan} />}
        </GuardRoom>
      )}
    </StationPage>
  );
}

function States({ data, plan }: { readonly data: StationData; readonly plan: PlannedTransmitter }) {
  const judged = judgedGuard(data, plan);
  useCouplings([...judged.drawn.asks.values()].flat());
  const { proof } = judged;
  const [chosen, setChosen] = useState<string>();
  const [printing, setPrinting] = useState(false);
  const print = async (): Promise<void> => {
    setPrinting(true);
    try {
      const { saveCard } = await import('./card-pdf');
      await saveCard(data, plan);
    } catch (error) {
      showTrouble(error);
    } finally {
      setPrinting(false);
    }
  };
  const key = ({ receiver, state }: Cell): string => `${receiver} ${state.id}`;
  const [bandHz, setBandHz] = useState<number>();
  const bands = proof.bands.filter(({ cells }) => cells.some(({ state }) => state.kind === 'key down'));
  // a storm and a neighbour have no frequency of one's own: they stand in every band
  const cells =
    bands
      .find(({ freqHz }) => freqHz === bandHz)
      ?.cells.concat(proof.cells.filter(({ state }) => state.kind === 'neighbour on')) ?? proof.cells;
  const shown = cells.find((cell) => key(cell) === chosen) ?? [...cells].sort((a, b) => badness(b) - badness(a))[0];
  if (proof.receivers.length === 0) return null;
  return (
    <>
      <MissingFigures proof={proof} planId={plan.id} />
      <Wide evidence label="Every receiver in every state">
        <table className="w-full max-w-4xl">
          <thead>
            <tr>
              <th scope="col">State</th>
              {proof.receivers.map(({ id, name }) => (
                <th key={id} scope="col">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {proof.states.map((state) => (
              <tr key={state.id}>
                <th scope="row" className="text-ink">
                  {state.name}
                </th>
                {proof.receivers.map(({ id, name }) => {
                  const cell = cells.find((one) => one.receiver === id && one.state.id === state.id);
                  if (!cell) return <td key={id} />;
                  const look = lookOf(cell);
                  return (
                    <td key={id} className={shown === cell ? 'bg-paper outline-2 outline-plum' : ''}>
                      <button
                        type="button"
                        aria-pressed={shown === cell}
                        aria-label={`${name}, ${state.name}: ${look.word}. Show why`}
                        className={`w-full text-left whitespace-nowrap ${look.ink}`}
                        onClick={() => setChosen(key(cell))}
                      >
                        {look.mark} {look.word}
                        {cell.route && (
                          <span className="ml-2 font-mono text-sm text-ink">{fixed(cell.route.dbm, 0)} dBm</span>
                        )}
                      </button>
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      {bands.length > 1 && (
        <label className="mt-2 block text-sm text-dim">
          Frequency
          <select
            className="ml-2 text-ink"
            value={bandHz ?? ''}
            onChange={(event) => setBandHz(event.target.value === '' ? undefined : Number(event.target.value))}
          >
            <option value="">the worst of all</option>
            {bands.map(({ freqHz }) => (
              <option key={freqHz} value={freqHz}>
                {frequencyText(freqHz)}
              </option>
            ))}
          </select>
        </label>
      )}
      <div className="h-5" />
      {shown && <Why cell={shown} proof={proof} />}
      <Cheapest data={data} plan={plan} judged={judged} />
      <Button className="mb-4" busy={printing} onClick={() => void print()}>
        Card for the shack (PDF)
      </Button>
      <p className="max-w-prose text-sm text-dim">
        {COLOURS.map((colour) => `${STATE[colour].mark} ${COLOUR_WORDS[colour]}`).join(', ')}. Proven: by what was
        measured alone, whatever else is. Computed: with the wire model’s couplings too. Assumed: with figures that were
        typed. Nothing here is a permission: local codes, makers’ manuals and licensed people decide.
      </p>
    </>
  );
}

const figureText = (lossDb: number, footing: string): string =>
  lossDb < 0 ? `gain ${fixed(-lossDb, 1)} dB, ${footing}` : `${fixed(lossDb, 1)} dB, ${footing}`;

/** The route of a cell, step by step. */
function Why({ cell, proof }: { readonly cell: Cell; readonly proof: GuardProof }) {
  const receiver = proof.receivers.find(({ id }) => id === cell.receiver);
  return (
    <Section title={`${receiver?.name ?? ''}: ${cell.state.name}`}>
      <p className={`max-w-prose ${lookOf(cell).ink}`}>{cell.sentence}</p>
      {cell.route && cell.route.steps.length > 0 && (
        <ol className="mt-1 list-decimal pl-6 text-sm">
          {cell.route.steps.map(({ name, lossDb, footing, because, dbm }, i) => (
            <li key={`${i} ${name}`}>
              {name}: {footing === 'unknown' ? 'no figure, counted as no loss' : figureText(lossDb, footing)}
              {because === undefined ? '' : ` (${because})`}, {fixed(dbm, 1)} dBm behind it
            </li>
          ))}
        </ol>
      )}
    </Section>
  );
}

/** Parts that could be bought, by usual figures and prices of the trade; assumed, common practice, no source. */
const OFFERS: readonly Offer[] = [
  { kind: 'switch', name: 'a relay on the key line that rests open', price: 40, lossDb: 0.2, isolationDb: 60 },
  { kind: 'switch', name: 'two such relays in a row', price: 80, lossDb: 0.4, isolationDb: 90 },
  { kind: 'limiter', name: 'a limiter of +10 dBm', price: 25, lossDb: 0.5, leakDbm: 10, surviveDbm: 33 },
  { kind: 'limiter', name: 'a limiter of 0 dBm', price: 35, lossDb: 0.8, leakDbm: 0, surviveDbm: 30 },
  { kind: 'limiter', name: 'a limiter of −10 dBm', price: 45, lossDb: 1.2, leakDbm: -10, surviveDbm: 27 },
  { kind: 'filter', name: 'a filter that stops the transmit band by 50 dB', price: 60, lossDb: 1, stopDb: 50 },
];

/** What turns everything green at the least price. */
function Cheapest({
  data,
  plan,
  judged,
}: {
  readonly data: StationData;
  readonly plan: PlannedTransmitter;
  readonly judged: JudgedGuard;
}) {
  const { trySave } = useWrite();
  const cost = useMemo(() => snrCostOf(data), [data]);
  const mending = useMemo(
    () => (judged.pending > 0 ? undefined : cheapestMending(judged.question, OFFERS, cost)),
    [judged, cost],
  );
  if (judged.pending > 0 || (mending && mending.changes.length === 0)) return null;
  const text =
    mending &&
    `${mending.changes.map(({ sentence }) => sentence).join('; ')}: about ${mending.price} in money${mending.snrCostDb >= 0.05 ? `, ${fixed(mending.snrCostDb, 1)} dB of SNR where it hurts most` : ', no SNR to speak of'}. Then: ${mending.proof.sentence}`;
  return (
    <Section
      title="The cheapest change"
      hint="typical parts with typical prices (assumed), up to three changes together"
    >
      {text ? (
        <>
          <p className="max-w-prose">{text.charAt(0).toUpperCase() + text.slice(1)}</p>
          <Button
            look="quiet"
            className="mt-1"
            onClick={() => void trySave([entry('guard', `${plan.name}: ${text}`)], 'Added to the notebook.')}
          >
            Note this in the Notebook
          </Button>
        </>
      ) : (
        <p className="max-w-prose">
          {judged.proof.missing.length > 0
            ? `First the missing figures: ${listText(judged.proof.missing.slice(0, 3).map(({ name }) => `“${name}”`))}. Without them no change can be judged.`
            : 'No three changes of this kind are enough. Lower the power, or disconnect by hand and say so in Routes.'}
        </p>
      )}
    </Section>
  );
}
