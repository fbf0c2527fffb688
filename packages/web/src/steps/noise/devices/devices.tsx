import { SCHEMAS } from '@velvet-reed/contract';
import { deviceEffects } from '@velvet-reed/core/noise';
import { fixed, frequencyText, inDb } from '@velvet-reed/core/units';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { levelsOf } from '@velvet-reed/station/levels';
import { levelDoubt } from '../../../ui/level-doubt';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { momentText } from '../../../ui/moment-text';
import { Caution, Section, Wide } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { Value } from '../../../ui/value';

const FIELDS: readonly FieldSpec[] = [
  { name: 'subject', label: 'Device', kind: 'text' },
  { name: 'freqHz', label: 'Heard on', kind: 'quantity', dimension: 'frequency', bareUnit: 'kHz' },
  {
    name: 'levelDbm',
    label: 'Floor, device on',
    kind: 'quantity',
    dimension: 'level',
    bareUnit: 'dBm',
    freqField: 'freqHz',
  },
  {
    name: 'againstDbm',
    label: 'Floor, device off',
    kind: 'quantity',
    dimension: 'level',
    bareUnit: 'dBm',
    freqField: 'freqHz',
  },
];

/** Own devices switched one after the other: who makes the noise, and what is only coincidence. */
export function Devices({ data }: { readonly data: StationData }) {
  const { save } = useWrite();
  const { devices } = levelsOf(data);
  const last = devices.at(-1);
  const effects = deviceEffects(devices);
  return (
    <Section title="Own devices, off and on" hint="floor with the device on, then off; twice or more for each suspect">
      {effects.length === 0 ? (
        <Empty>No device switched yet. Begin with inverters, chargers and lamps; a battery radio helps.</Empty>
      ) : (
        <Wide evidence label="Devices by what they add">
          <table className="w-full max-w-4xl">
            <thead>
              <tr>
                <th scope="col">Device</th>
                <th scope="col">Floor changes by</th>
                <th scope="col">Each time</th>
                <th scope="col">Verdict</th>
              </tr>
            </thead>
            <tbody>
              {effects.map((effect) => (
                <tr key={effect.device}>
                  <th scope="row" className="text-ink">
                    {effect.device}
                  </th>
                  <td>
                    <Value
                      strong
                      shown={inDb(effect.meanDb, 1)}
                      provenance={{
                        origin: 'measured',
                        formula: 'mean of off − on; 95 % interval by Student',
                        inputs:
                          effect.low === undefined || effect.high === undefined
                            ? []
                            : [['interval', `${fixed(effect.low, 1)} to ${fixed(effect.high, 1)} dB`]],
                        source: 'your switchings',
                      }}
                    />
                  </td>
                  <td className="font-mono text-sm">
                    {effect.changesDb.map((value) => fixed(value, 1).replace('-', '−')).join(', ')}
                  </td>
                  <td className={effect.verdict === 'proven' ? '' : 'text-dim'}>
                    {effect.verdict}: {effect.reason}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
      {devices.length > 0 && (
        <details className="mt-2">
          <summary>Switchings, to change or delete</summary>
          <ul className="max-w-4xl border-t border-rule">
            {devices.map((one, i) => (
              <li key={one.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule">
                <span className="grow">
                  {one.device} at {frequencyText(one.freqHz)}, {momentText(one.record.atMs ?? 0)}
                </span>
                <span className="font-mono text-sm">
                  on {fixed(one.onDbm, 1)}, off {fixed(one.offDbm, 1)} dBm
                </span>
                <ChangeButton
                  resource="levels"
                  record={one.record}
                  name={`switching ${i + 1}, of ${one.device}`}
                  fields={FIELDS}
                />
                <DeleteButton resource="levels" record={one.record} name={`Switching ${i + 1}, of ${one.device}`} />
              </li>
            ))}
          </ul>
        </details>
      )}
      <Caution of={['mains', 'solar']} />
      <RecordForm
        resetAfter
        fields={FIELDS}
        schema={SCHEMAS.levels}
        fixed={{ kind: 'device', atMs: 0 }}
        start={{
          subject: '',
          freqHz: last ? `${last.freqHz / 1000} kHz` : '',
          levelDbm: '',
          againstDbm: '',
        }}
        submit="Log this switching"
        doubt={(values) =>
          levelDoubt(
            values,
            { levelDbm: 'Floor, device on', againstDbm: 'Floor, device off' },
            devices.flatMap(({ onDbm, offDbm }) => [onDbm, offDbm]),
          )
        }
        onSave={async (values) => {
          const one = { ...values, atMs: Date.now() };
          const changeDb = (one.againstDbm ?? one.levelDbm) - one.levelDbm;
          await save(
            [
              { op: 'create', resource: 'levels', values: one },
              entry('noise', `${one.subject} off: floor changes by ${fixed(changeDb, 1)} dB.`),
            ],
            'Logged.',
          );
        }}
      />
    </Section>
  );
}
