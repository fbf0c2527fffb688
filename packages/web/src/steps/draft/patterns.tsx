import { inDb } from '@velvet-reed/core/units';
import { FLOOR_DBI } from '@velvet-reed/core/solver';
import { memo, useRef } from 'react';
import { saveCsv } from '../../ui/export';
import { ExportButtons } from '../../ui/export-buttons';
import { PolarPlot, type PolarCurve } from '../../ui/polar-plot';
import { Wide } from '../../ui/section';
import { Value } from '../../ui/value';
import { gainAt, METHOD, type ModelCurves } from './model-figures';

const LISTED_ELEVATIONS = [5, 10, 20, 30, 45, 60, 90];

type Cut = 'elevation' | 'azimuth' | 'azimuthAtArrival';

/** Cuts through the pattern. Plain values are asked for, so that what did not change is not drawn again while a dimension is dragged. */
export const Patterns = memo(function Patterns({
  curves,
  free,
  arrivalDeg,
}: {
  readonly curves: readonly ModelCurves[];
  /** No ground below. */
  readonly free: boolean;
  readonly arrivalDeg: number;
}) {
  const [elevationRef, azimuthRef, arrivalRef] = [
    useRef<HTMLElement>(null),
    useRef<HTMLElement>(null),
    useRef<HTMLElement>(null),
  ];
  const polar = (cut: Cut): PolarCurve[] =>
    curves.flatMap(({ name, look, spot }) => (spot ? [{ name, look, ...spot[cut] }] : []));
  const spot = curves[0].spot;
  if (!spot) return null;
  const csv = (cut: Cut) => (): void =>
    saveCsv(
      `${cut}.csv`,
      [cut === 'elevation' ? 'elevation_deg' : 'azimuth_deg', 'gain_dBi'],
      spot[cut].angleDeg.map((angle, i) => [angle, spot[cut].gainDbi[i] <= FLOOR_DBI ? null : spot[cut].gainDbi[i]]),
    );
  const at = (angle: number): number => gainAt(spot, angle);
  const turn = (360 - spot.peak.azimuthDeg) % 360;
  return (
    <div className="mt-5 flex flex-wrap gap-x-8 gap-y-4">
      <figure data-evidence ref={elevationRef} className="w-full max-w-[17.5rem]">
        <PolarPlot
          label={`Elevation pattern, largest ${spot.peak.gainDbi.toFixed(1)} dBi at ${spot.peak.elevationDeg.toFixed(1)}°`}
          curves={polar('elevation')}
          shape={free ? 'elevation' : 'half'}
        />
        <figcaption className="text-sm">
          Elevation, toward {turn.toFixed(0)}° from forward{' '}
          <ExportButtons of={elevationRef} name="elevation" onCsv={csv('elevation')} />
        </figcaption>
      </figure>
      <figure ref={azimuthRef} className="w-full max-w-[17.5rem]">
        <PolarPlot
          label={`Azimuth pattern at ${spot.peak.elevationDeg.toFixed(1)}° elevation`}
          curves={polar('azimuth')}
          shape="compass"
        />
        <figcaption className="text-sm">
          Azimuth at {spot.peak.elevationDeg.toFixed(1)}°, seen from above{' '}
          <ExportButtons of={azimuthRef} name="azimuth" onCsv={csv('azimuth')} />
        </figcaption>
      </figure>
      <figure ref={arrivalRef} className="w-full max-w-[17.5rem]">
        <PolarPlot
          label={`Azimuth pattern at ${arrivalDeg}° elevation, where wanted waves arrive`}
          curves={polar('azimuthAtArrival')}
          shape="compass"
        />
        <figcaption className="text-sm">
          Azimuth at {arrivalDeg}°, where wanted waves arrive (assumed){' '}
          <ExportButtons of={arrivalRef} name="azimuth-at-arrival" onCsv={csv('azimuthAtArrival')} />
        </figcaption>
      </figure>
      <Wide label="Gain by elevation">
        <table className="text-sm">
          <thead>
            <tr>
              <th scope="col">Elevation</th>
              {LISTED_ELEVATIONS.map((angle) => (
                <th key={angle} scope="col" className="font-mono">
                  {angle}°
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <tr>
              <th scope="row">Gain, dBi</th>
              {LISTED_ELEVATIONS.map((angle) => (
                <td key={angle}>
                  <Value
                    shown={inDb(at(angle), 1, '')}
                    provenance={{ origin: 'model', formula: 'gain along the strongest azimuth', source: METHOD }}
                  />
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      </Wide>
    </div>
  );
});
