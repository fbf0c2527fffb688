// Speed against targets that no test asserts: `npm run bench [-- crash evidence fuzz guard heavy honesty interface path ranking recording sequences solver station-file sync worlds]`. Each part prints its figures and the target beside them.
import { crashBench } from './crash';
import { evidenceBench } from './evidence';
import { fuzzBench } from './fuzz';
import { guardBench } from './guard';
import { heavyBench } from './heavy';
import { honestyBench } from './honesty';
import { interfaceBench } from './interface';
import { pathBench } from './path';
import { rankingBench } from './ranking';
import { recordingBench } from './recording';
import { sequencesBench } from './sequences';
import { solverBench } from './solver';
import { stationFileBench } from './station-file';
import { syncBench } from './sync';
import { worldsBench } from './worlds';

const PARTS: Readonly<Record<string, () => Promise<void>>> = {
  solver: solverBench,
  ranking: rankingBench,
  recording: recordingBench,
  path: pathBench,
  guard: guardBench,
  evidence: evidenceBench,
  worlds: worldsBench,
  honesty: honestyBench,
  interface: interfaceBench,
  heavy: heavyBench,
  crash: crashBench,
  fuzz: fuzzBench,
  sequences: sequencesBench,
  'station-file': stationFileBench,
  sync: syncBench,
};

const asked = process.argv.slice(2);
for (const [name, part] of Object.entries(PARTS)) {
  if (asked.length > 0 && !asked.includes(name)) continue;
  console.log(`\n${name}`);
  await part();
}
