import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { wavelengthM } from '../units/wavelength';
import { lengthParameter } from './dimensions';
import { wireKind } from './wire-kind';
import { EARTH_OHM, EARTH_REMARK, endsWithTheRun, RADIAL, REVERSED, SHARED, TERMINATION } from './terminated-wire';

/** Shorter than this share of a wavelength it has no direction of its own: on the ground the wave is slow, and short wires serve. Common practice, no source. */
const LEAST_SHARE = 0.18;

export const groundLaidWire = wireKind({
  ...SHARED,
  id: 'ground-laid-wire',
  bandHz: [100e3, 8e6],
  burden: { price: 60, hours: 4, sight: 0, onLawn: true, stakes: true },
  spots: ['garden', 'trees'],
  hearsAlong: true,
  atPlace: endsWithTheRun(LEAST_SHARE),
  usefulHz: (_, d) => [(0.4 * SPEED_OF_LIGHT_M_PER_S) / d.lengthM, (4 * SPEED_OF_LIGHT_M_PER_S) / d.lengthM],
  name: 'Terminated wire on the ground',
  summary: 'the same lying in the grass: shorter, slower, unseen',
  school:
    'Short and quiet on the ground, or long and a metre up: the higher wire hears more, the one in the grass needs no leave.',
  parameters: [
    lengthParameter('lengthM', 'Length', (design) => Math.min(120, Math.max(20, 0.5 * wavelengthM(design.freqHz))), {
      least: 5,
      most: 400,
    }),
    lengthParameter('heightM', 'Height over ground', 0.03, { least: 0.01, most: 0.5, bareUnit: 'mm' }),
    { ...TERMINATION, start: () => 250 },
    EARTH_OHM,
    RADIAL,
    REVERSED,
  ],
  materials: [
    'transformer at the near end',
    'non-inductive resistor at the far end',
    'two earth rods',
    'staples, one each half metre',
    'coax with choke',
  ],
  goesWrong: [
    'Mower and feet: staple it into the sward.',
    'Too long: beyond about a wavelength on the wire the loss eats the gain.',
  ],
  remarks: () => [EARTH_REMARK],
  build: {
    cuts: 'the wire and the radials',
    raise: 'Lay it straight toward what you want; staple it down.',
    digs: true,
  },
  needs: ({ lengthM }) => ({ spanM: lengthM, heightM: 0.2 }),
});
