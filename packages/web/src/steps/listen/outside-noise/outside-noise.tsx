import { SCHEMAS } from '@velvet-reed/contract';
import { combinedDecilesDb, insideStatedRange, medianFaDb, noisePowerDbm } from '@velvet-reed/core/site';
import { fixed, frequencyText, inDb } from '@velvet-reed/core/units';
import { levelsOf } from '@velvet-reed/station/levels';
import { noiseViewOf, outsideNoise } from '@velvet-reed/station/derive';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { staleLevel } from '@velvet-reed/station/taken-on';
import { Disclosure } from '../../../ui/disclosure';
import { levelDoubt } from '../../../ui/level-doubt';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Section, Wide } from '../../../ui/section';
import { Value } from '../../../ui/value';

/** A dish or helix that looks up is told apart where it hears so much less, dB. */
const SKY_TOLD_DB = 1;

/** Outside noise at each target: class, galaxy, sky, or the listener's own floor with its difference. */
export function OutsideNoise({ data }: { readonly data: StationData }) {
  const { save } = useWrite();
  const { station } = data;
  const { floors } = levelsOf(data);
  const deciles = combinedDecilesDb(station.environment);
  const fields: readonly FieldSpec[] = [
    { name: 'freqHz', label: 'Frequency', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
    {
      name: 'levelDbm',
      label: 'Noise read',
      kind: 'quantity',
      dimension: 'level',
      bareUnit: 'dBm',
      freqField: 'freqHz',
    },
    { name: 'bandwidthHz', label: 'In a bandwidth of', kind: 'quantity', dimension: 'frequency', bareUnit: 'kHz' },
    {
      name: 'antennaId',
      label: 'Through',
      kind: 'choice',
      numeric: true,
      options: [
        { value: '', label: 'a lossless antenna' },
        ...data.antennas.map((one) => ({ value: String(one.id), label: one.name })),
      ],
    },
  ];
  return (
    <Section
      title="Noise from outside"
      hint={`${station.environment.replace('_', ' ')} class${deciles ? `; eight tenths of places and hours lie within +${deciles.upDb.toFixed(0)} / −${deciles.downDb.toFixed(0)} dB` : '; no deciles are stated for it'}`}
    >
      {data.targets.length > 0 && (
        <Wide label="Noise from outside at each target">
          <table className="w-full max-w-4xl text-sm">
            <thead>
              <tr>
                <th scope="col">Target</th>
                <th scope="col">Class, median</th>
                <th scope="col">In all</th>
                <th scope="col">In its bandwidth</th>
                <th scope="col">Your floor against the class</th>
              </tr>
            </thead>
            <tbody>
              {data.targets.map((target) => {
                const freqHz = (target.lowHz + target.highHz) / 2;
                const view = noiseViewOf(data, target);
                const noise = outsideNoise(data, freqHz, view);
                const up = outsideNoise(data, freqHz, { ...view, seesSky: true });
                const { measured } = noise;
                const origin = measured
                  ? 'measured'
                  : noise.parts.some((part) => part.origin === 'assumed')
                    ? 'assumed'
                    : 'catalogue';
                const provenance = {
                  origin,
                  formula: measured
                    ? 'your floor’s difference from the class, applied within half an octave of it'
                    : 'sum of man-made, galactic and rough atmospheric noise',
                  inputs: noise.parts.map(
                    (part) => [part.source, `${part.faDb.toFixed(0)} dB, ${part.origin}`] as const,
                  ),
                  source: 'ITU-R P.372 (constants from memory); atmospheric part rough, ±15 dB',
                } as const;
                return (
                  <tr key={target.id}>
                    <th scope="row" className="text-ink">
                      {target.name}
                    </th>
                    <td>
                      {insideStatedRange(station.environment, freqHz) ? (
                        <Value
                          shown={inDb(medianFaDb(station.environment, freqHz), 0)}
                          provenance={{
                            origin: 'catalogue',
                            formula: 'Fam = c − d · log f(MHz)',
                            source: 'ITU-R P.372, median',
                          }}
                        />
                      ) : (
                        <span className="text-dim">not stated here</span>
                      )}
                    </td>
                    <td>
                      <Value shown={inDb(noise.faDb, 0, 'dB over kT₀')} provenance={provenance} />
                      {noise.faDb - up.faDb > SKY_TOLD_DB && (
                        <span className="block">
                          looking up{' '}
                          <Value
                            shown={inDb(up.faDb, 1, 'dB over kT₀')}
                            provenance={{
                              origin: 'assumed',
                              formula: 'sum of sky, galaxy and a tenth of warm earth',
                              inputs: up.parts.map(
                                (part) => [part.source, part.remark ?? `${part.faDb.toFixed(0)} dB`] as const,
                              ),
                              source: 'ITU-R P.372 and P.676, clear sky',
                            }}
                          />
                        </span>
                      )}
                    </td>
                    <td>
                      <Value
                        shown={inDb(noisePowerDbm(noise.faDb, target.bandwidthHz), 0, 'dBm')}
                        provenance={{ ...provenance, formula: 'kT₀ · Fa · bandwidth, into a lossless antenna' }}
                      />
                    </td>
                    <td>
                      {measured ? (
                        <Value
                          shown={inDb(measured.overClassDb, 0)}
                          provenance={{
                            origin: 'measured',
                            formula: 'reading less the chain’s own noise, through antenna and line, minus the class',
                            inputs: [['read at', frequencyText(measured.floor.freqHz)]],
                            source: 'your reading',
                          }}
                        />
                      ) : (
                        <span className="text-dim">not measured here</span>
                      )}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </Wide>
      )}
      {floors.length > 0 && (
        <ul className="mt-3 border-t border-rule">
          {floors.map((floor) => (
            <li key={floor.id} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-1">
              <span className="grow">
                Your floor at {frequencyText(floor.freqHz)}: {fixed(floor.levelDbm, 1)} dBm in{' '}
                {frequencyText(floor.bandwidthHz, 2)}, through{' '}
                {data.antennas.find((one) => one.id === floor.antennaId)?.name ?? 'a lossless antenna'}
                {staleLevel(data, floor.record) !== undefined && (
                  <span className="block text-xs text-caution">
                    It does not count now. {staleLevel(data, floor.record)}
                  </span>
                )}
              </span>
              <ChangeButton
                resource="levels"
                record={floor.record}
                name={`floor at ${frequencyText(floor.freqHz)}`}
                fields={fields}
              />
              <DeleteButton resource="levels" record={floor.record} name={`floor at ${frequencyText(floor.freqHz)}`} />
            </li>
          ))}
        </ul>
      )}
      <div className="mt-3">
        <Disclosure label="Enter your measured floor">
          {(close) => (
            <RecordForm
              fields={fields}
              schema={SCHEMAS.levels}
              fixed={{ kind: 'floor' }}
              start={{ freqHz: '', levelDbm: '', bandwidthHz: '2.4 kHz', antennaId: '' }}
              submit="Keep this floor"
              doubt={(values) =>
                levelDoubt(
                  values,
                  { levelDbm: 'Your floor' },
                  floors.map(({ levelDbm }) => levelDbm),
                )
              }
              onCancel={close}
              onSave={async (values) => {
                await save(
                  [
                    { op: 'create', resource: 'levels', values: { ...values, atMs: Date.now() } },
                    entry('listen', `Noise floor entered: ${String(values.levelDbm)} dBm.`),
                  ],
                  'Your floor counts now.',
                );
                close();
              }}
            />
          )}
        </Disclosure>
      </div>
      <p className="mt-2 max-w-prose text-sm text-dim">
        A floor of yours counts before the class wherever one was read within half an octave. Readings less than 1 dB
        over the chain’s own noise say nothing of the outside and are not used.
      </p>
    </Section>
  );
}
