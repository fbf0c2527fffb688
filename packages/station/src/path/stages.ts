import type { Saved } from '@velvet-reed/contract';
import {
  type DcStage,
  type PathReceiver,
  type PathStage,
  type Plugged,
  stageKind,
  type StageValues,
} from '@velvet-reed/core/path';
import { cableLoss } from '../derive';
import type { StationData } from '../record';

type Shelf = Pick<StationData, 'station' | 'parts'>;
const partOf = ({ parts }: Shelf, stage: Saved<'pathStages'>): Saved<'parts'> | undefined =>
  parts.find(({ id }) => id === stage.partId);

/** A stored stage with its cable and part, as its kind reads it. */
function valuesOf(data: Shelf, stage: Saved<'pathStages'>): StageValues {
  const part = partOf(data, stage);
  return { ...stage, cable: cableLoss(data.station, stage.cableId), ...(part ? { part } : {}) };
}

/** A stored stage as the computation's own shape. */
export const toPathStage = (data: Shelf, stage: Saved<'pathStages'>): PathStage =>
  stageKind(stage.kind).stage(valuesOf(data, stage));

/** A stored stage as the DC on the coax meets it. */
export const toDcStage = (data: Shelf, stage: Saved<'pathStages'>): DcStage =>
  stageKind(stage.kind).dc(valuesOf(data, stage));

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
