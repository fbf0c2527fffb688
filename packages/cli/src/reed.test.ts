import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { madeSwitched, wavOf } from '@velvet-reed/core/recording';
import { main } from './main';

const root = path.resolve(process.cwd());
const CHECKS = path.join(root, 'packages/core/testdata/chain-checks.json');
const SECOND = path.join(root, 'packages/core/testdata/chain-second.json');
const WIRES = path.join(root, 'packages/core/testdata/wire-checks.json');
let dir: string;
beforeAll(() => {
  dir = mkdtempSync(path.join(tmpdir(), 'reed-'));
});
const file = (name: string, text: string): string => {
  const full = path.join(dir, name);
  writeFileSync(full, text);
  return full;
};
async function reed(...args: string[]): Promise<{ code: number; lines: string[] }> {
  const lines: string[] = [];
  return { code: await main(args, (line) => lines.push(...line.split('\n'))), lines };
}
const oneCase = (template: string, inputs: object, expected: object, tolerance: object): string =>
  JSON.stringify([{ id: 'X1', area: '07_x', template, inputs, expected, tolerance }]);

describe('reed check', () => {
  // Sources of the cases: ITU-R P.372, IARU R.1, Friis 1944, Bennett, Balanis/Kraus, Carter 1932, Pozar; each case carries its own.
  test('every published case passes', async () => {
    const { code, lines } = await reed('check', CHECKS);
    expect(lines.filter((line) => line.startsWith('FAIL'))).toEqual([]);
    expect(lines.at(-1)).toBe('92 passed, 0 failed');
    expect(code).toBe(0);
  });
  // a second set, areas 01 to 17, each case computed twice by independent means: circuit simulation, closed forms, general-purpose libraries
  test('every case of the second set passes', async () => {
    const { code, lines } = await reed('check', SECOND);
    expect(lines.filter((line) => line.startsWith('FAIL'))).toEqual([]);
    expect(lines.at(-1)).toBe('38 passed, 0 failed');
    expect(code).toBe(0);
  });
  // Reference values of a separate Galerkin program written from the same theory, with a tolerance defended over meshes and kernels.
  test('every wire case passes', async () => {
    const { code, lines } = await reed('check', WIRES);
    expect(lines.filter((line) => line.startsWith('FAIL'))).toEqual([]);
    expect(lines.at(-1)).toBe('37 passed, 0 failed');
    expect(code).toBe(0);
  }, 60_000);
  test('a wire case that is wrong, unknown or impossible fails by name', async () => {
    const dipole = { p1: [0, -5, 0], p2: [0, 5, 0], radius: 0.001, sigma: null, insulation: null };
    const wrong = (wires: object[], checks: object[]): object => ({
      id: 'W',
      wires,
      feeds: [{ wire: 0, pos: 0.5 }],
      loads: [],
      ground: { type: 'free' },
      checks,
    });
    const cases = [
      wrong([dipole], [{ q: 'gain_dBi', f: 14e6, az: 0, el: 0, value: 5, tol: 0.1 }]),
      wrong([dipole], [{ q: 'colour', f: 14e6, value: 5, tol: 0.1 }]),
      wrong([{ ...dipole, p2: [0, -5, 0] }], [{ q: 'Zin', f: 14e6, value: [1, 1], tol: [1, 1] }]),
    ];
    const { code, lines } = await reed('check', file('wires.json', JSON.stringify({ meta: {}, cases })));
    expect(code).toBe(1);
    expect(lines[0]).toMatch(/^FAIL W check 1 gain_dBi got \[2\.1/);
    expect(lines[1]).toBe('FAIL W quantity colour is not known here');
    expect(lines[2]).toMatch(/^FAIL W wire 1 has no length/);
  });
  test('an area picks its cases, and a template that is not known fails by name', async () => {
    expect((await reed('check', CHECKS, '--area', '10,16')).lines.at(-1)).toBe('12 passed, 0 failed');
    const { code, lines } = await reed(
      'check',
      file('strange.json', oneCase('no_such_thing', {}, { x: 1 }, { x: { abs: 1 } })),
    );
    expect(code).toBe(1);
    expect(lines).toEqual(['FAIL X1 template no_such_thing is not known here', '0 passed, 1 failed']);
  });
  test('a wrong expectation is reported with got, expected and tolerance', async () => {
    const { code, lines } = await reed(
      'check',
      file(
        'wrong.json',
        oneCase('s_to_dbm', { s_units: 9, dB_over_S9: 0, f_MHz: 7 }, { P_dBm: -72 }, { P_dBm: { abs: 0.1 } }),
      ),
    );
    expect(code).toBe(1);
    expect(lines).toEqual(['FAIL X1 P_dBm got -73 expected -72 tolerance {"abs":0.1}', '0 passed, 1 failed']);
  });
  test('the tolerance is the larger of the two, null expects null, and missing inputs are named', async () => {
    expect(
      (
        await reed(
          'check',
          file(
            'rel.json',
            oneCase('s_to_dbm', { s_units: 9, f_MHz: 7 }, { P_dBm: -72 }, { P_dBm: { abs: 0.1, rel: 0.02 } }),
          ),
        )
      ).code,
    ).toBe(0);
    const short = { R_ohm: 0, X_ohm: 0, Z0_ohm: 50 };
    expect(
      (
        await reed(
          'check',
          file(
            'null.json',
            oneCase(
              'reflection_from_impedance',
              short,
              { swr: null, mismatch_loss_dB: null, return_loss_dB: 0 },
              { return_loss_dB: { abs: 1e-9 } },
            ),
          ),
        )
      ).code,
    ).toBe(0);
    expect((await reed('check', file('miss.json', oneCase('s_to_dbm', {}, { P_dBm: 1 }, {})))).lines[0]).toMatch(
      /The input "s_units" must be a number/,
    );
  });
  test('one pair, no distortion, no antenna signal: the edges answer null, not NaN', async () => {
    const cases = [
      ['paired_t', { A_dB: [3], B_dB: [1], confidence: 95 }, { mean_dB: 2, sd_dB: null, ci_low_dB: null, t: null }],
      ['cascade_intercept', { stages: [{ gain_dB: 3 }] }, { iip3_coherent_dBm: null, oip3_coherent_dBm: null }],
      ['noise_rise', { rise_dB: 0 }, { ext_over_int_dB: null, snr_loss_dB: null, external_limited: false }],
      [
        'cal_interpolation_error',
        { f_start_MHz: 1, f_stop_MHz: 30, points: 11, cable_m: 0, vf: 1 },
        { error_floor_dB: null },
      ],
    ] as const;
    for (const [template, inputs, expected] of cases) {
      const tolerance = Object.fromEntries(Object.keys(expected).map((key) => [key, { abs: 1e-9 }]));
      expect((await reed('check', file('edge.json', oneCase(template, inputs, expected, tolerance)))).lines[0]).toBe(
        'ok X1',
      );
    }
  });
  test('broken files are told apart', async () => {
    expect((await reed('check', file('broken.json', '{'))).lines[0]).toMatch(/not valid JSON/);
    expect((await reed('check', file('shape.json', '{"a":1}'))).lines[0]).toMatch(/^CHECK_FILE: /);
    expect((await reed('check', path.join(dir, 'absent.json'))).code).toBe(2);
    expect((await reed()).code).toBe(2);
  });
});

describe('reed sweep', () => {
  const text = '# MHz S RI R 50\n9.0 0.6 -0.3\n9.2 0.3 -0.2\n9.4 0.05 0\n9.6 0.3 0.2\n9.8 0.6 0.3\n';
  test('JSON summary of a Touchstone file', async () => {
    const { code, lines } = await reed('sweep', file('a.s1p', text), '--json');
    const summary: unknown = JSON.parse(lines.join('\n'));
    expect(code).toBe(0);
    expect(summary).toMatchObject({ points: 5, startHz: 9e6, stopHz: 9.8e6, referenceOhm: 50, unphysicalPoints: 0 });
    expect(summary).toHaveProperty('resonances.0.freqHz', expect.closeTo(9.4e6, -3));
  });
  test('a bad row is named by its line', async () => {
    const { code, lines } = await reed('sweep', file('b.s1p', `${text}9.9 1\n`));
    expect([code, lines[0]]).toEqual([2, expect.stringMatching(/^SWEEP_FILE: Line 7: /)]);
  });
});

test('the command runs from the repository root, built or not', () => {
  const out = execFileSync('npx', ['--no-install', 'reed', 'check', CHECKS, '--area', '07'], {
    cwd: root,
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'ignore'],
  });
  expect(out.trim().split('\n').at(-1)).toBe('3 passed, 0 failed');
  expect(readFileSync(path.join(root, 'packages/cli/bin/reed.mjs'), 'utf8')).toMatch(/^#!/);
}, 30_000);

describe('reed solve', () => {
  const dipole = {
    format: 'velvet-reed-model',
    version: 1,
    freqHz: 14.15e6,
    wires: [{ from: [0, -5.1, 0], to: [0, 5.1, 0], radiusM: 0.001 }],
    ports: [{ wire: 0, position: 0.5 }],
    loads: [],
    ground: { type: 'free' },
  };
  // A separate Galerkin program: 70.2 − j12.2 Ω and 2.13 dBi.
  test('impedance, gain and pattern as JSON and as a table', async () => {
    const path = file('dipole.json', JSON.stringify(dipole));
    const { code, lines } = await reed('solve', path, '--json');
    expect(code).toBe(0);
    const text = lines.join('\n');
    const number = (name: string): number => Number(new RegExp(`"${name}": (-?[\\d.]+)`).exec(text)?.[1]);
    expect(Math.abs(number('re') - 70.2)).toBeLessThan(1.7);
    expect(Math.abs(number('im') + 12.2)).toBeLessThan(5.8);
    expect(number('gainDbi')).toBeCloseTo(2.13, 1);
    const table = await reed('solve', path);
    expect(table.lines[1]).toMatch(/^impedance 70\.\d\d - j1\d\.\d\d ohm, SWR 1\.\d\d on 50 ohm$/);
  });
  test('bad files say how to mend them', async () => {
    const short = await reed('solve', file('bad.json', JSON.stringify({ ...dipole, ports: [] })));
    expect([short.code, short.lines[0]]).toEqual([2, 'MODEL_FILE: There is no port in the file. Say where it is fed.']);
    const under = await reed(
      'solve',
      file(
        'under.json',
        JSON.stringify({
          ...dipole,
          ground: { type: 'perfect' },
          wires: [{ from: [0, 0, -1], to: [0, 0, 2], radiusM: 0.001 }],
        }),
      ),
    );
    expect(under.lines[0]).toMatch(/^GEOMETRY: wire 1 reaches 1.00 m under the ground/);
  });
});

interface RecordingAnswer {
  readonly lengthS: number;
  readonly pairs: { readonly n: number };
  readonly stretches: readonly {
    readonly antenna: string;
    readonly startS: number;
    readonly levelDbfs: number;
    readonly noiseDbfs: number;
  }[];
}

describe('reed recording', () => {
  const bytesFile = (name: string, bytes: Uint8Array): string => {
    const full = path.join(dir, name);
    writeFileSync(full, bytes);
    return full;
  };
  const made = madeSwitched({
    ...{ seed: 5, sampleRateHz: 4000, turns: 8, periodS: 5, carrierHz: 700, bandwidthHz: 300 },
    ...{ levelDbfs: [-40, -52], noiseDbfs: [-60, -78], fadingDb: 3, fadingS: 30, jitter: 0.05, clickS: 0.15 },
  });
  const SWITCHED = ['--signal', '700', '--bandwidth', '300', '--noise', '-900', '--switched', '5', '--json'];

  test('levels of two antennas in turn, from a WAV and from a SigMF file alike', async () => {
    const wav = bytesFile('ab.wav', wavOf(made.iq, 4000, 2));
    bytesFile('ab.sigmf-data', new Uint8Array(made.iq.buffer));
    const meta = file(
      'ab.sigmf-meta',
      JSON.stringify({
        global: { 'core:datatype': 'cf32_le', 'core:sample_rate': 4000, 'core:version': '1.0.0' },
        captures: [{ 'core:sample_start': 0, 'core:frequency': 9.65e6 }],
        annotations: [],
      }),
    );
    for (const args of [[wav, '--iq', '--centre', '9.65e6'], [meta]]) {
      const { code, lines } = await reed('recording', ...args, ...SWITCHED);
      expect(code).toBe(0);
      const answer = JSON.parse(lines.join('\n')) as RecordingAnswer;
      expect(answer).toMatchObject({ sampleRateHz: 4000, channels: 2, centreHz: 9.65e6 });
      expect(answer.lengthS).toBeCloseTo(made.iq.length / 8000, 6);
      expect(answer.stretches.length).toBe(8);
      made.turns.forEach((turn, i) => {
        const found = answer.stretches[i];
        expect(found.antenna).toBe(turn.antenna);
        expect(Math.abs(found.startS - turn.startS)).toBeLessThan(0.1);
        expect(Math.abs(found.levelDbfs - turn.levelDbfs)).toBeLessThan(0.4);
        expect(Math.abs(found.noiseDbfs - turn.noiseDbfs)).toBeLessThan(0.6);
      });
      expect(answer.pairs.n).toBe(4);
    }
  });
  test('in words, and what must be said first is asked for', async () => {
    const wav = bytesFile('words.wav', wavOf(made.iq, 4000, 2));
    const asked = await reed('recording', wav);
    expect([asked.code, asked.lines[0]]).toEqual([2, expect.stringMatching(/RECORDING: This file has two channels/)]);
    const told = await reed('recording', wav, '--iq', '--floor', '100');
    expect(told.lines[0]).toMatch(/^4\d\.\d s at 4000 samples\/s, 2 channels/);
    expect((await reed('recording', wav, '--iq', '--signal', '700')).lines[0]).toMatch(/need all four/);
    expect((await reed('recording', wav, '--iq', '--two')).lines[0]).toMatch(/Say one of/);
    expect((await reed('recording', wav, '--iq', '--floor', 'wide')).lines[0]).toMatch(/--floor takes a number/);
    expect((await reed('recording', path.join(dir, 'none.wav'))).lines[0]).toMatch(/There is no file .*none\.wav/);
    expect((await reed('recording', file('text.wav', 'no recording'))).lines[0]).toMatch(/This is no WAV file/);
  });
});

test('a log in dB over a microvolt: the question names its impedance, and the answer of the call reads it', async () => {
  const path = file('night.csv', 'time UTC;level (dBuV)\n2026-08-04 09:00;34\n2026-08-04 09:05;35\n');
  const asked = await reed('log', path);
  expect([asked.code, asked.lines.join('\n')]).toEqual([2, expect.stringContaining('--ohm 50')]);
  // 34 dBµV across 75 Ω are −74.75 dBm (P = U²/Z)
  const { code, lines } = await reed('log', path, '--ohm', '75', '--json');
  expect([code, lines.join('')]).toEqual([0, expect.stringMatching(/-74\.75/)]);
  expect((await reed('log', path, '--ohm', 'wire')).code).toBe(2);
});

test('judge refuses what is no station file', async () => {
  const { code, lines } = await reed('judge', CHECKS);
  expect(code).toBe(2);
  expect(lines.join(' ')).toContain('This is no station file, or it is cut off');
});
