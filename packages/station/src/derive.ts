import type { Saved, Station } from '@velvet-reed/contract';
import {
  antennaKind,
  type Design,
  fitOf,
  type PlaceRoom,
  type Sight,
  receptionOf as receptionOfDesign,
} from '@velvet-reed/core/antenna';
import {
  burdenOf,
  type CandidateSpec,
  type ForecastPlace,
  type ForecastTarget,
  type NoiseAsk,
  noiseAskOf,
  type PriceRates,
  type SpotNoise,
  spotNoise,
  spotRoom,
  withFloor,
} from '@velvet-reed/core/choose';
import {
  attenuationDbPer100m,
  CABLE_CLASSES,
  cableClass,
  fitLineLoss,
  type LineLossModel,
} from '@velvet-reed/core/line';
import { atWorkingGains, effectiveNoiseFigureDb, OWN_CABLE, reaches } from '@velvet-reed/core/path';
import { type Finding, type Layout, layoutOf, plotRoom } from '@velvet-reed/core/plot';
import {
  AIMED_FROM_HZ,
  arrivalOf,
  expectedNoise,
  type ExpectedNoise,
  floorNear,
  type NoiseView,
  halfOfHours,
  measuredFaDb,
} from '@velvet-reed/core/site';
import {
  type Band,
  catalogueFor,
  ituRegionOf,
  PASS_ELEVATIONS_DEG,
  usualSignal,
  usualTime,
} from '@velvet-reed/core/spectrum';
import type { FeedLine } from '@velvet-reed/core/sweep';
import { levelsOf, type Floor } from './levels';
import { plotFeaturesOf } from './plotted';
import { spotOfAntenna, spotsSaid, widestSpot } from './spots';
import type { StationData } from './record';
import { staleLevel } from './taken-on';
import { othersTransmitters } from './transmitters';

/** The latest state of an antenna's dimensions; undefined for an antenna without any. */
export const latestRevision = (data: StationData, antennaId: number): Saved<'revisions'> | undefined =>
  data.revisions.filter((revision) => revision.antennaId === antennaId).sort((a, b) => b.number - a.number)[0];

/** Height that an antenna has on the plan; undefined when it was not laid, or its height was set by hand, or it lies in the grass. */
export function laidHeightM(
  data: StationData,
  revision: Saved<'revisions'>,
  laid = laidFeatures(data, revision.antennaId)[0],
): number | undefined {
  const height = antennaKind(revision.kind).parameters.find(({ id }) => id === HEIGHT);
  if (!laid || !height || revision.dimensions[HEIGHT] !== undefined) return undefined;
  const heightM = (laid.heightM + laid.endHeightM) / 2;
  return heightM >= height.least && heightM <= height.most && height.most > GRASS_M ? heightM : undefined;
}

/** Dimensions of a revision; a height that nobody set by hand is the one at which the antenna was laid on the plan. */
export function designOf(data: StationData, revision: Saved<'revisions'>, run?: Saved<'plotFeatures'>): Design {
  const heightM = laidHeightM(data, revision, run);
  return heightM === undefined ? revision : { ...revision, dimensions: { ...revision.dimensions, [HEIGHT]: heightM } };
}

/** A design alone, without the record that it may have come from. */
export const designValues = ({ kind, freqHz, diameterM, insulated, allowance, dimensions }: Design): Design => ({
  ...{ kind, freqHz, diameterM, insulated, allowance, dimensions },
});

/** Dimensions to save: a height that only follows the plan stays with the plan. */
export function ownDimensions(data: StationData, revision: Saved<'revisions'>, design: Design): Record<string, number> {
  const { [HEIGHT]: heightM, ...rest } = design.dimensions;
  const follows = revision.dimensions[HEIGHT] === undefined && designOf(data, revision).dimensions[HEIGHT] === heightM;
  return follows || heightM === undefined ? rest : { ...rest, [HEIGHT]: heightM };
}
const HEIGHT = 'heightM';
const GRASS_M = 1;

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

