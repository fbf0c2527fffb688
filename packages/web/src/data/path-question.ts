import type { Saved } from '@velvet-reed/contract';
import { antennaKind } from '@velvet-reed/core/antenna';
import type { PathQuestion, PathStage } from '@velvet-reed/core/path';
import { transmitterField } from '@velvet-reed/core/site';
import { powerDb, powerRatio } from '@velvet-reed/core/units';
import { latestRevision, outsideNoise, receptionOf } from './derive';
import type { StationData } from './station';
import { othersTransmitters } from './transmitters';

/** What a path is asked: the wanted band, the noise and carriers at the antenna connector, and the antenna's own amplifier if it has one. */
export interface AskedPath {
  readonly question: PathQuestion;
  /** The amplifier inside an active antenna; always the first stage. */
  readonly head?: PathStage;
  /** Sentences about what the antenna model does not cover. */
  readonly remarks: readonly string[];
}

/** Without a drafted antenna everything arrives as on an isotropic one. */
export function askPath(data: StationData, path: Saved<'paths'>, target: Saved<'targets'>): AskedPath {
  const centreHz = (target.lowHz + target.highHz) / 2;
  const reception = receptionOf(data, path.antennaId);
  const here = reception?.(centreHz);
  const counted = here && here.validity !== 'outside' ? here : undefined;
  const share = counted ? counted.transfer : 1;
  const revision = path.antennaId === null ? undefined : latestRevision(data, path.antennaId);
  const { head, seesSky } = revision ? antennaKind(revision.kind) : {};
  const { faDb } = outsideNoise(data, centreHz, seesSky);
  const ownFactor = head && counted?.ownFaDb !== undefined ? 1 + powerRatio(counted.ownFaDb) * share : 1;
  return {
    question: {
      lowHz: target.lowHz,
      highHz: target.highHz,
      bandwidthHz: target.bandwidthHz,
      externalFaDb: faDb + powerDb(share),
      signals: othersTransmitters(data).map((transmitter) => ({
        name: transmitter.name,
        freqHz: transmitter.freqHz,
        levelDbm: transmitterField(transmitter).isotropicDbm + (reception?.(transmitter.freqHz).realisedGainDbi ?? 0),
      })),
    },
    ...(head
      ? {
          head: {
            kind: 'amplifier' as const,
            name: 'its own amplifier',
            gainDb: head.gainDb,
            noiseFigureDb: powerDb(ownFactor),
            iip2Dbm: head.iip2Dbm,
            iip3Dbm: head.iip3Dbm,
          },
        }
      : {}),
    remarks: [
      ...(path.antennaId === null ? ['No antenna chosen: everything arrives as on an isotropic one.'] : []),
      ...(here?.remark ? [here.remark] : []),
    ],
  };
}
