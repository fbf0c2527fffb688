// Types and lint side by side: they do not wait for each other, and on two cores that saves a minute of every `npm test`.
import { spawn } from 'node:child_process';

const CHECKS = {
  types: ['scripts/typecheck.mjs'],
  eslint: ['node_modules/eslint/bin/eslint.js', '.'],
  prettier: ['node_modules/prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '.'],
  knip: ['node_modules/knip/bin/knip.js'],
};

const run = ([name, args]) =>
  new Promise((resolve) => {
    const child = spawn(process.execPath, args, { stdio: ['ignore', 'pipe', 'pipe'] });
    let text = '';
    child.stdout.on('data', (chunk) => (text += chunk));
    child.stderr.on('data', (chunk) => (text += chunk));
    child.on('error', (error) => resolve({ name, failed: true, text: String(error) }));
    child.on('close', (code) => resolve({ name, failed: code !== 0, text }));
  });

const results = await Promise.all(Object.entries(CHECKS).map(run));
for (const { name, failed, text } of results) if (failed) console.error(`${name} failed:\n${text}`);
process.exit(results.some(({ failed }) => failed) ? 1 : 0);
