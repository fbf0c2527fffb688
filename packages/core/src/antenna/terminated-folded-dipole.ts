import { wavelengthM } from '../units/wavelength';
import { conductor, fedAt, heightParameter, lengthParameter, onSupport } from './dimensions';
import { endRopeM, LEAST_HEIGHT_M } from './half-wave-dipole';
import { TERMINATION } from './terminated-wire';
import { wireKind } from './wire-kind';

/** Usual rule: a third of the longest wave, spaced by a hundredth of it. Common practice, no source. */
const LENGTH_SHARE = 1 / 3;
const SPACING_SHARE = 0.01;

export const terminatedFoldedDipole = wireKind({
  id: 'terminated-folded-dipole',
  bandHz: [1.8e6, 60e6],
  burden: { price: 130, hours: 8, sight: 2, mast: true },
  atPlace: onSupport,
  usefulHz: (_, { lengthM }) => [(LENGTH_SHARE * 3e8) / lengthM, (6 * LENGTH_SHARE * 3e8) / lengthM],
  name: 'Terminated folded dipole',
  summary: 'a folded dipole with a resistor: no dip to trim, over a range of five to one; the resistor takes some dB',
  school:
    'Its resistor takes 3 to 10 dB. For transmitting that is much; for reception it costs nothing where outside noise decides.',
  parameters: [
    lengthParameter('lengthM', 'Overall length', (design) => LENGTH_SHARE * wavelengthM(design.freqHz)),
    lengthParameter('spacingM', 'Spacing of the conductors', (design) => SPACING_SHARE * wavelengthM(design.freqHz), {
      least: 0.004,
      most: 5,
    }),
    heightParameter('Height of the lower wire'),
    { ...TERMINATION, label: 'Resistor in the upper wire', start: () => 600 },
  ],
  ignores: ['allowance'],
  materials: ['9:1 or 12:1 balun', 'non-inductive resistor', 'spreaders', 'coax with plug and sleeve', 'ropes'],
  goesWrong: [
    'Judged by its flat SWR: the resistor makes it flat, and takes 3 to 10 dB.',
    'A resistor that transmitting has burnt: the dip of a folded dipole comes back.',
  ],
  pieces: ({ lengthM, spacingM }) => [
    { name: 'loop conductor', count: 1, finishedM: 2 * (lengthM + spacingM), keep: true },
  ],
  remarks: () => [
    'Where outside noise decides, the loss in the resistor costs nothing; at VHF and in quiet places it does.',
  ],
  build: {
    cuts: 'the loop conductor',
    raise: 'Pull it up, one end higher than the other if there is one support only.',
  },
  needs: ({ lengthM }) => ({ spanM: lengthM + 2 * endRopeM(lengthM), heightM: LEAST_HEIGHT_M }),
  wires({ lengthM, spacingM, heightM, terminationOhm }, design) {
    const [l, top] = [lengthM / 2, heightM + spacingM];
    return {
      wires: [
        conductor(design, 'fed wire', [0, -l, heightM], [0, l, heightM]),
        conductor(design, 'right end', [0, l, heightM], [0, l, top]),
        conductor(design, 'upper wire', [0, l, top], [0, -l, top]),
        conductor(design, 'left end', [0, -l, top], [0, -l, heightM]),
      ],
      ports: fedAt(0, 0.5),
      loads: [{ wire: 2, position: 0.5, ohm: terminationOhm }],
    };
  },
});
