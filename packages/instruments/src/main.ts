import { readHabits } from './habits';
import { openBench, portOf, serve, STAND_INS } from './serve';

// Child process of the server: all stand-ins on loopback ports of their own. The first line on stdout names them; it ends with its parent.
const habits = readHabits(process.argv[3] ?? '') ?? [];
const bench = openBench(Number(process.argv[2] ?? 1), habits);
const ports: Record<string, number> = {};
for (const name of STAND_INS) ports[name] = portOf(await serve((line) => bench(name, line), 0, habits));
process.stdin.resume();
process.stdin.on('end', () => process.exit(0));
process.stdin.on('error', () => process.exit(0));
console.log(JSON.stringify(ports));
