import { spawnSync } from 'node:child_process';

const projects = ['core', 'contract', 'station', 'instruments', 'server', 'cli', 'web'].map(
  (name) => `packages/${name}`,
);
let failed = 0;
for (const project of [...projects, 'e2e', 'bench', 'tsconfig.test.json'])
  failed |=
    spawnSync(process.execPath, ['node_modules/typescript-7/bin/tsc', '-p', project], { stdio: 'inherit' }).status ?? 1;
process.exit(failed);
