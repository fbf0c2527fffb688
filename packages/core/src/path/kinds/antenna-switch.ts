import { choiceOf, decibels, numberOf, PASSES_DC, type StageKindSpec } from '../stage-kind';

export const antennaSwitch: StageKindSpec<'switch'> = {
  id: 'switch',
  article: 'a switch',
  name: 'Antenna switch',
  stays: true,
  // its loss lies among its figures, not with the shared one: 0.3 dB are usual
  fields: [decibels('lossDb', 'Insertion loss', '0.3 dB', 0, 20), PASSES_DC],
  stage: (values) => ({ kind: 'pad', name: values.name, lossDb: numberOf(antennaSwitch, values, 'lossDb') }),
  dc: (values) =>
    choiceOf(antennaSwitch, values, 'passesDc') === 'passes'
      ? { dc: 'through', name: values.name }
      : { dc: 'blocked', name: values.name },
};
