import { activeFields, choiceOf, decibels, FED, loadOf, numberOf, type StageKindSpec } from '../stage-kind';
import type { Mixing } from '../stages';

const mixingOf = (text: string): Mixing => (text === 'below' || text === 'sum' ? text : 'above');

/** A mixer with its oscillator: behind it everything has another frequency. */
export const converter: StageKindSpec<'converter'> = {
  id: 'converter',
  article: 'a converter',
  name: 'Converter',
  fields: [
    ...activeFields('60 dB', '0.5 dB', '0 dBm', '-40 dBm'),
    {
      ...{ id: 'oscillatorHz', label: 'Oscillator', dimension: 'frequency', bareUnit: 'MHz' },
      ...{ least: 1e3, most: 3e11, start: '9.75 GHz' },
    },
    {
      ...{ id: 'mixing', label: 'Gives', start: 'above' },
      options: [
        { value: 'above', label: 'signal − oscillator' },
        { value: 'below', label: 'oscillator − signal (mirrored)' },
        { value: 'sum', label: 'signal + oscillator' },
      ],
    },
    decibels('imageRejectionDb', 'Rejects the image by', '40 dB', 0, 120),
    ...FED,
  ],
  stage(values) {
    const { name, gainDb, noiseFigureDb, iip2Dbm, iip3Dbm } = values;
    return {
      ...{ kind: 'converter', name, gainDb, noiseFigureDb, iip2Dbm, iip3Dbm },
      oscillatorHz: numberOf(converter, values, 'oscillatorHz'),
      mixing: mixingOf(choiceOf(converter, values, 'mixing')),
      imageRejectionDb: numberOf(converter, values, 'imageRejectionDb'),
    };
  },
  dc(values) {
    const { name, figures } = values;
    const plus = choiceOf(converter, values, 'polarity') === 'plus';
    return loadOf(name, figures.leastV, figures.currentMA, plus) ?? { dc: 'blocked', name, own: true };
  },
};
