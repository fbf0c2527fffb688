import {
  choice,
  flag,
  line,
  list,
  maybeReal,
  maybeRef,
  numbers,
  real,
  ref,
  text,
  texts,
  whole,
  withBlank,
  takenOn,
} from '../columns';
import { tableOf } from '../table';
import { FREQUENCY, LEVEL } from './shared';

interface PartPoint {
  readonly figure: 'lossDb' | 'isolationDb' | 'gainDb';
  readonly freqHz: number;
  readonly db: number;
}
const FIGURES: readonly unknown[] = ['lossDb', 'isolationDb', 'gainDb'];
const isPartPoint = (value: unknown): value is PartPoint =>
  typeof value === 'object' &&
  value !== null &&
  'figure' in value &&
  'freqHz' in value &&
  'db' in value &&
  FIGURES.includes(value.figure) &&
  typeof value.freqHz === 'number' &&
  typeof value.db === 'number' &&
  value.freqHz >= FREQUENCY[0] &&
  value.freqHz <= FREQUENCY[1] &&
  value.db >= 0 &&
  value.db <= 200;
const PART_POINT = {
  type: 'object',
  properties: { figure: { enum: [...FIGURES] }, freqHz: { type: 'number' }, db: { type: 'number' } },
  required: ['figure', 'freqHz', 'db'],
} as const;

export const guardPlans = tableOf({
  label: 'guard plan',
  columns: {
    name: line('Name'),
    /** Its power stands there. */
    transmitterId: ref('transmitters', 'Transmitter'),
    freqHz: real('Highest transmit frequency (Hz)', ...FREQUENCY),
    marginToKeepDb: real('Margin to keep (dB)', 0, 60),
    meterResolutionW: real('Wattmeter resolution (W)', 1e-6, 1e4),
    /** Further transmit frequencies as typed, with commas between. */
    bands: text('Further transmit frequencies', 400),
    /** How the switch learns of RF; or nobody said. */
    sequenceBy: withBlank(choice('Switched by', ['not said', 'key line', 'sensing', 'sequencer'] as const), 'not said'),
    /** Times of the sequence by name, s. */
    times: numbers('Times (s)'),
    /** Loss to the receiver while it is still connected, dB, and energy that it survives, J. */
    throughDb: maybeReal('Loss while connected (dB)', 0, 200),
    energyJ: maybeReal('Energy that the receiver survives (J)', 1e-12, 1e6),
    /** Share of the power that is the mean of a transmission, and share of the time that is transmitted. */
    modeShare: maybeReal('Mean over peak power (ratio)', 0.001, 1),
    dutyShare: maybeReal('Share of the time (ratio)', 0.001, 1),
    /** Limits that apply where people are, as the listener found them. */
    limitVPerM: maybeReal('Limit of the electric field (V/m)', 1e-3, 1e5),
    limitAPerM: maybeReal('Limit of the magnetic field (A/m)', 1e-6, 1e4),
    limitSource: text('Where the limit stands', 400),
    /** Antennas that hang on no receiver, by their numbers, with commas between. */
    hangingOnNothing: text('Antennas that hang on nothing', 2000),
    /** Receivers that no antenna leads to while this transmitter is on, likewise. */
    receiversOnNothing: text('Receivers that hang on nothing', 2000),
    /** Powers that the transmitter can be set to, as typed; empty: any. */
    powerSteps: text('Powers that can be set', 400),
  },
});

export const guardInputs = tableOf({
  label: 'receiver input',
  columns: {
    guardPlanId: ref('guardPlans', 'Guard plan'),
    name: line('Receiver input'),
    /** Its name as it was entered; counts where the antenna is not one of the station's. */
    antennaName: line('Antenna'),
    antennaId: maybeRef('antennas', 'Antenna'),
    receiverId: maybeRef('receivers', 'Receiver'),
    disconnects: flag('Disconnected while transmitting'),
    /** Of the whole way from the transmitter, as typed; null: nobody knows. */
    isolationDb: maybeReal('Isolation (dB)', 0, 200),
    limitDbm: real('Limit (dBm)', -60, 50),
  },
});

/** What stands between transmitter, antennas and receivers. */
export const guardParts = tableOf({
  label: 'part of the station',
  plural: 'parts of the station',
  columns: {
    guardPlanId: ref('guardPlans', 'Guard plan'),
    name: line('Name'),
    kind: choice('Kind', ['line', 'pad', 'filter', 'limiter', 'splitter', 'switch', 'amplifier'] as const),
    /** Place in the drawing, in its own units. */
    x: real('Place across', 0, 1000),
    y: real('Place down', 0, 1000),
    figures: numbers('Figures'),
    choices: texts('Choices'),
    /** What each figure rests on: measured, model, assumed. */
    evidence: texts('Evidence'),
    /** Figures over frequency, from a two-port file or typed; what is here counts before the single figure of that name. */
    points: withBlank(list('Figures over frequency', isPartPoint, { least: 0, most: 402, items: PART_POINT }), []),
    /** A plug that is pulled before a storm. */
    pulled: flag('Pulled before a storm'),
  },
});

/** A plug in a socket, from one port of the drawing to another. */
export const guardLinks = tableOf({
  label: 'link of the station',
  plural: 'links of the station',
  columns: {
    guardPlanId: ref('guardPlans', 'Guard plan'),
    fromNode: line('From', 60),
    fromPort: line('From port', 4),
    toNode: line('To', 60),
    toPort: line('To port', 4),
  },
});

/** What one antenna takes from another, as it was measured or typed. */
export const guardCouplings = tableOf({
  label: 'coupling',
  columns: {
    guardPlanId: ref('guardPlans', 'Guard plan'),
    aNode: line('From antenna', 60),
    bNode: line('To antenna', 60),
    freqHz: maybeReal('Frequency (Hz)', ...FREQUENCY),
    lossDb: real('Loss (dB)', 0, 300),
    origin: choice('Known by', ['measured', 'assumed'] as const),
    takenOn: takenOn(),
  },
});

/** A stepwise power test: what was settled before its first step. */
export const powerTests = tableOf({
  label: 'power test',
  columns: {
    guardPlanId: ref('guardPlans', 'Guard plan'),
    guardInputId: ref('guardInputs', 'Receiver input'),
    freqHz: real('Frequency (Hz)', ...FREQUENCY),
    lowestW: real('Lowest power (W)', 1e-6, 1e4),
    attenuatorDb: real('Pad (dB)', 0, 120),
    backgroundDbm: real('Background (dBm)', ...LEVEL),
    expectedLossDb: maybeReal('Loss by the model (dB)', 0, 300),
    atMs: real('Time (ms)', 0, 1e14),
    conditions: text('Positions and switches', 400),
    takenOn: takenOn(),
  },
});

export const powerRungs = tableOf({
  label: 'step of a power test',
  plural: 'steps of a power test',
  columns: {
    powerTestId: ref('powerTests', 'Power test'),
    round: whole('Step', 0, 1000),
    powerW: real('Power (W)', 1e-9, 1e5),
    readingDbm: real('Reading (dBm)', ...LEVEL),
  },
});
