// Compiles packages/core/assembly/ldlt.ts to WebAssembly and writes it as text into the core, so that nothing needs loading at run time.
// Run after changing the kernel: node scripts/kernel.mjs
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');
const out = path.join(mkdtempSync(path.join(tmpdir(), 'kernel-')), 'ldlt.wasm');
const asc = spawnSync(
  process.execPath,
  [
    'node_modules/assemblyscript/bin/asc.js',
    'packages/core/assembly/ldlt.ts',
    '-o',
    out,
    '--enable',
    'simd',
    '--runtime',
    'stub',
    '--noAssert',
    '-O3',
    '--use',
    'abort=',
  ],
  { cwd: root, stdio: 'inherit' },
);
if (asc.status !== 0) process.exit(asc.status ?? 1);
const text = readFileSync(out)
  .toString('base64')
  .replace(/.{100}/g, "$&' +\n  '");
writeFileSync(
  path.join(root, 'packages/core/src/numeric/ldlt-kernel.ts'),
  `/** WebAssembly of packages/core/assembly/ldlt.ts; written by scripts/kernel.mjs. */\nexport const LDLT_KERNEL =\n  '${text}';\n`,
);
