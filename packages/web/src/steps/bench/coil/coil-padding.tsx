import { Announced } from '../../../ui/announced';
import { padding, paddingChoices } from '@velvet-reed/core/resonator';
import type { NoisePeak } from '@velvet-reed/core/sweep';
import { fixed, showFrequency, significant, inDb } from '@velvet-reed/core/units';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers, type KeptTexts, type TypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';
import { Fault } from '../fault';
import { tried } from '../../../ui/tried';
import { model } from './coil-provenance';

const MEASURED = {
  origin: 'measured',
  formula: 'resonance between the recordings with the source on and off',
  source: 'your recordings',
} as const;

export function Padding({
  selfPf,
  coil,
  peak,
  kept,
}: {
  readonly selfPf: number;
  readonly coil: TypedNumbers;
  readonly peak: NoisePeak | undefined;
  readonly kept: KeptTexts | undefined;
}) {
  const typed = useTypedNumbers(
    [
      { name: 'installed', label: 'Capacitor in it, pF', dimension: 'plain', start: '' },
      {
        ...{ name: 'peak', label: 'Peak now', dimension: 'frequency', bareUnit: 'kHz', start: '', optional: true },
        near: [coil.value('target') ?? 0],
      },
      // what would it do if this were fitted, whatever is advised
      { name: 'fitted', label: 'If I add, pF', dimension: 'plain', start: '', optional: true },
    ],
    kept,
  );
  const [installed, by] = [typed.value('installed'), typed.value('peak')];
  const [target, q] = [coil.value('target'), coil.value('q')];
  const measuredHz = by ?? peak?.centreHz;
  // a value that is asked back is no basis for parts to buy
  const asked = typed.fields.some(({ meant }) => meant !== undefined);
  const found =
    !asked && installed !== undefined && measuredHz !== undefined && target !== undefined && q !== undefined
      ? tried(() =>
          padding({
            installedF: installed * 1e-12,
            selfF: selfPf * 1e-12,
            measuredHz,
            targetHz: target,
            q: peak?.q ?? q,
          }),
        )
      : undefined;
  const pad = found?.value;
  const choices = pad ? paddingChoices(pad.addF, 'E12') : [];
  const fitted = typed.value('fitted');
  return (
    <div className="mt-4">
      <h3 className="font-semibold">What to pad</h3>
      <TypedFields of={typed} />
      {by === undefined && peak && (
        <p className="mt-1 text-sm text-dim">
          “Peak now” is empty: the <Value shown={showFrequency(peak.centreHz, 4)} provenance={MEASURED} /> of the
          recordings above are used.
        </p>
      )}
      <Fault text={found?.fault} />
      {pad && (
        <Announced className="mt-1">
          <p>
            Add{' '}
            <Value
              strong
              shown={{ digits: fixed(pad.addF * 1e12, 1), unit: 'pF' }}
              provenance={model('(C + C_self)((f/f_t)² − 1)')}
            />{' '}
            ({fixed(pad.withoutSelfF * 1e12, 1)} pF without the self-capacitance); a picofarad moves it{' '}
            <Value
              shown={{ digits: fixed(Math.abs(pad.slopeHzPerF) * 1e-12, 1), unit: 'Hz' }}
              provenance={model('f / 2C')}
            />
            ; at the target <Value shown={inDb(pad.lossNowDb, 2)} provenance={model('10 log(1 + (Q(f/f₀ − f₀/f))²)')} />{' '}
            are lost until then.
          </p>
          {fitted !== undefined && installed !== undefined && installed + selfPf + fitted > 0 && (
            <p>
              With {significant(fitted, 3)} pF added it would resonate at{' '}
              <Value
                shown={showFrequency(pad.predictedHz(fitted * 1e-12), 4)}
                provenance={model('f √(C / (C + added))')}
              />
              {target !== undefined && pad.predictedHz(fitted * 1e-12) < target
                ? `, below the target: ${significant(fitted - pad.addF * 1e12, 2)} pF too much.`
                : '.'}
            </p>
          )}
          <ul className="list-disc pl-5" aria-label="Capacitors to add">
            {choices.map((one) => (
              <li key={one.parts.join()}>
                {one.parts.map((part) => `${Number((part * 1e12).toPrecision(3))} pF`).join(' + ')}: predicted{' '}
                <Value
                  shown={{ digits: fixed(pad.predictedHz(one.sumF) / 1000, 2), unit: 'kHz' }}
                  provenance={model('f √(C / (C + added))', 'preferred values of IEC 60063, E12')}
                />
              </li>
            ))}
          </ul>
        </Announced>
      )}
    </div>
  );
}
