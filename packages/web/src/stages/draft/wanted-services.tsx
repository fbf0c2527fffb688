import { significant, parseQuantity, type ModelSweep, type SpotAnalysis } from '@velvet-reed/core';
import { useId, useState } from 'react';
import { Wide } from '../../ui/stage';
import { inDb, Value } from '../../ui/value';
import { gainAt, METHOD, swrOfSweep } from './model-figures';

/** Each wish inside the swept band: SWR at its edges and middle, gain at its arrival angle. */
export function Wanted({
  spot,
  sweep,
  bands,
  arrivalDeg,
  onArrival,
}: {
  readonly spot: SpotAnalysis;
  readonly sweep: ModelSweep;
  readonly bands: readonly { readonly name: string; readonly lowHz: number; readonly highHz: number }[];
  /** Elevation of arriving waves that the model was asked for. */
  readonly arrivalDeg: number;
  readonly onArrival: (angleDeg: number) => void;
}) {
  const id = useId();
  const [text, setText] = useState(`${arrivalDeg}°`);
  const angle = arrivalAngle(text);
  const last = sweep.freqHz.length - 1;
  const inside = bands.filter((one) => one.highHz >= sweep.freqHz[0] && one.lowHz <= sweep.freqHz[last]);
  if (inside.length === 0) return null;
  const swr = swrOfSweep(sweep);
  const swrAt = (freqHz: number): string => {
    const at = Math.round(((freqHz - sweep.freqHz[0]) / (sweep.freqHz[last] - sweep.freqHz[0])) * last);
    const value = swr[at];
    return value === undefined ? 'outside' : value === null ? '∞' : significant(value, 3);
  };
  return (
    <div className="mt-5">
      <label htmlFor={id} className="text-sm text-dim">
        Waves arrive at (assumed){' '}
      </label>
      <input
        id={id}
        className="w-20 font-mono"
        value={text}
        aria-invalid={angle === undefined ? true : undefined}
        aria-describedby={`${id}-note`}
        onChange={(event) => {
          setText(event.target.value);
          const next = arrivalAngle(event.target.value);
          if (next !== undefined) onArrival(next);
        }}
      />
      <span id={`${id}-note`} role={angle === undefined ? 'alert' : undefined} className="ml-2 text-sm text-dim">
        {angle === undefined ? 'Type an elevation from 0° to 90°.' : '10° to 20° for 1000 to 4000 km on short wave'}
      </span>
      <Wide label="Wanted services in this band">
        <table className="text-sm">
          <thead>
            <tr>
              <th scope="col">Wanted</th>
              <th scope="col">SWR: lower edge, middle, upper edge</th>
              <th scope="col">Gain at that elevation</th>
            </tr>
          </thead>
          <tbody>
            {inside.map((one) => (
              <tr key={one.name}>
                <th scope="row" className="text-ink">
                  {one.name}
                </th>
                <td className="font-mono">
                  {swrAt(one.lowHz)} / {swrAt((one.lowHz + one.highHz) / 2)} / {swrAt(one.highHz)}
                </td>
                <td>
                  {angle !== undefined && (
                    <Value
                      shown={inDb(gainAt(spot, angle), 1, 'dBi')}
                      provenance={{
                        origin: 'model',
                        formula:
                          'gain along the strongest azimuth at the assumed arrival angle, at the design frequency',
                        inputs: [['arrival angle', `${angle}°, assumed`]],
                        source: METHOD,
                      }}
                    />
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
    </div>
  );
}

function arrivalAngle(text: string): number | undefined {
  try {
    const angle = parseQuantity(text, 'angle', { bareUnit: '°' });
    return angle >= 0 && angle <= 90 ? angle : undefined;
  } catch {
    return undefined;
  }
}
