import type { Provenance } from '@velvet-reed/station/said';
import { Announced } from '../../../ui/announced';
import {
  dbmToDbMicrovolt,
  dbmToS,
  dbmToVoltsRms,
  fixed,
  frequencyText,
  S_UNIT_DB,
  significant,
  sToDbm,
  inDb,
} from '@velvet-reed/core/units';
import { Section, Wide } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';

const SOURCE: Provenance = {
  origin: 'model',
  formula: 'S9 is −73 dBm below 30 MHz and −93 dBm above; one unit is 6 dB',
  source: 'IARU Region 1 Technical Recommendation R.1 (from memory); most meters keep it only near S9',
};

/** S units, dBm and dB beside each other. */
export function SMeter() {
  const typed = useTypedNumbers([
    { name: 'freq', label: 'On', dimension: 'frequency', bareUnit: 'MHz', start: '7 MHz' },
    {
      name: 'level',
      label: 'Reading (S7, S9+10, dBm or µV)',
      dimension: 'level',
      bareUnit: 'dBm',
      freqField: 'freq',
      start: 'S7',
    },
    { name: 'change', label: 'Change', dimension: 'gain', bareUnit: 'dB', start: '9.4 dB' },
  ]);
  const [freqHz, levelDbm, change] = ['freq', 'level', 'change'].map((name) => typed.value(name));
  const reading = freqHz !== undefined && freqHz > 0 && levelDbm !== undefined ? dbmToS(levelDbm, freqHz) : undefined;
  return (
    <Section title="S meter and dB" hint="the same reading both ways">
      <Scale freqHz={freqHz !== undefined && freqHz > 0 ? freqHz : 7e6} />
      <TypedFields of={typed} />
      <Announced className="mt-1">
        {reading && levelDbm !== undefined && (
          <>
            <Value strong shown={inDb(levelDbm, 1, 'dBm')} provenance={SOURCE} /> is S{fixed(reading.sUnits, 1)}
            {reading.dbOverS9 > 0 ? ` + ${fixed(reading.dbOverS9, 0)} dB` : ''}.{' '}
          </>
        )}
        {change !== undefined && (
          <>
            {fixed(change, 1)} dB are{' '}
            <Value shown={{ digits: fixed(change / S_UNIT_DB, 2), unit: 'S units' }} provenance={SOURCE} />.
          </>
        )}
      </Announced>
    </Section>
  );
}

const UNITS = [1, 3, 5, 7, 9] as const;
const OVER = [0, 20, 40] as const;

/** S units, dBm and µV beside each other on one frequency. */
function Scale({ freqHz }: { readonly freqHz: number }) {
  const rows = [
    ...UNITS.map((sUnits) => ({ name: `S${sUnits}`, dbm: sToDbm({ sUnits, dbOverS9: 0 }, freqHz) })),
    ...OVER.slice(1).map((dbOverS9) => ({ name: `S9 + ${dbOverS9} dB`, dbm: sToDbm({ sUnits: 9, dbOverS9 }, freqHz) })),
  ];
  return (
    <Wide evidence label="S units, dBm and microvolts">
      <table className="w-full max-w-2xl">
        <thead>
          <tr>
            <th scope="col">Meter, at {frequencyText(freqHz)}</th>
            <th scope="col">dBm in 50 Ω</th>
            <th scope="col">dBµV</th>
            <th scope="col">µV</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ name, dbm }) => (
            <tr key={name}>
              <th scope="row" className="text-ink">
                {name}
              </th>
              <td className="font-mono">{fixed(dbm, 0).replace('-', '−')}</td>
              <td className="font-mono">{fixed(dbmToDbMicrovolt(dbm), 1).replace('-', '−')}</td>
              <td className="font-mono">{significant(dbmToVoltsRms(dbm) * 1e6, 3)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Wide>
  );
}