/** Loss of the cable into the house: a class, or the listener's own by its two points. */
export function cableLoss(station: Station, cableId: string): LineLossModel {
  const { ownCableDb10, ownCableDb100 } = station;
  if (cableId !== OWN_CABLE) return cableClass(cableId);
  return ownCableDb10 !== null && ownCableDb100 !== null
    ? fitLineLoss([10e6, 100e6], [ownCableDb10, ownCableDb100])
    : cableClass(CABLE_CLASSES[0].id);
}

/** Velocity factor and impedance of a cable of the listener's own: nobody gave them. */
const USUAL_CABLE = { impedanceOhm: 50, velocityFactor: 0.66 };

/** The line between shack and antenna, as the station says. */
export function feedLineOf(station: Station): FeedLine {
  const { k1, k2 } = cableLoss(station, station.cableId);
  const known = station.cableId === OWN_CABLE ? USUAL_CABLE : cableClass(station.cableId);
  const { impedanceOhm, velocityFactor } = known;
  return { k1, k2, impedanceOhm, velocityFactor, lengthM: station.lineLengthM };
}

/** External noise at a frequency, with what stands behind it: the listener's own floor counts before the class. */
export interface OutsideNoise extends ExpectedNoise {
  /** The floor that decides, and how far it lies above the class. */
  readonly measured?: { readonly floor: Floor; readonly overClassDb: number };
}

/** How an antenna looks at a target: up where only a dish hears it. */
export function noiseViewOf(
  { station }: StationData,
  target: Saved<'targets'>,
): NoiseView & { readonly elevationDeg: number } {
  const { elevationDeg } = arrivalOf(target, station, Date.parse(station.createdAt));
  return { seesSky: target.lowHz >= AIMED_FROM_HZ, elevationDeg };
}

/** @param view absent: an antenna near the ground. */
export function outsideNoise(data: StationData, freqHz: number, view: NoiseView = {}): OutsideNoise {
  const { station } = data;
  const expected = expectedNoise(station.environment, freqHz, station.noiseOffsetDb, view);
  const floor = floorNear(standingFloors(data), freqHz);
  const receiver = floor && receiverAt(data, floor.freqHz);
  if (!floor || !receiver) return expected;
  const reception = receptionOf(data, floor.antennaId)?.(floor.freqHz);
  const measured = measuredFaDb(floor, {
    transfer: reception && reception.validity !== 'outside' ? reception.transfer : 1,
    lineLossDb: lineLossDb(station, floor.freqHz),
    noiseFigureDb: effectiveNoiseFigureDb(receiver),
  });
  if (measured === undefined) return expected;
  const there = expectedNoise(station.environment, floor.freqHz, station.noiseOffsetDb).faDb;
  const overClassDb = measured - there;
  return {
    faDb: expected.faDb + overClassDb,
    parts: [...expected.parts, { source: 'man-made', faDb: expected.faDb + overClassDb, origin: 'measured' }],
    remarks: expected.remarks,
    measured: { floor, overClassDb },
  };
}

/** Floors that still speak for the antennas through which they were read. */
const standingFloors = (data: StationData): readonly Floor[] =>
  levelsOf(data).floors.filter(({ record }) => staleLevel(data, record) === undefined);

const receiverAt = (data: StationData, freqHz: number): Saved<'receivers'> | undefined =>
  data.receivers.find((receiver) => reaches(receiver, freqHz));

const lineLossDb = (station: Station, freqHz: number): number =>
  (attenuationDbPer100m(cableLoss(station, station.cableId), freqHz) * station.lineLengthM) / 100;

/** One of the listener's antennas as the noise around it meets it. */
function antennaNoiseAsk(data: StationData, antennaId: number): Omit<NoiseAsk, 'freqHz' | 'time'> | undefined {
  const spec = ownCandidate(data, antennaId);
  return spec && noiseAskOf(spec);
}

