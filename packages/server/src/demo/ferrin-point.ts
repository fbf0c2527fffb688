import {
  BLANK,
  createOf,
  STATION_BLANK,
  type Change,
  type NewValues,
  type StationValues,
  type Values,
} from '@velvet-reed/contract';
import { CHARGER, turnsOfTheLoop } from './sample-turns';
import { type Design, startDesign } from '@velvet-reed/core/antenna';

/** An invented headland: a listening hut on a leased strip of 38 m by 16 m with a timber mast of 9 m. */
export const FERRIN_POINT: StationValues = {
  name: 'Ferrin Point',
  latDeg: 50.2,
  lonDeg: -19.3,
  environment: 'quiet_rural',
  noiseOffsetDb: 0,
  spanM: 38,
  heightM: 9,
  cableId: 'pe5',
  lineLengthM: 25,
  groundId: 'average',
  ...STATION_BLANK,
  adapterBox: 'BNC-m to N-f\nN-m to N-m\nSMA-m to SMA-m',
  windLimitMPerS: 18,
};

/** Where most of the antennas hang. */
const inGarden = { spotId: { new: 'garden' } } as const;

const target = (
  name: string,
  lowMHz: number,
  highMHz: number,
  bandwidthHz: number,
  weight: number,
  more: Partial<Values<'targets'>> = {},
  as?: string,
): Change =>
  createOf(
    'targets',
    {
      name,
      lowHz: Math.round(lowMHz * 1e6),
      highHz: Math.round(highMHz * 1e6),
      bandwidthHz,
      weight,
      ...BLANK.targets,
      ...more,
    },
    as,
  );

/** Positions in open sea, so that no real place is meant. */
const at = (latDeg: number, lonDeg: number): Partial<Values<'targets'>> => ({ latDeg, lonDeg });
const hours = (from: number, to: number): Partial<Values<'targets'>> => ({ fromMin: from * 60, toMin: to * 60 });

const feature = (
  values: Partial<NewValues<'plotFeatures'>> & Pick<Values<'plotFeatures'>, 'kind' | 'name' | 'points'>,
  as?: string,
): Change =>
  createOf(
    'plotFeatures',
    {
      heightM: 0,
      endHeightM: 0,
      clearanceM: 0,
      widthM: 0,
      ...BLANK.plotFeatures,
      ...values,
    },
    as,
  );

const transmitter = (
  name: string,
  freqMHz: number,
  powerW: number,
  powerKind: Values<'transmitters'>['powerKind'],
  distanceM: number,
): Change => createOf('transmitters', { name, freqHz: freqMHz * 1e6, powerW, powerKind, distanceM, own: false });

/** The level V for weather pictures. */
export const SATELLITE_V: Design = startDesign('flat-v-dipole', 137.5e6);
const revision = (antenna: string, design: Design): Change =>
  createOf('revisions', { ...design, antennaId: { new: antenna }, number: 1, gates: [], done: [] });

/** Filter and amplifier values that a stage does not use stay at these. */
const STAGE = {
  ...BLANK.pathStages,
  lengthM: 25,
  gainDb: 15,
  noiseFigureDb: 2,
  iip3Dbm: 15,
  lossDb: 6,
  shape: 'highpass' as const,
  order: 7,
  rippleDb: 0.2,
  edgeLowHz: 3e6,
};

/** An evening's floor on the club's frequency, every second minute. */
export const EVENING_MS = Date.UTC(2026, 2, 10, 18, 40);
const FLOOR_EVENING = [
  ...[-118.2, -117.8, -118.4, -118.1, -117.6, -118, -118.3, -117.9, -118.2, -117.7, -118.1, -118.4],
  ...[-117.9, -118, -117.6, -118.3, -118.1, -117.8, -118.2, -118, -109.2, -108.9, -109.4, -108.6],
  ...[-109, -109.3, -108.8, -109.1, -109.5, -108.9, -109.2, -109, -117.9, -118.3, -118, -117.7],
];

