import { createServer, type Server, type Socket } from 'node:net';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, test } from '@jest/globals';
import { pino } from 'pino';
import request from 'supertest';
import { packCalibration, STATION_BLANK, BLANK, unpackSamples } from '@velvet-reed/contract';
import { createApp } from '../app';
import { openDatabase, type Database } from '../database';
import { migrator } from '../migrate';
import { type Habit, openBench as openStandIns, portOf, serve, STAND_INS } from '@velvet-reed/instruments';
import { type AllowedInstrument, openBench, readAllowed, type Bench } from './bench';
import { readNumber, saysClosed } from './scpi-numbers';
import { scpiLink, type ScpiLink } from './scpi-link';

const PATIENCE = { connectMs: 300, silenceMs: 200, greetingMs: 20 };
const open: Server[] = [];
const links: ScpiLink[] = [];

/** An instrument made for a test: it answers each line as told, and what every instrument must answer by itself. */
async function instrument(answer: Answering): Promise<number> {
  const server = createServer((socket) => {
    let waiting = '';
    socket.on('error', () => socket.destroy());
    socket.on('data', (chunk) => {
      waiting += String(chunk);
      const lines = waiting.split('\n');
      waiting = lines.pop() ?? '';
      lines.forEach((line) => (line === '*OPC?' ? socket.write('1\n') : answer(line, socket)));
    });
  });
  open.push(server);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', () => resolve()));
  const address = server.address();
  return typeof address === 'object' && address ? address.port : 0;
}
const link = (port: number): ScpiLink => {
  const made = scpiLink('analyser', { host: '127.0.0.1', port }, PATIENCE);
  links.push(made);
  return made;
};
/** Answers the error queue as empty, anything else as given. */
type Answering = (line: string, socket: Socket) => void;
const healthy =
  (reply: string): Answering =>
  (line, socket) => {
    if (line === ':SYST:ERR?') socket.write('0,"No error"\n');
    else if (line === ':READ?') socket.write(reply);
  };

afterEach(() => {
  links.splice(0).forEach((one) => one.close());
  open.splice(0).forEach((server) => server.close());
});

describe('an instrument that misbehaves is refused with a sentence', () => {
  const cases: readonly (readonly [name: string, answer: Answering, sentence: RegExp])[] = [
    [
      'silent',
      (line: string, socket: Socket) => void (line === 'x' && socket.end()),
      /fell silent\. Nothing was stored/,
    ],
    ['half an answer', healthy('1,2'), /fell silent in the middle of its answer/],
    ['garbage', healthy('\u0001\u0002nonsense,,\n'), /sent (3|something)/],
    ['words for numbers', healthy('one,two\n'), /something that is not a number/],
    ['too few numbers', healthy('1\n'), /sent 1 numbers where 2 were due/],
    ['a block without a length', healthy('#x123\n'), /block without a length/],
    ['a block longer than anything', healthy('#9999999999\n'), /length cannot be read/],
    ['half a block', healthy('#216\u0000\u0000'), /fell silent in the middle/],
    ['gone', (line: string, socket: Socket) => void (line.endsWith('?') && socket.destroy()), /vanished/],
    [
      'a complaint',
      (line: string, socket: Socket) =>
        void (line.endsWith('?') && socket.write(line === ':SYST:ERR?' ? '-222,"Data out of range"\n' : '1,2\n')),
      /refused: -222,"Data out of range"/,
    ],
  ];
  test.each(cases)('%s', async (_name, answer, sentence) => {
    const port = await instrument(answer);
    await expect(link(port).askNumbers(':READ?', 2)).rejects.toThrow(sentence);
  });

  test('nobody there', async () => {
    const port = await instrument(() => undefined);
    open.splice(0).forEach((server) => server.close());
    await expect(link(port).ask('*IDN?')).rejects.toThrow(/cannot be reached\. See whether it is switched on/);
  });

  test('it reconnects, and a late answer never meets the next question', async () => {
    let visits = 0;
    const port = await instrument((line, socket) => {
      if (line === ':SYST:ERR?') return void socket.write('0,"No error"\n');
      if (!line.endsWith('?')) return;
      visits += 1;
      if (visits === 1) setTimeout(() => socket.destroyed || socket.write('99,99\n'), 250);
      else socket.write('1,2\n');
    });
    const one = link(port);
    await expect(one.askNumbers(':READ?', 2)).rejects.toThrow(/fell silent/);
    await expect(one.askNumbers(':READ?', 2)).resolves.toEqual(Float64Array.of(1, 2));
  });

  test('blocks that come in crumbs are put together; questions wait for each other', async () => {
    const block = Buffer.concat([Buffer.from('#216'), Buffer.alloc(16), Buffer.from('\n')]);
    block.writeDoubleBE(0.25, 4);
    block.writeDoubleBE(-0.5, 12);
    const port = await instrument((line, socket) => {
      if (line === ':SYST:ERR?') return void socket.write('0,"No error"\n');
      if (!line.endsWith('?')) return;
      for (let i = 0; i < block.length; i += 3) setTimeout(() => socket.write(block.subarray(i, i + 3)), i);
    });
    const one = link(port);
    const answers = await Promise.all([one.askNumbers(':READ?', 2), one.askNumbers(':READ?', 2)]);
    expect(answers).toEqual([Float64Array.of(0.25, -0.5), Float64Array.of(0.25, -0.5)]);
  });
});

