import type { TransferPoint } from '@velvet-reed/core/formats';
import { figureFaults, STAGE_KINDS } from '@velvet-reed/core/path';
import {
  real,
  maybeReal,
  whole,
  line,
  text,
  texts,
  choice,
  ref,
  maybeRef,
  numbers,
  list,
  withBlank,
  goesAlong,
} from '../columns';
import { tableOf } from '../table';
import { FREQUENCY, connector, maybeConnector, CABLE_IDS } from './shared';

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

const TRANSFER = {
  type: 'object',
  properties: { freqHz: { type: 'number' }, gainDb: { type: 'number' } },
  required: ['freqHz', 'gainDb'],
} as const;

/** Most points of a part's gain over frequency. */
export const MOST_TRANSFER_POINTS = 200;

export const paths = tableOf({
  label: 'path',
  columns: {
    name: line('Name'),
    receiverId: ref('receivers', 'Receiver'),
    targetId: ref('targets', 'Target'),
    antennaId: maybeRef('antennas', 'Antenna'),
    antennaConnector: maybeConnector('Connector of the antenna'),
    receiverConnector: maybeConnector('Connector of the receiver'),
  },
});

export const pathStages = tableOf({
  label: 'stage',
  columns: {
    pathId: ref('paths', 'Path'),
    name: line('Name'),
    kind: choice('Stage', STAGE_KINDS),
    /** Numbers and choices that only this kind has: see the kinds of the core. */
    figures: numbers('Figures'),
    choices: texts('Choices'),
    connectorIn: maybeConnector('Connector at the antenna side'),
    connectorOut: maybeConnector('Connector at the receiver side'),
    /** A part of the shelf, when the stage is one. */
    partId: goesAlong(maybeRef('parts', 'Part')),
    cableId: withBlank(choice('Cable', CABLE_IDS), 'pe5'),
    lengthM: withBlank(real('Length (m)', 0, 2000), 0),
    /** A cable run on the Plot that gives the length; null: as typed. */
    plotFeatureId: maybeRef('plotFeatures', 'Cable run'),
    gainDb: withBlank(real('Gain (dB)', -20, 80), 0),
    noiseFigureDb: withBlank(real('Noise figure (dB)', 0, 60), 0),
    iip2Dbm: withBlank(real('Second-order input intercept (dBm)', -60, 150), 40),
    iip3Dbm: withBlank(real('Third-order input intercept (dBm)', -60, 100), 10),
    lossDb: withBlank(real('Loss (dB)', 0, 120), 0),
    shape: withBlank(choice('Filter shape', ['lowpass', 'highpass', 'bandpass', 'bandstop'] as const), 'lowpass'),
    family: withBlank(choice('Filter family', ['butterworth', 'chebyshev'] as const), 'chebyshev'),
    order: withBlank(whole('Order', 1, 15), 5),
    rippleDb: withBlank(real('Ripple (dB)', 0.001, 3), 0.1),
    edgeLowHz: withBlank(real('Lower edge (Hz)', ...FREQUENCY), 1.8e6),
    edgeHighHz: withBlank(real('Upper edge (Hz)', ...FREQUENCY), 30e6),
  },
  rules: (schema) =>
    schema
      .test(
        'edges',
        'The lower edge must lie below the upper edge. Exchange the two.',
        (value) =>
          value.kind !== 'filter' ||
          value.shape === 'lowpass' ||
          value.shape === 'highpass' ||
          value.edgeLowHz < value.edgeHighHz,
      )
      .test('figures', '', ({ kind, figures, choices }, { createError }) => {
        // what is no kind, or has no figures at all, is told by those fields themselves
        if (
          !STAGE_KINDS.some((known) => known === kind) ||
          typeof figures !== 'object' ||
          figures === null ||
          typeof choices !== 'object' ||
          choices === null
        )
          return true;
        const [fault] = figureFaults(kind, figures, choices);
        const group = fault !== undefined && fault.id in choices ? 'choices' : 'figures';
        return fault === undefined || createError({ path: `${group}.${fault.id}`, message: fault.message });
      }),
});

/** One order in which a path's stages can stand. */
export const pathOrders = tableOf({
  label: 'order',
  columns: {
    pathId: ref('paths', 'Path'),
    number: whole('Order', 1, 1000),
    /** What it is tried for; empty: its number is enough. */
    name: text('Name', 80),
  },
});

/** Where a stage stands in an order, 0 at the antenna; a stage without a place there is left out of it. */
export const orderPlaces = tableOf({
  label: 'place in an order',
  plural: 'places in orders',
  joins: true,
  columns: {
    orderId: ref('pathOrders', 'Order'),
    stageId: ref('pathStages', 'Stage'),
    place: whole('Place', 0, 1000),
  },
});

/** A part that the listener has: its own data, kept on the shelf. */
export const parts = tableOf({
  label: 'part',
  columns: {
    name: line('Name'),
    transfer: list('Gain over frequency', isTransfer, { least: 1, most: MOST_TRANSFER_POINTS, items: TRANSFER }),
    /** Null: passive. */
    noiseFigureDb: maybeReal('Noise figure (dB)', 0, 60),
    iip2Dbm: maybeReal('Second-order input intercept (dBm)', -60, 150),
    iip3Dbm: maybeReal('Third-order input intercept (dBm)', -60, 100),
    p1Dbm: maybeReal('1 dB compression at the input (dBm)', -80, 80),
    /** What it takes from the coax; null: passive, or a supply of its own. */
    supplyV: maybeReal('Supply over the coax (V)', 0, 60),
    currentA: maybeReal('Current (A)', 0, 20),
    connectorIn: connector('Connector at the antenna side'),
    connectorOut: connector('Connector at the receiver side'),
    cost: real('Cost', 0, 1e6),
    sinceMs: maybeReal('In use since (ms)', 0, 1e14),
    /** When its data were measured; null: they are the maker's. */
    measuredMs: maybeReal('Measured (ms)', 0, 1e14),
  },
});
