import { limiterFigures } from '../limiter';
import { decibels, numberOf, plain, type StageKindSpec } from '../stage-kind';

/** Antiparallel diodes across the line. */
export const limiter: StageKindSpec<'limiter'> = {
  id: 'limiter',
  article: 'a limiter',
  name: 'Limiter',
  stays: true,
  fields: [
    decibels('lossDb', 'Insertion loss', '0.2 dB', 0, 20),
    { ...plain('perLeg', 'Diodes in each direction', 1, 10, '1'), hint: 'in series; more: it limits later' },
    { ...plain('saturationNA', 'Saturation current, nA', 1e-6, 1e6, '2.5'), hint: 'small silicon diode: about 2.5' },
    plain('emission', 'Emission coefficient', 0.8, 3, '1.75'),
  ],
  stage(values) {
    const of = (id: string): number => numberOf(limiter, values, id);
    return {
      ...{ kind: 'part', name: values.name, transfer: [{ freqHz: 1e6, gainDb: -of('lossDb') }] },
      ...limiterFigures(of('perLeg'), of('saturationNA') * 1e-9, of('emission')),
    };
  },
  dc: ({ name }) => ({ dc: 'diodes', name }),
};
