import type { Saved } from '@velvet-reed/contract';
import type { DecodeReport } from '@velvet-reed/core/trial';
import { useRef } from 'react';
import type { StationData } from '@velvet-reed/station/record';
import { AzimuthalMap } from '../../../ui/azimuthal-map';
import { saveCsv } from '../../../ui/export';
import { ExportButtons } from '../../../ui/export-buttons';

/** A map that shows less than this shows nothing, km. */
const LEAST_KM = 100;
/** Rings at round distances, three at most. */
function ringsOf(reachKm: number): readonly number[] {
  const rough = reachKm / 3;
  const size = 10 ** Math.floor(Math.log10(rough));
  const step = ([5, 2, 1].find((one) => one * size <= rough) ?? 1) * size;
  return [1, 2, 3].map((one) => one * step).filter((km) => km < reachKm);
}

/** Where those heard are, out to the farthest: larger dots were decoded more often. */
export function ReachMap({
  data,
  log,
  report,
}: {
  readonly data: StationData;
  readonly log: Saved<'logs'>;
  readonly report: DecodeReport;
}) {
  const drawing = useRef<HTMLElement>(null);
  const reachKm = Math.min(20_015, 1.1 * Math.max(LEAST_KM, report.farthestKm ?? 0));
  const most = Math.max(1, ...report.places.map(({ decodes }) => decodes));
  return (
    <figure ref={drawing} className="mb-2 max-w-[24rem]">
      <AzimuthalMap
        drawing={drawing}
        centre={data.station}
        reachKm={reachKm}
        ringsKm={ringsOf(reachKm)}
        label={`Map of ${report.places.length} places heard, centred on the station; the directions stand below`}
      >
        {({ at }) =>
          report.places.map((place, i) => {
            const point = at(place);
            return (
              point && (
                <circle
                  key={`${i} ${place.latDeg} ${place.lonDeg}`}
                  cx={point[0]}
                  cy={point[1]}
                  r={2 + 5 * Math.sqrt(place.decodes / most)}
                  fill="var(--plum)"
                  fillOpacity="0.45"
                  stroke="var(--plum)"
                />
              )
            );
          })
        }
      </AzimuthalMap>
      <figcaption className="text-sm text-dim">
        heard by their locators (measured); larger: more decodes{' '}
        <ExportButtons
          of={drawing}
          name={`reach of ${log.name}`}
          onCsv={() =>
            saveCsv(
              'reach.csv',
              ['latitude', 'longitude', 'distance (km)', 'bearing (degrees)', 'decodes'],
              report.places.map((one) => [one.latDeg, one.lonDeg, one.distanceKm, one.bearingDeg, one.decodes]),
            )
          }
        />
      </figcaption>
    </figure>
  );
}