describe('instruments that keep to the standard in their own way', () => {
  const doubles = (...values: readonly number[]): Buffer => {
    const bytes = Buffer.alloc(8 * values.length);
    values.forEach((value, i) => bytes.writeDoubleBE(value, 8 * i));
    return bytes;
  };
  const answers =
    (reply: Buffer | string): Answering =>
    (line, socket) => {
      if (line === ':SYST:ERR?') socket.write('0,"No error"\r\n');
      else if (line.endsWith('?')) socket.write(reply);
    };
  test('a text whose length is eight times the count is a text', async () => {
    const one = link(await instrument(answers('-22.1234\n')));
    await expect(one.askNumbers(':MEAS:POW?', 1)).resolves.toEqual(Float64Array.of(-22.1234));
    const two = link(await instrument(answers('0.500000,0.50000\n')));
    await expect(two.askNumbers(':READ?', 2)).resolves.toEqual(Float64Array.of(0.5, 0.5));
  });
  test('CR and LF behind a block may come in pieces, and never reach the next answer', async () => {
    const port = await instrument((line, socket) => {
      if (line === ':SYST:ERR?') return void socket.write('0,"No error"\r\n');
      if (!line.endsWith('?')) return;
      socket.write(Buffer.concat([Buffer.from('#216'), doubles(0.25, -0.5), Buffer.from('\r')]));
      setTimeout(() => socket.write('\n'), 20);
    });
    const one = link(port);
    for (let i = 0; i < 2; i += 1)
      await expect(one.askNumbers(':READ?', 2)).resolves.toEqual(Float64Array.of(0.25, -0.5));
  });
  test('a block without a length ends with the numbers due, line feeds inside it or not', async () => {
    const inside = doubles(Buffer.from('0a0a0a0a0a0a0a0a', 'hex').readDoubleBE(0), 1);
    const one = link(await instrument(answers(Buffer.concat([Buffer.from('#0'), inside, Buffer.from('\n')]))));
    expect((await one.askNumbers(':READ?', 2))[1]).toBe(1);
  });
  test('a greeting is not an answer', async () => {
    const server = createServer((socket) => {
      socket.on('error', () => socket.destroy());
      socket.write('Welcome to the bench\r\n');
      socket.on('data', (chunk) => {
        for (const line of String(chunk).split('\n'))
          if (line === '*OPC?') socket.write('1\n');
          else answers('1,2\n')(line, socket);
      });
    });
    open.push(server);
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', () => resolve()));
    const address = server.address();
    const one = link(typeof address === 'object' && address ? address.port : 0);
    await expect(one.askNumbers(':READ?', 2)).resolves.toEqual(Float64Array.of(1, 2));
  });
  test('a sweep slower than the usual patience is waited for as long as asked', async () => {
    const port = await instrument((line, socket) => {
      if (line === ':SYST:ERR?') return void socket.write('0,"No error"\n');
      if (line.endsWith('?')) setTimeout(() => socket.write('1,2\n'), 400);
    });
    await expect(link(port).askNumbers(':READ?', 2, { waitMs: 2000 })).resolves.toEqual(Float64Array.of(1, 2));
    await expect(link(port).askNumbers(':READ?', 2)).rejects.toThrow(/fell silent/);
  });
  test('a setting that it does not have is learned once, and what is lost by it is told', async () => {
    const heard: string[] = [];
    let last = '';
    const port = await instrument((line, socket) => {
      if (line === ':SYST:ERR?') {
        const lacks = /AVER|FORM/.test(last);
        last = '';
        return void socket.write(lacks ? '-113,"Undefined header"\n' : '0,"No error"\n');
      }
      heard.push(line);
      if (line !== '*CLS') last = line;
      if (line === ':READ?') socket.write('0.5,0.1,0.4,0\n');
    });
    const own = openBench([{ kind: 'analyser', way: { host: '127.0.0.1', port } }], {
      ports: () => Promise.resolve({}),
      close: () => undefined,
    });
    const ask = { startHz: 9e6, stopHz: 10e6, points: 2, averages: 4 };
    const { value, told } = await own.sweep('analyser-1', ask);
    expect([...value.re]).toEqual([0.5, 0.4]);
    expect(told.join(' ')).toMatch(/text only.*does not average/);
    await own.sweep('analyser-1', ask);
    expect(heard.filter((line) => line.includes('AVER'))).toHaveLength(1);
    own.close();
  });
});

