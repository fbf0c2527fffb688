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

/** The step to go on with: what is in doubt first, then what was begun, then what is still to begin, in working order. */
export function nextStep(states: Readonly<Record<StepId, StepStanding>>): (typeof STEPS)[number] | undefined {
  const first = (...wanted: readonly StepStanding[]) => STEPS.find(({ id }) => wanted.includes(states[id]));
  // one who never transmits leaves Guard empty, and the diary fills itself
  const begin = STEPS.find(({ id }) => states[id] === 'empty' && id !== 'guard' && id !== 'notebook');
  return first('doubtful') ?? first('in work') ?? begin;
}
