import { exposureFieldVPerM, insideNearField } from '@velvet-reed/core/guard';
import { DIPOLE_GAIN_DBI, plain, showPower, significant } from '@velvet-reed/core/units';
import type { PlannedTransmitter } from '../../../data/transmitters';
import { Caution, Next, Wide } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { Value } from '../../../ui/value';
import { GuardRoom } from '../guard-room';

/** Distances at which the field is told, m. */
const DISTANCES_M = [2, 5, 10, 20, 50];

export default function PeopleRoom() {
  return (
    <StationPage>
      {(data) => (
        <GuardRoom
          data={data}
          title="People, Guard"
          verdict={(plan) => (
            <>
              10 m from a half-wave dipole with {plain(showPower(plan.powerW))} the far-field formula gives{' '}
              {significant(exposureFieldVPerM(plan.powerW, DIPOLE_GAIN_DBI, 10), 2)} V/m (model).{' '}
              <Next>Next: compare with the limit that applies where you live; licensed people judge it.</Next>
            </>
          )}
        >
          {(plan) => <Fields plan={plan} />}
        </GuardRoom>
      )}
    </StationPage>
  );
}

/** Field over distance, and where the formula stops to hold. */
function Fields({ plan }: { readonly plan: PlannedTransmitter }) {
  return (
    <>
      <Wide evidence label="Field by distance">
        <table className="w-full max-w-2xl">
          <thead>
            <tr>
              <th scope="col">Distance</th>
              <th scope="col">Field, far-field formula</th>
              <th scope="col">Does it hold?</th>
            </tr>
          </thead>
          <tbody>
            {DISTANCES_M.map((distanceM) => {
              const near = insideNearField(distanceM, plan.freqHz);
              return (
                <tr key={distanceM}>
                  <th scope="row" className="text-ink">
                    {distanceM} m
                  </th>
                  <td>
                    <Value
                      shown={{
                        digits: significant(exposureFieldVPerM(plan.powerW, DIPOLE_GAIN_DBI, distanceM), 2),
                        unit: 'V/m',
                      }}
                      provenance={{
                        origin: 'model',
                        formula: '√(30·P·G)/d, far field',
                        inputs: [
                          ['power', plain(showPower(plan.powerW))],
                          ['gain', `${DIPOLE_GAIN_DBI} dBi`],
                        ],
                        source: 'free space; near field, duty and local limits decide',
                      }}
                    />
                  </td>
                  <td className={near ? 'text-caution' : ''}>
                    {near ? 'no: inside λ/2π the field can be stronger' : 'beyond λ/2π, at the highest frequency'}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </Wide>
      <Caution of="exposure" />
    </>
  );
}
