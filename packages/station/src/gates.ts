import type { Saved } from '@velvet-reed/contract';
import { frequencyText } from '@velvet-reed/core/units';
import { laidLayouts } from './derive';
import type { StationData } from './record';
import { judgedBench } from './verdicts';

/** What the station holds of a gate: it passes it, or forbids it; a tick is for what only a person can see. */
export interface GateEvidence {
  readonly passes: boolean;
  readonly sentence: string;
}

/** Evidence for the gates of an antenna's build plan, by their ids. */
export function gateEvidence(data: StationData, revision: Saved<'revisions'>): ReadonlyMap<string, GateEvidence> {
  const found = new Map<string, GateEvidence>();
  const clear = siteClear(data, revision.antennaId);
  if (clear) found.set('site-clear', clear);
  const tested = dipTested(data, revision);
  if (tested) found.set('tested', tested);
  return found;
}

/** Lines and other keep-outs as drawn on the Plot: every run of the antenna, the worst counts. */
function siteClear(data: StationData, antennaId: number): GateEvidence | undefined {
  if (!data.plotFeatures.some(({ kind }) => kind === 'keepout')) return undefined;
  const runs = laidLayouts(data, antennaId);
  const findings = runs.flatMap(({ layout }) => layout.findings);
  const danger = findings.find(({ state }) => state === 'danger');
  if (danger) return { passes: false, sentence: `By the Plot: ${danger.sentence}` };
  const keepouts = data.plotFeatures.filter(({ kind }) => kind === 'keepout').map(({ name }) => name);
  const near = findings.filter(({ sentence }) => keepouts.some((name) => sentence.includes(name)));
  if (runs.length === 0 || near.some(({ state }) => state !== 'good')) return undefined;
  return { passes: true, sentence: `By the Plot: ${near.map(({ sentence }) => sentence).join(' ')}` };
}

/** The last dip of this revision, where it lies on target. */
function dipTested(data: StationData, revision: Saved<'revisions'>): GateEvidence | undefined {
  const antenna = data.antennas.find(({ id }) => id === revision.antennaId);
  const last = data.trimSteps.filter(({ antennaId }) => antennaId === revision.antennaId).at(-1);
  if (!antenna || !last || last.revisionId !== revision.id) return undefined;
  if (judgedBench(data, antenna, undefined).verdict.state !== 'on target') return undefined;
  const day = new Date(last.atMs ?? Date.parse(last.createdAt)).toISOString().slice(0, 10);
  return { passes: true, sentence: `By the Bench: the dip was read at ${frequencyText(last.freqHz, 4)} on ${day}.` };
}

/** Gates that are passed: ticked or by evidence, less what evidence forbids. */
export const passedGates = (
  ticked: readonly string[],
  evidence: ReadonlyMap<string, GateEvidence>,
): ReadonlySet<string> =>
  new Set([
    ...ticked.filter((id) => evidence.get(id)?.passes !== false),
    ...[...evidence].flatMap(([id, { passes }]) => (passes ? [id] : [])),
  ]);
