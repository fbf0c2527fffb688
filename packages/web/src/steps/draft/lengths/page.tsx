import { Announced } from '../../../ui/announced';
import { electricalLengthM, velocityFactorFromStub } from '@velvet-reed/core/line';
import { earthDistance, type PlanPoint } from '@velvet-reed/core/plot';
import { fixed, frequencyText, lengthText, SPEED_OF_LIGHT_M_PER_S } from '@velvet-reed/core/units';
import { plotFeaturesOf } from '@velvet-reed/station/plotted';
import { useFocus } from '../../../data/focus';
import type { StationData } from '@velvet-reed/station/record';
import { Room } from '../../../ui/room';
import { Next, Note, Section, Wide } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { tried } from '../../../ui/tried';
import { typedFrequency } from '../../../ui/typed';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';

export default function LengthsRoom() {
  return <StationPage>{(data) => <Lengths data={data} />}</StationPage>;
}

const FRACTIONS = [
  [1, 'whole wave'],
  [5 / 8, 'five eighths'],
  [1 / 2, 'half'],
  [1 / 4, 'quarter'],
  [1 / 10, 'tenth: the longest lead to an RF earth'],
] as const;

function Lengths({ data }: { readonly data: StationData }) {
  const { band } = useFocus();
  const typed = useTypedNumbers([
    {
      ...{ name: 'freq', label: 'Frequency', dimension: 'frequency', bareUnit: 'MHz' },
      start: typedFrequency(Number(Math.sqrt(band.lowHz * band.highHz).toPrecision(4))),
    },
    { name: 'velocity', label: 'Velocity factor', dimension: 'plain', start: '0.66' },
  ]);
  const [freqHz, velocity] = [typed.value('freq'), typed.value('velocity')];
  return (
    <Room
      title="Lengths, Draft"
      verdict={
        freqHz === undefined || freqHz <= 0 ? (
          <>Type a frequency, and its lengths stand below.</>
        ) : (
          <>
            At {frequencyText(freqHz)} a wave is {lengthText(SPEED_OF_LIGHT_M_PER_S / freqHz, 4)} long in air, a quarter{' '}
            {lengthText(SPEED_OF_LIGHT_M_PER_S / freqHz / 4, 4)}.{' '}
            <Next>Next: a wire that ends in air is some 5 % shorter; Model says how much.</Next>
          </>
        )
      }
      margin={
        <>
          <Note title="Shorter than it says">
            <p>
              Thick wire, insulation and things nearby shorten an antenna: 0.95 is the usual rule for thin wire. Common
              practice, no source.
            </p>
          </Note>
          <Note title="Velocity factor">
            <p>
              0.66 solid polythene, 0.8 to 0.88 foam, 0.95 open line; on the ground about 0.6. Makers differ; measure
              yours.
            </p>
          </Note>
        </>
      }
    >
      {freqHz !== undefined && freqHz > 0 && (
        <Wide evidence label="Lengths by fraction of a wave">
          <table className="w-full max-w-3xl">
            <thead>
              <tr>
                <th scope="col">Of a wave</th>
                <th scope="col">In air</th>
                <th scope="col">× 0.95, thin wire</th>
                <th scope="col">In cable × {velocity ?? 0.66}</th>
              </tr>
            </thead>
            <tbody>
              {FRACTIONS.map(([share, name]) => (
                <tr key={name}>
                  <th scope="row" className="text-ink">
                    {name}
                  </th>
                  <td className="font-mono">{lengthText(electricalLengthM(share, 1, freqHz), 4)}</td>
                  <td className="font-mono">{lengthText(electricalLengthM(share, 0.95, freqHz), 4)}</td>
                  <td className="font-mono">{lengthText(electricalLengthM(share, velocity ?? 0.66, freqHz), 4)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
      <div className="mt-3">
        <TypedFields of={typed} />
      </div>
      <Stub />
      <RfEarth data={data} />
    </Room>
  );
}

/** Velocity factor of a cable from one measurement. */
function Stub() {
  const typed = useTypedNumbers([
    { name: 'length', label: 'Length of an open piece', dimension: 'length', bareUnit: 'm', start: '5 m' },
    { name: 'dip', label: 'Lowest impedance first at', dimension: 'frequency', bareUnit: 'MHz', start: '9.9 MHz' },
  ]);
  const [length, dip] = [typed.value('length'), typed.value('dip')];
  const { value } = tried(() =>
    length !== undefined && dip !== undefined ? velocityFactorFromStub(length, dip) : undefined,
  );
  return (
    <Section
      title="Velocity factor of your cable"
      hint="an open piece is a quarter wave long where its impedance is first lowest"
    >
      <TypedFields of={typed} />
      {value !== undefined && (
        <Announced className="mt-1">
          Velocity factor <span className="font-mono">{fixed(value, 3)}</span> (measured)
          {value > 1 && (
            <span className="text-caution">
              : more than 1 cannot be; the dip is not the first, or the far end is not open.
            </span>
          )}
        </Announced>
      )}
    </Section>
  );
}

/** The RF earth on the plan, band by band: whether it is one, and the counterpoise that takes its place. */
function RfEarth({ data }: { readonly data: StationData }) {
  const features = plotFeaturesOf(data);
  const feed = features.find(({ kind }) => kind === 'feed');
  const at: PlanPoint = feed?.points[0] ?? [0, 0];
  const rows = [...data.targets]
    .map(({ name, lowHz, highHz }) => ({ name, freqHz: (lowHz + highHz) / 2 }))
    .sort((a, b) => a.freqHz - b.freqHz);
  if (rows.length === 0) return null;
  const known = earthDistance(at, features, rows[0].freqHz);
  return (
    <Section
      title="RF earth, band by band"
      hint={
        known
          ? `${known.name} is ${lengthText(known.distanceM)} from ${feed ? feed.name : 'the station'}, on the plan`
          : 'no earth is on the plan: put it there, and each band says whether it is near enough'
      }
    >
      <Wide label="RF earth by band">
        <table className="w-full max-w-3xl text-sm">
          <thead>
            <tr>
              <th scope="col">Target</th>
              <th scope="col">Lead to the earth</th>
              <th scope="col">Is it an RF earth?</th>
              <th scope="col">Counterpoise, a quarter wave</th>
              <th scope="col">Lying on the ground, × 0.6</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ name, freqHz }) => {
              const earth = earthDistance(at, features, freqHz);
              const good = earth && earth.distanceM <= earth.limitM;
              return (
                <tr key={name}>
                  <th scope="row" className="text-ink">
                    {name}
                  </th>
                  <td className="font-mono">{earth ? `${fixed(earth.wavelengths, 2)} λ` : ''}</td>
                  <td className={good ? '' : 'text-caution'}>
                    {earth
                      ? good
                        ? 'yes'
                        : `no: the lead is an antenna; ${lengthText(earth.limitM, 2)} would do`
                      : ''}
                  </td>
                  <td className="font-mono">{lengthText(electricalLengthM(0.25, 0.95, freqHz), 3)}</td>
                  <td className="font-mono">{lengthText(electricalLengthM(0.25, 0.6, freqHz), 3)}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </Wide>
      <p className="mt-1 text-sm text-dim">
        Nearer than a tenth of a wave counts as an earth. Common practice, no source.
      </p>
    </Section>
  );
}
