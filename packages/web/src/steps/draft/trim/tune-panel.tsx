import {
  antennaKind,
  type Design,
  type DesignGoals,
  knownDimensions,
  parametersInUse,
} from '@velvet-reed/core/antenna';
import { frequencyText } from '@velvet-reed/core/units';
import { useState } from 'react';
import type { FocusBand } from '../../../data/focus';
import { Button } from '../../../ui/button';
import { Section } from '../../../ui/section';
import { useJob } from '../../../workers/use-job';

/** Lets the model trim itself to resonance, or chosen dimensions to goals; can be stopped at any time. */
export function TunePanel({
  design,
  groundId,
  band,
  onDesign,
}: {
  readonly design: Design;
  readonly groundId: string;
  readonly band: FocusBand;
  readonly onDesign: (design: Design) => void;
}) {
  const kind = antennaKind(design.kind);
  const trim = useJob('trim', onDesign);
  const optimise = useJob('optimise', onDesign);
  const [latest, setLatest] = useState<'trim' | 'optimise'>('trim');
  const { step, fault: trouble } = latest === 'trim' ? trim : optimise;
  const running = trim.busy || optimise.busy ? latest : undefined;
  const [goals, setGoals] = useState({ swr: true, gain: false, frontToBack: false });
  const changeable = parametersInUse(kind.parameters, knownDimensions(design)).filter(
    (one) => !one.whole && one.dimension === 'length' && one.id !== 'heightM',
  );
  const [ids, setIds] = useState<readonly string[]>(() => changeable.slice(0, 2).map((one) => one.id));

  const ask = (what: 'trim' | 'optimise'): void => {
    setLatest(what);
    if (what === 'trim') trim.start({ design, groundId });
    else {
      const asked: DesignGoals = {
        ...band,
        swrWeight: goals.swr ? 1 : 0,
        gainWeight: goals.gain ? 1 : 0,
        frontToBackWeight: goals.frontToBack ? 0.5 : 0,
        elevationDeg: groundId === 'free' ? 0 : 20,
      };
      optimise.start({ design, groundId, ids, goals: asked });
    }
  };
  const stop = (): void => {
    trim.stop();
    optimise.stop();
    // what was found until now is not lost
    if (step) onDesign(step.design);
  };
  return (
    <Section title="Let the model trim it" hint="the present dimensions are the start; save to keep the result">
      <div className="flex flex-wrap items-center gap-3">
        {kind.trim && (
          <Button onClick={() => ask('trim')} busy={running !== undefined}>
            Trim {kind.trim.name} to {frequencyText(design.freqHz)}
          </Button>
        )}
        {running && (
          <>
            <Button look="danger" onClick={stop}>
              Stop
            </Button>
            <span role="status" className="text-sm text-dim">
              {step ? `${step.evaluations} trials` : 'starting…'}
            </span>
          </>
        )}
      </div>
      {changeable.length > 0 && (
        <details className="mt-3">
          <summary className="text-plum">Optimise for goals</summary>
          <fieldset className="mt-2 flex flex-wrap gap-4">
            <legend className="text-sm text-dim">Goals</legend>
            {(
              [
                ['swr', `SWR over ${frequencyText(band.lowHz)} to ${frequencyText(band.highHz)}`],
                ['gain', 'gain forward'],
                ['frontToBack', 'front to back'],
              ] as const
            ).map(([id, label]) => (
              <label key={id} className="flex items-center gap-2">
                <input
                  type="checkbox"
                  checked={goals[id]}
                  onChange={(event) => setGoals({ ...goals, [id]: event.target.checked })}
                />
                {label}
              </label>
            ))}
          </fieldset>
          <fieldset className="mt-2 flex flex-wrap gap-4">
            <legend className="text-sm text-dim">May change</legend>
            {changeable.map((one) => (
              <label key={one.id} className="flex items-center gap-2">
                <input
                  type="checkbox"
                  checked={ids.includes(one.id)}
                  onChange={() => setIds(ids.includes(one.id) ? ids.filter((id) => id !== one.id) : [...ids, one.id])}
                />
                {one.label.toLowerCase()}
              </label>
            ))}
          </fieldset>
          <Button
            className="mt-2"
            onClick={() => ask('optimise')}
            disabled={running !== undefined || ids.length === 0 || !(goals.swr || goals.gain || goals.frontToBack)}
          >
            Optimise
          </Button>
        </details>
      )}
      {trouble && (
        <p role="alert" className="mt-2 max-w-prose text-danger">
          {trouble}
        </p>
      )}
    </Section>
  );
}
