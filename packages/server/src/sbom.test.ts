import { readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from '@jest/globals';

const read = (file: string): unknown => JSON.parse(readFileSync(path.join(process.cwd(), file), 'utf8'));
interface Component {
  readonly name: string;
  readonly version: string;
  readonly purl: string;
  readonly licenses: readonly unknown[];
}
const isComponent = (value: unknown): value is Component =>
  typeof value === 'object' &&
  value !== null &&
  'name' in value &&
  'version' in value &&
  'licenses' in value &&
  Array.isArray(value.licenses);
const entriesOf = (value: unknown): readonly (readonly [string, unknown])[] =>
  typeof value === 'object' && value !== null ? Object.entries(value) : [];
const fieldOf = (value: unknown, name: string): unknown =>
  typeof value === 'object' && value !== null ? Reflect.get(value, name) : undefined;

test('the list of what runs (CycloneDX) names every package that the application asks for, as it is locked, with its licence', () => {
  const list = fieldOf(read('docs/sbom.cdx.json'), 'components');
  const components = Array.isArray(list) ? list.filter(isComponent) : [];
  const locked = entriesOf(fieldOf(read('package-lock.json'), 'packages'));
  const versions = new Set(
    locked.map(([place, one]) => `${place.split('node_modules/').at(-1)}@${String(fieldOf(one, 'version'))}`),
  );
  // run "node scripts/sbom.mjs" after a change of packages
  expect(components.map(({ name, version }) => `${name}@${version}`).filter((one) => !versions.has(one))).toEqual([]);
  const named = new Set(components.map(({ name }) => name));
  const asked = ['server', 'web', 'core', 'contract', 'cli', 'instruments'].flatMap((one) =>
    entriesOf(fieldOf(read(`packages/${one}/package.json`), 'dependencies')).map(([name]) => name),
  );
  expect(asked.filter((name) => !name.startsWith('@velvet-reed/') && !named.has(name))).toEqual([]);
  // two packages state their licence in a file only: png-js (MIT) and suncalc (BSD)
  const silent = components.filter(({ licenses }) => licenses.length === 0).map(({ name }) => name);
  expect(silent.sort()).toEqual(['png-js', 'suncalc']);
});
