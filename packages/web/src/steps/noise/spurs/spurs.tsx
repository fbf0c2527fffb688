import { Announced } from '../../../ui/announced';
import { padFinding, spurSources } from '@velvet-reed/core/path';
import { transmitterField } from '@velvet-reed/core/site';
import { fixed, frequencyText, inDb } from '@velvet-reed/core/units';
import { useState } from 'react';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { hasField } from '@velvet-reed/station/transmitters';
import { Button } from '../../../ui/button';
import { Section, Wide } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';

/** A spur: which transmitters can make it, and where a pad says that it is made. */
export function Spurs({ data }: { readonly data: StationData }) {
  return (
    <Section title="A signal that should not be there" hint="which transmitters make it, and in which stage">
      <OnTargets data={data} />
      <Sources data={data} />
      <PadTest />
    </Section>
  );
}

const MOST_SHOWN = 6;

/** Which products of the transmitters nearby can fall on something wanted. */
function OnTargets({ data }: { readonly data: StationData }) {
  const carriers = data.transmitters.filter(hasField).map((transmitter) => ({
    ...{ name: transmitter.name, freqHz: transmitter.freqHz },
    levelDbm: transmitterField(transmitter).isotropicDbm,
  }));
  if (data.targets.length === 0) return null;
  return (
    <Wide evidence label="Products that can fall on a target">
      <table className="w-full max-w-4xl text-sm">
        <thead>
          <tr>
            <th scope="col">Target</th>
            <th scope="col">Can fall there, of {carriers.length} transmitters, up to the third order (model)</th>
          </tr>
        </thead>
        <tbody>
          {data.targets.map(({ id, name, lowHz, highHz }) => {
            const found = spurSources((lowHz + highHz) / 2, carriers, Math.max(1, (highHz - lowHz) / 2));
            return (
              <tr key={id}>
                <th scope="row" className="text-ink">
                  {name}
                </th>
                <td className={found.length > 0 ? 'text-caution' : 'text-dim'}>
                  {found.length === 0
                    ? 'nothing'
                    : found
                        .slice(0, 3)
                        .map((one) => `${one.carriers.join(' and ')}: ${one.label} at ${frequencyText(one.freqHz, 4)}`)
                        .join('; ')}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Wide>
  );
}

function Sources({ data }: { readonly data: StationData }) {
  const typed = useTypedNumbers([
    { name: 'spur', label: 'Spur seen at', dimension: 'frequency', bareUnit: 'MHz', start: '' },
    { name: 'within', label: 'read within', dimension: 'frequency', bareUnit: 'kHz', start: '10 kHz' },
  ]);
  const [spur, within] = [typed.value('spur'), typed.value('within')];
  const carriers = data.transmitters.filter(hasField).map((transmitter) => ({
    name: transmitter.name,
    freqHz: transmitter.freqHz,
    levelDbm: transmitterField(transmitter).isotropicDbm,
  }));
  const found = spur && within ? spurSources(spur, carriers, within) : undefined;
  return (
    <>
      <TypedFields of={typed} />
      {found && (
        <Announced className="mt-2">
          {found.length === 0 ? (
            <p>
              No pair or triple of the {carriers.length} transmitters in Listen falls there up to the third order. Enter
              those that are missing, or read it more widely: it may be real, or local.
            </p>
          ) : (
            <ol className="list-decimal pl-5" aria-label="Who can make it, most likely first">
              {found.slice(0, MOST_SHOWN).map((source) => (
                <li key={`${source.label} ${source.carriers.join()} ${source.freqHz}`}>
                  {source.carriers.join(' and ')}: {source.label}, order {source.order}, at{' '}
                  {frequencyText(source.freqHz, 5)}{' '}
                  <span className="text-sm text-dim">
                    (ranked by levels at an isotropic antenna and intercepts assumed alike)
                  </span>
                </li>
              ))}
            </ol>
          )}
        </Announced>
      )}
    </>
  );
}

function PadTest() {
  const { trySave } = useWrite();
  const [ahead, setAhead] = useState(true);
  const typed = useTypedNumbers([
    { name: 'pad', label: 'Pad put in', dimension: 'gain', bareUnit: 'dB', start: '10 dB' },
    { name: 'wanted', label: 'Wanted signal fell by', dimension: 'gain', bareUnit: 'dB', start: '10 dB' },
    { name: 'before', label: 'Spur without the pad', dimension: 'level', bareUnit: 'dBm', start: '' },
    { name: 'after', label: 'Spur with the pad', dimension: 'level', bareUnit: 'dBm', start: '' },
  ]);
  const [padDb, wantedDropDb, before, after] = ['pad', 'wanted', 'before', 'after'].map((name) => typed.value(name));
  const found =
    padDb !== undefined && padDb > 0 && wantedDropDb !== undefined && before !== undefined && after !== undefined
      ? padFinding({
          padDb,
          wantedDropDb,
          spurDropDb: before - after,
          amplifierAhead: ahead,
        })
      : undefined;
  return (
    <div className="mt-5">
      <h3 className="font-semibold">Pad test</h3>
      <p className="max-w-prose text-sm text-dim">
        Gain fixed by hand, a steady wanted signal beside the spur, both 3 dB above the noise at least. Read both, put
        the pad straight before the receiver, read both again.
      </p>
      <TypedFields of={typed} />
      <label className="mt-1 flex min-h-11 items-center gap-2 sm:min-h-0">
        <input type="checkbox" checked={ahead} onChange={(event) => setAhead(event.target.checked)} />
        an amplifier stands ahead of the pad
      </label>
      {found && (
        <Announced className="mt-1 max-w-prose">
          <p>
            {found.where}{' '}
            <Value
              shown={inDb(found.slope, 1, 'dB per dB')}
              provenance={{
                origin: 'measured',
                formula:
                  '(spur without − spur with) / pad; 0: inside, 1: ahead of it or real, 2 and 3: order behind it',
                source: 'your readings; power-series intermodulation',
              }}
            />
          </p>
          <p className="text-sm">{found.advice}</p>
          <Button
            className="mt-1"
            onClick={() =>
              void trySave(
                [entry('noise', `Pad test: ${fixed(found.slope, 1)} dB per dB. ${found.where} ${found.advice}`)],
                'Written into the notebook.',
              )
            }
          >
            Write this into the notebook
          </Button>
        </Announced>
      )}
    </div>
  );
}
