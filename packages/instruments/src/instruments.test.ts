import { connect } from 'node:net';
import { describe, expect, test } from '@jest/globals';
import { dipoleResonanceHz } from '@velvet-reed/core/antenna';
import type { SweepData } from '@velvet-reed/core/formats';
import { correctSweep, findResonances, noisePeak, unphysicalPoints } from '@velvet-reed/core/sweep';
import fc from 'fast-check';
import {
  ANALYSER,
  drawFault,
  exerciseWorld,
  FAULT_KINDS,
  openBench,
  openSession,
  parseMessage,
  portOf,
  randomFrom,
  respond,
  serve,
  STAND_IN_KIT,
  STAND_INS,
  startAnalyser,
  startLab,
  startWorld,
  trueReflections,
  type StandIn,
} from './index';

const text = (bench: ReturnType<typeof openBench>, name: StandIn, line: string): string =>
  bench(name, line)
    .map((reply) => (typeof reply === 'string' ? reply : `block of ${reply.length}`))
    .join(';');
const SPAN = ':FREQ:STAR 8E6;STOP 11E6;:SWE:POIN 301';

function sweepOf(bench: ReturnType<typeof openBench>): SweepData {
  const values = text(bench, 'analyser', ':READ?').split(',').map(Number);
  return {
    freqHz: Float64Array.from({ length: 301 }, (_, i) => 8e6 + i * 1e4),
    re: Float64Array.from({ length: 301 }, (_, i) => values[2 * i]),
    im: Float64Array.from({ length: 301 }, (_, i) => values[2 * i + 1]),
    referenceOhm: 50,
  };
}

