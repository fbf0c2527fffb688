import type { ResourceName } from '@velvet-reed/contract';
import { DataTypes, Sequelize, Transaction, type ModelAttributes, type ModelStatic, type Model } from 'sequelize';
import sqlite3 from 'sqlite3';

/**
 * Sequelize's sqlite dialect opens one connection per transaction and runs no afterConnect hook, so pragmas go in here.
 * synchronous=FULL: what was answered as saved survives a power cut, not only a killed process.
 */
const pragmaDatabase = (more: string) =>
  class extends sqlite3.Database {
    constructor(file: string, mode: number, done: (error: Error | null) => void) {
      super(file, mode, (error) => {
        if (error) return done(error);
        this.configure('busyTimeout', 5000);
        this.exec(`PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON;${more}`, done);
      });
    }
  };

/** Bounds of a file. */
interface FileLimits {
  /** Most pages of 4096 bytes; what would need more is refused as a full disk is. */
  readonly mostPages?: number;
}

const id = { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true };
const text = { type: DataTypes.TEXT, allowNull: false };
const real = { type: DataTypes.DOUBLE, allowNull: false };
const maybeReal = { type: DataTypes.DOUBLE, allowNull: true };
const whole = { type: DataTypes.INTEGER, allowNull: false };
const maybeWhole = { type: DataTypes.INTEGER, allowNull: true };
const yesNo = { type: DataTypes.BOOLEAN, allowNull: false };
/** A list of step names, a few named numbers, corners of a plan. Arrays of samples are bytes, never this. */
const words = { type: DataTypes.JSON, allowNull: false };
const bytes = { type: DataTypes.BLOB, allowNull: false };

