import { activeFields, choiceOf, FED, loadOf, type StageKindSpec } from '../stage-kind';

export const amplifier: StageKindSpec<'amplifier'> = {
  id: 'amplifier',
  article: 'an amplifier',
  name: 'Amplifier',
  fields: [
    ...activeFields('15 dB', '3 dB', '40 dBm', '15 dBm'),
    {
      ...{ id: 'surviveDbm', label: 'Its input survives', hint: 'by its data sheet; empty: not known', start: '' },
      ...{ dimension: 'level', bareUnit: 'dBm', least: -30, most: 60, optional: true },
    },
    ...FED,
  ],
  stage: ({ name, gainDb, noiseFigureDb, iip2Dbm, iip3Dbm }) => ({
    ...{ kind: 'amplifier', name, gainDb, noiseFigureDb, iip2Dbm, iip3Dbm },
  }),
  dc(values) {
    const { name, figures } = values;
    const plus = choiceOf(amplifier, values, 'polarity') === 'plus';
    return loadOf(name, figures.leastV, figures.currentMA, plus) ?? { dc: 'blocked', name, own: true };
  },
};
