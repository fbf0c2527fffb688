import { BLANK, STATION_BLANK } from '@velvet-reed/contract';
import { type Hearing, hearingKey, type HearingQuestion, solveHearing, type Unheard } from '@velvet-reed/core/choose';
import type { StationData } from '../record';

const stored = (id: number) => ({ id, version: 1, stationId: 1, createdAt: '2026-03-10' });

const solved = new Map<string, Hearing | Unheard>();
/** The wire model on the spot, each question once. */
const heard = (question: HearingQuestion): Hearing | Unheard => {
  const key = hearingKey(question);
  const answer = solved.get(key) ?? solveHearing(question);
  solved.set(key, answer);
  return answer;
};

/** A small invented station for tests of views. */
export const TEST_STATION: StationData = {
  station: {
    ...stored(1),
    name: 'Ferrin Point',
    latDeg: 50.2,
    lonDeg: -19.3,
    environment: 'rural',
    noiseOffsetDb: 0,
    spanM: 38,
    heightM: 9,
    cableId: 'pe5',
    lineLengthM: 25,
    groundId: 'average',
    ...STATION_BLANK,
  },
  run: 'test',
  revision: 1,
  undo: null,
  setAside: [],
  hearing: { atMs: Date.UTC(2026, 2, 10), heard },
  targets: [
    {
      ...stored(1),
      name: '31 m broadcast',
      lowHz: 9.4e6,
      highHz: 9.9e6,
      bandwidthHz: 5000,
      weight: 5,
      ...BLANK.targets,
    },
  ],
  bandEdits: [
    {
      ...stored(1),
      bandId: 'a40',
      name: '40 m amateur, my plan',
      lowHz: 7e6,
      highHz: 7.1e6,
      bandwidthHz: 2400,
      hidden: false,
    },
  ],
  transmitters: [
    {
      ...stored(1),
      ...BLANK.transmitters,
      name: '3 kW FM',
      freqHz: 97.4e6,
      powerW: 3000,
      powerKind: 'ERP',
      distanceM: 7000,
      own: false,
    },
  ],
  receivers: [
    {
      ...{ ...stored(1), ...BLANK.receivers },
      name: 'HF receiver',
      bits: 14,
      fullScaleDbm: 0,
      sampleRateHz: 125e6,
      complexSamples: false,
      noiseFigureDb: 18,
      iip2Dbm: 60,
      iip3Dbm: 25,
      minHz: 1e4,
      maxHz: 60e6,
    },
  ],
  antennas: [{ ...stored(1), ...BLANK.antennas, name: 'V', targetId: 1 }],
  revisions: [
    {
      ...stored(1),
      antennaId: 1,
      number: 1,
      kind: 'v-dipole',
      freqHz: 9.65e6,
      diameterM: 0.002,
      dimensions: {},
      insulated: false,
      allowance: 0.03,
      gates: [],
      done: [],
    },
  ],
  sweeps: [],
  trimSteps: [],
  calibrations: [],
  coilTests: [],
  parts: [],
  logs: [],
  accessories: [],
  spectra: [],
  trials: [],
  readings: [],
  levels: [
    {
      ...{ ...stored(1), ...BLANK.levels, kind: 'off and on', antennaId: 1 },
      ...{ freqHz: 9.65e6, againstDbm: -119, levelDbm: -106 },
    },
  ],
  paths: [{ ...stored(1), ...BLANK.paths, name: 'P', receiverId: 1, targetId: 1, antennaId: 1 }],
  pathStages: [],
  pathOrders: [
    { ...stored(1), ...BLANK.pathOrders, pathId: 1, number: 1 },
    { ...stored(2), ...BLANK.pathOrders, pathId: 1, number: 2 },
  ],
  orderPlaces: [],
  guardPlans: [],
  guardInputs: [],
  entries: [{ ...stored(1), ...BLANK.entries, step: 'notebook', text: 'Ω and λ survive', atMs: 0 }],
  plotFeatures: [],
  satellites: [],
  spots: [],
  appointments: [],
  recordings: [],
  passes: [],
  blockCounts: [],
  guardParts: [],
  guardLinks: [],
  guardCouplings: [],
  powerTests: [],
  powerRungs: [],
  nullLogs: [],
  photos: [],
  upkeep: [],
  boughtAntennas: [],
  attachments: [{ ...stored(1), name: 'a.s1p', size: 3, sha256: 'ab'.repeat(32) }],
};

/** Stages of the path with their places in its two orders. */
export const placed = (
  stages: readonly (StationData['pathStages'][number] & { readonly at: readonly [number, number] })[],
): Pick<StationData, 'pathStages' | 'orderPlaces'> => ({
  pathStages: stages.map(({ at: _at, ...stage }) => stage),
  orderPlaces: stages.flatMap(({ id, at }, i) =>
    at.map((place, order) => ({ ...stored(2 * i + order + 1), orderId: order + 1, stageId: id, place })),
  ),
});