/** Outside noise as an antenna at its spot meets it: a floor that was measured through it counts, and only there; at its spot it is carried over. */
function noiseAt(data: StationData, ask: NoiseAsk): SpotNoise {
  const { environment, noiseOffsetDb } = data.station;
  const expected = spotNoise(environment, noiseOffsetDb, ask);
  const floors = standingFloors(data);
  const through = (wanted: (floor: Floor) => boolean) => floorNear(floors.filter(wanted), ask.freqHz);
  const own = (floor: Floor): boolean => floor.antennaId !== null && `own-${floor.antennaId}` === ask.antenna;
  const atSpot = (floor: Floor): boolean =>
    floor.antennaId !== null && ask.spot !== undefined && spotOfAntenna(data, floor.antennaId)?.id === ask.spot.id;
  const its = through(own);
  const floor = its ?? through(atSpot) ?? through(({ antennaId }) => antennaId === null);
  if (!floor) return expected;
  const overExpectedDb = floorOverExpected(data, floor, ask);
  if (overExpectedDb === undefined) return expected;
  const name = data.antennas.find(({ id }) => id === floor.antennaId)?.name ?? 'a lossless antenna';
  return withFloor(expected, { overExpectedDb, through: its ? 'it' : 'another', name });
}

/** How far a measured floor lies over what was expected for the antenna through which it was read. */
function floorOverExpected(data: StationData, floor: Floor, { time }: NoiseAsk): number | undefined {
  const { station } = data;
  const receiver = receiverAt(data, floor.freqHz);
  if (!receiver) return undefined;
  const reception = receptionOf(data, floor.antennaId)?.(floor.freqHz);
  const measured = measuredFaDb(floor, {
    transfer: reception && reception.validity !== 'outside' ? reception.transfer : 1,
    lineLossDb: lineLossDb(station, floor.freqHz),
    noiseFigureDb: effectiveNoiseFigureDb(receiver),
  });
  if (measured === undefined) return undefined;
  const ask = floor.antennaId === null ? undefined : antennaNoiseAsk(data, floor.antennaId);
  const at = { freqHz: floor.freqHz, ...(time ? { time } : {}) };
  const expected = ask
    ? spotNoise(station.environment, station.noiseOffsetDb, { ...ask, ...at }).middle
    : expectedNoise(station.environment, floor.freqHz, station.noiseOffsetDb, time ? { time } : {}).faDb;
  return measured - expected;
}

/** What the place, its line, receivers and neighbours are to a forecast. What happens to them when the own transmitter sends is Guard's matter. */
export function forecastPlace(data: StationData): ForecastPlace {
  const { environment, noiseOffsetDb } = data.station;
  return {
    transmitters: othersTransmitters(data),
    receivers: data.receivers.flatMap(atWorkingGains).map((receiver) => ({
      ...receiver,
      noiseFigureDb: effectiveNoiseFigureDb(receiver),
      realSampleRateHz: receiver.complexSamples ? null : receiver.sampleRateHz,
    })),
    lineLossDb: (freqHz) => lineLossDb(data.station, freqHz),
    externalFaDb: (freqHz, time) => expectedNoise(environment, freqHz, noiseOffsetDb, time ? { time } : {}).faDb,
    noise: (ask) => noiseAt(data, ask),
    ownTransmitters: data.transmitters.flatMap((one) =>
      one.own && one.distanceM !== null
        ? [
            {
              ...{ name: one.name, freqHz: one.freqHz, powerW: one.powerW, distanceM: one.distanceM },
              // what leaves a socket is taken to be radiated evenly
              powerKind: one.powerKind === 'output' ? ('EIRP' as const) : one.powerKind,
            },
          ]
        : [],
    ),
  };
}

/** What wire, masts and posts cost here. */
export const ratesOf = ({ station }: StationData): PriceRates => ({
  ...{ wirePerM: station.wirePerM, tubePerM: station.tubePerM, mastPerM: station.mastPerM, perPost: station.perPost },
});

/** What the place offers: measured on the plan when it has two supports, else the spot with the longest run, else as entered. */
export function roomOf(data: StationData): PlaceRoom & { readonly from: string } {
  const room = plotRoom(plotFeaturesOf(data));
  if (room) return { spanM: room.spanM, heightM: room.heightM, from: `Plot: ${room.between.join(' to ')}` };
  if (spotsSaid(data)) {
    const widest = widestSpot(data);
    const { spanM, heightM } = spotRoom(widest);
    return { spanM, heightM, from: widest.name };
  }
  return { spanM: data.station.spanM, heightM: data.station.heightM, from: 'as entered for the station' };
}

