import { CAUTIONS } from '@velvet-reed/core/antenna';
import { exposureFieldVPerM, insideNearField } from '@velvet-reed/core/guard';
import { DIPOLE_GAIN_DBI, plain, showPower, significant } from '@velvet-reed/core/units';
import type { PlannedTransmitter } from '../../data/transmitters';
import { Note } from '../../ui/stage';
import { Value } from '../../ui/value';

/** Distance at which the exposure reminder is worked out. */
const REMINDER_M = 10;

export function Margin({ plan }: { readonly plan: PlannedTransmitter }) {
  const field = exposureFieldVPerM(plan.powerW, DIPOLE_GAIN_DBI, REMINDER_M);
  return (
    <>
      <Note title="Every antenna counts">
        <p>
          An antenna without a disconnect is red whatever its level: coupling changes with band, weather and tuning.
        </p>
      </Note>
      <Note title="People">
        <p>
          {REMINDER_M} m from a half-wave dipole:{' '}
          <Value
            shown={{ digits: significant(field, 2), unit: 'V/m' }}
            provenance={{
              origin: 'model',
              formula: '√(30·P·G)/d, far field',
              inputs: [
                ['power', plain(showPower(plan.powerW))],
                ['gain', '2.15 dBi'],
                ['distance', '10 m'],
              ],
              source: 'free space; near field and local limits decide',
            }}
          />
          <br />
          {insideNearField(REMINDER_M, plan.freqHz) && (
            <span className="text-caution">
              {REMINDER_M} m lies inside the near field (λ/2π) at this frequency: the far-field figure does not hold
              there and fields can be stronger.{' '}
            </span>
          )}
          {CAUTIONS.exposure}
        </p>
      </Note>
      <Note title="Storms">
        <p>{CAUTIONS.lightning}</p>
      </Note>
    </>
  );
}
