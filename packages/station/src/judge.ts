import { RESOURCE_NAMES, RESOURCES } from '@velvet-reed/contract';
import { saidBench } from './bench/said';
import { checkSums, headOf, parsedPart, partsOf, refuseFile } from './file/archive';
import { judgedGuard } from './guard/judge';
import { saidGuard } from './guard/said';
import { misfitOf } from './misfit';
import { saidNoise } from './noise-said';
import { saidPath } from './path/said';
import { type SetAside, stationOf, type StationData } from './record';
import { type Said } from './said';
import { standings } from './standings';
import { STEPS, type StepId, type StepStanding } from './steps';
import { plannedTransmitters } from './transmitters';
import { saidTrial } from './trials/said';
import { judgedBench } from './verdicts';

const isValues = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The station of a file, as it is judged; a record that does not fit its kind is set aside. @throws StationFileError */
export async function stationOfFile(
  file: Uint8Array,
  digest: (bytes: Uint8Array) => string,
  breathe: () => Promise<unknown>,
): Promise<StationData> {
  const parts = await partsOf(file, breathe);
  const head = headOf(parts);
  checkSums(parts, digest);
  if (!isValues(head.station)) return refuseFile('The station in the file cannot be read.');
  const setAside: SetAside[] = [];
  const lists = RESOURCE_NAMES.map((resource) => {
    const list = parsedPart(parts, `records/${resource}.json`) ?? [];
    if (!Array.isArray(list) || !list.every(isValues))
      return refuseFile(`The list of ${RESOURCES[resource].plural} cannot be read.`);
    const fitting = list.flatMap((one: Record<string, unknown>) => {
      const record = { ...RESOURCES[resource].blank, ...one, version: 1, stationId: 1 };
      const why = misfitOf(resource, record);
      if (why !== undefined) setAside.push({ resource, record, why });
      return why === undefined ? [record] : [];
    });
    return [resource, fitting] as const;
  });
  const data = stationOf({
    ...Object.fromEntries(lists),
    station: { ...head.station, id: 1, version: 1 },
    run: 'file',
    revision: 0,
    undo: null,
    setAside,
  });
  return data ?? refuseFile('The station in the file cannot be read.');
}

/** A verdict of a step, and what it is about. */
export interface StepVerdict {
  readonly step: StepId;
  /** The antenna, trial, path or transmitter; empty: the station. */
  readonly about: string;
  readonly said: Said;
}

/** Every verdict of the steps that are judged by records alone: Bench, Trials, Noise, Path and Guard. */
export function verdictsOf(data: StationData): readonly StepVerdict[] {
  return [
    ...data.antennas.map((antenna) => {
      const { verdict, cut, targetHz, trimName } = judgedBench(data, antenna, undefined);
      return { step: 'bench' as const, about: antenna.name, said: saidBench({ verdict, cut, targetHz, trimName }) };
    }),
    ...data.trials.map((trial) => ({ step: 'trials' as const, about: trial.name, said: saidTrial(data, trial) })),
    { step: 'noise', about: '', said: saidNoise(data) },
    ...(data.paths.length === 0 ? [{ step: 'path' as const, about: '', said: saidPath(data, undefined) }] : []),
    ...data.paths.map((path) => ({ step: 'path' as const, about: path.name, said: saidPath(data, path) })),
    ...plannedTransmitters(data).map((plan) => ({
      step: 'guard' as const,
      about: plan.name,
      said: saidGuard(judgedGuard(data, plan)),
    })),
  ];
}

/** Where each step stands, in working order. */
export const stepsOf = (
  data: StationData,
): readonly { readonly step: StepId; readonly name: string; readonly stands: StepStanding }[] => {
  const stands = standings(data);
  return STEPS.map(({ id, name }) => ({ step: id, name, stands: stands[id] }));
};