/** Runs of an antenna on the plan; one antenna may be laid several times. */
const laidFeatures = (data: StationData, antennaId: number): readonly Saved<'plotFeatures'>[] =>
  data.plotFeatures
    .filter((feature) => feature.kind === 'antenna' && feature.antennaId === antennaId)
    .sort((a, b) => a.id - b.id);

/** A run of an antenna, how it lies, and what was found there. */
export interface LaidAntenna {
  readonly feature: Saved<'plotFeatures'>;
  readonly layout: Layout;
}

/** Every run of an antenna by its own figures; empty when it was not laid. */
export function laidLayouts(data: StationData, antennaId: number): readonly LaidAntenna[] {
  const revision = latestRevision(data, antennaId);
  if (!revision) return [];
  return laidFeatures(data, antennaId).flatMap((feature) => layoutOfRun(data, feature, revision) ?? []);
}

/** One run by its own figures. @param revision of its antenna; without one its clearances alone are judged. */
function layoutOfRun(
  data: StationData,
  feature: Saved<'plotFeatures'>,
  revision: Saved<'revisions'> | undefined,
): LaidAntenna | undefined {
  const features = plotFeaturesOf(data);
  const laid = features.find((one) => one.id === String(feature.id));
  const fit = revision && fitOf(designOf(data, revision, feature), roomOf(data));
  const needs = {
    ...{ spanM: fit?.needsSpanM ?? 0, heightM: fit?.needsHeightM ?? 0 },
    across: !revision || antennaKind(revision.kind).hearsAlong !== true,
  };
  return laid && { feature, layout: layoutOf(laid, needs, features) };
}

/** Every run on the plan by its own figures, that which is worst off first. */
export const runsOnPlan = (data: StationData): readonly LaidAntenna[] =>
  data.plotFeatures
    .filter(({ kind }) => kind === 'antenna')
    .flatMap((feature) => {
      const revision = feature.antennaId === null ? undefined : latestRevision(data, feature.antennaId);
      return layoutOfRun(data, feature, revision) ?? [];
    })
    .sort((a, b) => severityOf(b.layout) - severityOf(a.layout));

/** The worst finding of a run, unless all is good. */
export const worstFinding = ({ findings }: Layout): Finding | undefined =>
  [...findings]
    .sort((a, b) => SEVERITY.indexOf(b.state) - SEVERITY.indexOf(a.state))
    .find(({ state }) => state !== 'good');

/** What of an antenna, as laid, comes too near to a line or another keep-out; undefined: nothing does. */
export function laidDanger(data: StationData, antennaId: number): string | undefined {
  const worst = laidLayouts(data, antennaId).flatMap(({ layout }) => worstFinding(layout) ?? []);
  return worst.find(({ state }) => state === 'danger')?.sentence;
}

const SEVERITY = ['good', 'caution', 'danger'] as const;
/** How bad the worst finding of a run is; 0: all is good. */
export const severityOf = ({ findings }: Layout): number =>
  Math.max(0, ...findings.map(({ state }) => SEVERITY.indexOf(state)));

/** The run that is worst off; undefined when the antenna was not laid. */
export const laidLayout = (data: StationData, antennaId: number): Layout | undefined =>
  [...laidLayouts(data, antennaId)].sort((a, b) => severityOf(b.layout) - severityOf(a.layout))[0]?.layout;

/** The band of the catalogue that a target lies in, the narrowest. */
const bandOf = (data: StationData, lowHz: number, highHz: number): Band | undefined =>
  bandsOf(data)
    .filter((band) => band.lowHz <= (lowHz + highHz) / 2 && band.highHz >= (lowHz + highHz) / 2)
    .sort((a, b) => a.highHz - a.lowHz - (b.highHz - b.lowHz))[0];

