import { readFile } from 'node:fs/promises';
import { parseArgs, types } from 'node:util';
import { CoreError, frequencyText, readSweepText, summariseSweep } from '@velvet-reed/core';
import { runChecks } from './check';
import { solveFile } from './solve';

const USAGE = `reed: Velvet Reed's computations from the command line

  reed check FILE.json [--area 01,02]   run a check file; exit code 1 if a case fails
  reed sweep FILE.s1p [--json]          summarise a one-port sweep (Touchstone 1.1 or CSV)
  reed solve FILE.json [--json]         solve a wire model: impedance, gain, pattern`;

type Write = (line: string) => void;

async function check(path: string, areas: string | undefined, write: Write): Promise<number> {
  const file: unknown = JSON.parse(await readFile(path, 'utf8'));
  const report = runChecks(file, areas ? areas.split(',').map((area) => area.trim()) : []);
  report.lines.forEach(write);
  write(`${report.passed} passed, ${report.failed} failed`);
  return report.failed > 0 || report.passed === 0 ? 1 : 0;
}

async function sweep(path: string, json: boolean, write: Write): Promise<number> {
  const data = readSweepText(await readFile(path, 'utf8'));
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

/** Runs one command. @returns the exit code: 0 fine, 1 a check failed, 2 the call or a file is wrong. */
export async function main(args: readonly string[], write: Write = (line) => console.log(line)): Promise<number> {
  try {
    const { values, positionals } = parseArgs({
      args: [...args],
      allowPositionals: true,
      options: { area: { type: 'string' }, json: { type: 'boolean' }, help: { type: 'boolean', short: 'h' } },
    });
    const [command, path] = positionals;
    if (values.help) {
      write(USAGE);
      return 0;
    }
    if (command === 'check' && path) return await check(path, values.area, write);
    if (command === 'sweep' && path) return await sweep(path, values.json ?? false, write);
    if (command === 'solve' && path) return await solve(path, values.json ?? false, write);
    write(USAGE);
    return 2;
  } catch (error) {
    if (error instanceof CoreError) write(`${error.code}: ${error.message}`);
    else if (error instanceof SyntaxError)
      write(`This file is not valid JSON: ${error.message}. Correct it and run again.`);
    else if (types.isNativeError(error)) write(`${error.message}. Check the path.`);
    else throw error;
    return 2;
  }
}
