import { readFile } from 'node:fs/promises';
import { parseArgs, types } from 'node:util';
import { CoreError } from '@velvet-reed/core/errors';
import {
  readFloorCsv,
  readSpectrumCsv,
  readSweepText,
  readTwoPort,
  type TableAnswer,
  type TableQuestion,
  TableQuestionError,
} from '@velvet-reed/core/formats';
import { summariseSweep } from '@velvet-reed/core/sweep';
import { fixed, frequencyText } from '@velvet-reed/core/units';
import { stationFileSchema } from '@velvet-reed/contract';
import { runChecks } from './check';
import { judge } from './judge';
import { recording } from './recording';
import { CaseInputError } from './inputs';
import { solveFile } from './solve';

const USAGE = `reed: Velvet Reed's computations from the command line

  reed check FILE.json [--area 01,02]   run a check file; exit code 1 if a case fails
  reed sweep FILE [--json]              summarise a one-port sweep (Touchstone 1.1 or a table)
  reed spectrum FILE [--json]           summarise a recorded spectrum (a table)
  reed log FILE --day 2026-08-04        summarise a noise log (a table of times and levels)
  reed two-port FILE.s2p [--json]       gain and noise figure of a part between 50 ohm
  reed solve FILE.json [--json]         solve a wire model: impedance, gain, pattern
  reed recording FILE [--iq | --real | --two] [--centre HZ] [--json]
                                        what a recording holds (.wav or .sigmf-meta), and with
    --signal OFFSET --bandwidth HZ --noise OFFSET --switched SECONDS   levels of two antennas in turn
    --off OTHER --resonance 50e3-90e3   a resonance that noise shows: source on in FILE, off in OTHER
    --floor BANDWIDTH                   the noise, its steps, and what ticks
    --standard HZ                       offset from a carrier of known frequency
  reed judge FILE.station.zip [--step guard] [--json]
                                        what a station comes to: where each step stands, and the verdicts of
                                        Bench (by its trim diary), Trials, Noise, Path and Guard
  reed schema                           JSON Schema of all that a station holds, kind by kind

  What a table does not say for certain is asked (exit code 2) and answered with
    --columns frequency,swr,ignore      what each column holds, from the left
    --unit MHz  --decimal ,  --zone +02:00  --date dmy
    --level dBm|dBuV|uV|s-below|s-above|dB  --ohm 50  --zero -20  --clock set-back|disorder`;

type Write = (line: string) => void;

async function check(path: string, areas: string | undefined, write: Write): Promise<number> {
  const file: unknown = JSON.parse(await readFile(path, 'utf8'));
  const report = runChecks(file, areas ? areas.split(',').map((area) => area.trim()) : []);
  report.lines.forEach(write);
  write(`${report.passed} passed, ${report.failed} failed`);
  return report.failed > 0 || report.passed === 0 ? 1 : 0;
}

/** Text of a file in UTF-8, or in UTF-16 with its mark. */
async function textOf(path: string): Promise<string> {
  const bytes = await readFile(path);
  const mark =
    bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : 'utf-8';
  return new TextDecoder(mark).decode(bytes);
}

async function sweep(path: string, json: boolean, answer: TableAnswer, write: Write): Promise<number> {
  const data = readSweepText(await textOf(path), answer);
  const summary = summariseSweep(data);
  if (json) {
    write(JSON.stringify({ file: path, phaseKnown: data.phaseKnown, ...summary }, null, 2));
    return 0;
  }
  write(
    `${summary.points} points, ${frequencyText(summary.startHz)} to ${frequencyText(summary.stopHz)}, reference ${summary.referenceOhm} Ω`,
  );
  for (const dip of summary.resonances)
    write(`dip at ${frequencyText(dip.freqHz, 5)}, SWR ${dip.swr?.toFixed(2) ?? 'infinite'}`);
  if (summary.resonances.length === 0) write('no resonance inside the sweep');
  return 0;
}

async function spectrum(path: string, json: boolean, answer: TableAnswer, write: Write): Promise<number> {
  const { freqHz, levelDb } = readSpectrumCsv(await textOf(path), answer);
  const peak = levelDb.indexOf(levelDb.reduce((most, one) => Math.max(most, one), -Infinity));
  const summary = {
    points: freqHz.length,
    startHz: freqHz[0],
    stopHz: freqHz[freqHz.length - 1],
    peakHz: freqHz[peak],
    peakDb: levelDb[peak],
  };
  if (json) write(JSON.stringify({ file: path, ...summary }, null, 2));
  else
    write(
      `${summary.points} points, ${frequencyText(summary.startHz)} to ${frequencyText(summary.stopHz)}, highest ${fixed(summary.peakDb, 1)} dB at ${frequencyText(summary.peakHz, 5)}`,
    );
  return 0;
}

