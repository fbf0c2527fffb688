import { spawn, type ChildProcess } from 'node:child_process';
import { afterEach, describe, expect, test } from '@jest/globals';
import { framed, openBench as openStandIns, portOf, serve, type StandIn } from '@velvet-reed/instruments';
import { type AllowedInstrument, openBench, type Bench } from './bench';

const terminals: ChildProcess[] = [];
const benches: Bench[] = [];
const none = { ports: () => Promise.reject(new Error('none')), close: () => undefined };

/**
 * A pseudo-terminal with a simulated instrument at its far end: `script` (util-linux) makes one and hands on what goes over it; a shell holds the near end
 * open and says its name. @returns the near end's device
 */
async function terminal(answer: (line: string) => readonly (string | Uint8Array)[]): Promise<string> {
  const made = spawn('script', ['-qfc', 'stty raw -echo; tty; exec sleep 600', '/dev/null'], {
    stdio: ['pipe', 'pipe', 'inherit'],
  });
  terminals.push(made);
  let waiting = '';
  const device = await new Promise<string>((resolve) => {
    let named = false;
    made.stdout.setEncoding('latin1').on('data', (chunk: string) => {
      waiting += chunk;
      const lines = waiting.split('\n');
      waiting = lines.pop() ?? '';
      for (const line of lines) {
        if (!named) {
          named = true;
          resolve(line.trim());
        } else {
          const replies = answer(line.replace(/\r$/, ''));
          if (replies.length > 0) made.stdin.write(framed(replies));
        }
      }
    });
  });
  expect(device).toMatch(/^\/dev\/pts\/\d+$/);
  return device;
}
/** Simulated instruments of one world, each behind a terminal of its own. */
async function benchOf(...kinds: readonly StandIn[]): Promise<Bench> {
  const stand = openStandIns(4);
  const allowed: AllowedInstrument[] = [];
  for (const kind of kinds)
    allowed.push({ kind, way: { path: await terminal((line) => stand(kind, line)), baud: 9600 } });
  const bench = openBench(allowed, none);
  benches.push(bench);
  return bench;
}

afterEach(() => {
  benches.splice(0).forEach((one) => one.close());
  terminals.splice(0).forEach((one) => one.kill());
});

describe('instruments at serial ports', () => {
  test('a sweep, a switch and a meter measure as over the network', async () => {
    const bench = await benchOf('analyser', 'antenna-switch', 'power-meter');
    const ask = { startHz: 5e6, stopHz: 15e6, points: 401, averages: 1 };
    const { value } = await bench.sweep('analyser-1', ask);
    // the same world over the network, which has tests of its own
    const stand = openStandIns(4);
    const server = await serve((line) => stand('analyser', line));
    const network = openBench([{ kind: 'analyser', way: { host: '127.0.0.1', port: portOf(server) } }], none);
    benches.push(network);
    const other = await network.sweep('analyser-1', ask);
    server.close();
    expect([...value.re]).toEqual([...other.value.re]);
    expect(value.im).toEqual(other.value.im);
    await bench.route('antenna-switch-2', { channel: 2 });
    const { value: dbm } = await bench.read('power-meter-3', { what: 'power', freqHz: 7e6 });
    expect(Number.isFinite(dbm)).toBe(true);
    expect(bench.list().find(({ id }) => id === 'analyser-1')?.address).toMatch(/^\/dev\/pts/);
  });

  test('a plug that is pulled is told, and the next reading opens the port again', async () => {
    const bench = await benchOf('power-meter');
    await bench.read('power-meter-1', { what: 'power', freqHz: 7e6 });
    terminals[0].kill();
    await expect(bench.read('power-meter-1', { what: 'power', freqHz: 7e6 })).rejects.toThrow(
      /Connect it again|switched on/,
    );
    await expect(bench.read('power-meter-1', { what: 'power', freqHz: 7e6 })).rejects.toThrow(
      /cannot be opened|vanished/,
    );
  });

  test('a port that is not there, and one that holds no instrument', async () => {
    const bench = openBench(
      [
        { kind: 'analyser', way: { path: '/dev/ttyNothing7', baud: 9600 } },
        { kind: 'power-meter', way: { path: await terminal(() => ['hello']), baud: 9600 } },
      ],
      none,
    );
    benches.push(bench);
    await expect(bench.identify('analyser-1')).rejects.toThrow('The analyser at /dev/ttyNothing7 cannot be opened');
    await expect(bench.identify('power-meter-2')).rejects.toThrow(/power meter/);
  }, 20_000);
});
