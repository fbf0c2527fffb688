#!/usr/bin/env node
// Runs the TypeScript source directly, so that the command works in a fresh clone after `npm ci`, built or not.
import { register } from 'tsx/esm/api';

// whoever reads the output may stop early: "reed … | head"
process.stdout.on('error', (fault) => {
  if (fault.code !== 'EPIPE') throw fault;
});
register();
const { main } = await import('../src/main.ts');
process.exitCode = await main(process.argv.slice(2));