describe('SCPI syntax', () => {
  // SCPI-1999 vol. 1, 6.2.1 and 6.2.4: short and long forms, optional nodes, a unit without colon stays in the subsystem
  test.each([
    [':SENSe:FREQuency:STARt 8 MHZ', '8000000'],
    ['sens:freq:star 8E6', '8000000'],
    ['FREQ:STAR 8000 khz', '8000000'],
    [':FREQ:STOP 9E6;STAR 8E6', '8000000'],
    [':FREQ:STAR MIN', '10000'],
    [':FREQ:STAR DEF', '1000000'],
    [':FREQ:STAR #H7A1200', '8000000'],
    [':FREQ:STAR #B11110100001001000000000', '8000000'],
    [':FREQ:SPAN 2 MHZ;CENT 9 MHZ', '8000000'],
  ])('%s sets the start', (line, expected) => {
    const bench = openBench(1);
    expect(text(bench, 'analyser', `${line};:SENS:FREQ:STAR?`)).toBe(expected);
    expect(text(bench, 'analyser', ':SYST:ERR?')).toBe('0,"No error"');
  });

  // error numbers of SCPI-1999 vol. 2, 21.8
  test.each([
    [':NONSENSE 1', '-113,"Undefined header"'],
    [':FREQuenc:STAR 1E6', '-113,"Undefined header"'],
    [':FREQ:STAR "many"', '-104,"Data type error"'],
    [':FREQ:STAR many', '-224,"Illegal parameter value"'],
    [':FREQ:STAR', '-109,"Missing parameter"'],
    [':FREQ:STAR 1E6,2E6', '-108,"Parameter not allowed"'],
    [':FREQ:STAR 1E12', '-222,"Data out of range"'],
    [':FREQ:STAR 8 PARSEC', '-131,"Invalid suffix"'],
    [':FREQ:STAR 8 DBM', '-131,"Invalid suffix"'],
    [':SWE:POIN 11 HZ', '-138,"Suffix not allowed"'],
    [':FREQ:STAR 1E999', '-123,"Exponent too large"'],
    [':FREQ:STAR? HUGE', '-224,"Illegal parameter value"'],
    ['*SRE', '-109,"Missing parameter"'],
    [':STAN:CONN "open', '-151,"Invalid string data"'],
    [':FREQ:STAR 9E6;STOP 8E6;:READ?', '-221,"Settings conflict; start lies above stop"'],
    [':FETC?', '-230,"Data corrupt or stale"'],
    [';;', '-102,"Syntax error"'],
  ])('%s is refused with %s and answers nothing', (line, fault) => {
    const bench = openBench(1);
    expect(text(bench, 'analyser', line)).toBe('');
    expect(text(bench, 'analyser', ':SYST:ERR?')).toBe(fault);
    expect(text(bench, 'analyser', ':SYST:ERR?')).toBe('0,"No error"');
  });

  test('a semicolon at the end of a message is no fault', () => {
    const bench = openBench(1);
    expect(text(bench, 'analyser', '*IDN?;')).toMatch(/^Velvet Reed/);
    expect(text(bench, 'analyser', ':SYST:ERR?')).toBe('0,"No error"');
  });
  // IEEE 488.2, 11.2 and 11.3; SCPI-1999 vol. 1, 4.2.1: what every instrument has
  test('service request, message available, master summary, status structures', () => {
    const bench = openBench(1);
    expect(text(bench, 'analyser', '*SRE 255;*SRE?')).toBe('191'); // bit 6 cannot ask for itself
    expect(text(bench, 'analyser', '*CLS;*STB?')).toBe('0');
    expect(text(bench, 'analyser', '*IDN?;*STB?')).toMatch(/;80$/); // 16 message available, 64 asked for
    expect(text(bench, 'analyser', ':STAT:OPER:ENAB 17;ENAB?;:STAT:QUES:PTR?;NTR?')).toBe('17;32767;0');
    expect(text(bench, 'analyser', ':STAT:PRES;:STAT:OPER:ENAB?;:STAT:OPER?;:STAT:QUES:COND?')).toBe('0;0;0');
    expect(text(bench, 'analyser', ':SYST:ERR?')).toBe('0,"No error"');
  });
  test('start, stop, centre and span move each other, and stay inside the range', () => {
    const bench = openBench(1);
    expect(text(bench, 'analyser', ':FREQ:STAR 8E6;STOP 11E6;CENT?;SPAN?')).toBe('9500000;3000000');
    expect(text(bench, 'analyser', ':FREQ:SPAN 1E6;STAR?;STOP?')).toBe('9000000;10000000');
    expect(text(bench, 'receiver', ':FREQ:CENT MIN;STAR?;STOP?')).toBe('1000;11000');
  });

  test('a string keeps its separators and doubled quotes', () => {
    expect(parseMessage(`:A "x;y,""z""";*IDN?`)).toEqual([
      { header: ['A'], query: false, args: [{ kind: 'text', value: 'x;y,"z"' }] },
      { header: ['*IDN'], query: true, args: [] },
    ]);
  });

  test('the queue overflows with −350 and the event register tells the class of error', () => {
    const bench = openBench(1);
    for (let i = 0; i < 20; i += 1) bench('analyser', ':NONSENSE');
    expect(text(bench, 'analyser', ':SYST:ERR:COUN?;*ESR?')).toBe('16;160'); // power on 128, command error 32
    for (let i = 0; i < 15; i += 1) bench('analyser', ':SYST:ERR?');
    expect(text(bench, 'analyser', ':SYST:ERR?')).toBe('-350,"Queue overflow"');
    expect(text(bench, 'analyser', '*ESR?;*OPC?;*STB?')).toBe('0;1;16'); // answers are waiting: bit 4
  });

  test('whatever arrives, nothing throws, settings stay in range and the queue holds standard errors', () => {
    const piece = fc.oneof(
      fc.constantFrom(
        ':FREQ:STAR',
        ':READ?',
        '*IDN?',
        ';',
        ':SWE:POIN 11',
        '"',
        ',',
        '?',
        ':STAN:ANT',
        '1E999',
        '-',
        '#',
        '\u0000',
      ),
      fc.string({ maxLength: 12 }),
      fc.double().map(String),
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 12 }), fc.constantFrom(' ', ''), (pieces, glue) => {
        const first = openSession({ ...startAnalyser(startLab(startWorld(1))), points: 11 });
        const { session, replies } = respond(ANALYSER, first, pieces.join(glue));
        const { startHz, stopHz, points } = session.state;
        expect(startHz >= 1e4 && stopHz <= 1.5e9 && points >= 2 && points <= 20001).toBe(true);
        expect(session.errors.every((fault) => /^-[1-4]\d\d,"[^"]+"$/.test(fault))).toBe(true);
        expect(replies.every((reply) => typeof reply === 'string' || reply[0] === 35)).toBe(true);
      }),
      { numRuns: 400, seed: 5 },
    );
  });
});

