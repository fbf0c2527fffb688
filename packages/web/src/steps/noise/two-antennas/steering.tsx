import { antennaKind } from '@velvet-reed/core/antenna';
import { nullSteering } from '@velvet-reed/core/bearing';
import { greatCircle, wantedPosition } from '@velvet-reed/core/site';
import { fixed } from '@velvet-reed/core/units';
import { useMemo, useState } from 'react';
import { designOf, latestRevision } from '@velvet-reed/station/derive';
import { judgedDirection } from '@velvet-reed/station/direction';
import { placedAntenna } from '@velvet-reed/station/guard/drawing';
import { modelOf, questionOf, useModel } from '../../../data/model';
import type { StationData } from '@velvet-reed/station/record';
import { PolarPlot } from '../../../ui/polar-plot';
import { Section } from '../../../ui/section';
import { tried } from '../../../ui/tried';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';

const AZIMUTHS = Array.from({ length: 121 }, (_, i) => 3 * i);

/** Compass bearing of forward of an antenna: as it lies on the Plot, else north. */
const facingOf = (data: StationData, antennaId: number): number => placedAntenna(data, antennaId)?.facingDeg ?? 0;

/** What one antenna of the pair hears over azimuth, dB against its strongest: the same all round, or as the wire model says of one of the station's. */
function useElement(data: StationData, antennaId: number | undefined, freqHz: number | undefined) {
  const revision = antennaId === undefined ? undefined : latestRevision(data, antennaId);
  const design = revision && antennaKind(revision.kind).model ? designOf(data, revision) : undefined;
  const designText = JSON.stringify(design);
  const question = useMemo(() => {
    if (!design || freqHz === undefined) return undefined;
    const band = { lowHz: freqHz * 0.98, highHz: freqHz * 1.02 };
    return tried(() => questionOf(modelOf(design, data.station.groundId), freqHz, band)).value;
    // a design is a value: equal text asks the same
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [designText, freqHz, data.station.groundId]);
  const { spot, busy, trouble } = useModel(question);
  const facingDeg = antennaId === undefined ? 0 : facingOf(data, antennaId);
  const cut = question && spot?.azimuthAtArrival;
  const most = Math.max(...(cut?.gainDbi ?? [0]));
  const level = (azimuthDeg: number): number => {
    if (!cut) return 0;
    const step = cut.angleDeg[1] - cut.angleDeg[0];
    // the cut counts from forward
    const from = (((azimuthDeg - facingDeg) % 360) + 360) % 360;
    return Math.max(-60, cut.gainDbi[Math.round(from / step) % (cut.gainDbi.length - 1)] - most);
  };
  return { level, busy: question !== undefined && busy && !cut, trouble, elevationDeg: question?.arrivalDeg };
}

/** The pattern of two like antennas with a null steered to one azimuth, and what each target loses. */
export function Steering({ data }: { readonly data: StationData }) {
  const [elementId, setElementId] = useState<number>();
  const { fix } = judgedDirection(data.nullLogs);
  const toSource = fix ? ((Math.atan2(fix.xM, fix.yM) * 180) / Math.PI + 360) % 360 : 90;
  const [start] = useState(toSource);
  const typed = useTypedNumbers([
    { name: 'freq', label: 'Frequency', dimension: 'frequency', bareUnit: 'MHz', start: '9.65 MHz' },
    { name: 'spacing', label: 'Spacing', dimension: 'length', bareUnit: 'm', start: '8 m' },
    { name: 'axis', label: 'Antenna 2 seen from 1', dimension: 'angle', start: '90°' },
    { name: 'null', label: 'Null toward', dimension: 'angle', start: `${start.toFixed(0)}°` },
  ]);
  const ask = (wantedDeg: number) =>
    nullSteering({
      ...{ spacingM: typed.value('spacing') ?? NaN, freqHz: typed.value('freq') ?? NaN },
      ...{ axisDeg: typed.value('axis') ?? NaN, nullDeg: typed.value('null') ?? NaN, wantedDeg },
    });
  const element = useElement(data, elementId, typed.value('freq'));
  const modelled = data.antennas.filter(({ id }) => {
    const revision = latestRevision(data, id);
    return revision !== undefined && antennaKind(revision.kind).model !== undefined;
  });
  const { value: found, fault } = tried(() =>
    typed.sound
      ? {
          phaseDeg: ask(0).phaseDeg,
          gains: AZIMUTHS.map((deg) => ask(deg).wantedResponseDb + element.level(deg)),
          alone: AZIMUTHS.map(element.level),
        }
      : undefined,
  );
  const toward = found
    ? data.targets.flatMap((target) => {
        const there = wantedPosition(target);
        if (!there) return [];
        const { bearingDeg } = greatCircle(data.station, there);
        return [
          {
            id: target.id,
            name: target.name,
            bearingDeg,
            db: ask(bearingDeg).wantedResponseDb + element.level(bearingDeg),
          },
        ];
      })
    : [];
  return (
    <Section title="Steer a null" hint="two like antennas on a line; against the strongest direction of one alone">
      <div
        data-evidence
        className="grid items-start gap-x-8 gap-y-3 md:grid-cols-[minmax(0,20rem)_minmax(min-content,1fr)]"
      >
        {found ? (
          <PolarPlot
            label="Response of the pair over azimuth, north up; the targets stand beside"
            shape="compass"
            unit="dB"
            front="north"
            curves={[
              { name: 'pair', look: 0, angleDeg: AZIMUTHS, gainDbi: found.gains },
              ...(elementId === undefined
                ? []
                : [{ name: 'one alone', look: 1, angleDeg: AZIMUTHS, gainDbi: found.alone }]),
            ]}
          />
        ) : (
          <div className="min-h-44" />
        )}
        <div>
          <TypedFields of={typed}>
            <label className="text-sm text-dim">
              Each of them is
              <select
                className="mt-1 block max-w-full text-ink"
                value={elementId ?? ''}
                onChange={(event) => setElementId(event.target.value === '' ? undefined : Number(event.target.value))}
              >
                <option value="">one that hears all round</option>
                {modelled.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
          </TypedFields>
          {element.busy && <p className="text-sm text-dim">The pattern of one is computed…</p>}
          {element.trouble && (
            <p role="alert" className="text-danger">
              {element.trouble}
            </p>
          )}
          {fault && (
            <p role="alert" className="mt-1 text-danger">
              {fault}
            </p>
          )}
          {found && (
            <p className="mt-2">
              Add {fixed(found.phaseDeg, 0)}° to antenna 2 (model).
              {elementId !== undefined &&
                element.elevationDeg !== undefined &&
                ` One alone at ${fixed(element.elevationDeg, 0)}° elevation is dashed; what the two do to each other is not in it.`}
              {fix && ' The null begins at the source that Direction found.'}
            </p>
          )}
          <ul className="mt-1 text-sm">
            {toward.map(({ id, name, bearingDeg, db }) => (
              <li key={id} className={db < -6 ? 'text-caution' : ''}>
                {name}, {fixed(bearingDeg, 0)}°: {db < -60 ? 'nothing is left' : `${fixed(db, 1)} dB`}
              </li>
            ))}
          </ul>
        </div>
      </div>
    </Section>
  );
}
