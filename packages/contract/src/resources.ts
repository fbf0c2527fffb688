import {
  ANTENNA_KINDS,
  CABLE_CLASSES,
  ENVIRONMENTS,
  GROUND_CLASSES,
  figureFaults,
  PLOT_KINDS,
  readAdapters,
  readConnector,
  STAGE_KINDS,
  type GainPoint,
  type KindId,
  type PlanPoint,
  type TransferPoint,
} from '@velvet-reed/core';
import { object, type InferType, type TestContext, type ValidationError } from 'yup';
import {
  choice,
  flag,
  line,
  longText,
  listOf,
  namedNumbers,
  namedTexts,
  optionalQuantity,
  optionalRecordId,
  quantity,
  recordId,
  shortText,
  wholeNumber,
  wordList,
} from './fields';

/** What a listener may want to hear or has to reckon with: from the lowest VLF to millimetre waves. */
const FREQUENCY = [1e3, 300e9] as const;
const LEVEL = [-250, 80] as const;
const BAND_ORDER = 'The lower edge must lie below the upper edge. Exchange the two.';

/** The listener's own cable, by its loss at two frequencies. */
export const OWN_CABLE = 'own';
const CABLE_IDS = [...CABLE_CLASSES.map((cable) => cable.id), OWN_CABLE];

/** Whether a reader of the core takes a text; its own sentence says why not. */
const readBy =
  (read: (text: string) => unknown) =>
  (value: string, { createError }: TestContext): true | ValidationError => {
    try {
      read(value);
      return true;
    } catch (error) {
      return createError({ message: error instanceof Error ? error.message : String(error) });
    }
  };
/** A connector by family and gender. */
const connector = (label: string) => line(label, 20).test('connector', '', readBy(readConnector));
/** The same; empty: not known. */
const maybeConnector = (label: string) =>
  shortText(label, 20).test(
    'connector',
    '',
    (value, context) => value.trim() === '' || readBy(readConnector)(value, context),
  );

/** A place to listen from, what it offers, and the line into the house. */
export const stationSchema = object({
  name: line('Name'),
  latDeg: quantity('Latitude (degrees)', -90, 90),
  lonDeg: quantity('Longitude (degrees)', -180, 180),
  environment: choice('Noise class', ENVIRONMENTS),
  noiseOffsetDb: quantity('Noise offset (dB)', -30, 40),
  spanM: quantity('Longest straight run (m)', 0.1, 2000),
  heightM: quantity('Support height (m)', 0.1, 300),
  cableId: choice('Cable', CABLE_IDS),
  lineLengthM: quantity('Line length (m)', 0, 2000),
  groundId: choice(
    'Ground',
    GROUND_CLASSES.map((one) => one.id),
  ),
  /** Loss of the listener's own cable at 10 and 100 MHz, dB per 100 m; null until entered. */
  ownCableDb10: optionalQuantity('Own cable at 10 MHz (dB per 100 m)', 0.01, 500),
  ownCableDb100: optionalQuantity('Own cable at 100 MHz (dB per 100 m)', 0.01, 500),
  nothingVisible: flag('Nothing may be visible'),
  lawnAllowed: flag('The lawn may be used'),
  noDrilling: flag('No drilling'),
  noTransmitting: flag('No transmitting'),
  noStakes: flag('No stakes or rods in the ground'),
  askFirst: flag('Permission is asked first'),
  /** Wind that the weakest support stands, and the wind forecast, m/s. */
  windLimitMPerS: optionalQuantity('Wind limit (m/s)', 0, 120),
  windForecastMPerS: optionalQuantity('Wind forecast (m/s)', 0, 120),
  /** Adapters at hand, one a line: "SMA-m to N-f". */
  adapterBox: longText('Adapters in the box').test('adapters', '', readBy(readAdapters)),
  /** How much price, work and looks count in the ranking, 0 to 5. */
  priceWeight: wholeNumber('Weight of the price', 0, 5),
  effortWeight: wholeNumber('Weight of the work', 0, 5),
  sightWeight: wholeNumber('Weight of the looks', 0, 5),
}).test(
  'own-cable',
  'Your own cable needs its loss at 10 MHz and at 100 MHz. Enter both, or choose a class.',
  (value) => value.cableId !== OWN_CABLE || (value.ownCableDb10 !== null && value.ownCableDb100 !== null),
);

