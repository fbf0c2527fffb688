import { Announced } from '../../../ui/announced';
import { type Design, trimmedWires } from '@velvet-reed/core/antenna';
import { CoreError } from '@velvet-reed/core/errors';
import { learnFromTrim, planTrims, type TrimPlan } from '@velvet-reed/core/sweep';
import { fixed } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Button } from '../../../ui/button';
import { Section, Wide } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers, type KeptTexts, type TypedNumbers, type TypedSpec } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';
import { useJob } from '../../../workers/use-job';

const MOST_WIRES = 4;

/** Fields of a number of wires: the test cut of each, what it moved on every dip, and how far each dip has to go. */
const specs = (wires: number): readonly TypedSpec[] => [
  ...Array.from({ length: wires }, (_, wire): TypedSpec[] => [
    { name: `cut${wire}`, label: `Test cut off wire ${wire + 1}`, dimension: 'length', bareUnit: 'cm', start: '' },
    ...Array.from({ length: wires }, (__, dip): TypedSpec => ({
      name: `moved${wire}-${dip}`,
      label: `which moved dip ${dip + 1} by (wire ${wire + 1})`,
      dimension: 'frequency',
      bareUnit: 'kHz',
      start: '',
    })),
  ]).flat(),
  ...Array.from({ length: wires }, (_, dip): TypedSpec => ({
    name: `need${dip}`,
    label: `Dip ${dip + 1} must now rise by`,
    dimension: 'frequency',
    bareUnit: 'kHz',
    start: '',
  })),
];

/** Several wires that pull each other, solved together: sensitivities from the model first, from test cuts, and better with every cut measured. */
export function WiresTogether({
  design,
  groundId,
  kept,
}: {
  readonly design: Design | undefined;
  readonly groundId: string;
  readonly kept?: KeptTexts | undefined;
}) {
  const own = design && trimmedWires(design);
  const [picked, setPicked] = useState<number>();
  const wires = picked ?? (Number(kept?.texts[COUNT]) || (own?.ids.length ?? 2));
  return (
    <Section title="Wires that pull each other" hint="one test cut of each wire, or the model; then all cuts at once">
      <Solve
        key={wires}
        wires={wires}
        design={own?.ids.length === wires ? design : undefined}
        groundId={groundId}
        kept={kept}
      />
      <label className="text-sm text-dim">
        Wires
        <select
          className="ml-2 text-ink"
          value={wires}
          onChange={(event) => {
            setPicked(Number(event.target.value));
            kept?.keep({ [COUNT]: event.target.value });
          }}
        >
          {Array.from({ length: MOST_WIRES - 1 }, (_, i) => (
            <option key={i} value={i + 2}>
              {i + 2}
            </option>
          ))}
        </select>
      </label>
    </Section>
  );
}

/** Fields of the record beside the typed numbers: how many wires, and whose sensitivities they are. */
const COUNT = 'count';
const ORIGIN = 'origin';

/** A cut of one centimetre, in whose terms sensitivities are shown. */
const TRIAL_M = 0.01;
const kiloText = (hz: number): string => `${Number((hz / 1000).toPrecision(4))} kHz`;

