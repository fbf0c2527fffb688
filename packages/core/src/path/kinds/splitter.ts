import { requireRange } from '../../errors';
import { powerDb } from '../../units/decibel';
import { plainTeeLossDb, resistiveSplitter } from '../pads';
import { choiceOf, decibels, numberOf, PASSES_DC, plain, type StageKindSpec } from '../stage-kind';

/** How a splitter is made. */
export type SplitterForm = 'hybrid' | 'star' | 'tee';

/** Loss to one output of a splitter, the others terminated, dB; the excess counts for a hybrid. @throws OutOfRangeError for fewer than two outputs. */
export function splitterLossDb(form: SplitterForm, outputs: number, excessDb = 0): number {
  requireRange(outputs, 'Outputs', 2, 100);
  if (form === 'star') return resistiveSplitter(outputs, 50).lossDb;
  return form === 'tee' ? plainTeeLossDb(outputs) : powerDb(outputs) + excessDb;
}

const formOf = (text: string): SplitterForm => (text === 'star' || text === 'tee' ? text : 'hybrid');

export const splitter: StageKindSpec<'splitter'> = {
  id: 'splitter',
  article: 'a splitter',
  name: 'Splitter',
  stays: true,
  fields: [
    {
      ...{ id: 'form', label: 'Made as', start: 'hybrid' },
      options: [
        { value: 'hybrid', label: 'hybrid with transformers' },
        { value: 'star', label: 'resistive star' },
        { value: 'tee', label: 'plain T, nothing inside' },
      ],
    },
    plain('outputs', 'Outputs', 2, 16, '2'),
    { ...decibels('excessDb', 'Excess loss', '0.5 dB', 0, 20), hint: 'over the ideal share; of a hybrid' },
    { ...PASSES_DC, label: 'DC on this output', start: 'blocked' },
  ],
  stage: (values) => ({
    ...{ kind: 'pad', name: values.name },
    lossDb: splitterLossDb(
      formOf(choiceOf(splitter, values, 'form')),
      numberOf(splitter, values, 'outputs'),
      numberOf(splitter, values, 'excessDb'),
    ),
  }),
  dc(values) {
    const { name } = values;
    const form = formOf(choiceOf(splitter, values, 'form'));
    if (form === 'star') return { dc: 'resistive splitter', name };
    return choiceOf(splitter, values, 'passesDc') === 'passes' || form === 'tee'
      ? { dc: 'through', name }
      : { dc: 'leg without DC', name };
  },
};