const bandShape = {
  name: line('Name'),
  lowHz: quantity('Lower edge (Hz)', ...FREQUENCY),
  highHz: quantity('Upper edge (Hz)', ...FREQUENCY),
  bandwidthHz: quantity('Bandwidth (Hz)', 1, 100e6),
};
const inOrder = (value: { lowHz: number; highHz: number }): boolean => value.lowHz < value.highHz;

const targetSchema = object({
  ...bandShape,
  weight: wholeNumber('Weight', 1, 5),
  /** Middle of the area or position of the station wanted; null: not said. */
  latDeg: optionalQuantity('Latitude (degrees)', -90, 90),
  lonDeg: optionalQuantity('Longitude (degrees)', -180, 180),
  /** Arrival angle typed by the listener; null: computed or assumed. */
  arrivalDeg: optionalQuantity('Arrival angle (degrees)', 0, 90),
  /** Its hours, minutes of the UTC day; null: always. */
  fromMin: optionalQuantity('From (minutes of the day)', 0, 1439),
  toMin: optionalQuantity('To (minutes of the day)', 0, 1439),
})
  .test('order', BAND_ORDER, inOrder)
  .test(
    'place',
    'A position needs latitude and longitude. Give both or neither.',
    (value) => (value.latDeg === null) === (value.lonDeg === null),
  )
  .test(
    'hours',
    'Hours need a beginning and an end. Give both or neither.',
    (value) => (value.fromMin === null) === (value.toMin === null),
  );

/** The listener's own version of a catalogue band; `hidden` takes it off the lists. */
const bandEditSchema = object({ ...bandShape, bandId: line('Band', 40), hidden: flag('Hidden') }).test(
  'order',
  BAND_ORDER,
  inOrder,
);

const emitterSchema = object({
  name: line('Name'),
  freqHz: quantity('Frequency (Hz)', ...FREQUENCY),
  powerW: quantity('Power (W)', 1e-6, 1e8),
  powerKind: choice('Power reference', ['ERP', 'EIRP', 'EMRP'] as const),
  distanceM: quantity('Distance (m)', 0.1, 2e7),
  /** The listener's own transmitter: Guard's matter, left out of overload forecasts. */
  own: flag('Own transmitter'),
});

const receiverSchema = object({
  name: line('Name'),
  bits: quantity('Effective bits', 1, 32),
  fullScaleDbm: quantity('Full scale (dBm)', -100, 50),
  sampleRateHz: quantity('Sample rate (Hz)', 1e3, 2e10),
  complexSamples: flag('Complex samples'),
  noiseFigureDb: quantity('Noise figure (dB)', 0, 80),
  iip2Dbm: quantity('Second-order input intercept (dBm)', -60, 150),
  iip3Dbm: quantity('Third-order input intercept (dBm)', -60, 100),
  minHz: quantity('Lowest frequency (Hz)', 1, 300e9),
  maxHz: quantity('Highest frequency (Hz)', 1, 300e9),
}).test(
  'order',
  'The lowest frequency must lie below the highest. Exchange the two.',
  (value) => value.minHz < value.maxHz,
);

const KIND_IDS = ANTENNA_KINDS.map((kind): KindId => kind.id);

const antennaSchema = object({ name: line('Name'), targetId: optionalRecordId('Target') });

/** One state of an antenna's dimensions and of its build. */
const revisionSchema = object({
  antennaId: recordId('Antenna'),
  number: wholeNumber('Revision', 1, 100000),
  kind: choice('Kind', KIND_IDS),
  freqHz: quantity('Frequency (Hz)', 1e4, 300e9),
  diameterM: quantity('Conductor diameter (m)', 1e-5, 0.2),
  insulated: flag('Insulated wire'),
  allowance: quantity('Trim allowance (ratio)', 0, 0.2),
  /** Set by hand or by trimming the model; absent ones follow from the frequency. SI or degrees. */
  dimensions: namedNumbers('Dimensions'),
  gates: wordList('Checks passed'),
  done: wordList('Steps done'),
});