async function log(
  path: string,
  json: boolean,
  answer: TableAnswer & { readonly day: string },
  write: Write,
): Promise<number> {
  const readings = readFloorCsv(await textOf(path), answer);
  const [first, last] = [readings[0], readings[readings.length - 1]].map(({ atMs }) => new Date(atMs).toISOString());
  if (json) write(JSON.stringify({ file: path, readings }, null, 2));
  else write(`${readings.length} readings, ${first} to ${last}`);
  return 0;
}

async function twoPort(path: string, json: boolean, write: Write): Promise<number> {
  const part = readTwoPort(await textOf(path));
  if (json) write(JSON.stringify({ file: path, ...part }, null, 2));
  else {
    write(`${part.points.length} points, reference ${part.referenceOhm} ohm; between 50 ohm and 50 ohm:`);
    for (const { freqHz, gainDb } of part.points) write(`${frequencyText(freqHz, 5)}  ${fixed(gainDb, 2)} dB`);
    for (const { freqHz, noiseFigureDb } of part.noise)
      write(`${frequencyText(freqHz, 5)}  noise figure ${fixed(noiseFigureDb, 2)} dB`);
  }
  return 0;
}

/** The question as a person at a terminal can answer it. */
function ask(
  { ask: text, headings, rows, columns, meanings, unit, decimal, dateOrder, zoneMin, ...level }: TableQuestion,
  write: Write,
): void {
  write(`TABLE_QUESTION: ${text}`);
  if (headings.some((one) => one !== '')) write(`  heading: ${headings.join(' | ')}`);
  rows.forEach((row) => write(`           ${row.join(' | ')}`));
  write(`  --columns takes, from the left: ${meanings.join(', ')}`);
  const parts = [
    `--columns ${columns.join(',')}`,
    ...(unit === undefined ? [] : [`--unit ${unit}`]),
    ...(decimal === undefined ? [] : [`--decimal ${decimal}`]),
    ...(dateOrder === undefined ? [] : [`--date ${dateOrder}`]),
    ...(zoneMin === undefined ? [] : ['--zone +00:00']),
    ...(level.level === undefined ? [] : [`--level ${level.level}`]),
    ...(level.ohm === undefined ? [] : [`--ohm ${level.ohm}`]),
    ...(level.zeroDbm === undefined ? [] : [`--zero ${level.zeroDbm}`]),
    ...(level.clockBack === undefined ? [] : ['--clock set-back (or disorder)']),
  ];
  write(`  if this guess is right, run it again with: ${parts.join(' ')}`);
}

/** A number of the call. @throws CaseInputError */
function numberOf(name: string, text: string, least: number, most: number): number {
  const value = Number(text);
  if (text.trim() === '' || !(value >= least && value <= most))
    throw new CaseInputError(`--${name} ${text} is no number from ${least} to ${most}.`);
  return value;
}

/** Minutes ahead of UTC of "+02:00", "utc". */
function zoneOf(text: string): number {
  const match = /^(?:utc)?([+-])(\d{1,2}):?(\d{2})?$/i.exec(text.trim());
  if (!match) return 0;
  return (match[1] === '-' ? -1 : 1) * (Number(match[2]) * 60 + Number(match[3] ?? 0));
}

async function solve(path: string, json: boolean, write: Write): Promise<number> {
  const { listed, ...result } = solveFile(JSON.parse(await readFile(path, 'utf8')));
  if (json) {
    write(JSON.stringify({ file: path, ...result }, null, 2));
    return 0;
  }
  const { re, im } = result.impedanceOhm;
  write(`${frequencyText(result.freqHz)}, ${result.segments} segments`);
  write(
    `impedance ${re.toFixed(2)} ${im < 0 ? '-' : '+'} j${Math.abs(im).toFixed(2)} ohm, SWR ${result.swr50?.toFixed(2) ?? 'infinite'} on 50 ohm`,
  );
  write(
    `gain ${result.peak.gainDbi.toFixed(2)} dBi at azimuth ${result.peak.azimuthDeg.toFixed(1)}, elevation ${result.peak.elevationDeg.toFixed(2)} degrees`,
  );
  write(
    `efficiency ${(100 * result.efficiency).toFixed(1)} %, far field carries ${(100 * result.radiatedShare).toFixed(1)} %`,
  );
  for (const { elevationDeg, gainDbi } of listed)
    write(`${String(elevationDeg).padStart(4)} deg ${gainDbi === null ? 'nothing' : `${gainDbi.toFixed(2)} dBi`}`);
  result.remarks.forEach(write);
  return 0;
}