function Solve({
  wires,
  design,
  groundId,
  kept,
}: {
  readonly wires: number;
  readonly design: Design | undefined;
  readonly groundId: string;
  readonly kept: KeptTexts | undefined;
}) {
  const typed = useTypedNumbers(specs(wires), kept);
  const [latest, setLatest] = useState<keyof typeof ORIGINS>();
  const was = kept?.texts[ORIGIN];
  const origin = latest ?? (was === 'model' || was === 'learned' ? was : 'typed');
  const setOrigin = (now: keyof typeof ORIGINS): void => {
    setLatest(now);
    kept?.keep({ [ORIGIN]: now });
  };
  const { plan, naive, fault } = solved(typed, wires);
  /** Writes sensitivities as what a cut of one centimetre does. */
  const showSensitivities = (jacobian: readonly (readonly number[])[]): void =>
    jacobian.forEach((row, dip) =>
      row.forEach((value, wire) => {
        typed.set(`cut${wire}`, '1 cm');
        typed.set(`moved${wire}-${dip}`, kiloText(-value * TRIAL_M));
      }),
    );
  return (
    <div className="mt-2">
      <Pulls wires={wires} typed={typed} plan={plan} origin={origin} />
      {design && (
        <FromModel
          design={design}
          groundId={groundId}
          onFound={(jacobian) => {
            showSensitivities(jacobian);
            setOrigin('model');
          }}
        />
      )}
      <TypedFields of={typed} />
      {origin !== 'typed' && (
        <p className="mt-1 text-sm text-dim">
          {origin === 'model'
            ? 'These sensitivities come from the wire model of the draft; each cut that you measure mends them.'
            : 'These sensitivities are mended by the cuts that you measured; what the dips still need is counted down.'}
        </p>
      )}
      {fault && (
        <p role="alert" className="mt-1 text-danger">
          {fault}
        </p>
      )}
      {plan && naive && (
        <Announced className="mt-3">
          <ul className="list-disc pl-5" aria-label="Cuts">
            {plan.changeCutOnlyM.map((change, i) => (
              <li key={i}>
                Wire {i + 1}: cut{' '}
                <Value
                  strong
                  shown={{ digits: fixed(-change * 100, 1), unit: 'cm' }}
                  provenance={{
                    origin: 'measured',
                    formula: 'least squares of J·x = needed shifts, cuts only',
                    inputs: plan.jacobian.map(
                      (row, dip) =>
                        [`dip ${dip + 1}`, row.map((value) => `${fixed(value / 1e5, 1)} kHz/cm`).join(', ')] as const,
                    ),
                    source: 'your test cuts',
                  }}
                />{' '}
                more, the test cuts not counted; take half of it, then measure again.
              </li>
            ))}
          </ul>
          <p className="mt-1 text-sm text-dim">
            Each wire by its own dip alone would be cut{' '}
            {naive.cutsM.map((cut) => `${fixed(cut * 100, 1)} cm`).join(' and ')}
            and end {naive.shiftsHz.map((shift) => `+${fixed(shift / 1000, 0)} kHz`).join(' and ')}: past the target.
          </p>
          <Learn
            wires={wires}
            onCut={(cutsM, shiftsHz) => {
              showSensitivities(
                learnFromTrim(
                  plan.jacobian,
                  cutsM.map((cut) => -cut),
                  shiftsHz,
                ),
              );
              shiftsHz.forEach((shift, dip) =>
                typed.set(`need${dip}`, kiloText((typed.value(`need${dip}`) ?? 0) - shift)),
              );
              setOrigin('learned');
            }}
          />
        </Announced>
      )}
    </div>
  );
}

/** Whose sensitivities they are. */
const ORIGINS = { typed: 'measured', model: 'model', learned: 'measured' } as const;

/** Every wire's pull on every dip, what each dip still needs, and the cuts that serve all of them. */
function Pulls({
  wires,
  typed,
  plan,
  origin,
}: {
  readonly wires: number;
  readonly typed: TypedNumbers;
  readonly plan: TrimPlan | undefined;
  readonly origin: keyof typeof ORIGINS;
}) {
  const each = Array.from({ length: wires }, (_, i) => i);
  const pull = (wire: number, dip: number): string => {
    const [cut, moved] = [typed.value(`cut${wire}`), typed.value(`moved${wire}-${dip}`)];
    return cut === undefined || moved === undefined || cut === 0 ? '–' : fixed(moved / 1000 / (cut * 100), 1);
  };
  return (
    <Wide evidence label="Pull of every wire on every dip">
      <table className="mb-3">
        <caption className="text-left text-sm text-dim">
          What one centimetre off a wire does to each dip, kHz ({ORIGINS[origin]}); – is still to be entered.
        </caption>
        <thead>
          <tr>
            <th scope="col">Cut</th>
            {each.map((dip) => (
              <th key={dip} scope="col">
                dip {dip + 1}
              </th>
            ))}
            <th scope="col">cut still, cm</th>
          </tr>
        </thead>
        <tbody>
          {each.map((wire) => (
            <tr key={wire}>
              <th scope="row" className="text-ink">
                1 cm off wire {wire + 1}
              </th>
              {each.map((dip) => (
                <td key={dip} className="font-mono">
                  {pull(wire, dip)}
                </td>
              ))}
              <td className="font-mono">{plan ? fixed(-plan.changeCutOnlyM[wire] * 100, 1) : '–'}</td>
            </tr>
          ))}
          <tr>
            <th scope="row" className="text-ink">
              must rise by, kHz
            </th>
            {each.map((dip) => {
              const need = typed.value(`need${dip}`);
              return (
                <td key={dip} className="font-mono">
                  {need === undefined ? '–' : fixed(need / 1000, 0)}
                </td>
              );
            })}
            <td />
          </tr>
        </tbody>
      </table>
    </Wide>
  );
}

