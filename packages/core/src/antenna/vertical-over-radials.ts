import { lengthParameter } from './dimensions';
import { USUAL_PARTS, wireKind } from './wire-kind';
import { INSULATION_FACTOR } from './half-wave-dipole';
import { ELEMENT, overRadials, quarterWaveLengths, RADIALS } from './quarter-wave';

export const verticalOverRadials = wireKind({
  id: 'vertical-over-radials',
  bandHz: [500e3, 60e6],
  burden: { price: 70, hours: 6, sight: 3, mast: true, stakes: true },
  spots: ['garden', 'trees'],
  name: 'Vertical over level radials',
  summary: 'a quarter wave standing on the garden, radials just above it',
  school: 'Many short radials on the ground or a few raised ones: raised ones lose less, ground ones trip nobody.',
  parameters: [
    ...RADIALS,
    ELEMENT,
    lengthParameter('footM', 'Height of the radials', 0.1, { least: 0.01, most: 10, hint: 'over ground' }),
  ],
  trim: { id: 'elementM', name: 'the element', share: 1 },
  materials: [...USUAL_PARTS, 'tube or a fibreglass pole', 'stakes for the radials'],
  goesWrong: [
    'Two radials give a lopsided pattern and a noisy feed line: use four, or a choke.',
    'Radials trodden into wet grass move the dip.',
  ],
  pieces: ({ elementM, radials, radialM }, design) => [
    // the nearer the radials lie to the ground in wavelengths, the longer the element must be
    {
      ...{ name: 'element', count: 1, finishedM: elementM, modelNeeds: 1.13 },
      ruleM: quarterWaveLengths(design.freqHz).elementM * (design.insulated ? INSULATION_FACTOR : 1),
    },
    { name: 'radial', count: radials, finishedM: radialM, keep: true },
  ],
  remarks: () => [
    'Radials act as a counterpoise just above lossy ground: their loss is in the model. Wires that enter the ground are not covered.',
  ],
  build: {
    cuts: 'the element and all radials',
    raise: 'Set the element up with guys; run the radials straight out, level.',
    digs: true,
  },
  needs: ({ elementM, radialM, footM }) => ({ spanM: 2 * radialM, heightM: elementM + footM }),
  wires: (d, design) => overRadials(d, 0, d.footM, design),
});