/** What the club wants to hear, who transmits nearby, and what stands in the hut. All invented. */
export const FERRIN_POINT_RECORDS: readonly Change[] = [
  target('Coastal navigational text', 0.5177, 0.5183, 500, 2, at(48.9, -17.5)),
  target('Aeronautical weather voice 5.5 MHz', 5.48, 5.68, 2700, 3, at(53.5, -24)),
  target('49 m broadcast', 5.9, 6.2, 5000, 3, { ...at(44, -4.5), ...hours(18, 23) }),
  target('Marine weather fax near 8 MHz', 7.8, 8.5, 2400, 4, { ...at(60, -20), ...hours(5, 9) }),
  target('Aeronautical weather voice 8.9 MHz', 8.815, 8.965, 2700, 3, at(53.5, -24)),
  target('31 m broadcast', 9.4, 9.9, 5000, 5, at(38, -60), 'b31'),
  target('Polar weather pictures', 137, 138, 40000, 3, { arrivalDeg: 30 }),
  target('Marine VHF', 156, 162.05, 16000, 3),
  target('Ship position bursts', 161.9625, 162.0375, 16000, 2),
  transmitter('3 kW FM', 97.4, 3000, 'ERP', 7000),
  transmitter('40 kW MW', 0.909, 40000, 'EMRP', 24000),
  transmitter('Harbour radar', 9410, 4000, 'EIRP', 3200),
  createOf(
    'transmitters',
    { name: 'Club transmitter', freqHz: 7.1e6, powerW: 100, powerKind: 'output', distanceM: 22, own: true },
    'own',
  ),
  createOf(
    'receivers',
    {
      name: '14-bit direct-sampling HF receiver',
      bits: 12.8,
      fullScaleDbm: 0,
      sampleRateHz: 125e6,
      complexSamples: false,
      noiseFigureDb: 18,
      iip2Dbm: 60,
      iip3Dbm: 25,
      minHz: 1e4,
      maxHz: 60e6,
    },
    'hf',
  ),
  createOf(
    'receivers',
    {
      name: '8-bit wide-range dongle',
      bits: 7.4,
      fullScaleDbm: -60,
      sampleRateHz: 2.4e6,
      complexSamples: true,
      noiseFigureDb: 6,
      iip2Dbm: 10,
      iip3Dbm: -20,
      minHz: 24e6,
      maxHz: 1.7e9,
    },
    'dongle',
  ),
  createOf('receivers', {
    name: '12-bit wideband receiver',
    bits: 10.5,
    fullScaleDbm: -35,
    sampleRateHz: 10e6,
    complexSamples: true,
    noiseFigureDb: 5,
    iip2Dbm: 35,
    iip3Dbm: -3,
    minHz: 1e6,
    maxHz: 6e9,
  }),
  createOf('spots', { name: 'Garden', kind: 'garden', spanM: 35, widthM: 20, heightM: 9, distanceM: 15 }, 'garden'),
  createOf('spots', { name: 'Hut wall', kind: 'wall', spanM: 4, widthM: 1, heightM: 2.5, distanceM: 0 }, 'wall'),
  createOf('spots', { name: 'Hut roof', kind: 'roof', spanM: 4, widthM: 3, heightM: 6, distanceM: 0 }),
  createOf('antennas', { name: 'Old dipole between mast and hedge', targetId: { new: 'b31' }, ...inGarden }, 'old'),
  revision('old', { ...startDesign('half-wave-dipole', 9.65e6) }),
  createOf('antennas', { name: 'V dipole for the satellites', targetId: null, ...inGarden }, 'v'),
  revision('v', SATELLITE_V),
  createOf(
    'antennas',
    { name: 'Loop on the hut wall', targetId: { new: 'b31' }, spotId: { new: 'wall' }, choke: 'yes' },
    'loop',
  ),
  revision('loop', startDesign('amplified-loop', 9.65e6)),
  feature({
    kind: 'boundary',
    name: 'Leased strip',
    points: [
      [-19, -8],
      [19, -8],
      [19, 8],
      [-19, 8],
    ],
  }),
  feature({
    kind: 'house',
    name: 'Listening hut',
    heightM: 2.6,
    points: [
      [-3, -7],
      [2, -7],
      [2, -3],
      [-3, -3],
    ],
  }),
  feature({ kind: 'support', name: 'Timber mast', heightM: 9, points: [[-17, 2]] }),
  feature({ kind: 'support', name: 'Hawthorn hedge', heightM: 3.5, points: [[17.5, 5]] }),
  feature({
    kind: 'keepout',
    name: 'Power line along the lane',
    heightM: 6,
    clearanceM: 5,
    points: [
      [-30, -22],
      [30, -20],
    ],
  }),
  feature({ kind: 'feed', name: 'Cable entry', heightM: 1, points: [[2, -5]] }),
  feature({ kind: 'earth', name: 'Earth stake at the hut', points: [[3, -4]] }),
  feature({ kind: 'noise', name: 'Electric fence', points: [[12, -9]] }),
  feature({ kind: 'noise', name: 'Battery charger', points: [CHARGER] }),
  ...turnsOfTheLoop(EVENING_MS, 9.65e6).map((values) => createOf('nullLogs', values)),
  feature({
    kind: 'transmitter',
    name: 'Club vertical',
    heightM: 8,
    points: [[20, -17]],
    transmitterId: { new: 'own' },
  }),
  createOf('plotFeatures', {
    kind: 'antenna',
    name: 'Old dipole between mast and hedge',
    heightM: 8.5,
    endHeightM: 3,
    clearanceM: 0,
    widthM: 0,
    antennaId: { new: 'old' },
    points: [
      [-16.6, 2.1],
      [0.1, 3.6],
    ],
  }),
  createOf('plotFeatures', {
    ...{ kind: 'antenna', name: 'Loop on the hut wall', heightM: 1.5, endHeightM: 1.5, clearanceM: 0, widthM: 0 },
    antennaId: { new: 'loop' },
    points: [
      [2.4, -6.5],
      [2.4, -5.3],
    ],
  }),
  feature(
    {
      kind: 'cable',
      name: 'Coax from the old dipole',
      heightM: 5.7,
      endHeightM: 1,
      points: [
        [-8.6, 2.8],
        [-8, -5],
        [2, -5],
      ],
    },
    'run',
  ),
  createOf('satellites', {
    name: 'Polar weather satellite (made-up orbit)',
    line1: '1 90001U 26001A   26330.50000000  .00000000  00000-0  00000-0 0  9998',
    line2: '2 90001  98.7000  20.0000 0010000  90.0000 270.0000 14.20000000  1005',
    freqHz: 137.5e6,
    leastDeg: 10,
  }),
  createOf('appointments', {
    ...{ name: 'Evening weather voice', atMs: Date.UTC(2026, 2, 1, 19, 20), minutes: 25, repeats: 'daily' },
    freqHz: 8.9e6,
    receiverId: { new: 'hf' },
  }),
  createOf('appointments', {
    ...{
      name: 'Slow digital mode, two-minute slots',
      atMs: Date.UTC(2026, 2, 1, 18, 0),
      minutes: 120,
      repeats: 'daily',
    },
    ...{ freqHz: 7.04e6, slotMinutes: 2, receiverId: { new: 'hf' } },
  }),
  createOf('appointments', {
    ...{ name: 'Ship positions for the club log', atMs: Date.UTC(2026, 2, 1, 18, 30), minutes: 60, repeats: 'daily' },
    ...{ freqHz: 162e6, receiverId: { new: 'dongle' } },
  }),
  createOf('boughtAntennas', {
    name: 'Wideband amplified loop',
    gains: [
      { freqHz: 518e3, gainDbi: -52 },
      { freqHz: 5.5e6, gainDbi: -31 },
      { freqHz: 9.6e6, gainDbi: -28 },
      { freqHz: 30e6, gainDbi: -20 },
      { freqHz: 97e6, gainDbi: -12 },
      { freqHz: 180e6, gainDbi: -10 },
    ],
    amplified: true,
    gainDb: 20,
    noiseFigureDb: 4,
    iip2Dbm: 35,
    iip3Dbm: 15,
    inputFilterHz: null,
    sizeM: 1,
    price: 250,
    hours: 2,
    sight: 1,
  }),
  createOf('parts', {
    name: '20 dB amplifier to 1 GHz',
    transfer: [
      { freqHz: 1e5, gainDb: 20 },
      { freqHz: 1e8, gainDb: 20.4 },
      { freqHz: 1e9, gainDb: 15 },
    ],
    noiseFigureDb: 2.8,
    iip2Dbm: 18,
    iip3Dbm: 8,
    p1Dbm: -4,
    connectorIn: 'SMA-f',
    connectorOut: 'SMA-f',
    cost: 45,
  }),
  createOf('parts', {
    name: 'Band-stop for VHF broadcast',
    transfer: [
      { freqHz: 1e6, gainDb: -0.2 },
      { freqHz: 7e7, gainDb: -0.8 },
      { freqHz: 8.8e7, gainDb: -38 },
      { freqHz: 1.08e8, gainDb: -42 },
      { freqHz: 1.3e8, gainDb: -1.2 },
      { freqHz: 1e9, gainDb: -2.5 },
    ],
    connectorIn: 'SMA-f',
    connectorOut: 'SMA-m',
    cost: 20,
  }),
  createOf('trimSteps', {
    antennaId: { new: 'old' },
    lengthM: 7.53,
    freqHz: 9.4e6,
    ...BLANK.trimSteps,
    note: 'as found',
  }),
  createOf('levels', {
    kind: 'off and on',
    antennaId: { new: 'old' },
    freqHz: 5.58e6,
    againstDbm: -119,
    levelDbm: -101,
  }),
  createOf('levels', {
    kind: 'off and on',
    antennaId: { new: 'old' },
    freqHz: 9.65e6,
    againstDbm: -119,
    levelDbm: -106,
  }),
  createOf('levels', {
    kind: 'off and on',
    antennaId: { new: 'old' },
    freqHz: 21.6e6,
    againstDbm: -121,
    levelDbm: -119,
  }),
  createOf(
    'paths',
    {
      name: 'Old dipole to the HF receiver',
      receiverId: { new: 'hf' },
      targetId: { new: 'b31' },
      antennaId: { new: 'old' },
      antennaConnector: 'N-f',
      receiverConnector: 'SMA-f',
    },
    'path',
  ),
  createOf(
    'pathStages',
    {
      ...STAGE,
      pathId: { new: 'path' },
      name: '5 mm coax along the hut',
      kind: 'line',
      figures: { loopOhmPerM: 0.05 },
      connectorIn: 'N-m',
      connectorOut: 'N-m',
      plotFeatureId: { new: 'run' },
    },
    'stage 1',
  ),
  createOf(
    'pathStages',
    {
      ...STAGE,
      pathId: { new: 'path' },
      name: 'High-pass 3 MHz',
      kind: 'filter',
      connectorIn: 'BNC-f',
      connectorOut: 'BNC-f',
    },
    'stage 2',
  ),
  createOf(
    'pathStages',
    {
      ...STAGE,
      pathId: { new: 'path' },
      name: 'Low-noise amplifier',
      kind: 'amplifier',
      figures: { leastV: 9, currentMA: 120 },
      choices: { polarity: 'plus' },
      connectorIn: 'N-f',
      connectorOut: 'N-f',
    },
    'stage 3',
  ),
  createOf(
    'pathStages',
    {
      ...STAGE,
      pathId: { new: 'path' },
      name: 'Bias feed in the hut',
      kind: 'bias feed',
      figures: { supplyV: 12, limitMA: 300, chokeUH: 100, capacitorNF: 100 },
      choices: { polarity: 'plus' },
      connectorIn: 'N-f',
      connectorOut: 'SMA-f',
    },
    'stage 4',
  ),
  // order 1: as they hang from the antenna down; order 2: the amplifier at the antenna
  ...(
    [
      [1, [1, 2, 3, 4]],
      [2, [3, 1, 2, 4]],
    ] as const
  ).flatMap(([number, stages]) => [
    createOf('pathOrders', { pathId: { new: 'path' }, number }, `order ${number}`),
    ...stages.map((stage, place) =>
      createOf('orderPlaces', { orderId: { new: `order ${number}` }, stageId: { new: `stage ${stage}` }, place }),
    ),
  ]),
  createOf('entries', {
    ...{
      step: 'notebook',
      atMs: Date.UTC(2026, 0, 12, 9, 30),
      antennaId: { new: 'old' },
      room: 'notebook/diary',
      pinned: true,
    },
    text: 'Gale from the west for two days. The middle of the old dipole hangs a hand lower than before.',
  }),
  createOf('upkeep', {
    ...{ name: 'Ropes, pulleys and insulators: no chafing, no stretch', kind: 'ropes', everyDays: 180 },
    ...{ sinceMs: Date.UTC(2025, 2, 8), doneMs: Date.UTC(2026, 2, 8), antennaId: { new: 'old' } },
  }),
  createOf('upkeep', {
    ...{ name: 'Joints, feed point and seals: no corrosion, dry, tight', kind: 'joints', everyDays: 365 },
    ...{ sinceMs: Date.UTC(2025, 2, 8), doneMs: Date.UTC(2026, 2, 8), antennaId: { new: 'old' } },
  }),
  createOf('upkeep', {
    ...{ name: 'Battery of the hut: voltage under load, fuse, terminals', kind: 'battery', everyDays: 90 },
    ...{ sinceMs: Date.UTC(2026, 2, 8), doneMs: null, note: 'lead-acid, 12 V, behind the door' },
  }),
  // the charger goes on at 19:20 and off again at 19:44
  ...FLOOR_EVENING.map((levelDbm, i) =>
    createOf('levels', { kind: 'log', atMs: EVENING_MS + 2 * i * 60_000, freqHz: 9.65e6, levelDbm }),
  ),
  ...(
    [
      ['battery charger', -108.8, -117.9],
      ['battery charger', -109.1, -118.2],
      ['hut lamp', -117.6, -118],
    ] as const
  ).map(([subject, levelDbm, againstDbm]) =>
    createOf('levels', {
      kind: 'device',
      subject,
      freqHz: 9.65e6,
      levelDbm,
      againstDbm,
      atMs: EVENING_MS + 40 * 60_000,
    }),
  ),
  createOf(
    'trials',
    {
      name: 'Loop against old dipole at dusk',
      antennaAId: { new: 'old' },
      antennaBId: { new: 'loop' },
      freqHz: 9.65e6,
      worthDb: 3,
      conditions: 'dusk, battery charger off',
    },
    'trial',
  ),
  ...[
    [-73, -85, -95, -110],
    [-76, -84, -97, -112],
    [-70, -85, -96, -110],
    [-81, -85, -103, -111],
    [-79, -86, -99, -111],
  ].map(([levelADbm, noiseADbm, levelBDbm, noiseBDbm], round) =>
    createOf('readings', {
      ...{ trialId: { new: 'trial' }, round, levelADbm, noiseADbm, levelBDbm, noiseBDbm },
      atMs: EVENING_MS + round * 4 * 60_000,
    }),
  ),
  createOf(
    'trials',
    {
      ...{ name: 'The same at noon, charger on', antennaAId: { new: 'old' }, antennaBId: { new: 'loop' } },
      ...{ freqHz: 9.65e6, worthDb: 3, conditions: 'noon, battery charger on' },
    },
    'noon',
  ),
  ...[
    [-82, -104, -104, -123],
    [-80, -103, -103, -121],
    [-84, -104, -108, -123],
    [-81, -105, -104, -124],
    [-83, -103, -107, -121],
    [-82, -104, -105, -124],
  ].map(([levelADbm, noiseADbm, levelBDbm, noiseBDbm], round) =>
    createOf('readings', {
      ...{ trialId: { new: 'noon' }, round, levelADbm, noiseADbm, levelBDbm, noiseBDbm },
      atMs: EVENING_MS + 17 * 3_600_000 + round * 4 * 60_000,
    }),
  ),
  createOf(
    'guardPlans',
    {
      name: 'Club transmitter',
      transmitterId: { new: 'own' },
      freqHz: 29.7e6,
      marginToKeepDb: 10,
      meterResolutionW: 0.1,
    },
    'guard',
  ),
  createOf('guardInputs', {
    guardPlanId: { new: 'guard' },
    name: 'HF receiver',
    antennaName: 'Old dipole between mast and hedge',
    antennaId: { new: 'old' },
    receiverId: { new: 'hf' },
    disconnects: true,
    isolationDb: null,
    limitDbm: 0,
  }),
  createOf('guardInputs', {
    guardPlanId: { new: 'guard' },
    name: 'Wideband receiver',
    antennaName: 'Loop on the hut wall',
    antennaId: { new: 'loop' },
    disconnects: false,
    isolationDb: null,
    limitDbm: 0,
  }),
];
