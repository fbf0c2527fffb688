import type { Saved } from '@velvet-reed/contract';
import {
  antennaKind,
  attenuationDbPer100m,
  cableClass,
  catalogueFor,
  effectiveNoiseFigureDb,
  expectedNoise,
  ituRegionOf,
  type Band,
  type Design,
  type ForecastPlace,
  type PathReceiver,
  type PathStage,
} from '@velvet-reed/core';
import type { StationData } from './station';

/** The latest state of an antenna's dimensions; undefined for an antenna without any. */
export const latestRevision = (data: StationData, antennaId: number): Saved<'revisions'> | undefined =>
  data.revisions.filter((revision) => revision.antennaId === antennaId).sort((a, b) => b.number - a.number)[0];

export const designOf = (revision: Saved<'revisions'>): Design => revision;

/** Catalogue of the station's region with the listener's edits in place of the original rows. */
export function bandsOf(data: StationData): readonly Band[] {
  const edits = new Map(data.bandEdits.map((edit) => [edit.bandId, edit]));
  const listed = catalogueFor(ituRegionOf(data.station)).flatMap((band): Band[] => {
    const edit = edits.get(band.id);
    if (!edit) return [band];
    return edit.hidden
      ? []
      : [{ ...band, name: edit.name, lowHz: edit.lowHz, highHz: edit.highHz, bandwidthHz: edit.bandwidthHz }];
  });
  const own = data.bandEdits
    .filter((edit) => edit.bandId.startsWith('own-') && !edit.hidden)
    .map((edit): Band => ({
      id: edit.bandId,
      name: edit.name,
      service: 'broadcast',
      lowHz: edit.lowHz,
      highHz: edit.highHz,
      bandwidthHz: edit.bandwidthHz,
    }));
  return [...listed, ...own].sort((a, b) => a.lowHz - b.lowHz);
}

/** What the place, its line, receivers and neighbours are to a forecast. The own transmitter is left to Guard. */
export function forecastPlace(data: StationData): ForecastPlace {
  const { station } = data;
  const cable = cableClass(station.cableId);
  return {
    emitters: data.emitters.filter((emitter) => !emitter.own),
    receivers: data.receivers.map((receiver) => ({ ...receiver, noiseFigureDb: effectiveNoiseFigureDb(receiver) })),
    lineLossDb: (freqHz) => (attenuationDbPer100m(cable, freqHz) * station.lineLengthM) / 100,
    externalFaDb: (freqHz) => expectedNoise(station.environment, freqHz, station.noiseOffsetDb).faDb,
  };
}

/** Stages of a path in one of its two orders, as the core wants them. */
export function orderedStages(data: StationData, pathId: number, order: 1 | 2): readonly Saved<'pathStages'>[] {
  const place = (stage: Saved<'pathStages'>): number => (order === 1 ? stage.firstPlace : stage.secondPlace);
  return data.pathStages.filter((stage) => stage.pathId === pathId).sort((a, b) => place(a) - place(b) || a.id - b.id);
}

/** A stored stage as the computation's own shape. */
export function toPathStage(stage: Saved<'pathStages'>): PathStage {
  const { name } = stage;
  switch (stage.kind) {
    case 'line':
      return { kind: 'line', name, cableId: stage.cableId, lengthM: stage.lengthM };
    case 'filter':
      return {
        kind: 'filter',
        name,
        filter: {
          shape: stage.shape,
          family: stage.family,
          order: stage.order,
          rippleDb: stage.rippleDb,
          edgeLowHz: stage.edgeLowHz,
          edgeHighHz: stage.edgeHighHz,
          insertionLossDb: stage.lossDb,
        },
      };
    case 'amplifier':
      return {
        kind: 'amplifier',
        name,
        gainDb: stage.gainDb,
        noiseFigureDb: stage.noiseFigureDb,
        iip2Dbm: stage.iip2Dbm,
        iip3Dbm: stage.iip3Dbm,
      };
    case 'pad':
      return { kind: 'pad', name, lossDb: stage.lossDb };
  }
}

export const toPathReceiver = (receiver: Saved<'receivers'>): PathReceiver => receiver;

/** What an antenna hands on at a frequency, from its latest dimensions. */
export function receptionOf(data: StationData, antennaId: number | null) {
  const revision = antennaId === null ? undefined : latestRevision(data, antennaId);
  return revision ? antennaKind(revision.kind).reception?.(designOf(revision)) : undefined;
}