test('addresses of real instruments are read or refused', () => {
  expect(readAllowed('analyser=192.168.1.5:5025')).toEqual({
    kind: 'analyser',
    way: { host: '192.168.1.5', port: 5025 },
  });
  const usb = { kind: 'power-meter', way: { path: '/dev/ttyUSB0', baud: 115200 } };
  expect(readAllowed('power-meter=/dev/ttyUSB0@115200')).toEqual(usb);
  expect(readAllowed('analyser=COM3')).toEqual({ kind: 'analyser', way: { path: 'COM3', baud: 9600 } });
  for (const wrong of ['analyser=/etc/passwd', 'analyser=/dev/../etc/passwd', 'analyser=COM3@fast', 'analyser=ttyS0'])
    expect(() => readAllowed(wrong)).toThrow(/power-meter=COM3/);
  expect(() => readAllowed('oven=1.2.3.4:1')).toThrow(/kind=address:port/);
  expect(() => readAllowed('analyser')).toThrow(/kind=address:port/);
});

describe('a turntable', () => {
  const LIMIT = { lowDeg: -10, highDeg: 370 };
  const never = new AbortController().signal;
  /** A table that moves by so much a question; what it was told stands in `told`. */
  async function table(step: number, told: string[]): Promise<Bench> {
    let [at, to] = [0, 0];
    const port = await instrument((line, socket) => {
      told.push(line);
      if (line === ':SYST:ERR?') return void socket.write('0,"No error"\n');
      const target = /^:POS:AZIM (-?[\d.]+)$/.exec(line)?.[1];
      if (target !== undefined) to = Number(target);
      if (line === ':POS:STOP') to = at;
      if (line !== ':POS:AZIM?') return;
      at += Math.max(-step, Math.min(step, to - at));
      socket.write(`${at}\n`);
    });
    return openBench([{ kind: 'turntable', way: { host: '127.0.0.1', port } }], {
      ports: () => Promise.resolve({}),
      close: () => undefined,
    });
  }
  test('is waited for until it stands; past its cable it is not sent at all', async () => {
    const told: string[] = [];
    const bench = await table(25, told);
    await expect(bench.turn('turntable-1', { toDeg: 90, ...LIMIT }, never)).resolves.toBe(90);
    await expect(bench.turn('turntable-1', { toDeg: 371, ...LIMIT }, never)).rejects.toThrow(/past the cable's limit/);
    expect(told.filter((line) => line.includes('371'))).toEqual([]);
    bench.close();
  });
  test('that its caller left is told to stop; so is one that vanished in the middle, when it can be reached again', async () => {
    const told: string[] = [];
    const bench = await table(0.5, told);
    const leaving = new AbortController();
    const turning = bench.turn('turntable-1', { toDeg: 300, ...LIMIT }, leaving.signal);
    setTimeout(() => leaving.abort(), 120);
    await expect(turning).rejects.toThrow(/told to stop/);
    expect(told.filter((line) => line === ':POS:STOP')).toHaveLength(1);
    bench.close();
    let asked = 0;
    const after: string[] = [];
    const port = await instrument((line, socket) => {
      after.push(line);
      if (line === ':SYST:ERR?') socket.write('0,"No error"\n');
      else if (line === ':POS:AZIM?') {
        asked += 1;
        if (asked === 2) socket.destroy();
        else socket.write('10\n');
      }
    });
    const broken = openBench([{ kind: 'turntable', way: { host: '127.0.0.1', port } }], {
      ports: () => Promise.resolve({}),
      close: () => undefined,
    });
    await expect(broken.turn('turntable-1', { toDeg: 300, ...LIMIT }, never)).rejects.toThrow(/vanished/);
    expect(after.at(-2)).toBe(':POS:STOP');
    broken.close();
  });
  test('that finds no mark by itself says what to do by hand', async () => {
    const port = await instrument((line, socket) => {
      if (line === ':SYST:ERR?') socket.write('-113,"Undefined header"\n');
    });
    const bench = openBench([{ kind: 'turntable', way: { host: '127.0.0.1', port } }], {
      ports: () => Promise.resolve({}),
      close: () => undefined,
    });
    await expect(bench.turn('turntable-1', { toDeg: null, ...LIMIT }, never)).rejects.toThrow(
      /Turn it to the mark by hand/,
    );
    bench.close();
  });
});

describe('honest instruments with habits', () => {
  const closed = { ports: () => Promise.resolve({}), close: () => undefined };
  const LIMIT = { lowDeg: -180, highDeg: 370 };
  const servers: Server[] = [];
  const benches: Bench[] = [];
  /** A bench of stand-ins on ports of their own, as if they were real. */
  async function withStandIns(habits: readonly Habit[]): Promise<Bench> {
    const answer = openStandIns(7, habits);
    const allowed: AllowedInstrument[] = [];
    for (const kind of STAND_INS) {
      const server = await serve((line) => answer(kind, line), 0, habits);
      servers.push(server);
      allowed.push({ kind, way: { host: '127.0.0.1', port: portOf(server) } });
    }
    const made = openBench(allowed, closed);
    benches.push(made);
    return made;
  }
  afterAll(() => {
    benches.forEach((one) => one.close());
    servers.forEach((server) => server.close());
  });

  test('a meter left in watts, with units behind its numbers and a late greeting, gives the level in dBm', async () => {
    const [plain, odd] = [await withStandIns([]), await withStandIns(['watts', 'units', 'greeting'])];
    const ask = { what: 'power', freqHz: 868e6 } as const;
    const [true1, odd1] = [await plain.read('power-meter-4', ask), await odd.read('power-meter-4', ask)];
    expect(odd1.value).toBeCloseTo(true1.value, 2);
    expect(true1.value).toBeLessThan(-10);
    // one that cannot be told otherwise is converted: 12.3 mW are 10 lg 12.3 dBm
    const port = await instrument((line, socket) => {
      if (line === ':SYST:ERR?') socket.write('0,"No error"\n');
      else if (line === ':UNIT:POW?') socket.write('W\n');
      else if (line.endsWith(':MEAS:POW?')) socket.write('1.23E-02\n');
    });
    const stubborn = openBench([{ kind: 'power-meter', way: { host: '127.0.0.1', port } }], closed);
    const { value, told } = await stubborn.read('power-meter-1', ask);
    expect(value).toBeCloseTo(10 * Math.log10(12.3), 6);
    expect(told.join(' ')).toContain('It keeps to its own unit (W)');
    stubborn.close();
  });

  test('an analyser that rounds its span: what it measured is kept, at the frequencies where it measured, and told', async () => {
    const [plain, odd] = [await withStandIns([]), await withStandIns(['rounds', 'units'])];
    const asked = { startHz: 9.03e6, stopHz: 9.97e6, points: 37, averages: 1 };
    const rounded = await odd.sweep('analyser-1', asked);
    const same = await plain.sweep('analyser-1', { ...asked, startHz: 9e6, stopHz: 10e6, points: 51 });
    expect(rounded.value.freqHz).toEqual(same.value.freqHz);
    expect(rounded.value.re).toEqual(same.value.re);
    expect(rounded.told.join(' ')).toContain(
      'It measured 9 MHz to 10 MHz in 51 points, not 9.03 MHz to 9.97 MHz in 37',
    );
    expect(same.told).toEqual([]);
  });

  test('a receiver in dB over a microvolt that rounds its bandwidth: levels in dBm, and the bandwidth that it used', async () => {
    const [plain, odd] = [await withStandIns([]), await withStandIns(['watts', 'rounds', 'units', 'greeting'])];
    const asked = { startHz: 77e3, stopHz: 78e3, points: 11, bandwidthHz: 100 };
    const [true1, odd1] = [await plain.spectrum('receiver-2', asked), await odd.spectrum('receiver-2', asked)];
    expect(odd1.value.levelDb).toEqual(true1.value.levelDb);
    const other = await odd.spectrum('receiver-2', { ...asked, bandwidthHz: 50 });
    expect(other.bandwidthHz).toBe(100);
    expect(other.told.join(' ')).toContain('Its bandwidth is 100 Hz, not 50 Hz');
  });

  test('pairs, units, ON, and a turntable whose scale begins anew at north', async () => {
    const odd = await withStandIns(['units', 'wraps', 'greeting']);
    const coil = await odd.read('lcr-meter-5', { what: 'inductance', freqHz: 10e3 });
    expect(coil.value).toBeGreaterThan(9.5e-3);
    expect(coil.value).toBeLessThan(10.5e-3);
    const capacitor = await odd.read('lcr-meter-5', { what: 'capacitance', freqHz: 10e3 });
    expect(capacitor.value).toBeCloseTo(390e-12, 11);
    await odd.route('antenna-switch-6', { channel: 2 });
    const never = new AbortController().signal;
    await odd.turn('turntable-3', { toDeg: null, ...LIMIT }, never);
    await expect(odd.turn('turntable-3', { toDeg: -8, ...LIMIT }, never)).resolves.toBeCloseTo(-8, 1);
    await expect(odd.turn('turntable-3', { toDeg: 365, ...LIMIT }, never)).resolves.toBeCloseTo(365, 1);
    expect((await odd.read('turntable-3', { what: 'azimuth', freqHz: null })).value).toBeCloseTo(5, 1);
  });

  test.each([
    ['overflow', '9.9E37', /says overflow.*attenuate/],
    ['not a number', '9.91E37', /has no reading \(not a number\)/],
    ['underflow', '-9.9E37', /says underflow/],
  ])('%s is no reading, for every kind', async (_name, reply, sentence) => {
    const port = await instrument((line, socket) => {
      if (line === ':SYST:ERR?') socket.write('0,"No error"\n');
      else if (line.endsWith('?') && !line.includes('UNIT'))
        socket.write(line.includes('READ') ? `${reply},0\n` : `${reply}\n`);
    });
    const own = openBench(
      STAND_INS.map((kind) => ({ kind, way: { host: '127.0.0.1', port } })),
      closed,
    );
    await expect(own.read('power-meter-4', { what: 'power', freqHz: null })).rejects.toThrow(sentence);
    await expect(own.read('lcr-meter-5', { what: 'inductance', freqHz: null })).rejects.toThrow(sentence);
    await expect(own.read('lcr-meter-5', { what: 'capacitance', freqHz: null })).rejects.toThrow(sentence);
    await expect(own.read('turntable-3', { what: 'azimuth', freqHz: null })).rejects.toThrow(sentence);
    own.close();
  });

  test('numbers with units, by the multipliers of IEEE 488.2, table 7-2', () => {
    expect(readNumber('-22.12 DBM', 'level')).toBe(-22.12);
    expect(readNumber('1 MW', 'level')).toBeCloseTo(0, 12); // M is milli …
    expect(readNumber('9.65 MHZ', 'frequency')).toBe(9.65e6); // … but mega before HZ
    expect(readNumber('9.7MH', 'inductance')).toBeCloseTo(9.7e-3, 12);
    expect(readNumber('390 PF', 'capacitance')).toBeCloseTo(390e-12, 20);
    // 0 dBm in 50 Ω are 0.2236 V, 106.99 dB over one microvolt (handbook figure)
    expect(readNumber('106.99 DBUV', 'level')).toBeCloseTo(0, 2);
    expect(readNumber('0.2236 V', 'level')).toBeCloseTo(0, 2);
    expect(readNumber('1.5708 RAD', 'angle')).toBeCloseTo(90, 2);
    expect(() => readNumber('12 PSI', 'level')).toThrow(/does not measure this/);
    expect(readNumber('+1.2.3', 'plain')).toBeNaN();
  });

  test('a channel list says which are closed', () => {
    expect(['1', '+1', 'ON', '(@2)', '(@1:3)', '(@1,2)', '1,0'].every((text) => saysClosed(text, 2))).toBe(true);
    expect(['0', 'OFF', '(@1)', '(@)', 'OPEN'].some((text) => saysClosed(text, 2))).toBe(false);
  });
});

describe('over HTTP', () => {
  let dir: string;
  let db: Database;
  let app: ReturnType<typeof createApp>;
  let station = 0;
  let bench: Bench;
  let kept: Server[] = [];
  const STATION = {
    ...{ name: 'Hut', latDeg: 50, lonDeg: -19, environment: 'rural', noiseOffsetDb: 0, spanM: 38, heightM: 9 },
    ...{ cableId: 'pe5', lineLengthM: 25, groundId: 'average', ...STATION_BLANK },
  };
  const none = { ports: () => Promise.resolve({}), close: () => undefined };
  beforeAll(async () => {
    dir = mkdtempSync(path.join(tmpdir(), 'velvet-reed-'));
    db = openDatabase(path.join(dir, 'test.sqlite'));
    await migrator(db.sequelize).up();
    const sweep = Float64Array.of(0.5, 0.1, 0.4, 0, 0.3, -0.1);
    const port = await instrument(healthy(`${sweep.join(',')}\n`));
    bench = openBench([{ kind: 'analyser', way: { host: '127.0.0.1', port } }], none);
    app = createApp({ db, logger: pino({ level: 'silent' }), allowedHosts: ['127.0.0.1'], bench });
    kept = open.splice(0); // stays open for all of these
    const made: { body: { id: number } } = await request(app).post('/api/stations').send(STATION).expect(201);
    station = made.body.id;
  });
  afterAll(async () => {
    bench.close();
    kept.forEach((server) => server.close());
    await db.sequelize.close();
    rmSync(dir, { recursive: true });
  });
  const load = async (): Promise<Record<string, { id: number }[]>> => {
    const reply: { body: Record<string, { id: number }[]> } = await request(app)
      .get(`/api/stations/${station}`)
      .expect(200);
    return reply.body;
  };

  test('a sweep comes as samples; bad settings, another kind and an unknown instrument are refused', async () => {
    const ask = { startHz: 9e6, stopHz: 10e6, points: 3, averages: 1 };
    const swept: { body: unknown } = await request(app)
      .post('/api/instruments/analyser-1/sweep')
      .send(ask)
      .buffer(true)
      .parse((res, done) => {
        const parts: Buffer[] = [];
        res.on('data', (part: Buffer) => parts.push(part));
        res.on('end', () => done(null, Buffer.concat(parts)));
      })
      .expect(200);
    expect(Array.from(unpackSamples(Buffer.isBuffer(swept.body) ? swept.body : Buffer.alloc(0), 50).re)).toEqual([
      0.5, 0.4, 0.3,
    ]);
    const wrong = await request(app)
      .post('/api/instruments/analyser-1/sweep')
      .send({ ...ask, startHz: 11e6 })
      .expect(400);
    expect(wrong.text).toMatch(/Exchange the two/);
    await request(app)
      .post('/api/instruments/analyser-1/spectrum')
      .send({ startHz: 1, stopHz: 2, points: 2, bandwidthHz: 1 })
      .expect(400);
    await request(app).post('/api/instruments/elsewhere/sweep').send(ask).expect(404);
    const hands = await request(app).post('/api/instruments/analyser-1/hands').send({ connect: 'open' }).expect(400);
    expect(hands.text).toMatch(/Plug the real one by hand/);
    const few = await request(app)
      .post('/api/instruments/analyser-1/sweep')
      .send({ ...ask, points: 5 })
      .expect(502);
    expect(few.text).toMatch(/sent 6 numbers where 10 were due/);
    expect((await load()).sweeps).toEqual([]);
  });

  test('a batch with a name is carried out once, however often it is sent', async () => {
    const batch = {
      key: '01234567-89ab-4def-8123-456789abcdef',
      changes: [{ op: 'create', resource: 'entries', values: { step: 'bench', text: 'cut 5 mm', atMs: 1 } }],
    };
    const send = (body: unknown) =>
      request(app)
        .post(`/api/stations/${station}/changes`)
        .send(body as object);
    await send(batch).expect(200);
    await send(batch).expect(200);
    expect((await load()).entries.filter((one) => 'text' in one && one.text === 'cut 5 mm')).toHaveLength(1);
    await send({ ...batch, key: 'mine' }).expect(400);
  });

  test('a photo comes with the step it shows, all or none, and undo takes both back', async () => {
    const jpeg = Buffer.from([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3]);
    const antenna: { body: { saved: { id: number }[] } } = await request(app)
      .post(`/api/stations/${station}/changes`)
      .send({ changes: [{ op: 'create', resource: 'antennas', values: { name: 'V', targetId: null } }] });
    const step = {
      antennaId: antenna.body.saved[0].id,
      lengthM: 7.4,
      freqHz: 9.5e6,
      ...BLANK.trimSteps,
      photoId: { new: 'photo' },
    };
    const send = (values: object, bytes: Buffer) =>
      request(app)
        .post(`/api/stations/${station}/photo-changes`)
        .field('batch', JSON.stringify({ changes: [{ op: 'create', resource: 'trimSteps', values }] }))
        .attach('file', bytes, 'end.jpg');
    await send(step, jpeg).expect(200);
    const { trimSteps, attachments } = await load();
    expect(trimSteps).toMatchObject([{ photoId: attachments[0].id }]);
    await send(step, Buffer.from('no picture')).expect(400);
    await send({ ...step, lengthM: -1 }, jpeg).expect(400);
    expect((await load()).attachments).toHaveLength(1);
    await request(app).post(`/api/stations/${station}/undo`).send({}).expect(200);
    const after = await load();
    expect([after.trimSteps, after.attachments]).toEqual([[], []]);
  });

  test('spectra and calibrations are stored whole or refused', async () => {
    const spectrum = (text: string) =>
      request(app)
        .post(`/api/stations/${station}/spectra`)
        .field('source', 'on')
        .field('atMs', '1000')
        .attach('file', Buffer.from(text), 'on.csv');
    await spectrum('Hz,dB\n1,-100\n2,-90').expect(201);
    const refused = await spectrum('Hz,dB\n1,-100\n2,loud').expect(422);
    expect(refused.text).toMatch(/Line 3/);
    const column = Float64Array.of(1, 2, 3);
    const reading = { re: column, im: column };
    const values = {
      name: 'today',
      instrument: 'stand-in',
      madeMs: 1,
      openFarad: 0,
      openDelayS: 0,
      shortHenry: 0,
      shortDelayS: 0,
      loadOhm: 50,
    };
    const calibration = (bytes: Uint8Array, named: object) =>
      request(app)
        .post(`/api/stations/${station}/calibrations`)
        .field('values', JSON.stringify(named))
        .attach('file', Buffer.from(bytes), 'calibration.bin');
    const whole = packCalibration({ freqHz: column, readings: { open: reading, short: reading, load: reading } });
    await calibration(whole, values).expect(201);
    await calibration(whole.subarray(0, 100), values).expect(422);
    await calibration(whole, { ...values, loadOhm: -5 }).expect(400);
    await request(app)
      .post(`/api/stations/${station}/calibrations`)
      .field('values', '{')
      .attach('file', Buffer.from(whole), 'c')
      .expect(400);
    const { spectra, calibrations } = await load();
    expect(spectra).toMatchObject([{ source: 'on', points: 2, stopHz: 2 }]);
    expect(calibrations).toMatchObject([{ points: 3, startHz: 1, stopHz: 3 }]);
    expect('samples' in calibrations[0]).toBe(false);
  });
});
