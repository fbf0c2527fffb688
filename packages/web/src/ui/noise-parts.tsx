import type { ExpectedNoise } from '@velvet-reed/core/site';
import { fixed, frequencyText, inDb } from '@velvet-reed/core/units';
import { Value } from './value';

/** What the outside noise is made of; a measured floor stands first, with its difference from the class. */
export function NoiseParts({
  noise,
}: {
  readonly noise: ExpectedNoise & {
    readonly measured?: {
      readonly floor: { readonly freqHz: number; readonly levelDbm: number };
      readonly overClassDb: number;
    };
  };
}) {
  const { measured } = noise;
  return (
    <>
      {measured && (
        <p className="mb-1">
          Your measured floor counts:{' '}
          <Value
            shown={inDb(noise.faDb, 0, 'dB over kT₀')}
            provenance={{
              origin: 'measured',
              formula: 'reading less the chain’s own noise, through antenna and line',
              inputs: [
                ['read at', frequencyText(measured.floor.freqHz)],
                ['level', `${fixed(measured.floor.levelDbm, 0)} dBm`],
              ],
              source: 'your reading; used within half an octave of it',
            }}
          />
          , {Math.abs(measured.overClassDb).toFixed(0)} dB {measured.overClassDb >= 0 ? 'above' : 'below'} the class.
        </p>
      )}
      <ul>
        {noise.parts
          .filter((part) => part.origin !== 'measured')
          .map((part) => (
            <li key={part.source}>
              {part.source}:{' '}
              <Value
                shown={inDb(part.faDb, 0, 'dB over kT₀')}
                provenance={{
                  origin: part.origin,
                  formula:
                    part.source === 'atmospheric'
                      ? 'rough anchors for mid latitudes, the lower of day and night'
                      : 'Fam = c − d · log f(MHz)',
                  source:
                    part.source === 'atmospheric'
                      ? 'order of magnitude only, ±15 dB; not ITU-R P.372'
                      : 'ITU-R P.372, median; deciles about ±10 dB',
                }}
              />
              {part.remark && <span className="text-sm text-caution"> {part.remark}</span>}
            </li>
          ))}
      </ul>
      {noise.remarks.map((remark) => (
        <p key={remark} className="mt-1 text-sm text-caution">
          {remark}
        </p>
      ))}
    </>
  );
}