/** Header of a sweep; its samples travel as bytes. */
const sweepSchema = object({
  name: line('Name', 120),
  antennaId: optionalRecordId('Antenna'),
  points: wholeNumber('Points', 1, 200_001),
  startHz: quantity('Start (Hz)', 0, 1e12),
  stopHz: quantity('Stop (Hz)', 0, 1e12),
  referenceOhm: quantity('Reference (ohm)', 1e-3, 1e6),
  phaseKnown: flag('Phase known'),
  shown: flag('Shown'),
  /** Whether the analyser's own errors were taken off here: 'file' for a file from elsewhere, whose state nobody knows. */
  correction: choice('Correction', ['file', 'raw', 'corrected', 'interpolated'] as const),
  attachmentId: recordId('Raw file'),
});

const trimStepSchema = object({
  antennaId: recordId('Antenna'),
  lengthM: quantity('Length (m)', 1e-4, 2000),
  freqHz: quantity('Resonance (Hz)', ...FREQUENCY),
  note: longText('Note'),
  /** How this change can be taken back: a folded end, a spare piece. */
  undoNote: longText('How to undo it'),
  photoId: optionalRecordId('Photo'),
});

/** What was typed into the coil tool of an antenna, as it was typed: nothing of it is lost by a reload. */
const coilTestSchema = object({ antennaId: recordId('Antenna'), typed: namedTexts('Figures') });

/** Readings of open, short and load over one grid; the readings travel as bytes. */
const calibrationSchema = object({
  name: line('Name', 120),
  instrument: line('Instrument', 120),
  points: wholeNumber('Points', 2, 200_001),
  startHz: quantity('Start (Hz)', 0, 1e12),
  stopHz: quantity('Stop (Hz)', 0, 1e12),
  madeMs: quantity('Time (ms)', 0, 1e14),
  openFarad: quantity('Fringe capacitance of the open (F)', -1e-11, 1e-11),
  openDelayS: quantity('One-way delay of the open (s)', 0, 1e-8),
  shortHenry: quantity('Inductance of the short (H)', -1e-7, 1e-7),
  shortDelayS: quantity('One-way delay of the short (s)', 0, 1e-8),
  loadOhm: quantity('Load (ohm)', 1, 10_000),
});

/** Header of a recorded spectrum; its levels travel as bytes. */
const spectrumSchema = object({
  name: line('Name', 120),
  antennaId: optionalRecordId('Antenna'),
  points: wholeNumber('Points', 2, 200_001),
  startHz: quantity('Start (Hz)', 0, 1e12),
  stopHz: quantity('Stop (Hz)', 0, 1e12),
  /** Whether the noise source was on, off, or there was none. */
  source: choice('Noise source', ['on', 'off', 'none'] as const),
  atMs: quantity('Time (ms)', 0, 1e14),
  attachmentId: recordId('Raw file'),
});

const trialSchema = object({
  name: line('Name'),
  antennaAId: recordId('Antenna A'),
  antennaBId: recordId('Antenna B'),
  freqHz: quantity('Frequency (Hz)', ...FREQUENCY),
  wishedDb: quantity('Difference worth proving (dB)', 0.1, 40),
  conditions: longText('Conditions'),
}).test(
  'two',
  'Antenna A and antenna B are the same. Choose two different ones.',
  (value) => value.antennaAId !== value.antennaBId,
);

const readingSchema = object({
  trialId: recordId('Trial'),
  round: wholeNumber('Round', 0, 100000),
  levelADbm: optionalQuantity('Level A (dBm)', ...LEVEL),
  noiseADbm: optionalQuantity('Noise A (dBm)', ...LEVEL),
  levelBDbm: optionalQuantity('Level B (dBm)', ...LEVEL),
  noiseBDbm: optionalQuantity('Noise B (dBm)', ...LEVEL),
});

