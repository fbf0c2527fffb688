import { CoreError, fixed, lengthText, planTrims, type TrimPlan } from '@velvet-reed/core';
import { useState } from 'react';
import { Section } from '../../ui/stage';
import { TypedFields } from '../../ui/typed-numbers';
import { useTypedNumbers, type TypedSpec } from '../../ui/use-typed-numbers';
import { Value } from '../../ui/value';

const MOST_WIRES = 4;

/** Fields of a number of wires: the test cut of each, what it moved on every dip, and how far each dip has to go. */
const specs = (wires: number): readonly TypedSpec[] => [
  ...Array.from({ length: wires }, (_, wire): TypedSpec[] => [
    { name: `cut${wire}`, label: `Test cut off wire ${wire + 1}`, dimension: 'length', bareUnit: 'cm', start: '' },
    ...Array.from({ length: wires }, (__, dip): TypedSpec => ({
      name: `moved${wire}-${dip}`,
      label: `moved dip ${dip + 1} by`,
      dimension: 'frequency',
      bareUnit: 'kHz',
      start: '',
    })),
  ]).flat(),
  ...Array.from({ length: wires }, (_, dip): TypedSpec => ({
    name: `need${dip}`,
    label: `Dip ${dip + 1} must rise by`,
    dimension: 'frequency',
    bareUnit: 'kHz',
    start: '',
  })),
];

/** Several wires that pull each other, solved together from one test cut of each. */
export function WiresTogether() {
  const [wires, setWires] = useState(2);
  return (
    <Section title="Wires that pull each other" hint="one test cut of each wire, then all cuts at once">
      <label className="text-sm text-dim">
        Wires
        <select className="ml-2 text-ink" value={wires} onChange={(event) => setWires(Number(event.target.value))}>
          {Array.from({ length: MOST_WIRES - 1 }, (_, i) => (
            <option key={i} value={i + 2}>
              {i + 2}
            </option>
          ))}
        </select>
      </label>
      <Solve key={wires} wires={wires} />
    </Section>
  );
}

function Solve({ wires }: { readonly wires: number }) {
  const typed = useTypedNumbers(specs(wires));
  const { plan, naive, fault } = solved(typed, wires);
  return (
    <div className="mt-2">
      <TypedFields of={typed} />
      {fault && (
        <p role="alert" className="mt-1 text-danger">
          {fault}
        </p>
      )}
      {plan && naive && (
        <div role="status" className="mt-3">
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
                in all; take half, then measure again.
              </li>
            ))}
          </ul>
          <p className="mt-1 text-sm text-dim">
            Each wire by its own dip alone would be cut {naive.cutsM.map((cut) => lengthText(cut, 3)).join(' and ')} and
            end {naive.shiftsHz.map((shift) => `+${fixed(shift / 1000, 0)} kHz`).join(' and ')}: past the target.
          </p>
        </div>
      )}
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