describe('the bench behind the instruments', () => {
  test('raw readings show the bridge; calibrated ones the hidden antenna, not the drafted one', () => {
    const bench = openBench(3);
    bench('analyser', SPAN);
    const standard = (name: string): SweepData => {
      bench('analyser', `:STAN:CONN ${name}`);
      return sweepOf(bench);
    };
    const readings = { open: standard('OPEN'), short: standard('SHOR'), load: standard('LOAD') };
    const raw = standard('ANT');
    const { sweep, between } = correctSweep(raw, { freqHz: raw.freqHz, readings, standards: STAND_IN_KIT });
    expect(between).toBe(false);
    expect(unphysicalPoints(sweep)).toBe(0);
    const truth = trueReflections(startLab(startWorld(3)), raw.freqHz);
    const worst = (one: SweepData): number =>
      Math.max(...Array.from(one.re, (re, i) => Math.hypot(re - truth.re[i], one.im[i] - truth.im[i])));
    expect(worst(raw)).toBeGreaterThan(0.05);
    expect(worst(sweep)).toBeLessThan(0.02);
    const dip = findResonances(sweep)[0].freqHz;
    // the drafted dipole in free space by induced EMF; the hidden one is cut 1.2 % (one sigma) wrong and seen through cable and plug
    expect(Math.abs(dip / dipoleResonanceHz(15.12, 0.002) - 1)).toBeLessThan(0.06);
  });

  test('the same seed repeats every reading, another does not', () => {
    const read = (seed: number): string => text(openBench(seed), 'analyser', `${SPAN};:READ?`);
    expect(read(7)).toBe(read(7));
    expect(read(8)).not.toBe(read(7));
  });

  test('binary blocks say the same as text, in either byte order', () => {
    const block = (order: string): DataView => {
      const [reply] = openBench(2)('analyser', `${SPAN};:FORM REAL,64;:FORM:BORD ${order};:READ?`);
      if (typeof reply === 'string') throw new Error(reply);
      expect(Buffer.from(reply.slice(0, 6)).toString()).toBe('#44816'); // 602 values of 8 bytes; IEEE 488.2, 8.7.9
      return new DataView(reply.buffer, reply.byteOffset + 6);
    };
    const plain = text(openBench(2), 'analyser', `${SPAN};:READ?`).split(',').map(Number);
    expect(block('NORM').getFloat64(8)).toBeCloseTo(plain[1], 8);
    expect(block('SWAP').getFloat64(8, true)).toBeCloseTo(plain[1], 8);
  });

  test('the receiver shows the tuned coil when the noise source is on, and what a station makes of an amplifier', () => {
    const bench = openBench(4);
    const spectrum = (line: string) => {
      const levelDb = Float64Array.from(text(bench, 'receiver', line).split(',').map(Number));
      return { freqHz: Float64Array.from({ length: 401 }, (_, i) => 70e3 + 50 * i), levelDb };
    };
    const on = spectrum(':STAN:NOIS ON;:READ?');
    const off = spectrum(':STAN:NOIS OFF;:READ?');
    const truth = startWorld(4).coil;
    const peak = noisePeak(on, off);
    expect(Math.abs(peak.centreHz - truth.freqHz)).toBeLessThan(3 * peak.centreHalfHz);
    expect(Math.abs(peak.q - truth.q)).toBeLessThan(3 * peak.qHalf);
    // 98.7 MHz and 9.74 MHz make 88.96 MHz by second order: −18 − 48 − 25 = −91 dBm at the input, 14 dB gain: −77
    const near = text(bench, 'receiver', ':FREQ:STAR 88.95E6;STOP 88.97E6;:SWE:POIN 201;:READ?').split(',').map(Number);
    expect(Math.max(...near)).toBeGreaterThan(-79);
    expect(Math.max(...near)).toBeLessThan(-75);
    // 10 dB of attenuation in front of the receiver, behind the amplifier: its product falls with it, 1 dB per dB
    const less = text(bench, 'receiver', ':INP:ATT 10;:READ?').split(',').map(Number);
    expect(Math.abs(Math.max(...near) - Math.max(...less) - 10)).toBeLessThan(2);
  });

  test('turning the antenna changes what the power meter reads; the LCR meter sees a coil grow towards its resonance', () => {
    const bench = openBench(5);
    bench('turntable', ':POS:HOME');
    const level = (deg: number): number => {
      bench('turntable', `:POS:AZIM ${deg}`);
      while (Number(text(bench, 'turntable', ':POS:AZIM?')) !== deg);
      return Number(text(bench, 'power-meter', ':MEAS:POW?'));
    };
    expect(level(0) - level(180)).toBeGreaterThan(10);
    const henry = (hz: number): number => Number(text(bench, 'lcr-meter', `:SOUR:FREQ ${hz};:MEAS:IND?`));
    // L/(1 − ω²LC) with 9.703 mH and 32.9 pF at 100 kHz: ω²LC = 0.1260, so 11.10 mH, worked by hand
    expect(henry(100e3) / 11.1e-3).toBeCloseTo(1, 2);
  });

  test('the table knows its mark after it has been home, turns while it is asked, stops when told, and never past its cable', () => {
    const bench = openBench(8);
    expect(text(bench, 'turntable', ':POS:HOME?')).toBe('0');
    expect(text(bench, 'turntable', ':POS:HOME;HOME?')).toBe('1');
    expect(text(bench, 'turntable', ':POS:AZIM 200;AZIM?;AZIM?')).toBe('30;60');
    bench('turntable', ':POS:STOP');
    const stands = text(bench, 'turntable', ':POS:AZIM?');
    expect(text(bench, 'turntable', ':POS:AZIM?')).toBe(stands);
    expect(Number(stands)).toBeLessThan(200);
    for (const far of [371, -11, 720])
      expect(text(bench, 'turntable', `:POS:AZIM ${far};:SYST:ERR?`)).toBe('-222,"Data out of range"');
    expect(text(bench, 'turntable', ':POS:AZIM?')).toBe(stands);
  });

  test('the meter drops a reading now and then, as a number that no level has', () => {
    const bench = openBench(8);
    const levels = Array.from({ length: 70 }, () => Number(text(bench, 'power-meter', ':MEAS:POW?')));
    expect(levels.filter((one) => one > 1e37).length).toBeGreaterThanOrEqual(1);
    expect(levels.filter((one) => one > 1e37).length).toBeLessThanOrEqual(3);
  });

  test('a design in words hangs up the listener’s own antenna; one that cannot be built is refused', () => {
    const bench = openBench(6);
    bench('analyser', ":STAN:ANT 'half-wave-dipole 14175000 0.002',11");
    expect(text(bench, 'analyser', ':STAN:EXER?')).toBe('14175000');
    bench('analyser', ":STAN:ANT 'castle 14175000'");
    expect(text(bench, 'analyser', ':SYST:ERR?')).toBe('-224,"Illegal parameter value"');
  });

  test('exercises hide every kind of fault and tell it only when asked', () => {
    const kinds = new Set(Array.from({ length: 60 }, (_, seed) => exerciseWorld(seed).fault.kind));
    expect([...kinds].sort()).toEqual(['broken', 'longer', 'none', 'open', 'shorted', 'stretched', 'water']);
    const bench = openBench(1);
    bench('analyser', ':STAN:EXER 12');
    expect(text(bench, 'analyser', ':STAN:TRUT?').split(',')[0]).toBe(exerciseWorld(12).fault.kind);
  });

  test('faults are as large as such faults are', () => {
    const random = randomFrom(9);
    for (const kind of FAULT_KINDS) {
      const fault = drawFault(kind, 2, random);
      expect(fault.kind).toBe(kind);
      expect(fault.lossFactor).toBeGreaterThanOrEqual(1);
      expect(fault.lengthFactor).toBeGreaterThan(0.75);
    }
  });
});

