// Types and lint side by side, as many at a time as there are cores, the longest first: they do not wait for each other.
import { spawn } from 'node:child_process';
import { availableParallelism } from 'node:os';

const ESLINT = 'node_modules/eslint/bin/eslint.js';
const CHECKS = {
  'eslint of the pages': [ESLINT, 'packages/web'],
  'eslint of all else': [ESLINT, '.', '--ignore-pattern', 'packages/web/'],
  types: ['scripts/typecheck.mjs'],
  prettier: ['node_modules/prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '.'],
  knip: ['node_modules/knip/bin/knip.js'],
};

const run = ([name, args]) =>
  new Promise((resolve) => {
    // a larger nursery: a quarter of the linter's time is collecting garbage
    const child = spawn(process.execPath, ['--max-semi-space-size=128', ...args], {
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let text = '';
    child.stdout.on('data', (chunk) => (text += chunk));
    child.stderr.on('data', (chunk) => (text += chunk));
    child.on('error', (error) => resolve({ name, failed: true, text: String(error) }));
    child.on('close', (code) => resolve({ name, failed: code !== 0, text }));
  });

const waiting = Object.entries(CHECKS);
const results = [];
async function one() {
  for (let next = waiting.shift(); next; next = waiting.shift()) results.push(await run(next));
}
await Promise.all(Array.from({ length: Math.max(2, availableParallelism()) }, one));
for (const { name, failed, text } of results) if (failed) console.error(`${name} failed:\n${text}`);
process.exit(results.some(({ failed }) => failed) ? 1 : 0);
