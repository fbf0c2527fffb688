import { bandTargets, type Coverage, coverageGaps, coverageOf } from '@velvet-reed/core/choose';
import { LINE_OF_SIGHT_FROM_HZ, USUAL_ARRIVAL_DEG } from '@velvet-reed/core/site';
import type { Band } from '@velvet-reed/core/spectrum';
import { bandText, inDb } from '@velvet-reed/core/units';
import { useMemo } from 'react';
import { bandsOf, forecastPlace, ownCandidates } from '@velvet-reed/station/derive';
import { useHeard } from '../../../data/ranking';
import type { StationData } from '@velvet-reed/station/record';
import { Button } from '../../../ui/button';
import { Section, Wide } from '../../../ui/section';
import { Value } from '../../../ui/value';

/** Bands up to here: beyond it nothing of wire is compared. */
const HIGHEST_HZ = 500e6;
const HORIZON_DEG = 3;
const NO_EMITTERS: readonly number[] = [];

/** Which of the listener's own antennas serves which band, and the gaps in words. */
export function CoverageMap({ data }: { readonly data: StationData }) {
  const bands = useMemo(() => bandsOf(data).filter((band) => band.highHz <= HIGHEST_HZ), [data]);
  const targets = useMemo(
    () => bandTargets(bands, (freqHz) => (freqHz >= LINE_OF_SIGHT_FROM_HZ ? HORIZON_DEG : USUAL_ARRIVAL_DEG)),
    [bands],
  );
  const specs = useMemo(() => ownCandidates(data), [data]);
  const place = useMemo(() => ({ ...forecastPlace(data), transmitters: [] }), [data]);
  const heard = useHeard(specs, targets, NO_EMITTERS, data.station.groundId);
  const cells = useMemo(
    () => heard.ready.flatMap((ready) => coverageOf(ready, bands, targets, place)),
    [heard.ready, bands, targets, place],
  );
  const gaps = useMemo(() => coverageGaps(cells, bands), [cells, bands]);
  return (
    <>
      <Wide evidence label="Coverage by band">
        <table className="text-sm">
          <thead>
            <tr>
              <th scope="col">Band</th>
              {specs.map(({ id, name }) => (
                <th key={id} scope="col" className="text-ink">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {bands.map((band) => (
              <tr key={band.id}>
                <th scope="row" className="text-ink">
                  {band.name} <span className="font-mono text-dim">{bandText(band.lowHz, band.highHz)}</span>
                </th>
                {specs.map(({ id, name }) => (
                  <td key={id}>
                    <Cell cell={cells.find((one) => one.band.id === band.id && one.antenna === name)} band={band} />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      {!heard.complete && (
        <p className="mt-2 flex items-center gap-3 text-sm">
          <progress max={heard.asked} value={heard.answered} aria-label="Coverage" className="h-2 w-48" />
          {heard.answered} of {heard.asked}
          {heard.stopped ? (
            <Button look="quiet" onClick={heard.resume}>
              Go on
            </Button>
          ) : (
            <Button look="quiet" onClick={heard.stop}>
              Stop
            </Button>
          )}
        </p>
      )}
      {heard.complete && (
        <Section title="Gaps" hint="bands on which no antenna of yours hears a usual station well">
          {gaps.length === 0 ? (
            <p>None: usual stations of every band are heard well.</p>
          ) : (
            <ul className="list-disc pl-5" aria-label="Gaps">
              {gaps.map((gap) => (
                <li key={gap}>{gap}</li>
              ))}
            </ul>
          )}
        </Section>
      )}
    </>
  );
}

const WORD = (heardDb: number): string => (heardDb >= 10 ? 'well' : heardDb >= 0 ? 'weak' : 'not heard');

function Cell({ cell, band }: { readonly cell?: Coverage; readonly band: Band }) {
  if (!cell) return null;
  if (cell.heardDb === undefined) return <span className="text-dim">not known</span>;
  return (
    <>
      {WORD(cell.heardDb)},{' '}
      <Value
        shown={inDb(cell.heardDb, 0, 'dB over noise')}
        provenance={{
          origin: 'model',
          formula: 'signal of a usual station through this antenna − noise through it and of the chain',
          inputs: [
            ['band', band.name],
            ['lost to the chain', cell.snrLossDb === undefined ? 'not computed' : `${cell.snrLossDb.toFixed(0)} dB`],
            ['note', cell.why],
          ],
          source: 'moment method over this ground; ITU-R P.372 medians or your own floor',
        }}
      />
    </>
  );
}
