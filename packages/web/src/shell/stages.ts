import type { StationData } from '../data/station';

export type StageId =
  'listen' | 'plot' | 'choose' | 'draft' | 'bench' | 'trials' | 'noise' | 'path' | 'guard' | 'notebook';
export type StageState = 'empty' | 'in work' | 'done' | 'doubtful';

/** Stages in the order in which people work; the key jumps there. */
export const STAGES: readonly {
  readonly id: StageId;
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

/** Where each stage stands, from what is recorded. */
export function stageState(data: StationData, stage: StageId): StageState {
  switch (stage) {
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
    case 'bench':
      return data.sweeps.length === 0 ? 'empty' : data.trimSteps.length > 0 ? 'done' : 'in work';
    case 'trials':
      return data.trials.length === 0 ? 'empty' : data.readings.length >= 6 ? 'done' : 'in work';
    case 'noise':
      return data.noiseChecks.length === 0 ? 'empty' : 'done';
    case 'path':
      return data.pathStages.length === 0 ? 'empty' : 'done';
    case 'guard':
      return data.guardInputs.length === 0
        ? 'empty'
        : data.guardInputs.some((input) => !input.disconnects)
          ? 'doubtful'
          : 'done';
    case 'notebook':
      return data.entries.length === 0 ? 'empty' : 'in work';
  }
}