const noiseCheckSchema = object({
  antennaId: optionalRecordId('Antenna'),
  freqHz: quantity('Frequency (Hz)', ...FREQUENCY),
  offDbm: quantity('Antenna off (dBm)', ...LEVEL),
  onDbm: quantity('Antenna on (dBm)', ...LEVEL),
});

const pathSchema = object({
  name: line('Name'),
  receiverId: recordId('Receiver'),
  targetId: recordId('Target'),
  antennaId: optionalRecordId('Antenna'),
  antennaConnector: maybeConnector('Connector of the antenna'),
  receiverConnector: maybeConnector('Connector of the receiver'),
});

const pathStageSchema = object({
  pathId: recordId('Path'),
  name: line('Name'),
  kind: choice('Stage', STAGE_KINDS),
  /** What only this kind has: see STAGE_FIGURES of the core. */
  figures: namedNumbers('Figures'),
  connectorIn: maybeConnector('Connector at the antenna side'),
  connectorOut: maybeConnector('Connector at the receiver side'),
  /** A part of the shelf, when the stage is one. */
  partId: optionalRecordId('Part'),
  /** Place in the first and in the second order, 0 at the antenna. */
  firstPlace: wholeNumber('Place in order 1', 0, 1000),
  secondPlace: wholeNumber('Place in order 2', 0, 1000),
  cableId: choice('Cable', CABLE_IDS),
  lengthM: quantity('Length (m)', 0, 2000),
  /** A cable run on the Plot that gives the length; null: as typed. */
  plotFeatureId: optionalRecordId('Cable run'),
  gainDb: quantity('Gain (dB)', -20, 80),
  noiseFigureDb: quantity('Noise figure (dB)', 0, 60),
  iip2Dbm: quantity('Second-order input intercept (dBm)', -60, 150),
  iip3Dbm: quantity('Third-order input intercept (dBm)', -60, 100),
  lossDb: quantity('Loss (dB)', 0, 120),
  shape: choice('Filter shape', ['lowpass', 'highpass', 'bandpass', 'bandstop'] as const),
  family: choice('Filter family', ['butterworth', 'chebyshev'] as const),
  order: wholeNumber('Order', 1, 15),
  rippleDb: quantity('Ripple (dB)', 0.001, 3),
  edgeLowHz: quantity('Lower edge (Hz)', ...FREQUENCY),
  edgeHighHz: quantity('Upper edge (Hz)', ...FREQUENCY),
})
  .test(
    'edges',
    'The lower edge must lie below the upper edge. Exchange the two.',
    (value) =>
      value.kind !== 'filter' ||
      value.shape === 'lowpass' ||
      value.shape === 'highpass' ||
      value.edgeLowHz < value.edgeHighHz,
  )
  .test('figures', '', ({ kind, figures }, { createError }) => {
    // what is no kind, or has no figures at all, is told by those fields themselves
    if (!STAGE_KINDS.some((known) => known === kind) || typeof figures !== 'object' || figures === null) return true;
    const [fault] = figureFaults(kind, figures);
    return fault === undefined || createError({ path: `figures.${fault.id}`, message: fault.message });
  });

const guardPlanSchema = object({
  name: line('Name'),
  powerW: quantity('Transmit power (W)', 1e-3, 1e6),
  freqHz: quantity('Highest transmit frequency (Hz)', ...FREQUENCY),
  wishedMarginDb: quantity('Margin to keep (dB)', 0, 60),
  meterResolutionW: quantity('Wattmeter resolution (W)', 1e-6, 1e4),
});

const guardInputSchema = object({
  guardPlanId: recordId('Guard plan'),
  name: line('Receiver input'),
  antennaName: line('Antenna'),
  disconnects: flag('Disconnected while transmitting'),
  isolationDb: quantity('Isolation (dB)', 0, 200),
  limitDbm: quantity('Limit (dBm)', -60, 50),
});

