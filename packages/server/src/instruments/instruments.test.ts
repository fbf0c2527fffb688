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
import { openBench, readAllowed, type Bench } from './bench';
import { scpiLink, type ScpiLink } from './scpi-link';

const PATIENCE = { connectMs: 300, silenceMs: 200, greetingMs: 20 };
const open: Server[] = [];
const links: ScpiLink[] = [];

/** An instrument made for a test: it answers each line as told. */
async function instrument(answer: Answering): Promise<number> {
  const server = createServer((socket) => {
    let waiting = '';
    socket.on('error', () => socket.destroy());
    socket.on('data', (chunk) => {
      waiting += String(chunk);
      const lines = waiting.split('\n');
      waiting = lines.pop() ?? '';
      lines.forEach((line) => answer(line, socket));
    });
  });
  open.push(server);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', () => resolve()));
  const address = server.address();
  return typeof address === 'object' && address ? address.port : 0;
}
const link = (port: number): ScpiLink => {
  const made = scpiLink('analyser', '127.0.0.1', port, PATIENCE);
  links.push(made);
  return made;
};
/** Answers the error queue as empty, anything else as given. */
type Answering = (line: string, socket: Socket) => void;
const healthy =
  (reply: string): Answering =>
  (line, socket) => {
    if (line === ':SYST:ERR?') socket.write('0,"No error"\n');
    else if (line.endsWith('?')) socket.write(reply);
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
        for (const line of String(chunk).split('\n')) answers('1,2\n')(line, socket);
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
    await expect(link(port).askNumbers(':READ?', 2, 2000)).resolves.toEqual(Float64Array.of(1, 2));
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
      if (line.endsWith('?')) socket.write('0.5,0.1,0.4,0\n');
    });
    const own = openBench([{ kind: 'analyser', host: '127.0.0.1', port }], {
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
  expect(readAllowed('analyser=192.168.1.5:5025')).toEqual({ kind: 'analyser', host: '192.168.1.5', port: 5025 });
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
    return openBench([{ kind: 'turntable', host: '127.0.0.1', port }], {
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
    const broken = openBench([{ kind: 'turntable', host: '127.0.0.1', port }], {
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
    const bench = openBench([{ kind: 'turntable', host: '127.0.0.1', port }], {
      ports: () => Promise.resolve({}),
      close: () => undefined,
    });
    await expect(bench.turn('turntable-1', { toDeg: null, ...LIMIT }, never)).rejects.toThrow(
      /Turn it to the mark by hand/,
    );
    bench.close();
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
    bench = openBench([{ kind: 'analyser', host: '127.0.0.1', port }], none);
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
