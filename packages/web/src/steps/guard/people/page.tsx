import { SCHEMAS } from '@velvet-reed/contract';
import { exposureFieldVPerM, insideNearField, MODE_SHARES } from '@velvet-reed/core/guard';
import { DIPOLE_GAIN_DBI, frequencyText, plain, showPower, significant } from '@velvet-reed/core/units';
import { Link } from 'react-router';
import { fedAntenna, transmitFrequencies } from '@velvet-reed/station/guard/drawing';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId, useWrite } from '../../../data/station';
import type { PlannedTransmitter } from '@velvet-reed/station/transmitters';
import { Button } from '../../../ui/button';
import { QuickAnswer } from '../../../ui/quick-answer';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { Caution, Next, Section, Wide } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { typedFrequency } from '../../../ui/typed';
import { Value } from '../../../ui/value';
import { useJob } from '../../../workers/use-job';
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
              {significant(exposureFieldVPerM(plan.powerW, DIPOLE_GAIN_DBI, 10), 2)} V/m (model)
              {nearestHz(data, plan) === undefined
                ? ''
                : `; at ${frequencyText(nearestHz(data, plan) ?? 0)} 10 m lie in the near field, where it can be more`}
              . <Next>Next: compare with the limit that applies where you live; licensed people judge it.</Next>
            </>
          )}
        >
          {(plan) => (
            <>
              <Fields plan={plan} freqHz={transmitFrequencies(data, plan)[0]} />
              <AnyField plan={plan} freqHz={transmitFrequencies(data, plan)[0]} />
              <NearFields data={data} plan={plan} />
              <Limits plan={plan} />
            </>
          )}
        </GuardRoom>
      )}
    </StationPage>
  );
}

/** The lowest transmit frequency at which 10 m lie in the near field; undefined: none. */
const nearestHz = (data: StationData, plan: PlannedTransmitter): number | undefined =>
  transmitFrequencies(data, plan).find((freqHz) => insideNearField(10, freqHz));

/** The far-field formula with any power, gain and distance. */
const AnyField = ({ plan, freqHz }: { readonly plan: PlannedTransmitter; readonly freqHz: number }) => (
  <QuickAnswer
    title="At any distance, with any gain"
    hint="far-field formula √(30·P·G)/d (model)"
    specs={[
      { name: 'power', label: 'Mean power', dimension: 'power', bareUnit: 'W', start: plain(showPower(plan.powerW)) },
      { name: 'gain', label: 'Gain', dimension: 'gain', start: `${DIPOLE_GAIN_DBI} dBi` },
      { name: 'distance', label: 'Distance', dimension: 'length', bareUnit: 'm', start: '10 m' },
      { name: 'freq', label: 'Frequency', dimension: 'frequency', bareUnit: 'MHz', start: typedFrequency(freqHz) },
    ]}
    answer={(value) => {
      const field = exposureFieldVPerM(value('power'), value('gain'), value('distance'));
      const near = insideNearField(value('distance'), value('freq'));
      return (
        <p className={near ? 'text-caution' : ''}>
          {significant(field, 2)} V/m and {significant(field / 377, 2)} A/m (model)
          {near ? ': inside λ/2π the formula does not hold, and both fields can be stronger.' : '.'}
        </p>
      );
    }}
  />
);

/** Field over distance, and where the formula stops to hold. */
function Fields({ plan, freqHz }: { readonly plan: PlannedTransmitter; readonly freqHz: number }) {
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
              const near = insideNearField(distanceM, freqHz);
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
                    {near ? 'no: inside λ/2π the field can be stronger' : 'beyond λ/2π, at the lowest frequency too'}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </Wide>
      <Caution of="exposure" />
      <div className="h-4" />
    </>
  );
}

