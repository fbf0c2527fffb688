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
    {
      ...{ id: 'switching', label: 'Polarisation and band', start: 'fixed' },
      options: [
        { value: 'fixed', label: 'fixed' },
        { value: 'by supply', label: 'chosen by 13 or 18 V, and 22 kHz' },
      ],
    },
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
    const load = loadOf(name, figures.leastV, figures.currentMA, plus);
    if (!load) return { dc: 'blocked', name, own: true };
    return choiceOf(converter, values, 'switching') === 'by supply'
      ? { ...load, switchedHz: numberOf(converter, values, 'oscillatorHz') }
      : load;
  },
};
