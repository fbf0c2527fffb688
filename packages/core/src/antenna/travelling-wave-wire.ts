import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { wavelengthM } from '../units/wavelength';
import { lengthParameter } from './dimensions';
import { wireKind } from './wire-kind';
import { EARTH_OHM, EARTH_REMARK, endsWithTheRun, RADIAL, REVERSED, SHARED, TERMINATION } from './terminated-wire';

/** Shorter than this share of a wavelength it has no direction of its own. Common practice, no source. */
const LEAST_SHARE = 0.5;

export const travellingWaveWire = wireKind({
  ...SHARED,
  id: 'travelling-wave-wire',
  bandHz: [150e3, 30e6],
  burden: { price: 90, hours: 8, sight: 2, stakes: true },
  spots: ['garden', 'trees'],
  hearsAlong: true,
  atPlace: endsWithTheRun(LEAST_SHARE),
  usefulHz: (_, d) => [(0.4 * SPEED_OF_LIGHT_M_PER_S) / d.lengthM, (4 * SPEED_OF_LIGHT_M_PER_S) / d.lengthM],
  name: 'Terminated long wire',
  summary: 'a wire of a wavelength or more at head height, terminated at the far end: one direction, low noise',
  parameters: [
    lengthParameter('lengthM', 'Length', (design) => Math.min(300, Math.max(30, 1.2 * wavelengthM(design.freqHz))), {
      least: 5,
      most: 600,
    }),
    lengthParameter('heightM', 'Height', 2.2, { least: 0.3, most: 10 }),
    TERMINATION,
    EARTH_OHM,
    RADIAL,
    REVERSED,
  ],
  materials: [
    '9:1 transformer at the near end',
    'non-inductive resistor at the far end',
    'two earth rods',
    'posts with insulators',
    'coax with choke',
  ],
  goesWrong: [
    'The termination burnt by a near lightning stroke: the null behind is gone.',
    'Dry soil in summer: the best termination changes.',
  ],
  remarks: () => [
    EARTH_REMARK,
    'Exchange feed and termination and it hears the other way: with a switch it is reversible.',
  ],
  build: {
    cuts: 'the wire and the radials',
    raise: 'Run it straight toward what you want, above head height; mark it where people pass.',
    digs: true,
  },
  needs: ({ lengthM, heightM }) => ({ spanM: lengthM, heightM }),
});
