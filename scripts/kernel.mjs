// Compiles the kernels of packages/core/assembly to WebAssembly and writes them as text into the core, so that nothing needs loading at run time.
// Run after changing a kernel: node scripts/kernel.mjs
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');
const KERNELS = [
  { source: 'ldlt', into: 'numeric/ldlt-wasm.ts', name: 'LDLT_KERNEL' },
  { source: 'sommerfeld', into: 'solver/sommerfeld-wasm.ts', name: 'SOMMERFELD_KERNEL' },
  { source: 'radiation', into: 'solver/radiation-wasm.ts', name: 'RADIATION_KERNEL' },
  { source: 'entries', into: 'solver/entries-wasm.ts', name: 'ENTRIES_KERNEL' },
  { source: 'fill', into: 'solver/fill-wasm.ts', name: 'FILL_KERNEL' },
];
const OPTIONS = ['--enable', 'simd', '--runtime', 'stub', '--noAssert', '-O3', '--use', 'abort='];

for (const { source, into, name } of KERNELS) {
  const out = path.join(mkdtempSync(path.join(tmpdir(), 'kernel-')), `${source}.wasm`);
  const from = `packages/core/assembly/${source}.ts`;
  const asc = spawnSync(process.execPath, ['node_modules/assemblyscript/bin/asc.js', from, '-o', out, ...OPTIONS], {
    cwd: root,
    stdio: 'inherit',
  });
  if (asc.status !== 0) process.exit(asc.status ?? 1);
  const text = readFileSync(out)
    .toString('base64')
    .replace(/.{100}/g, "$&' +\n  '");
  writeFileSync(
    path.join(root, 'packages/core/src', into),
    `/** WebAssembly of ${from}; written by scripts/kernel.mjs. */\nexport const ${name} =\n  '${text}';\n`,
  );
}
