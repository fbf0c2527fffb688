import { Announced } from '../../../ui/announced';
import { antennaKind, type Design } from '@velvet-reed/core/antenna';
import type { AsBuilt, AsBuiltFit, AsBuiltValue, FeedLine } from '@velvet-reed/core/sweep';
import { fixed } from '@velvet-reed/core/units';
import { useState } from 'react';
import { entry } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { Section } from '../../../ui/section';
import { Value } from '../../../ui/value';
import { useJob } from '../../../workers/use-job';
import type { LoadedSweep } from '@velvet-reed/station/bench/loaded-sweep';

/** Which length, height, velocity factor or ground makes the draft's model agree with a sweep. */
export function AsBuiltPanel({
  loaded,
  design,
  groundId,
  line,
  antennaName,
}: {
  readonly loaded: readonly LoadedSweep[];
  readonly design: Design;
  readonly groundId: string;
  readonly line: FeedLine;
  readonly antennaName: string;
}) {
  const { trySave } = useWrite();
  const [id, setId] = useState(0);
  const [through, setThrough] = useState(true);
  const { start, stop, answer: result, ...state } = useJob('fit');
  const usable = loaded.filter(({ header }) => header.phaseKnown);
  if (usable.length === 0 || !antennaKind(design.kind).model) return null;
  const one = usable.find(({ header }) => header.id === id) ?? usable[usable.length - 1];
  return (
    <Section title="As built" hint="what makes the draft’s model agree with the measurement">
      <div className="flex flex-wrap items-center gap-3">
        <label className="text-sm text-dim">
          Sweep
          <select
            className="ml-2 text-ink"
            value={one.header.id}
            onChange={(event) => setId(Number(event.target.value))}
          >
            {usable.map(({ header }) => (
              <option key={header.id} value={header.id}>
                {header.name}
              </option>
            ))}
          </select>
        </label>
        <label className="flex min-h-11 items-center gap-2 sm:min-h-0">
          <input type="checkbox" checked={through} onChange={(event) => setThrough(event.target.checked)} />
          measured through the station’s line ({fixed(line.lengthM, 0)} m)
        </label>
        <Button
          look="main"
          busy={state.busy}
          onClick={() => {
            start({ design, sweep: one.sweep, ...(through ? { line } : {}), groundId });
          }}
        >
          {state.busy ? `Fitting, ${state.step?.done ?? 0} models…` : 'Fit the model'}
        </Button>
        {state.busy && <Button onClick={stop}>Cancel</Button>}
      </div>
      {state.fault && (
        <p role="alert" className="mt-1 text-danger">
          {state.fault}
        </p>
      )}
      {result && (
        <Announced className="mt-2">
          <p>{result.sentence}</p>
          <ul className="list-disc pl-5" aria-label="Fits">
            {shownFits(result).map((fit) => (
              <li key={fit.values.map((value) => value.id).join()}>
                <FitLine fit={fit} />
              </li>
            ))}
          </ul>
          <Button
            className="mt-1"
            onClick={() =>
              void trySave(
                [entry('bench', `${antennaName}, as built: ${result?.sentence}`)],
                'Written into the notebook.',
              )
            }
          >
            Write this into the notebook
          </Button>
        </Announced>
      )}
    </Section>
  );
}

/** Fits that leave this many times more than the best explain nothing. */
const HOPELESS = 6;
const shownFits = ({ fits }: AsBuilt): readonly AsBuiltFit[] =>
  fits.filter((fit) => fit.left <= HOPELESS * Math.max(fits[0].left, 0.005)).slice(0, 4);

const NAMES: Readonly<Record<AsBuiltValue['id'], string>> = {
  length: 'wires',
  height: 'height',
  velocity: 'velocity factor',
  ground: 'ground conductivity',
};

/** A value with its interval, as a person says it: percent longer, metres higher, times as conductive. */
function told({ id, value, low, high }: AsBuiltValue): { readonly digits: string; readonly unit: string } {
  if (id === 'height')
    return {
      digits: `${value < 0 ? '−' : '+'}${fixed(Math.abs(value), 2)} ± ${fixed((high - low) / 2, 2)}`,
      unit: 'm',
    };
  if (high / low > 50 || !Number.isFinite(high)) return { digits: 'not decided', unit: '' };
  if (id === 'ground') return { digits: `${fixed(value, 1)} (${fixed(low, 1)} to ${fixed(high, 1)})`, unit: 'times' };
  const percent = 100 * (value - 1);
  return {
    digits: `${percent < 0 ? '−' : '+'}${fixed(Math.abs(percent), 2)} ± ${fixed(Math.max(0.01, 50 * (high - low)), 2)}`,
    unit: '%',
  };
}

function FitLine({ fit }: { readonly fit: AsBuiltFit }) {
  return (
    <>
      {fit.values.map((value, i) => (
        <span key={value.id}>
          {i > 0 ? ' and ' : ''}
          {NAMES[value.id]}{' '}
          <Value
            shown={told(value)}
            provenance={{
              origin: 'model',
              formula: 'least squares of Γ at the analyser over 13 frequencies around the dip, 95 % interval',
              source: 'wire model of the draft against your sweep',
            }}
          />
        </span>
      ))}
      : leaves {fixed(fit.left, 3)} in |Γ|
    </>
  );
}
