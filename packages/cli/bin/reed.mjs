#!/usr/bin/env node
// Runs the TypeScript source directly, so that the command works in a fresh clone after `npm ci`, built or not.
import { register } from 'tsx/esm/api';

register();
const { main } = await import('../src/main.ts');
process.exitCode = await main(process.argv.slice(2));
