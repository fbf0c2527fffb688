// Writes docs/sbom.cdx.json: what the application is made of when it runs, with licences, as CycloneDX 1.5 by npm itself; the same packages give the same file.
import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');
// all of it, and then what the packages ask for: npm leaves out what development asks for as well
const { stdout, status } = spawnSync('npm', ['sbom', '--sbom-format', 'cyclonedx'], {
  cwd: root,
  encoding: 'utf8',
  maxBuffer: 100_000_000,
});
if (status !== 0) {
  console.error('npm sbom failed. Install first: npm ci');
  process.exit(1);
}
const { components, dependencies } = JSON.parse(stdout);
const asks = new Map(dependencies.map(({ ref, dependsOn = [] }) => [ref, dependsOn]));
const names = ['core', 'contract', 'station', 'instruments', 'server', 'cli', 'web'];
const waiting = names.flatMap((one) => {
  const {
    name,
    version,
    dependencies: own = {},
  } = JSON.parse(readFileSync(path.join(root, 'packages', one, 'package.json'), 'utf8'));
  return (asks.get(`${name}@${version}`) ?? []).filter((ref) => ref.slice(0, ref.lastIndexOf('@')) in own);
});
const runs = new Set();
while (waiting.length > 0) {
  const ref = waiting.pop();
  if (runs.has(ref)) continue;
  runs.add(ref);
  waiting.push(...(asks.get(ref) ?? []));
}
const kept = components
  .filter((one) => runs.has(one['bom-ref']) && !one.name.startsWith('@velvet-reed') && !names.includes(one.name))
  .map(({ type, name, version, purl, licenses = [] }) => ({ type, name, version, purl, licenses }))
  .sort((a, b) => (a.purl < b.purl ? -1 : 1));
const document = { bomFormat: 'CycloneDX', specVersion: '1.5', version: 1, components: kept };
writeFileSync(path.join(root, 'docs/sbom.cdx.json'), `${JSON.stringify(document, null, 1)}\n`);
console.log(`${kept.length} packages`);
