import type { StationData } from '../data/station';
import { plannedTransmitters } from '../data/transmitters';
import { judgedGuard } from '../data/guard';
import { judgedBench, judgedNoise, judgedPath, judgedTrial } from '../data/verdicts';

export type StepId =
  'listen' | 'plot' | 'choose' | 'draft' | 'bench' | 'trials' | 'noise' | 'path' | 'guard' | 'notebook';
export type StepStanding = 'empty' | 'in work' | 'done' | 'doubtful';

/** How a step's state is drawn. */
export const STATE_MARK: Readonly<Record<StepStanding, string>> = {
  empty: '○',
  'in work': '◐',
  done: '●',
  doubtful: '~',
};

/** Steps in the order in which people work; the key jumps there. */
export const STEPS: readonly {
  readonly id: StepId;
  readonly name: string;
  readonly asks: string;
  readonly key: string;
}[] = [
  { id: 'listen', name: 'Listen', asks: 'What do I want to hear?', key: '1' },
  { id: 'plot', name: 'Plot', asks: 'What is where?', key: 'p' },
  { id: 'choose', name: 'Choose', asks: 'Which antenna, here?', key: '2' },
  { id: 'draft', name: 'Draft', asks: 'How do I build it?', key: '3' },
  { id: 'bench', name: 'Bench', asks: 'Is it on frequency, what next?', key: '4' },
  { id: 'trials', name: 'Trials', asks: 'Is B better than A?', key: '5' },
  { id: 'noise', name: 'Noise', asks: 'What is my floor?', key: '6' },
  { id: 'path', name: 'Path', asks: 'What goes in between?', key: '7' },
  { id: 'guard', name: 'Guard', asks: 'Will transmitting harm it?', key: '8' },
  { id: 'notebook', name: 'Notebook', asks: 'What did I do and find?', key: '9' },
];

/** Where each step stands, from what is recorded and its verdict. */
export const standings = (data: StationData): Readonly<Record<StepId, StepStanding>> => ({
  listen: standing(data, 'listen'),
  plot: standing(data, 'plot'),
  choose: standing(data, 'choose'),
  draft: standing(data, 'draft'),
  bench: standing(data, 'bench'),
  trials: standing(data, 'trials'),
  noise: standing(data, 'noise'),
  path: standing(data, 'path'),
  guard: standing(data, 'guard'),
  notebook: standing(data, 'notebook'),
});

/** The step to go on with: what is in doubt first, then what was begun, then what is still to begin, in working order. */
export function nextStep(states: Readonly<Record<StepId, StepStanding>>): (typeof STEPS)[number] | undefined {
  const first = (...wanted: readonly StepStanding[]) => STEPS.find(({ id }) => wanted.includes(states[id]));
  // one who never transmits leaves Guard empty, and the diary fills itself
  const begin = STEPS.find(({ id }) => states[id] === 'empty' && id !== 'guard' && id !== 'notebook');
  return first('doubtful') ?? first('in work') ?? begin;
}

function standing(data: StationData, step: StepId): StepStanding {
  switch (step) {
    case 'listen':
      return data.targets.length === 0 ? 'empty' : data.receivers.length === 0 ? 'in work' : 'done';
    case 'plot':
      return data.plotFeatures.length === 0
        ? 'empty'
        : data.plotFeatures.some((feature) => feature.kind === 'antenna')
          ? 'done'
          : 'in work';
    case 'choose':
      return data.antennas.length > 0 ? 'done' : data.targets.length > 0 ? 'in work' : 'empty';
    case 'draft': {
      if (data.revisions.length === 0) return 'empty';
      return data.revisions.some((revision) => revision.gates.includes('tested')) ? 'done' : 'in work';
    }
    case 'bench': {
      if (data.sweeps.length === 0 && data.trimSteps.length === 0) return 'empty';
      const states = data.antennas.flatMap((antenna) => {
        const { verdict, steps } = judgedBench(data, antenna, undefined);
        return steps.length > 0 ? [verdict.state] : [];
      });
      if (states.some((state) => state === 'stop' || state === 'too short')) return 'doubtful';
      return states.includes('on target') ? 'done' : 'in work';
    }
    case 'trials': {
      if (data.trials.length === 0) return 'empty';
      const verdicts = data.trials.map((trial) => judgedTrial(data, trial).verdict);
      if (verdicts.some(({ doubt }) => doubt !== undefined)) return 'doubtful';
      return verdicts.some(({ snr }) => snr.proven) ? 'done' : 'in work';
    }
    case 'noise': {
      const { state } = judgedNoise(data);
      if (state === 'nothing measured') return 'empty';
      return state === 'some other floor' ? 'in work' : state === 'no rise' ? 'doubtful' : 'done';
    }
    case 'path': {
      const judged = data.paths.flatMap((path) => judgedPath(data, path) ?? []);
      if (judged.length === 0) return 'empty';
      return judged.every(({ verdict }) => verdict.better.state === 'fine' || verdict.better.state === 'noise')
        ? judged.every(({ verdict }) => verdict.overloadJudged)
          ? 'done'
          : 'in work'
        : 'doubtful';
    }
    case 'guard': {
      const proofs = plannedTransmitters(data).map((plan) => judgedGuard(data, plan).proof);
      if (proofs.length === 0) return 'empty';
      if (proofs.every(({ receivers }) => receivers.length === 0)) return 'in work';
      // what was only typed is no proof
      return proofs.every(({ colour, worst }) => (colour === 'proven' || colour === 'computed') && !worst?.thin)
        ? 'done'
        : 'doubtful';
    }
    case 'notebook':
      return data.entries.length === 0 ? 'empty' : 'in work';
  }
}