/** Sensitivities by the wire model, computed in the worker. */
function FromModel({
  design,
  groundId,
  onFound,
}: {
  readonly design: Design;
  readonly groundId: string;
  readonly onFound: (jacobian: readonly (readonly number[])[]) => void;
}) {
  const { start, ...state } = useJob('sensitivities', ({ jacobian }) => onFound(jacobian));
  return (
    <div className="my-2">
      <Button busy={state.busy} onClick={() => start({ design, groundId })}>
        {state.busy ? 'Solving the wires…' : 'Take the sensitivities from the model'}
      </Button>
      {state.fault && (
        <p role="alert" className="mt-1 text-danger">
          {state.fault}
        </p>
      )}
    </div>
  );
}

/** A cut that was made and what it did: mends the sensitivities and counts the needs down. */
function Learn({
  wires,
  onCut,
}: {
  readonly wires: number;
  readonly onCut: (cutsM: readonly number[], shiftsHz: readonly number[]) => void;
}) {
  const each = Array.from({ length: wires }, (_, i) => i);
  const typed = useTypedNumbers([
    ...each.map((wire): TypedSpec => ({
      name: `done${wire}`,
      label: `Cut now off wire ${wire + 1}`,
      dimension: 'length',
      bareUnit: 'cm',
      start: '0 cm',
    })),
    ...each.map((dip): TypedSpec => ({
      name: `rose${dip}`,
      label: `dip ${dip + 1} then rose by`,
      dimension: 'frequency',
      bareUnit: 'kHz',
      start: '',
    })),
  ]);
  const values = (name: string): readonly number[] => each.flatMap((i) => typed.value(`${name}${i}`) ?? []);
  const [cuts, shifts] = [values('done'), values('rose')];
  const ready = cuts.length === wires && shifts.length === wires && cuts.some((cut) => cut > 0);
  return (
    <div className="mt-3 border-l-2 border-rule pl-4">
      <p className="text-sm text-dim">After a cut, measured:</p>
      <TypedFields of={typed} />
      <Button
        className="mt-2"
        disabled={!ready}
        onClick={() => {
          onCut(cuts, shifts);
          each.forEach((i) => {
            typed.set(`done${i}`, '0 cm');
            typed.set(`rose${i}`, '');
          });
        }}
      >
        Learn from this cut
      </Button>
    </div>
  );
}

interface Naive {
  readonly cutsM: readonly number[];
  readonly shiftsHz: readonly number[];
}

function solved(
  typed: ReturnType<typeof useTypedNumbers>,
  wires: number,
): { readonly plan?: TrimPlan; readonly naive?: Naive; readonly fault?: string } {
  if (!typed.sound) return {};
  const value = (name: string): number => typed.value(name) ?? 0;
  const each = Array.from({ length: wires }, (_, i) => i);
  try {
    // shifts are what counts: the dips themselves may stand at nought
    const plan = planTrims(
      each.map(() => 0),
      each.map((wire) => ({ changeM: -value(`cut${wire}`), freqsHz: each.map((dip) => value(`moved${wire}-${dip}`)) })),
      each.map((dip) => value(`need${dip}`)),
    );
    const cutsM = each.map((i) => value(`need${i}`) / -plan.jacobian[i][i]);
    const shiftsHz = each.map((dip) => each.reduce((sum, wire) => sum - plan.jacobian[dip][wire] * cutsM[wire], 0));
    return { plan, naive: { cutsM, shiftsHz } };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { fault: error.message };
  }
}
