import { expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { LDLT_KERNEL } from './numeric/ldlt-wasm';
import { ENTRIES_KERNEL } from './solver/entries-wasm';
import { FILL_KERNEL } from './solver/fill-wasm';
import { RADIATION_KERNEL } from './solver/radiation-wasm';
import { SOMMERFELD_KERNEL } from './solver/sommerfeld-wasm';

const KERNELS = {
  ldlt: LDLT_KERNEL,
  entries: ENTRIES_KERNEL,
  fill: FILL_KERNEL,
  radiation: RADIATION_KERNEL,
  sommerfeld: SOMMERFELD_KERNEL,
};

test.each(Object.entries(KERNELS))(
  'the %s kernel in the source is the one that its assembly makes',
  (name, text) => {
    const out = path.join(mkdtempSync(path.join(tmpdir(), 'kernel-')), `${name}.wasm`);
    execFileSync(process.execPath, [
      'node_modules/assemblyscript/bin/asc.js',
      `packages/core/assembly/${name}.ts`,
      ...['-o', out, '--enable', 'simd', '--runtime', 'stub', '--noAssert', '-O3', '--use', 'abort='],
    ]);
    expect(text).toBe(readFileSync(out).toString('base64'));
  },
  60_000,
);
