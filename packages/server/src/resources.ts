import { RESOURCE_NAMES, RESOURCES, type Columns, type ResourceName } from '@velvet-reed/contract';

const columnsOf = (resource: ResourceName): Columns => RESOURCES[resource].columns;

/** "1 sweep", "3 sweeps". */
export const countText = (resource: ResourceName, count: number): string =>
  `${count} ${count === 1 ? RESOURCES[resource].label : RESOURCES[resource].plural}`;

/** A field that points at a record. */
export interface Reference {
  readonly field: string;
  readonly to: ResourceName;
  /** The record means nothing without what it points at, and goes along with it. */
  readonly along: boolean;
  /** The file belongs to the record and goes with it. */
  readonly own: boolean;
}

const isName = (name: string | undefined): name is ResourceName => RESOURCE_NAMES.some((one) => one === name);

/** Which fields of a record point at which table; they must point inside the same station. */
export const referencesOf = (resource: ResourceName): readonly Reference[] =>
  Object.entries(columnsOf(resource)).flatMap(([field, { to, optional, along = false, own = false }]) =>
    isName(to) ? [{ field, to, along: along || !optional, own }] : [],
  );

/** What was measured, and where it came from: nobody changes it afterwards. */
export const evidenceOf = (resource: ResourceName): readonly string[] =>
  Object.entries(columnsOf(resource)).flatMap(([field, { evidence }]) => (evidence ? [field] : []));