/** A value that begins with a minus, as "--noise -2300", belongs to the flag ahead of it. */
const withNegatives = (args: readonly string[]): readonly string[] =>
  args.reduce<readonly string[]>((list, one) => {
    const last = list[list.length - 1] ?? '';
    return /^-\d/.test(one) && /^--[a-z]+$/.test(last) ? [...list.slice(0, -1), `${last}=${one}`] : [...list, one];
  }, []);

/** Runs one command. @returns the exit code: 0 fine, 1 a check failed, 2 the call or a file is wrong. */
export async function main(args: readonly string[], write: Write = (line) => console.log(line)): Promise<number> {
  try {
    const { values, positionals } = parseArgs({
      args: [...withNegatives(args)],
      allowPositionals: true,
      options: {
        area: { type: 'string' },
        json: { type: 'boolean' },
        step: { type: 'string' },
        help: { type: 'boolean', short: 'h' },
        columns: { type: 'string' },
        unit: { type: 'string' },
        decimal: { type: 'string' },
        date: { type: 'string' },
        zone: { type: 'string' },
        level: { type: 'string' },
        ohm: { type: 'string' },
        zero: { type: 'string' },
        clock: { type: 'string' },
        day: { type: 'string' },
        iq: { type: 'boolean' },
        real: { type: 'boolean' },
        two: { type: 'boolean' },
        centre: { type: 'string' },
        signal: { type: 'string' },
        bandwidth: { type: 'string' },
        noise: { type: 'string' },
        switched: { type: 'string' },
        off: { type: 'string' },
        resonance: { type: 'string' },
        floor: { type: 'string' },
        standard: { type: 'string' },
      },
    });
    const [command, path] = positionals;
    if (values.help) {
      write(USAGE);
      return 0;
    }
    if (command === 'schema') {
      write(JSON.stringify(stationFileSchema(), null, 2));
      return 0;
    }
    if (command === 'check' && path) return await check(path, values.area, write);
    const json = values.json ?? false;
    const answer: TableAnswer = {
      ...(values.columns === undefined ? {} : { columns: values.columns.split(',').map((one) => one.trim()) }),
      ...(values.unit === undefined ? {} : { unit: values.unit }),
      ...(values.decimal === ',' || values.decimal === '.' ? { decimal: values.decimal } : {}),
      ...(values.date === 'dmy' || values.date === 'mdy' ? { dateOrder: values.date } : {}),
      ...(values.zone === undefined ? {} : { zoneMin: zoneOf(values.zone) }),
      ...(values.level === undefined ? {} : { level: values.level }),
      ...(values.ohm === undefined ? {} : { ohm: numberOf('ohm', values.ohm, 1, 10_000) }),
      ...(values.zero === undefined ? {} : { zeroDbm: numberOf('zero', values.zero, -300, 300) }),
      ...(values.clock === 'set-back' || values.clock === 'disorder' ? { clock: values.clock } : {}),
    };
    if (command === 'sweep' && path) return await sweep(path, json, answer, write);
    if (command === 'spectrum' && path) return await spectrum(path, json, answer, write);
    if (command === 'log' && path) return await log(path, json, { ...answer, day: values.day ?? '' }, write);
    if (command === 'two-port' && path) return await twoPort(path, json, write);
    if (command === 'judge' && path) return await judge(path, { step: values.step, json, atMs: Date.now() }, write);
    if (command === 'recording' && path) return recording(path, values, write);
    if (command === 'solve' && path) return await solve(path, json, write);
    write(USAGE);
    return 2;
  } catch (error) {
    if (error instanceof TableQuestionError) ask(error.question, write);
    else if (error instanceof CoreError) write(`${error.code}: ${error.message}`);
    else if (error instanceof SyntaxError)
      write(`This file is not valid JSON: ${error.message}. Correct it and run again.`);
    else if (types.isNativeError(error) && 'code' in error && error.code === 'ENOENT')
      write(`There is no file ${'path' in error ? String(error.path) : ''}. Check the path.`);
    else if (types.isNativeError(error)) write(`${error.message}. Check the path.`);
    else throw error;
    return 2;
  }
}