const entrySchema = object({
  stage: choice('Stage', [
    'listen',
    'plot',
    'choose',
    'draft',
    'bench',
    'trials',
    'noise',
    'path',
    'guard',
    'notebook',
  ] as const),
  text: longText('Text').test(
    'filled',
    'The entry is empty. Write at least a word.',
    (value) => value.trim().length > 0,
  ),
  atMs: quantity('Time (ms)', 0, 1e14),
});

const MOST_POINTS = 400;
const isPair = (value: unknown): value is PlanPoint =>
  Array.isArray(value) &&
  value.length === 2 &&
  value.every((one) => typeof one === 'number' && Math.abs(one) <= 20_000);

/** Something on the plan; positions in metres east and north of the station. */
const plotFeatureSchema = object({
  name: line('Name'),
  kind: choice('Kind', PLOT_KINDS),
  points: listOf<PlanPoint>('Points', isPair, 1, MOST_POINTS),
  heightM: quantity('Height (m)', 0, 500),
  endHeightM: quantity('Height of the other end (m)', 0, 500),
  clearanceM: quantity('Clearance (m)', 0, 500),
  /** Width of a picture, m. */
  widthM: quantity('Width (m)', 0, 20_000),
  antennaId: optionalRecordId('Antenna'),
  attachmentId: optionalRecordId('Picture'),
});

/** Orbital elements as pasted; they are read again whenever they are used. */
const satelliteSchema = object({
  name: line('Name'),
  line1: line('First line', 69),
  line2: line('Second line', 69),
  freqHz: quantity('Frequency (Hz)', ...FREQUENCY),
  leastDeg: quantity('Least elevation (degrees)', 0, 80),
});

/** A noise floor as read, through an antenna of the station or referred to a lossless one (null). */
const noiseFloorSchema = object({
  freqHz: quantity('Frequency (Hz)', ...FREQUENCY),
  levelDbm: quantity('Level (dBm)', ...LEVEL),
  bandwidthHz: quantity('Bandwidth (Hz)', 1, 100e6),
  antennaId: optionalRecordId('Antenna'),
});

const isGain = (value: unknown): value is GainPoint =>
  typeof value === 'object' &&
  value !== null &&
  'freqHz' in value &&
  'gainDbi' in value &&
  typeof value.freqHz === 'number' &&
  typeof value.gainDbi === 'number' &&
  value.freqHz > 0 &&
  value.freqHz <= FREQUENCY[1] &&
  Math.abs(value.gainDbi) <= 120;

/** An antenna that could be bought, by its data sheet. */
const boughtAntennaSchema = object({
  name: line('Name'),
  gains: listOf<GainPoint>('Gains', isGain, 1, 60),
  amplified: flag('Amplified'),
  gainDb: quantity('Amplifier gain (dB)', -20, 80),
  noiseFigureDb: quantity('Amplifier noise figure (dB)', 0, 60),
  iip2Dbm: quantity('Second-order input intercept (dBm)', -60, 150),
  iip3Dbm: quantity('Third-order input intercept (dBm)', -60, 100),
  /** Edge of a low-pass ahead of the amplifier; null: none. */
  inputFilterHz: optionalQuantity('Input low-pass (Hz)', ...FREQUENCY),
  sizeM: quantity('Size (m)', 0.01, 600),
  price: quantity('Price', 0, 1e6),
  hours: quantity('Work (hours)', 0, 1000),
  sight: wholeNumber('Looks', 0, 3),
});

/** One line of a band survey: a reference signal as heard on one antenna. */
const surveyReadingSchema = object({
  antennaId: recordId('Antenna'),
  name: line('Signal'),
  freqHz: quantity('Frequency (Hz)', ...FREQUENCY),
  levelDbm: quantity('Level (dBm)', ...LEVEL),
  noiseDbm: quantity('Noise (dBm)', ...LEVEL),
  atMs: quantity('Time (ms)', 0, 1e14),
});

/** The noise floor at one moment, for the log over time. */
const floorReadingSchema = object({
  atMs: quantity('Time (ms)', 0, 1e14),
  freqHz: quantity('Frequency (Hz)', ...FREQUENCY),
  levelDbm: quantity('Level (dBm)', ...LEVEL),
});