const COLUMNS: Readonly<Record<ResourceName, ModelAttributes>> = {
  targets: {
    name: text,
    lowHz: real,
    highHz: real,
    bandwidthHz: real,
    weight: whole,
    latDeg: maybeReal,
    lonDeg: maybeReal,
    arrivalDeg: maybeReal,
    fromMin: maybeReal,
    toMin: maybeReal,
  },
  bandEdits: { bandId: text, name: text, lowHz: real, highHz: real, bandwidthHz: real, hidden: yesNo },
  emitters: { name: text, freqHz: real, powerW: real, powerKind: text, distanceM: real, own: yesNo },
  receivers: {
    name: text,
    bits: real,
    fullScaleDbm: real,
    sampleRateHz: real,
    complexSamples: yesNo,
    noiseFigureDb: real,
    iip2Dbm: real,
    iip3Dbm: real,
    minHz: real,
    maxHz: real,
  },
  antennas: { name: text, targetId: maybeWhole },
  revisions: {
    antennaId: whole,
    number: whole,
    kind: text,
    freqHz: real,
    diameterM: real,
    insulated: yesNo,
    allowance: real,
    dimensions: words,
    gates: words,
    done: words,
  },
  attachments: { name: text, size: whole, sha256: text, bytes },
  sweeps: {
    name: text,
    antennaId: maybeWhole,
    points: whole,
    startHz: real,
    stopHz: real,
    referenceOhm: real,
    phaseKnown: yesNo,
    shown: yesNo,
    correction: text,
    attachmentId: whole,
    samples: bytes,
  },
  calibrations: {
    name: text,
    instrument: text,
    points: whole,
    startHz: real,
    stopHz: real,
    madeMs: real,
    openFarad: real,
    openDelayS: real,
    shortHenry: real,
    shortDelayS: real,
    loadOhm: real,
    samples: bytes,
  },
  coilTests: { antennaId: whole, typed: words },
  spectra: {
    name: text,
    antennaId: maybeWhole,
    points: whole,
    startHz: real,
    stopHz: real,
    source: text,
    atMs: real,
    attachmentId: whole,
    samples: bytes,
  },
  trimSteps: { antennaId: whole, lengthM: real, freqHz: real, note: text, undoNote: text, photoId: maybeWhole },
  trials: { name: text, antennaAId: whole, antennaBId: whole, freqHz: real, wishedDb: real, conditions: text },
  readings: {
    trialId: whole,
    round: whole,
    levelADbm: maybeReal,
    noiseADbm: maybeReal,
    levelBDbm: maybeReal,
    noiseBDbm: maybeReal,
  },
  noiseChecks: { antennaId: maybeWhole, freqHz: real, offDbm: real, onDbm: real },
  paths: {
    name: text,
    receiverId: whole,
    targetId: whole,
    antennaId: maybeWhole,
    antennaConnector: text,
    receiverConnector: text,
  },
  pathStages: {
    pathId: whole,
    name: text,
    kind: text,
    firstPlace: whole,
    secondPlace: whole,
    cableId: text,
    lengthM: real,
    plotFeatureId: maybeWhole,
    partId: maybeWhole,
    gainDb: real,
    noiseFigureDb: real,
    iip2Dbm: real,
    iip3Dbm: real,
    lossDb: real,
    shape: text,
    family: text,
    order: whole,
    rippleDb: real,
    edgeLowHz: real,
    edgeHighHz: real,
    figures: words,
    connectorIn: text,
    connectorOut: text,
  },
  guardPlans: { name: text, powerW: real, freqHz: real, wishedMarginDb: real, meterResolutionW: real },
  guardInputs: {
    guardPlanId: whole,
    name: text,
    antennaName: text,
    disconnects: yesNo,
    isolationDb: real,
    limitDbm: real,
  },
  entries: { stage: text, text, atMs: real },
  plotFeatures: {
    name: text,
    kind: text,
    points: words,
    heightM: real,
    endHeightM: real,
    clearanceM: real,
    widthM: real,
    antennaId: maybeWhole,
    attachmentId: maybeWhole,
  },
  surveyReadings: { antennaId: whole, name: text, freqHz: real, levelDbm: real, noiseDbm: real, atMs: real },
  parts: {
    name: text,
    transfer: words,
    noiseFigureDb: maybeReal,
    iip2Dbm: maybeReal,
    iip3Dbm: maybeReal,
    p1Dbm: maybeReal,
    supplyV: maybeReal,
    currentA: maybeReal,
    connectorIn: text,
    connectorOut: text,
    cost: real,
  },
  floorReadings: { atMs: real, freqHz: real, levelDbm: real },
  deviceSwitchings: { device: text, freqHz: real, onDbm: real, offDbm: real, atMs: real },
  satellites: { name: text, line1: text, line2: text, freqHz: real, leastDeg: real },
  noiseFloors: { freqHz: real, levelDbm: real, bandwidthHz: real, antennaId: maybeWhole },
  boughtAntennas: {
    name: text,
    gains: words,
    amplified: yesNo,
    gainDb: real,
    noiseFigureDb: real,
    iip2Dbm: real,
    iip3Dbm: real,
    inputFilterHz: maybeReal,
    sizeM: real,
    price: real,
    hours: real,
    sight: whole,
  },
};

/** Columns that never travel as JSON. */
export const BYTE_COLUMNS: Readonly<Partial<Record<ResourceName, string>>> = {
  attachments: 'bytes',
  sweeps: 'samples',
  calibrations: 'samples',
  spectra: 'samples',
};

export type Row = Model<Record<string, unknown>, Record<string, unknown>>;
type Table = ModelStatic<Row>;

/** The database with one model per table. */
export interface Database {
  readonly sequelize: Sequelize;
  readonly stations: Table;
  readonly edits: Table;
  readonly tables: Readonly<Record<ResourceName, Table>>;
  /** Runs a write alone: parallel BEGIN IMMEDIATEs would fill the thread pool and stall the lock's holder. */
  write<T>(work: (transaction: Transaction) => Promise<T>): Promise<T>;
  /** Runs reads that must see one moment. */
  read<T>(work: (transaction: Transaction) => Promise<T>): Promise<T>;
}

