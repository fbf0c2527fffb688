import { SCHEMAS } from '@velvet-reed/contract';
import { NOISE_TESTS, whoseNoise } from '@velvet-reed/core/noise';
import { capital, countText, fixed, frequencyText, inDb } from '@velvet-reed/core/units';
import { levelsOf } from '@velvet-reed/station/levels';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { standingTests } from '@velvet-reed/station/verdicts';
import { levelDoubt } from '../../../ui/level-doubt';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Caution, Section, Wide } from '../../../ui/section';
import { Value } from '../../../ui/value';

const level = (name: 'levelDbm' | 'againstDbm', label: string): FieldSpec => ({
  ...{ name, label, kind: 'quantity', dimension: 'level', bareUnit: 'dBm', freqField: 'freqHz' },
});
const fieldsOf = (data: StationData): readonly FieldSpec[] => [
  {
    ...{ name: 'subject', label: 'Test', kind: 'choice' },
    options: NOISE_TESTS.map(({ id }) => ({ value: id, label: id })),
  },
  {
    ...{ name: 'antennaId', label: 'Antenna', kind: 'choice', numeric: true },
    options: [
      { value: '', label: 'not recorded' },
      ...data.antennas.map(({ id, name }) => ({ value: String(id), label: name })),
    ],
  },
  { name: 'freqHz', label: 'Heard on', kind: 'quantity', dimension: 'frequency', bareUnit: 'kHz' },
  level('levelDbm', 'Noise before'),
  level('againstDbm', 'Noise after'),
];

/** Tests that tell sky, cable, house and receiver apart: what each proves, by the readings that were made. */
export function Whose({ data }: { readonly data: StationData }) {
  const { save } = useWrite();
  const tests = standingTests(data);
  const { findings } = whoseNoise(tests);
  const gone = levelsOf(data).tests.length - tests.length;
  const last = tests.at(-1);
  const fields = fieldsOf(data);
  return (
    <Section
      title="Whose noise is it?"
      hint="one change at a time, same gain and bandwidth, both readings within a minute"
    >
      <Wide evidence label="Tests of the noise">
        <table className="w-full max-w-4xl">
          <thead>
            <tr>
              <th scope="col">Test</th>
              <th scope="col" className="whitespace-nowrap">
                Fell by
              </th>
              <th scope="col">What it proves</th>
            </tr>
          </thead>
          <tbody>
            {NOISE_TESTS.map(({ id, does }) => {
              const found = findings.find(({ test }) => test === id);
              const record = found && tests.findLast((one) => one.test === id && one.freqHz === found.freqHz)?.record;
              return (
                <tr key={id}>
                  <th scope="row" className="align-top text-ink">
                    {id}
                    {found && <span className="block font-mono text-xs text-dim">{frequencyText(found.freqHz)}</span>}
                  </th>
                  <td className="align-top">
                    {found && (
                      <Value
                        strong
                        shown={inDb(found.fellDb, 1)}
                        provenance={{ origin: 'measured', formula: 'before − after', source: 'your readings' }}
                      />
                    )}
                  </td>
                  <td className={found ? '' : 'text-sm text-dim'}>
                    {found?.proves ?? does}
                    {record && (
                      <span className="flex gap-3">
                        <ChangeButton resource="levels" record={record} name={`the test ${id}`} fields={fields} />
                        <DeleteButton resource="levels" record={record} name={`the test ${id}`} />
                      </span>
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </Wide>
      {gone > 0 && (
        <p className="text-sm text-caution">
          {capital(countText(gone, 'test'))} of an antenna that was changed since {gone === 1 ? 'does' : 'do'} not
          count.
        </p>
      )}
      <Caution of={['mains', 'breakers']} />
      <RecordForm
        resetAfter
        fields={fields}
        schema={SCHEMAS.levels}
        fixed={{ kind: 'test', atMs: 0 }}
        start={{
          ...{ subject: NOISE_TESTS[0].id, antennaId: String(data.antennas.at(-1)?.id ?? '') },
          ...{ freqHz: last ? `${last.freqHz / 1000} kHz` : '' },
          ...{ levelDbm: '', againstDbm: '' },
        }}
        submit="Keep this test"
        doubt={(values) =>
          levelDoubt(
            values,
            { levelDbm: 'Noise before', againstDbm: 'Noise after' },
            tests.flatMap(({ beforeDbm, afterDbm }) => [beforeDbm, afterDbm]),
          )
        }
        onSave={async (values) => {
          const one = { ...values, atMs: Date.now() };
          await save(
            [
              { op: 'create', resource: 'levels', values: one },
              entry(
                'noise',
                `${one.subject}: the noise falls by ${fixed(one.levelDbm - (one.againstDbm ?? one.levelDbm), 1)} dB.`,
              ),
            ],
            'Kept.',
          );
        }}
      />
    </Section>
  );
}