/** The floor with a device of the house on and with it off. */
const deviceSwitchingSchema = object({
  device: line('Device'),
  freqHz: quantity('Frequency (Hz)', ...FREQUENCY),
  onDbm: quantity('Floor with it on (dBm)', ...LEVEL),
  offDbm: quantity('Floor with it off (dBm)', ...LEVEL),
  atMs: quantity('Time (ms)', 0, 1e14),
});

const isTransfer = (value: unknown): value is TransferPoint =>
  typeof value === 'object' &&
  value !== null &&
  'freqHz' in value &&
  'gainDb' in value &&
  typeof value.freqHz === 'number' &&
  typeof value.gainDb === 'number' &&
  value.freqHz > 0 &&
  value.freqHz <= 1e12 &&
  Math.abs(value.gainDb) <= 200;

/** Most points of a part's gain over frequency. */
export const MOST_TRANSFER_POINTS = 200;

/** A part that the listener has: its own data, kept on the shelf. */
const partSchema = object({
  name: line('Name'),
  transfer: listOf<TransferPoint>('Gain over frequency', isTransfer, 1, MOST_TRANSFER_POINTS),
  /** Null: passive. */
  noiseFigureDb: optionalQuantity('Noise figure (dB)', 0, 60),
  iip2Dbm: optionalQuantity('Second-order input intercept (dBm)', -60, 150),
  iip3Dbm: optionalQuantity('Third-order input intercept (dBm)', -60, 100),
  p1Dbm: optionalQuantity('1 dB compression at the input (dBm)', -80, 80),
  /** What it takes from the coax; null: passive, or a supply of its own. */
  supplyV: optionalQuantity('Supply over the coax (V)', 0, 60),
  currentA: optionalQuantity('Current (A)', 0, 20),
  connectorIn: connector('Connector at the antenna side'),
  connectorOut: connector('Connector at the receiver side'),
  cost: quantity('Cost', 0, 1e6),
});

/** Header of a stored file; the bytes are fetched on their own. */
const attachmentSchema = object({
  name: line('File name', 200),
  size: wholeNumber('Size (bytes)', 0, 1e9),
  sha256: line('Checksum', 64),
});

/** Everything a client may write, by the name used in addresses. Sweeps and attachments arrive as files; their headers can be edited. */
export const SCHEMAS = {
  targets: targetSchema,
  bandEdits: bandEditSchema,
  emitters: emitterSchema,
  receivers: receiverSchema,
  antennas: antennaSchema,
  revisions: revisionSchema,
  sweeps: sweepSchema,
  calibrations: calibrationSchema,
  coilTests: coilTestSchema,
  spectra: spectrumSchema,
  trimSteps: trimStepSchema,
  trials: trialSchema,
  readings: readingSchema,
  noiseChecks: noiseCheckSchema,
  paths: pathSchema,
  pathStages: pathStageSchema,
  guardPlans: guardPlanSchema,
  guardInputs: guardInputSchema,
  entries: entrySchema,
  attachments: attachmentSchema,
  plotFeatures: plotFeatureSchema,
  satellites: satelliteSchema,
  noiseFloors: noiseFloorSchema,
  boughtAntennas: boughtAntennaSchema,
  surveyReadings: surveyReadingSchema,
  floorReadings: floorReadingSchema,
  parts: partSchema,
  deviceSwitchings: deviceSwitchingSchema,
} as const;

export type ResourceName = keyof typeof SCHEMAS;
export const RESOURCE_NAMES = Object.keys(SCHEMAS).filter((name): name is ResourceName => name in SCHEMAS);

/** Values of a record without what the server adds. */
export type Values<R extends ResourceName> = InferType<(typeof SCHEMAS)[R]>;
/** What the server adds to every record. */
export interface Stored {
  readonly id: number;
  readonly version: number;
  readonly stationId: number;
  readonly createdAt: string;
}
export type Saved<R extends ResourceName> = Values<R> & Stored;
export type StationValues = InferType<typeof stationSchema>;
export type Station = StationValues & Omit<Stored, 'stationId'>;
