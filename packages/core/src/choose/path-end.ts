import type { Reception } from '../antenna/kind';
import type { PathQuestion, PathSignal } from '../path/question';
import type { PathStage } from '../path/stages';
import { transmitterField } from '../site/field';
import { powerDb, powerRatio } from '../units/decibel';
import { noiseAskOf, type ReadyCandidate } from './candidate';
import { EVENING, eveningDbm, hasEvening } from './evening';
import { type ForecastPlace, type ForecastTarget, noiseMet } from './forecast';

/** What an antenna hands to the path behind it at one target, or why nobody can say. */
export type PathEnd =
  | {
      readonly state: 'judged';
      readonly question: PathQuestion;
      /** The amplifier inside an active antenna; always the first stage. */
      readonly head?: PathStage;
      readonly remarks: readonly string[];
    }
  | {
      /** `waiting`: the wire model has not answered yet. */
      readonly state: 'waiting' | 'not judged';
      readonly because: string;
    };

/** What stands in for an antenna that nobody chose. */
const LOSSLESS: Reception = { realisedGainDbi: 0, transfer: 1, validity: 'holds' };

/**
 * Noise and carriers at the output of an antenna: its solved or closed-form reception at the target and at every transmitter, mismatch counted, and the
 * noise that it meets at its spot. The same figures as the ranking's forecast.
 * @param antenna absent: a lossless antenna without direction, which is said. Nothing is taken from a reception that does not hold.
 */
export function pathEnd(target: ForecastTarget, place: ForecastPlace, antenna?: ReadyCandidate): PathEnd {
  const reception = antenna?.toward(target) ?? LOSSLESS;
  const { head } = antenna ?? {};
  const every = [...place.transmitters, ...(place.ownTransmitters ?? [])];
  const evening = hasEvening(target) ? EVENING : [];
  const asked = [target, ...evening];
  if (
    antenna &&
    !(asked.every((one) => antenna.answered(one)) && every.every(({ freqHz }) => antenna.answeredFrom(freqHz)))
  )
    return { state: 'waiting', because: `The wire model computes ${antenna.spec.name}.` };
  if (reception.validity === 'outside')
    return { state: 'not judged', because: reception.remark ?? 'Its model says nothing at this frequency.' };
  const { lowHz, highHz, bandwidthHz } = target;
  const heard = place.transmitters.map((transmitter) => ({
    transmitter,
    reception: antenna?.fromTransmitter(transmitter.freqHz) ?? LOSSLESS,
  }));
  const rough = heard.flatMap(({ transmitter, reception: there }) =>
    there.validity === 'outside' ? [`${transmitter.name}: ${there.remark ?? ''}`.trim()] : [],
  );
  const signals = heard.map(({ transmitter, reception: there }): PathSignal => ({
    name: transmitter.name,
    freqHz: transmitter.freqHz,
    levelDbm: transmitterField(transmitter).isotropicDbm + there.realisedGainDbi,
  }));
  const usual = evening.flatMap((band): PathSignal[] => {
    const there = antenna?.toward(band) ?? LOSSLESS;
    return there.validity === 'outside'
      ? []
      : [
          {
            ...{ name: band.name, freqHz: (band.lowHz + band.highHz) / 2, assumed: true },
            levelDbm: eveningDbm(band) + there.realisedGainDbi,
          },
        ];
  });
  const ownFactor = reception.ownFaDb === undefined ? 1 : 1 + powerRatio(reception.ownFaDb) * reception.transfer;
  return {
    state: 'judged',
    question: {
      ...{ lowHz, highHz, bandwidthHz, signals: [...signals, ...usual] },
      externalFaDb: noiseMet(place, target, antenna && noiseAskOf(antenna.spec)).middle + powerDb(reception.transfer),
      // what an amplifier makes of its own is counted in its noise figure
      ...(head ? {} : { antennaNoise: Math.max(0, 1 - reception.transfer) }),
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
      ...(antenna ? [] : ['No antenna is chosen: a lossless one without direction stands in for it (assumed).']),
      ...(reception.remark ? [reception.remark] : []),
      ...rough,
    ],
  };
}