/** Targets as the ranking wants them: with arrival angle and bearing at a moment, their hours, and what a usual station brings. */
export const targetChoices = (data: StationData, atMs: number): readonly ForecastTarget[] =>
  data.targets.map((target) => {
    const arrival = arrivalOf(target, data.station, atMs);
    const { lowHz, highHz, bandwidthHz } = target;
    const time = halfOfHours(data.station, target, atMs) ?? usualTime((lowHz + highHz) / 2);
    const band = bandOf(data, lowHz, highHz);
    const { distanceKm } = arrival;
    const signal = usualSignal(
      { lowHz, highHz, bandwidthHz, ...(band ? { id: band.id } : {}) },
      { time, ...(distanceKm === undefined ? {} : { distanceKm }) },
    );
    // satellites cross the sky, whatever the straight way to the horizon would say
    const passes = signal.way === 'satellite' && target.arrivalDeg === null;
    return {
      id: String(target.id),
      name: target.name,
      ...{ lowHz, highHz, bandwidthHz, time, signal },
      weight: target.weight,
      arrivalDeg: passes ? PASS_ELEVATIONS_DEG[0] : arrival.elevationDeg,
      ...(passes ? { alsoDeg: PASS_ELEVATIONS_DEG.slice(1) } : {}),
      ...(arrival.bearingDeg === undefined ? {} : { bearingDeg: arrival.bearingDeg }),
    };
  });

/** Whether something was measured on an antenna: only then it hangs there, whatever was drafted. */
const stands = (data: StationData, antennaId: number): boolean =>
  [data.sweeps, data.trimSteps, data.spectra, data.levels].some((records) =>
    records.some((one) => one.antennaId === antennaId),
  ) ||
  data.trials.some(
    (trial) =>
      (trial.antennaAId === antennaId || trial.antennaBId === antennaId) &&
      data.readings.some((reading) => reading.trialId === trial.id),
  );

/** One of the listener's own antennas as a candidate; undefined while it has no dimensions. */
export function ownCandidate(data: StationData, antennaId: number): CandidateSpec | undefined {
  const antenna = data.antennas.find(({ id }) => id === antennaId);
  const revision = antenna && latestRevision(data, antenna.id);
  if (!antenna || !revision) return undefined;
  const layout = laidLayout(data, antenna.id);
  const danger = laidDanger(data, antenna.id);
  const spot = spotOfAntenna(data, antenna.id);
  const design = designOf(data, revision);
  return {
    id: `own-${antenna.id}`,
    name: antenna.name,
    source: 'own',
    design,
    standing: stands(data, antenna.id),
    burden: burdenOf(design, ratesOf(data)),
    ...(spot ? { spot } : {}),
    ...(antenna.choke === 'not said' ? {} : { choked: antenna.choke === 'yes' }),
    ...(danger === undefined ? {} : { forbidden: danger }),
    ...(layout ? { headingDeg: layout.facingDeg } : {}),
  };
}

/** The listener's own antennas as candidates. */
export const ownCandidates = (data: StationData): readonly CandidateSpec[] =>
  data.antennas.flatMap(({ id }) => ownCandidate(data, id) ?? []);

/** Antennas that could be bought, as candidates. */
export const boughtCandidates = (data: StationData): readonly CandidateSpec[] =>
  data.boughtAntennas.map((one): CandidateSpec => ({
    id: `bought-${one.id}`,
    name: one.name,
    source: 'bought',
    sizeM: one.sizeM,
    // put up as a kind would be: with a choke
    choked: true,
    burden: { price: one.price, hours: one.hours, sight: asSight(one.sight) },
    bought: {
      gains: one.gains,
      ...(one.amplified
        ? {
            head: {
              gainDb: one.gainDb,
              noiseFigureDb: one.noiseFigureDb,
              iip2Dbm: one.iip2Dbm,
              iip3Dbm: one.iip3Dbm,
            },
          }
        : {}),
      ...(one.inputFilterHz === null ? {} : { inputFilterHz: one.inputFilterHz }),
    },
  }));

const asSight = (value: number): Sight => (value >= 3 ? 3 : value >= 2 ? 2 : value >= 1 ? 1 : 0);

/** What an antenna hands on at a frequency, from its latest dimensions. */
function receptionOf(data: StationData, antennaId: number | null) {
  const revision = antennaId === null ? undefined : latestRevision(data, antennaId);
  return revision ? receptionOfDesign(designOf(data, revision)) : undefined;
}
