import type { Saved } from '@velvet-reed/contract';
import {
  type DcStage,
  figuredStage,
  lineStage,
  type PathReceiver,
  type PathStage,
  type Plugged,
  stageDc,
} from '@velvet-reed/core/path';
import { cableRunM } from '@velvet-reed/core/plot';
import { cableLoss } from './derive';
import type { StationData } from './station';

/** Stages of a path in one of its two orders, as the core wants them. */
export function orderedStages(data: StationData, pathId: number, order: 1 | 2): readonly Saved<'pathStages'>[] {
  const place = (stage: Saved<'pathStages'>): number => (order === 1 ? stage.firstPlace : stage.secondPlace);
  return data.pathStages
    .filter((stage) => stage.pathId === pathId)
    .map((stage) => ({ ...stage, lengthM: runLengthM(data, stage.plotFeatureId) ?? stage.lengthM }))
    .sort((a, b) => place(a) - place(b) || a.id - b.id);
}

/** Length of a cable run on the plan; undefined without one. */
function runLengthM(data: StationData, plotFeatureId: number | null): number | undefined {
  const run = data.plotFeatures.find((feature) => feature.id === plotFeatureId);
  return run && cableRunM(run);
}

/** A part of the shelf as a stage; what nobody stated is absent. */
export const toPart = (part: Saved<'parts'>, name = part.name): PathStage => ({
  kind: 'part',
  name,
  transfer: part.transfer,
  ...(part.noiseFigureDb === null ? {} : { noiseFigureDb: part.noiseFigureDb }),
  ...(part.iip2Dbm === null ? {} : { iip2Dbm: part.iip2Dbm }),
  ...(part.iip3Dbm === null ? {} : { iip3Dbm: part.iip3Dbm }),
  ...(part.p1Dbm === null ? {} : { p1Dbm: part.p1Dbm }),
});

type Shelf = Pick<StationData, 'station' | 'parts'>;
const partOf = ({ parts }: Shelf, stage: Saved<'pathStages'>): Saved<'parts'> | undefined =>
  parts.find(({ id }) => id === stage.partId);

/** A stored stage as the computation's own shape. */
export function toPathStage(data: Shelf, stage: Saved<'pathStages'>): PathStage {
  const { name, gainDb, noiseFigureDb, iip2Dbm, iip3Dbm } = stage;
  switch (stage.kind) {
    case 'line':
      return lineStage(name, cableLoss(data.station, stage.cableId), stage.lengthM, stage.figures);
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
      return { kind: 'amplifier', name, gainDb, noiseFigureDb, iip2Dbm, iip3Dbm };
    case 'pad':
      return { kind: 'pad', name, lossDb: stage.lossDb };
    case 'part': {
      const part = partOf(data, stage);
      // a part that went is a piece of nothing: the list of stages says so
      return part ? toPart(part, name) : { kind: 'pad', name, lossDb: 0 };
    }
    default:
      return figuredStage(stage.kind, name, stage.figures, { gainDb, noiseFigureDb, iip2Dbm, iip3Dbm });
  }
}

/** A stored stage as the DC on the coax meets it. */
export function toDcStage(data: Shelf, stage: Saved<'pathStages'>): DcStage {
  const part = partOf(data, stage);
  return stageDc({ ...stage, ...(part ? { part } : {}) });
}

/** Antenna, stages and receiver with their plugs; an empty text where nobody entered one. */
export function pluggedRow(
  data: Shelf,
  path: Saved<'paths'>,
  stages: readonly Saved<'pathStages'>[],
  receiverName: string,
): readonly Plugged[] {
  return [
    { name: 'antenna', antennaSide: '', receiverSide: path.antennaConnector },
    ...stages.map((stage): Plugged => {
      const part = partOf(data, stage);
      return {
        name: stage.name,
        antennaSide: part?.connectorIn ?? stage.connectorIn,
        receiverSide: part?.connectorOut ?? stage.connectorOut,
      };
    }),
    { name: receiverName, antennaSide: path.receiverConnector, receiverSide: '' },
  ];
}

export const toPathReceiver = (receiver: Saved<'receivers'>): PathReceiver => receiver;
