// Writes packages/core/src/index.ts: every public name of the core, listed by file. Run after adding an export.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const src = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../packages/core/src');
const files = readdirSync(src, { recursive: true })
  .map(String)
  .filter((file) => file.endsWith('.ts') && !/\.test\.ts$|\.d\.ts$|^index\.ts$/.test(file))
  .sort();
const lines = files.flatMap((file) => {
  const text = readFileSync(path.join(src, file), 'utf8');
  const names = [
    ...text.matchAll(/^export (?:declare )?(abstract class|class|const|function\*?|interface|type) (\w+)/gm),
  ].map(([, kind, name]) => (kind === 'interface' || kind === 'type' ? `type ${name}` : name));
  return names.length > 0
    ? [`export { ${names.join(', ')} } from './${file.replaceAll('\\', '/').replace(/\.ts$/, '')}';`]
    : [];
});
writeFileSync(path.join(src, 'index.ts'), `${lines.join('\n')}\n`);