/** The solver's near field of the laid antenna over the station's ground, at heights of people. */
function NearFields({ data, plan }: { readonly data: StationData; readonly plan: PlannedTransmitter }) {
  const stationId = useStationId();
  const antenna = fedAntenna(data, plan);
  const job = useJob('people');
  const share = (plan.modeShare ?? 1) * (plan.dutyShare ?? 1);
  const meanW = plan.powerW * share;
  if (!antenna)
    return (
      <Section title="By the wire model" hint="near field, at heights of people">
        <p className="max-w-prose text-sm text-dim">
          Draw in <Link to={`/s/${stationId}/guard/routes?plan=${plan.id}`}>Routes</Link> which antenna is fed, and lay
          it on the <Link to={`/s/${stationId}/plot/plan`}>Plot</Link>: then its near field is computed.
        </p>
      </Section>
    );
  const over = (value: number, limit: number | null): boolean => limit !== null && value > limit;
  return (
    <Section
      title="By the wire model"
      hint={`${antenna.name} as laid, near field over your ground, ${significant(meanW, 3)} W averaged over time`}
    >
      <Button
        busy={job.busy}
        onClick={() =>
          job.start({ antenna, groundId: data.station.groundId, freqHz: plan.freqHz, meanW, distancesM: DISTANCES_M })
        }
      >
        {job.busy ? `Computing… ${Math.round(100 * (job.step?.share ?? 0))} %` : 'Compute the near field'}
      </Button>
      {job.fault && (
        <p role="alert" className="mt-1 text-danger">
          {job.fault}
        </p>
      )}
      {job.answer && (
        <Wide label="Near field by distance">
          <table className="mt-2 w-full max-w-3xl">
            <thead>
              <tr>
                <th scope="col">Distance on the ground</th>
                <th scope="col">Electric field</th>
                <th scope="col">Magnetic field</th>
                <th scope="col">Worst at</th>
                <th scope="col">Near or far</th>
              </tr>
            </thead>
            <tbody>
              {job.answer.map((one) => (
                <tr key={one.distanceM}>
                  <th scope="row" className="text-ink">
                    {one.distanceM} m
                  </th>
                  <td className={over(one.eVPerM, plan.limitVPerM) ? 'text-danger' : ''}>
                    <Value
                      shown={{ digits: significant(one.eVPerM, 2), unit: 'V/m' }}
                      provenance={{
                        origin: 'model',
                        formula: 'moment method, near field with ground; RMS, largest of 12 directions and 4 heights',
                        inputs: [['mean power', `${significant(meanW, 3)} W`]],
                        source: 'houses, feed lines and people are not in it',
                      }}
                    />
                    {over(one.eVPerM, plan.limitVPerM) && ' over the limit that you entered'}
                  </td>
                  <td className={over(one.hAPerM, plan.limitAPerM) ? 'text-danger' : ''}>
                    <span className="font-mono">{significant(one.hAPerM, 2)} A/m</span>
                    {over(one.hAPerM, plan.limitAPerM) && ' over the limit that you entered'}
                  </td>
                  <td>
                    {one.heightM} m high, {one.bearingDeg}°
                  </td>
                  <td className={one.near ? 'text-caution' : ''}>
                    {one.near ? 'near: both fields count' : `E/H ${significant(one.waveOhm, 3)} Ω`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
    </Section>
  );
}

const FIELDS: readonly FieldSpec[] = [
  {
    ...{ name: 'modeShare', label: 'Mean over peak power', kind: 'quantity', dimension: 'plain', optional: true },
    hint: MODE_SHARES.map(({ name, share }) => `${name} ${share}`).join(', '),
  },
  {
    ...{ name: 'dutyShare', label: 'Share of the time', kind: 'quantity', dimension: 'plain', optional: true },
    hint: '0.5 when you listen as long as you send',
  },
  {
    ...{ name: 'limitVPerM', label: 'Limit, V/m', kind: 'quantity', dimension: 'plain', optional: true },
    hint: 'that applies where you live',
  },
  { name: 'limitAPerM', label: 'Limit, A/m', kind: 'quantity', dimension: 'plain', optional: true },
  { name: 'limitSource', label: 'Where it stands', kind: 'text', hint: 'law or rule, with its date' },
];

/** Mode, duty, and the limit that the listener found. */
function Limits({ plan }: { readonly plan: PlannedTransmitter }) {
  const { save } = useWrite();
  const typed = (value: number | null): string => (value === null ? '' : String(value));
  return (
    <Section
      title="Averaging, and the limit that applies"
      hint="no limit is built in: national rules differ and change"
    >
      <RecordForm
        fields={FIELDS}
        schema={SCHEMAS.guardPlans.pick(['modeShare', 'dutyShare', 'limitVPerM', 'limitAPerM', 'limitSource'])}
        start={{
          ...{ modeShare: typed(plan.modeShare), dutyShare: typed(plan.dutyShare) },
          ...{ limitVPerM: typed(plan.limitVPerM), limitAPerM: typed(plan.limitAPerM), limitSource: plan.limitSource },
        }}
        submit="Keep this"
        version={plan.version}
        onSave={(values, version) =>
          save([{ op: 'update', resource: 'guardPlans', id: plan.id, version, values }], 'Kept.')
        }
      />
      <p className="mt-2 max-w-prose text-sm text-dim">
        A figure below a limit is no proof that a rule is kept, and none above it that it is broken: rules ask for their
        own ways of measuring and averaging. Licensed people and your authority judge it.
      </p>
    </Section>
  );
}
