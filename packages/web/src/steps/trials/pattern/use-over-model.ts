import type { Saved } from '@velvet-reed/contract';
import { antennaKind } from '@velvet-reed/core/antenna';
import { type MeasuredPattern, overlayModel } from '@velvet-reed/core/bearing';
import type { PatternCut } from '@velvet-reed/core/formats';
import { useMemo, useState } from 'react';
import { designOf, latestRevision } from '@velvet-reed/station/derive';
import { modelOf, questionOf, useModel } from '../../../data/model';
import type { StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { tried } from '../../../ui/tried';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';

/** What the angles of a table count, in words. */
export const CUTS: readonly (readonly [Exclude<PatternCut, 'not said'>, string])[] = [
  ['azimuth', 'azimuth, clockwise'],
  ['elevation', 'elevation (horizon 0°)'],
  ['zenith', 'zenith angle (horizon 90°)'],
];

/** A plumb line errs by no more in a vertical cut, degrees. */
const MOST_TILT_DEG = 20;
const FREE = 'free';

/** Antennas of the station that a model can be laid under. */
const modelled = (data: StationData) =>
  data.antennas.flatMap((antenna) => {
    const revision = latestRevision(data, antenna.id);
    return revision && antennaKind(revision.kind).model ? [{ antenna, revision }] : [];
  });

/** A measured pattern over the model of one of the station's antennas, at the same cut. */
export function useOverModel(data: StationData, log: Saved<'logs'>, found: MeasuredPattern | undefined) {
  const candidates = modelled(data);
  const [antennaId, setAntennaId] = useState<number | undefined>(log.antennaId ?? undefined);
  const { trySave } = useWrite();
  // until somebody says, a table of angles is taken for a turn in azimuth, and the page says so
  const cut: Exclude<PatternCut, 'not said'> = log.cut === 'not said' ? 'azimuth' : log.cut;
  const setCut = (next: PatternCut): void =>
    void trySave([{ op: 'update', resource: 'logs', id: log.id, version: log.version, values: { cut: next } }]);
  const [groundId, setGroundId] = useState(FREE);
  const chosen = candidates.find(({ antenna }) => antenna.id === antennaId);
  const design = chosen && designOf(data, chosen.revision);
  const typed = useTypedNumbers([
    {
      ...{ name: 'freq', label: 'Frequency', dimension: 'frequency', bareUnit: 'MHz' },
      ...{ start: '', optional: true },
    },
    { name: 'elevation', label: 'Sender at elevation', dimension: 'angle', start: '0°' },
    { name: 'scatter', label: 'Scatter of a level', dimension: 'gain', start: '0.3 dB' },
    { name: 'reflection', label: 'Strongest reflection', dimension: 'gain', start: '−20 dB' },
  ]);
  const freqHz = typed.value('freq') ?? design?.freqHz;
  const elevationDeg = typed.value('elevation');
  const designText = JSON.stringify(design);
  const question = useMemo(() => {
    if (!design || freqHz === undefined || elevationDeg === undefined) return undefined;
    const band = { lowHz: freqHz * 0.98, highHz: freqHz * 1.02 };
    return tried(() => questionOf(modelOf(design, groundId), freqHz, band, elevationDeg)).value;
    // a design is a value: equal text asks the same
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [designText, groundId, freqHz, elevationDeg]);
  const state = useModel(question);
  const { spot } = state;
  const [scatterDb, reflectionDb] = [typed.value('scatter'), typed.value('reflection')];
  const { value: overlay, fault } = useMemo(
    () =>
      tried(() => {
        if (!found || !spot || scatterDb === undefined || reflectionDb === undefined) return undefined;
        const all = found.levelsDb.flatMap((db, i) => (db === undefined ? [] : [i * found.stepDeg]));
        const vertical = cut !== 'azimuth';
        // over ground nothing lies below the horizon
        const shown = all.filter((deg) => !vertical || groundId === FREE || (deg >= 0 && deg <= 180));
        const points = {
          angleDeg: shown,
          levelDb: shown.map((deg) => found.levelsDb[Math.round(deg / found.stepDeg)] ?? 0),
        };
        const model = {
          azimuth: spot.azimuthAtArrival,
          elevation: spot.elevation,
          zenith: { ...spot.elevation, angleDeg: spot.elevation.angleDeg.map((deg) => 90 - deg) },
        }[cut];
        const stated = { scatterDb: Math.abs(scatterDb), reflectionDb: -Math.abs(reflectionDb) };
        return { points, ...overlayModel(points, model, stated, vertical ? MOST_TILT_DEG : 180) };
      }),
    [found, spot, cut, groundId, scatterDb, reflectionDb],
  );
  return {
    ...{
      candidates,
      chosen,
      setAntennaId,
      cut,
      cutSaid: log.cut !== 'not said',
      setCut,
      groundId,
      setGroundId,
      typed,
      freqHz,
      overlay,
    },
    fault: fault ?? state.trouble,
    busy: state.busy && overlay === undefined,
  };
}
export type OverModel = ReturnType<typeof useOverModel>;
