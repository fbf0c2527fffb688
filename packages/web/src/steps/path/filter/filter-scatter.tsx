import { Announced } from '../../../ui/announced';
import type { FilterQuestion } from '@velvet-reed/core/filter';
import { fixed } from '@velvet-reed/core/units';
import { Button } from '../../../ui/button';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';
import { useJob } from '../../../workers/use-job';

/** What scatter of the parts does to a filter: ten thousand of them, drawn in the worker. */
export function FilterScatter({ question }: { readonly question: FilterQuestion }) {
  const typed = useTypedNumbers([
    { name: 'coil', label: 'Coils within ±, %', dimension: 'plain', start: '5' },
    { name: 'capacitor', label: 'Capacitors within ±, %', dimension: 'plain', start: '5' },
  ]);
  const { start, answer: found, ...state } = useJob('yield');
  const [coil, capacitor] = [typed.value('coil'), typed.value('capacitor')];
  return (
    <div className="my-3">
      <h3 className="font-semibold">Scatter of the parts</h3>
      <div className="flex flex-wrap items-end gap-3">
        <TypedFields of={typed} />
        <Button
          busy={state.busy}
          disabled={coil === undefined || capacitor === undefined}
          onClick={() => {
            if (coil === undefined || capacitor === undefined) return;
            start({ question, tolerance: { coil: coil / 100, capacitor: capacitor / 100 } });
          }}
        >
          {state.busy ? 'Drawing 100,000 filters…' : 'Build 100,000 of them'}
        </Button>
      </div>
      {state.fault && (
        <p role="alert" className="mt-1 text-danger">
          {state.fault}
        </p>
      )}
      {found && (
        <Announced className="mt-1 max-w-prose">
          <Value
            strong
            shown={{ digits: fixed(100 * found.yieldShare, 1), unit: '%' }}
            provenance={{
              origin: 'model',
              formula: 'share of filters that meet every goal, parts uniform within their tolerance, seed 1',
              source: `Monte Carlo of ${found.samples} filters${state.ms === undefined ? '' : `, ${fixed(state.ms, 0)} ms`}`,
            }}
          />{' '}
          meet every goal
          {found.weakest
            ? `; the weakest is ${found.weakest.name}, missed by ${fixed(100 * found.weakest.missShare, 1)} %`
            : ''}
          . All parts high: {found.allHigh ? 'holds' : 'fails'}; all low: {found.allLow ? 'holds' : 'fails'}.
        </Announced>
      )}
    </div>
  );
}
