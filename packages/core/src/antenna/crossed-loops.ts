import { amplifiedLoop } from './amplified-loop';
import type { AntennaKind } from './kind';

/** Two of the same loop at right angles: each is the loop as it is modelled; mixing the two turns the null without turning anything. */
export const crossedLoops: AntennaKind = {
  ...amplifiedLoop,
  id: 'crossed-loops',
  burden: { price: 320, hours: 7, sight: 2 },
  name: 'Two crossed loops',
  summary: 'two amplified loops at right angles and a control in the shack: the null turns without a motor',
  materials: [
    'two loop amplifiers with their supply',
    'two cables of the same length',
    'control box that adds the two in any share and sign',
    'a short non-metal post',
  ],
  goesWrong: [
    'Two amplifiers of unlike gain: no setting gives a deep null.',
    'Cables of unlike length: the null holds on one band only.',
  ],
};
