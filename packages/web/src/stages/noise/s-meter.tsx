import { dbmToS, fixed, S_UNIT_DB } from '@velvet-reed/core/units';
import { Section } from '../../ui/stage';
import { TypedFields } from '../../ui/typed-numbers';
import { useTypedNumbers } from '../../ui/use-typed-numbers';
import { inDb, Value, type Provenance } from '../../ui/value';

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
      <TypedFields of={typed} />
      <p role="status" className="mt-1">
        {reading && levelDbm !== undefined && (
          <>
            <Value strong shown={inDb(levelDbm, 0, 'dBm')} provenance={SOURCE} /> is S{fixed(reading.sUnits, 1)}
            {reading.dbOverS9 > 0 ? ` + ${fixed(reading.dbOverS9, 0)} dB` : ''}.{' '}
          </>
        )}
        {change !== undefined && (
          <>
            {fixed(change, 1)} dB are{' '}
            <Value shown={{ digits: fixed(change / S_UNIT_DB, 2), unit: 'S units' }} provenance={SOURCE} />.
          </>
        )}
      </p>
    </Section>
  );
}