/** Opens the file (or makes it) and defines the models; migrations are run by the caller. */
export function openDatabase(storage: string, { mostPages }: FileLimits = {}): Database {
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    storage,
    logging: false,
    dialectModule: {
      ...sqlite3,
      Database: pragmaDatabase(mostPages === undefined ? '' : ` PRAGMA max_page_count=${mostPages};`),
    },
    transactionType: Transaction.TYPES.IMMEDIATE,
  });
  const table = (name: string, columns: ModelAttributes, stamps = true): Table =>
    // sequelize writes into the column objects it is given: every table gets its own copies
    sequelize.define<Row>(
      name,
      Object.fromEntries(
        Object.entries({ id, ...columns }).map(([key, column]) => [
          key,
          typeof column === 'object' ? { ...column } : column,
        ]),
      ),
      { tableName: name, timestamps: stamps, paranoid: stamps },
    );
  const stored = { stationId: whole, version: { ...whole, defaultValue: 1 } };
  const tables = Object.fromEntries(
    Object.entries(COLUMNS).map(([name, columns]) => [name, table(name, { ...stored, ...columns })]),
  );
  const byName = (name: ResourceName): Table => tables[name];
  const stations = table('stations', {
    version: { ...whole, defaultValue: 1 },
    name: text,
    latDeg: real,
    lonDeg: real,
    environment: text,
    noiseOffsetDb: real,
    spanM: real,
    heightM: real,
    cableId: text,
    lineLengthM: real,
    groundId: text,
    ownCableDb10: maybeReal,
    ownCableDb100: maybeReal,
    nothingVisible: yesNo,
    lawnAllowed: yesNo,
    noDrilling: yesNo,
    noTransmitting: yesNo,
    noStakes: yesNo,
    askFirst: yesNo,
    windLimitMPerS: maybeReal,
    windForecastMPerS: maybeReal,
    adapterBox: text,
    priceWeight: whole,
    effortWeight: whole,
    sightWeight: whole,
  });
  const edits = table(
    'edits',
    {
      stationId: whole,
      batch: text,
      resource: text,
      recordId: whole,
      op: text,
      before: DataTypes.JSON,
      after: DataTypes.JSON,
      createdAt: DataTypes.DATE,
      undoneAt: DataTypes.DATE,
      device: text,
    },
    false,
  );
  let tail: Promise<unknown> = Promise.resolve();
  return {
    sequelize,
    stations,
    edits,
    tables: {
      targets: byName('targets'),
      bandEdits: byName('bandEdits'),
      emitters: byName('emitters'),
      receivers: byName('receivers'),
      antennas: byName('antennas'),
      revisions: byName('revisions'),
      attachments: byName('attachments'),
      sweeps: byName('sweeps'),
      calibrations: byName('calibrations'),
      coilTests: byName('coilTests'),
      spectra: byName('spectra'),
      trimSteps: byName('trimSteps'),
      trials: byName('trials'),
      readings: byName('readings'),
      noiseChecks: byName('noiseChecks'),
      paths: byName('paths'),
      pathStages: byName('pathStages'),
      guardPlans: byName('guardPlans'),
      guardInputs: byName('guardInputs'),
      entries: byName('entries'),
      plotFeatures: byName('plotFeatures'),
      satellites: byName('satellites'),
      noiseFloors: byName('noiseFloors'),
      boughtAntennas: byName('boughtAntennas'),
      surveyReadings: byName('surveyReadings'),
      floorReadings: byName('floorReadings'),
      parts: byName('parts'),
      deviceSwitchings: byName('deviceSwitchings'),
    },
    write(work) {
      const run = tail.then(() => sequelize.transaction(work));
      tail = run.catch(() => undefined);
      return run;
    },
    read: (work) => sequelize.transaction({ type: Transaction.TYPES.DEFERRED }, work),
  };
}
