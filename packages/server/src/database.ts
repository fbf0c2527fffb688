import { EventEmitter } from 'node:events';
import { RESOURCE_NAMES, RESOURCES, STATION, type Columns, type ResourceName, type Store } from '@velvet-reed/contract';
import {
  DataTypes,
  Sequelize,
  type DataType,
  Transaction,
  type ModelAttributes,
  type ModelStatic,
  type Model,
} from 'sequelize';
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
const whole = { type: DataTypes.INTEGER, allowNull: false };
/** Samples, and whatever else is many numbers. */
const bytes = { type: DataTypes.BLOB, allowNull: false };
/** JSON is a list of step names, a few named numbers, corners of a plan. Arrays of samples are bytes, never this. */
const TYPES: Readonly<Record<Store, DataType>> = {
  ...{ real: DataTypes.DOUBLE, whole: DataTypes.INTEGER, text: DataTypes.TEXT },
  ...{ flag: DataTypes.BOOLEAN, json: DataTypes.JSON },
};

/** Attributes of a table by its columns. */
const attributesOf = (columns: Columns): ModelAttributes =>
  Object.fromEntries(
    Object.entries(columns).map(([name, { store, optional }]) => [name, { type: TYPES[store], allowNull: optional }]),
  );

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
  /** Says 'commit' after every write, and 'end' when the server is leaving. */
  readonly commits: EventEmitter;
  /** Runs reads that must see one moment. */
  read<T>(work: (transaction: Transaction) => Promise<T>): Promise<T>;
}

/**
 * A COMMIT that fails leaves its transaction open, and every later write would wait for it until it times out. The driver forgets the connection; here it is
 * rolled back, closed and taken off the driver's list.
 */
const ended = (sequelize: Sequelize, transaction: Transaction | undefined): Promise<void> =>
  new Promise((resolve) => {
    const connection: unknown = transaction && Reflect.get(transaction, 'connection');
    if (!(connection instanceof sqlite3.Database)) return resolve();
    const manager: unknown = Reflect.get(sequelize, 'connectionManager');
    const listed: unknown = typeof manager === 'object' && manager !== null && Reflect.get(manager, 'connections');
    if (typeof listed === 'object' && listed !== null)
      for (const [name, one] of Object.entries(listed)) if (one === connection) Reflect.deleteProperty(listed, name);
    // one that was rolled back and closed in order says so, and that is well
    connection.run('ROLLBACK', () => connection.close(() => resolve()));
  });

function byResource(make: (name: ResourceName) => Table): Readonly<Record<ResourceName, Table>>;
function byResource(make: (name: ResourceName) => Table): Readonly<Record<string, Table>> {
  return Object.fromEntries(RESOURCE_NAMES.map((name) => [name, make(name)]));
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
  // a name that holds in any file: what is taken out and in again is not doubled
  const uuid = { ...text, defaultValue: DataTypes.UUIDV4 };
  const stored = { stationId: whole, version: { ...whole, defaultValue: 1 }, uuid };
  const resource = (name: ResourceName): Table => {
    const { columns, bytes: own } = RESOURCES[name];
    return table(name, { ...stored, ...attributesOf(columns), ...(own ? { [own]: bytes } : {}) });
  };
  const stations = table('stations', {
    version: { ...whole, defaultValue: 1 },
    uuid,
    ...attributesOf(STATION.columns),
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
  const commits = new EventEmitter();
  commits.setMaxListeners(0); // one listener per open page
  let tail: Promise<unknown> = Promise.resolve();
  return {
    sequelize,
    stations,
    edits,
    tables: byResource(resource),
    commits,
    write(work) {
      const run = tail.then(async () => {
        let held: Transaction | undefined;
        try {
          return await sequelize.transaction((transaction) => {
            held = transaction;
            return work(transaction);
          });
        } catch (error) {
          await ended(sequelize, held);
          throw error;
        }
      });
      void run.then(
        () => commits.emit('commit'),
        () => undefined,
      );
      tail = run.catch(() => undefined);
      return run;
    },
    read: (work) => sequelize.transaction({ type: Transaction.TYPES.DEFERRED }, work),
  };
}
