import { readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from '@jest/globals';
import { Ajv2020 } from 'ajv/dist/2020';
import { patternFileText } from './pattern-file';

/** The schema as docs/formats.md publishes it. */
function published(title: string): object {
  const text = readFileSync(path.resolve(import.meta.dirname, '../../../../docs/formats.md'), 'utf8');
  const block = text.split('```json').find((one) => one.includes(`"title": "${title}"`)) ?? '';
  const schema: unknown = JSON.parse(block.slice(0, block.indexOf('```')));
  if (typeof schema !== 'object' || schema === null) throw new Error(`no schema of ${title}`);
  return schema;
}

test('a pattern file fits its published schema, with a model and without; a broken one does not', () => {
  const fits = new Ajv2020().compile(published('velvet-reed-pattern'));
  const angleDeg = Array.from({ length: 36 }, (_, i) => 10 * i);
  const levelDb = angleDeg.map((deg) => -deg / 30.1);
  const pattern = { name: 'V', cut: 'azimuth', angleDeg, levelDb, turns: 2, driftDb: null } as const;
  const model = { antenna: 'V dipole', freqHz: 137.5e6, rotationDeg: 5.4321, levelDb, rmsDb: 0.2 };
  for (const one of [pattern, { ...pattern, driftDb: 0.613, model }]) {
    const file: unknown = JSON.parse(patternFileText(one));
    expect(fits(file)).toBe(true);
  }
  expect(JSON.parse(patternFileText({ ...pattern, model }))).toMatchObject({ model: { rotationDeg: 5.43 } });
  expect(fits({ ...pattern, format: 'velvet-reed-pattern', version: 2, origin: 'measured' })).toBe(false);
});
