import type { Arrival } from '@velvet-reed/core/site';
import type { ModelSweep, SpotAnalysis } from '@velvet-reed/core/solver';
import { parseQuantity, significant, inDb } from '@velvet-reed/core/units';
import { useId, useState } from 'react';
import { Button } from '../../../ui/button';
import { Wide } from '../../../ui/section';
import { Value } from '../../../ui/value';
import { gainAt, METHOD, swrOfSweep } from '../model-figures';

/** A target with where and from which height its waves come. */
export interface TargetHere {
  readonly id: number;
  readonly name: string;
  readonly lowHz: number;
  readonly highHz: number;
  readonly arrival: Arrival;
}

/** Each target inside the swept band: SWR at its edges and middle, gain at its own arrival angle. */
export function Wanted({
  spot,
  sweep,
  bands,
  arrivalDeg,
  onArrival,
}: {
  readonly spot: SpotAnalysis;
  readonly sweep: ModelSweep;
  readonly bands: readonly TargetHere[];
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
        {angle === undefined ? 'Type an elevation from 0° to 90°.' : 'or take that of a target below'}
      </span>
      <Wide label="Wanted services in this band">
        <table className="text-sm">
          <thead>
            <tr>
              <th scope="col">Wanted</th>
              <th scope="col">SWR: lower edge, middle, upper edge</th>
              <th scope="col">Arrives at</th>
              <th scope="col">Gain there</th>
              <th scope="col">
                <span className="sr-only">Pattern</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {inside.map((one) => (
              <tr key={one.id}>
                <th scope="row" className="text-ink">
                  {one.name}
                </th>
                <td className="font-mono">
                  {swrAt(one.lowHz)} / {swrAt((one.lowHz + one.highHz) / 2)} / {swrAt(one.highHz)}
                </td>
                <td>
                  <Value
                    shown={{ digits: one.arrival.elevationDeg.toFixed(0), unit: '°' }}
                    provenance={{
                      origin: one.arrival.origin,
                      formula: one.arrival.why,
                      inputs: [
                        ['may lie between', `${one.arrival.fromDeg.toFixed(0)}° and ${one.arrival.toDeg.toFixed(0)}°`],
                      ],
                      source: 'hop geometry with an assumed layer height, or assumed; see Listen',
                    }}
                  />
                </td>
                <td>
                  <Value
                    shown={inDb(gainAt(spot, one.arrival.elevationDeg), 1, 'dBi')}
                    provenance={{
                      origin: 'model',
                      formula:
                        'gain along the strongest azimuth at the target’s arrival angle, at the design frequency',
                      inputs: [['arrival angle', `${one.arrival.elevationDeg.toFixed(1)}°`]],
                      source: METHOD,
                    }}
                  />
                </td>
                <td>
                  <Button
                    look="quiet"
                    aria-label={`Pattern for ${one.name}`}
                    onClick={() => {
                      const rounded = Math.round(one.arrival.elevationDeg * 10) / 10;
                      setText(`${rounded}°`);
                      onArrival(rounded);
                    }}
                  >
                    Pattern
                  </Button>
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
