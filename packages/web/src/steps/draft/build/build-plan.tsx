import type { Saved } from '@velvet-reed/contract';
import { type BuildStep, stepStates } from '@velvet-reed/core/antenna';
import { useState } from 'react';
import { type GateEvidence, passedGates } from '@velvet-reed/station/gates';
import { entry } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Caution, Section } from '../../../ui/section';

/** What is ticked of a build plan. */
interface Ticks {
  readonly gates: readonly string[];
  readonly done: readonly string[];
}

const ticksOf = (revision: Saved<'revisions'>): Ticks => ({ gates: words(revision.gates), done: words(revision.done) });
const words = (list: readonly (string | undefined)[]): string[] => list.filter((one) => one !== undefined);
const toggle = (list: readonly string[], id: string): string[] =>
  list.includes(id) ? list.filter((one) => one !== id) : [...list, id];

/** Steps with gates: what cannot be undone waits for its test. */
export function BuildPlan({
  revision,
  steps,
  antennaName,
  evidence,
}: {
  readonly revision: Saved<'revisions'>;
  readonly steps: readonly BuildStep[];
  readonly antennaName: string;
  /** What the station holds of the gates. */
  readonly evidence: ReadonlyMap<string, GateEvidence>;
}) {
  const { trySave } = useWrite();
  // a tick shows at once and is taken back when the server refuses it; a saved one remounts this plan by its version
  const [ticked, setTicked] = useState<Ticks>();
  const { gates, done: doneSteps } = ticked ?? ticksOf(revision);
  const passed = passedGates(gates, evidence);
  const states = stepStates(steps, passed, new Set(doneSteps));
  const write = async (ticks: Ticks, story?: string): Promise<void> => {
    setTicked(ticks);
    const saved = await trySave([
      { op: 'update', resource: 'revisions', id: revision.id, version: revision.version, values: { ...ticks } },
      ...(story ? [entry('draft', `${antennaName}: ${story}`)] : []),
    ]);
    if (!saved) setTicked(undefined);
  };
  return (
    <Section title="Build plan" hint="a step that cannot be undone waits for its test">
      <ol className="max-w-3xl list-decimal pl-6">
        {states.map(({ step, open, done, waitingFor }) => (
          <li key={step.id} className="border-b border-rule py-2">
            <label className={`flex min-h-11 items-start gap-3 sm:min-h-0 ${open ? '' : 'text-dim'}`}>
              <input
                type="checkbox"
                className="mt-1"
                checked={done}
                disabled={!open}
                onChange={() => void write({ gates, done: toggle(doneSteps, step.id) })}
              />
              <span>
                {step.text} {step.final && <em className="text-sm text-dim">cannot be undone</em>}
              </span>
            </label>
            {!open && (
              <p className="ml-8 text-sm text-caution">
                Waits for: {waitingFor.map((gate) => gate.question).join(' ')}
              </p>
            )}
            {step.cautions && <Caution of={step.cautions} />}
            {step.gate && (
              <fieldset className="ml-8 mt-1 flex flex-wrap items-center gap-3">
                <legend className="sr-only">Test</legend>
                <label className="flex min-h-11 items-center gap-2 font-semibold sm:min-h-0">
                  <input
                    type="checkbox"
                    checked={passed.has(step.gate.id)}
                    // a measured test is passed on the Bench; here it can only be taken back
                    disabled={
                      !open || evidence.has(step.gate.id) || (step.gate.measured && !gates.includes(step.gate.id))
                    }
                    onChange={() =>
                      step.gate &&
                      void write(
                        { gates: toggle(gates, step.gate.id), done: doneSteps },
                        gates.includes(step.gate.id)
                          ? `test taken back: ${step.gate.question}`
                          : `test passed: ${step.gate.question}`,
                      )
                    }
                  />
                  {step.gate.question}
                </label>
                {evidence.has(step.gate.id) ? (
                  <span className={`text-sm ${passed.has(step.gate.id) ? 'text-dim' : 'text-danger'}`}>
                    {evidence.get(step.gate.id)?.sentence}
                  </span>
                ) : (
                  !passed.has(step.gate.id) && (
                    <span className="text-sm text-dim">
                      {step.gate.measured ? 'Passed on the Bench, by three positions. ' : ''}If not:{' '}
                      {step.gate.otherwise}
                    </span>
                  )
                )}
              </fieldset>
            )}
          </li>
        ))}
      </ol>
    </Section>
  );
}