test('all six answer over TCP on the loopback interface and share one bench', async () => {
  const bench = openBench(1);
  const servers = await Promise.all(STAND_INS.map((name) => serve((line) => bench(name, line))));
  const ask = (index: number, line: string): Promise<string> =>
    new Promise((resolve) => {
      const socket = connect(portOf(servers[index]), '127.0.0.1', () => socket.write(`${line}\n`));
      socket.once('data', (data) => {
        socket.destroy();
        resolve(String(data));
      });
    });
  const names = await Promise.all(STAND_INS.map((_, i) => ask(i, '*IDN?')));
  expect(names.map((name) => name.split(',')[1])).toEqual(
    STAND_INS.map(
      (name) => `stand-in ${name.replace('power-', 'power ').replace('lcr-', 'LCR ').replace('antenna-', 'antenna ')}`,
    ),
  );
  expect(await ask(2, ':POS:AZIM 25;AZIM?')).toBe('25\n');
  expect(await ask(3, ':STAN:CONN LOAD;CONN?')).toBe('LOAD\n');
  expect(await ask(0, ':STAN:CONN?')).toBe('LOAD\n');
  await Promise.all(servers.map((server) => new Promise((resolve) => server.close(resolve))));
});

test('the switch closes one antenna at a time, and the receiver hears which', () => {
  const bench = openBench(1);
  const ask = (name: Parameters<typeof bench>[0], line: string): string => String(bench(name, line)[0]);
  bench('antenna-switch', ':STAN:DIST 9650000');
  bench('receiver', ':SENS:FREQ:STAR 9645000;STOP 9655000;:SENS:SWE:POIN 101;:SENS:BAND 300');
  const heard = (): { readonly level: number; readonly noise: number } => {
    const levels = ask('receiver', ':READ?').split(',').map(Number);
    return { level: levels[50], noise: levels.slice(0, 30).reduce((sum, one) => sum + one, 0) / 30 };
  };
  bench('antenna-switch', ':ROUT:CLOS (@1)');
  const one = heard();
  bench('antenna-switch', ':ROUT:CLOS (@2)');
  expect(ask('antenna-switch', ':ROUT:CLOS:STAT?')).toBe('(@2)');
  expect([ask('antenna-switch', ':ROUT:CLOS? (@1)'), ask('antenna-switch', ':ROUT:CLOS? (@2)')]).toEqual(['0', '1']);
  const two = heard();
  // as put in: 10 dB weaker; noise less so than 13.5 dB, since the receiver's own stays
  expect(Math.abs(two.level - one.level + 10)).toBeLessThan(2.5);
  expect(two.noise).toBeLessThan(one.noise - 8);
  expect(ask('antenna-switch', ':ROUT:CLOS (@3);:SYST:ERR?')).toMatch(/-222/);
  expect(ask('antenna-switch', ':ROUT:CLOS 1;:SYST:ERR?')).toMatch(/-109/);
  bench('antenna-switch', ':ROUT:OPEN:ALL');
  expect(heard().level).toBeLessThan(one.level - 30);
});
