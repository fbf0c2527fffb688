import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { stationOfFile, stepsOf, verdictsOf } from '@velvet-reed/station/judge';
import { countText } from '@velvet-reed/core/units';
import { solvedStation } from '@velvet-reed/station/solved';
import { saidText } from '@velvet-reed/station/said';

const digest = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
const breathe = (): Promise<unknown> => new Promise((resolve) => setImmediate(resolve));

/** Prints what a station file comes to: where each step stands, and its verdicts. @param step only this one. @param atMs moment that it is judged for, Unix time @returns exit code */
export async function judge(
  path: string,
  { step, json, atMs }: { readonly step?: string | undefined; readonly json: boolean; readonly atMs: number },
  write: (line: string) => void,
): Promise<number> {
  const stored = await stationOfFile(await readFile(path), digest, breathe);
  const data = solvedStation(stored, atMs);
  const steps = stepsOf(data);
  if (step !== undefined && !steps.some((one) => one.step === step)) {
    write(`"${step}" is no step. Choose one of ${steps.map((one) => one.step).join(', ')}.`);
    return 2;
  }
  const wanted = steps.filter((one) => step === undefined || one.step === step);
  const verdicts = verdictsOf(data).filter((one) => step === undefined || one.step === step);
  if (json) {
    write(
      JSON.stringify(
        {
          station: data.station.name,
          steps: wanted,
          verdicts: verdicts.map(({ step: of, about, said }) => ({
            ...{ step: of, about, text: saidText(said), tone: said.tone ?? 'plain' },
            next: said.next ? saidText({ pieces: said.next.pieces }) : null,
            room: said.next?.room ?? null,
          })),
          setAside: data.setAside.map(({ resource, why }) => ({ resource, why })),
        },
        null,
        2,
      ),
    );
    return 0;
  }
  write(data.station.name);
  for (const { step: id, name, stands } of wanted) {
    write(`${name}: ${stands}`);
    for (const { about, said } of verdicts.filter((one) => one.step === id))
      write(`  ${about === '' ? '' : `${about}: `}${saidText(said)}`);
  }
  if (data.setAside.length > 0)
    write(`Left out, because of values that are not allowed: ${countText(data.setAside.length, 'record')}.`);
  return 0;
}
