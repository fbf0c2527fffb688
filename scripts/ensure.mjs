// Plain Node, no dependency: makes `npm start` and `npm test` work from a fresh clone.
//   node scripts/ensure.mjs start|test
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');
const mode = process.argv[2] ?? 'start';
const [major, minor] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 19)) {
  console.error(`Node 20.19 or newer is needed, this is ${process.version}.`);
  process.exit(1);
}

function run(command, args, env = {}) {
  console.log(`> ${command} ${args.join(' ')}`);
  const result = spawnSync(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
  if (result.status === 0) return;
  console.error(`${command} failed (${result.status ?? result.error?.message}).`);
  process.exit(result.status || 1);
}

function filesBelow(dir, found = []) {
  for (const entry of readdirSync(dir, { withFileTypes: true })) {
    if (['node_modules', 'dist', 'test-results', 'testdata'].includes(entry.name)) continue;
    const full = path.join(dir, entry.name);
    if (entry.isDirectory()) filesBelow(full, found);
    else found.push(full);
  }
  return found;
}

const hashOf = (files, extra = '') => {
  const hash = createHash('sha256').update(extra);
  for (const file of files.sort()) hash.update(path.relative(root, file)).update(readFileSync(file));
  return hash.digest('hex');
};
const read = (file) => (existsSync(file) ? readFileSync(file, 'utf8') : '');

// 1. dependencies: lock file, .npmrc and the Node ABI (sqlite3 is compiled for this machine)
const installStamp = path.join(root, 'node_modules/.stamp-install');
const wanted = hashOf(
  [path.join(root, 'package-lock.json'), path.join(root, '.npmrc')],
  `${process.platform}-${process.arch}-${process.versions.modules}`,
);
if (read(installStamp) !== wanted) {
  run('npm', ['ci', '--no-fund', '--no-audit'], {
    CFLAGS: process.env.CFLAGS ?? '-O2',
    CXXFLAGS: process.env.CXXFLAGS ?? '-O2',
    MAKEFLAGS: process.env.MAKEFLAGS ?? '-j2',
  });
  writeFileSync(installStamp, wanted);
}
// 2. build, when the content of a source changed (a clone has fresh file times)
const buildStamp = path.join(root, 'packages/server/dist/.stamp-build');
const sources = hashOf(
  filesBelow(path.join(root, 'packages')).filter((file) => !/\.test\.tsx?$/.test(file)),
  wanted,
);
if (read(buildStamp) !== sources || !existsSync(path.join(root, 'packages/web/dist/index.html'))) {
  run('npm', ['run', '--silent', 'build']);
  mkdirSync(path.dirname(buildStamp), { recursive: true });
  writeFileSync(buildStamp, sources);
}
// 3. a browser for the end-to-end tests
if (mode === 'test' && !existsSync(process.env.CHROMIUM ?? '/usr/bin/chromium')) {
  const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = (...args) => {
    const [command, ...rest] = [...sudo, 'apt-get', ...args];
    run(command, rest, { DEBIAN_FRONTEND: 'noninteractive' });
  };
  apt('update', '-qq');
  apt('install', '-y', '-qq', '--no-install-recommends', 'chromium');
}
