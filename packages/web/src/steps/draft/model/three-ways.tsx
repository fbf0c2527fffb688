import { antennaKind, type Design } from '@velvet-reed/core/antenna';
import { frequencyText, showFrequency } from '@velvet-reed/core/units';
import type { ModelState } from '../../../data/model';
import { Value } from '../../../ui/value';
import { modelDip, modelProvenance } from '../model-figures';

/** Resonance as closed form, model and measurement have it; none overwrites another. */
export function ThreeWays({
  design,
  state,
  measuredHz,
}: {
  readonly design: Design;
  readonly state: ModelState;
  readonly measuredHz?: number | undefined;
}) {
  const kind = antennaKind(design.kind);
  const dip = state.sweep && modelDip(state.sweep);
  const off = (freqHz: number): string => {
    const share = 100 * (freqHz / design.freqHz - 1);
    return `${share < 0 ? '−' : '+'}${Math.abs(share).toFixed(1)} % against the target`;
  };
  const set = kind.trim && design.dimensions[kind.trim.id] !== undefined;
  return (
    <dl className="mb-4 grid max-w-2xl grid-cols-[auto_1fr] gap-x-6 gap-y-1">
      <dt className="text-dim">Closed form</dt>
      <dd>
        {set ? (
          'its length is set by hand or by the model, see the formula beside it'
        ) : (
          <Value
            shown={showFrequency(design.freqHz, 4)}
            provenance={{
              origin: 'model',
              formula: 'length by closed form for this frequency',
              source: 'see the figures below',
            }}
          />
        )}
      </dd>
      <dt className="text-dim">Model</dt>
      <dd>
        {dip ? (
          <>
            <Value
              strong
              shown={showFrequency(dip.freqHz, 4)}
              provenance={modelProvenance(state, 'deepest reflection of the modelled sweep')}
            />{' '}
            <span className="text-sm">
              {off(dip.freqHz)}
              {dip.zeroReactanceHz !== undefined && `; X = 0 at ${frequencyText(dip.zeroReactanceHz, 4)}`}
            </span>
          </>
        ) : state.busy ? (
          'computing…'
        ) : (
          'no dip inside this band'
        )}
      </dd>
      <dt className="text-dim">Measured</dt>
      <dd>
        {measuredHz === undefined ? (
          <span className="text-dim">not yet: the Bench keeps it</span>
        ) : (
          <>
            <Value
              strong
              shown={showFrequency(measuredHz, 4)}
              provenance={{ origin: 'measured', formula: 'deepest reflection of your latest sweep', source: 'Bench' }}
            />{' '}
            <span className="text-sm">
              {off(measuredHz)}
              {dip &&
                `, ${frequencyText(Math.abs(measuredHz - dip.freqHz), 2)} ${measuredHz < dip.freqHz ? 'below' : 'above'} the model`}
            </span>
          </>
        )}
      </dd>
    </dl>
  );
}
