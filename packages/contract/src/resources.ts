import type { ObjectSchema } from 'yup';
import { recordSchema, type BlankOf, type EditOf, type NewOf, type ValuesOf } from './table';
import { antennas, boughtAntennas, revisions } from './tables/antennas';
import { calibrations, coilTests, spectra, sweeps, trimSteps } from './tables/bench';
import { nullLogs } from './tables/direction';
import {
  guardCouplings,
  guardInputs,
  guardLinks,
  guardParts,
  guardPlans,
  powerRungs,
  powerTests,
} from './tables/guard';
import { appointments, bandEdits, transmitters, receivers, satellites, spots, targets } from './tables/listen';
import { levels } from './tables/noise';
import { accessories, attachments, entries, logs, photos, upkeep } from './tables/notebook';
import { orderPlaces, parts, pathOrders, paths, pathStages } from './tables/path';
import { plotFeatures } from './tables/plot';
import { recordings } from './tables/recordings';
import { STATION } from './tables/station';
import { blockCounts, passes, readings, trials } from './tables/trials';

/** Every kind of record of a station, by the name used in addresses. Schemas, types, models, references and blank records follow from this. */
export const RESOURCES = {
  targets,
  spots,
  bandEdits,
  transmitters,
  receivers,
  antennas,
  revisions,
  sweeps,
  calibrations,
  coilTests,
  spectra,
  trimSteps,
  trials,
  readings,
  levels,
  paths,
  pathStages,
  pathOrders,
  orderPlaces,
  guardPlans,
  guardInputs,
  entries,
  attachments,
  plotFeatures,
  satellites,
  appointments,
  boughtAntennas,
  parts,
  logs,
  accessories,
  recordings,
  passes,
  blockCounts,
  guardParts,
  guardLinks,
  guardCouplings,
  powerTests,
  powerRungs,
  nullLogs,
  photos,
  upkeep,
} as const;

export type ResourceName = keyof typeof RESOURCES;
type ColumnsOf<R extends ResourceName> = (typeof RESOURCES)[R]['columns'];

const isName = (name: string): name is ResourceName => name in RESOURCES;
export const RESOURCE_NAMES: readonly ResourceName[] = Object.keys(RESOURCES).filter(isName);

/** Values of a record without what the server adds. */
export type Values<R extends ResourceName> = ValuesOf<ColumnsOf<R>>;
/** What must be said to make a record; what is left out begins as its table says. */
export type NewValues<R extends ResourceName> = NewOf<ColumnsOf<R>>;
/** What may be said to change one. */
export type EditValues<R extends ResourceName> = EditOf<ColumnsOf<R>>;

/** What the server adds to every record. */
export interface Stored {
  readonly id: number;
  readonly version: number;
  readonly stationId: number;
  readonly createdAt: string;
  /** Its name wherever it is known; told of kinds that leave as a calendar, and of those only once they are saved. */
  readonly uuid?: string;
}
/** Kinds whose records leave as a calendar, which must know them again. */
export const IN_CALENDARS: readonly ResourceName[] = ['appointments', 'upkeep'];
export type Saved<R extends ResourceName> = Values<R> & Stored;

type StationColumns = (typeof STATION)['columns'];
export type StationValues = ValuesOf<StationColumns>;
export type Station = StationValues & Omit<Stored, 'stationId'>;
export const stationSchema = STATION.schema;

function gather<T extends Record<ResourceName, unknown>>(pick: (name: ResourceName) => unknown): T;
function gather(pick: (name: ResourceName) => unknown): Record<string, unknown> {
  return Object.fromEntries(RESOURCE_NAMES.map((name) => [name, pick(name)]));
}

/** The schema that reads each kind. */
export const SCHEMAS = gather<{ readonly [R in ResourceName]: (typeof RESOURCES)[R]['schema'] }>(
  (name) => RESOURCES[name].schema,
);
/** JSON Schema (draft 2020-12) of all that a station holds: lists of records by kind, each with the columns of its table. */
export const stationFileSchema = () => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'Velvet Reed station',
  type: 'object',
  properties: {
    station: recordSchema(STATION),
    ...Object.fromEntries(
      RESOURCE_NAMES.map((name) => [name, { type: 'array', items: recordSchema(RESOURCES[name]) }]),
    ),
  },
  required: ['station'],
});

/** The schema of a kind that is only known where this is called. */
export function schemaFor<R extends ResourceName>(resource: R): ObjectSchema<Values<R>>;
export function schemaFor(resource: ResourceName): object {
  return SCHEMAS[resource];
}
/** What a record of each kind begins with. */
export const BLANK = gather<{ readonly [R in ResourceName]: BlankOf<ColumnsOf<R>> }>((name) => RESOURCES[name].blank);
/** What a station begins with beside its position, noise class, room and cable: no restrictions, every burden counted once. */
export const STATION_BLANK: BlankOf<StationColumns> = STATION.blank;
