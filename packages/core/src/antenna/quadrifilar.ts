import { wavelengthM } from '../units/wavelength';
import { conductor, fedAt, heightParameter, lengthParameter, yesNoParameter } from './dimensions';
import { wireKind } from './wire-kind';
import type { Design } from './kind';
import type { Point, Wire } from '../solver/model';

/** Half a turn, large and small loop, in wavelengths: height and diameter of each. Common practice, no source: a ratio of height to diameter of about 2.3. */
const LARGE = { tall: 0.26, across: 0.173 };
const SMALL = { tall: 0.238, across: 0.156 };
/** Straight pieces that stand for half a turn of a helix. */
const PIECES = 6;

/** One arm: out from the feed at the top, half a turn down, and in to the middle below. */
function arm(
  design: Design,
  name: string,
  from: Point,
  startRad: number,
  d: { tallM: number; acrossM: number; topM: number; sense: number },
): readonly Wire[] {
  const r = d.acrossM / 2;
  const at = (i: number): Point => {
    const turn = startRad + (d.sense * Math.PI * i) / PIECES;
    return [r * Math.cos(turn), r * Math.sin(turn), d.topM - (d.tallM * i) / PIECES];
  };
  return [
    conductor(design, `${name}, out`, from, at(0)),
    ...Array.from({ length: PIECES }, (_, i) => conductor(design, `${name}, ${i + 1}`, at(i), at(i + 1))),
    conductor(design, `${name}, in`, at(PIECES), [0, 0, d.topM - d.tallM]),
  ];
}

export const quadrifilar = wireKind({
  id: 'quadrifilar',
  bandHz: [100e6, 500e6],
  burden: { price: 60, hours: 8, sight: 2, mast: true },
  spots: ['attic', 'roof', 'deck', 'balcony', 'garden', 'trees'],
  atPlace: (_, __, room) => ({ heightM: room.heightM }),
  name: 'Quadrifilar helix',
  summary: 'two twisted loops, one a little larger: circular over the whole sky, no reflector, no turning',
  school:
    'Turnstile or quadrifilar helix: the one is easier to build, the other holds its polarisation down to the horizon.',
  parameters: [
    lengthParameter('largeTallM', 'Larger loop, height', (design) => LARGE.tall * wavelengthM(design.freqHz)),
    lengthParameter('largeAcrossM', 'Larger loop, across', (design) => LARGE.across * wavelengthM(design.freqHz)),
    lengthParameter('smallTallM', 'Smaller loop, height', (design) => SMALL.tall * wavelengthM(design.freqHz)),
    lengthParameter('smallAcrossM', 'Smaller loop, across', (design) => SMALL.across * wavelengthM(design.freqHz)),
    heightParameter('Height of its top'),
    yesNoParameter('leftHand', 'Left-hand instead of right-hand'),
  ],
  trim: { id: 'largeTallM', name: 'the height of the larger loop', share: 1 },
  ignores: ['insulated'],
  materials: [
    'copper tube or stiff coax for the loops',
    'plastic tube as its spine',
    'coax with plug and choke',
    'spacers',
  ],
  goesWrong: [
    'Twisted the wrong way: 15 dB are missing and nothing looks wrong.',
    'Loops squeezed out of round in the wind: fix every crossing to the spine.',
  ],
  pieces: (d) =>
    (['large', 'small'] as const).map((size) => ({
      name: `${size} arm`,
      count: 2,
      finishedM: d[`${size}AcrossM`] + Math.hypot(d[`${size}TallM`], (Math.PI * d[`${size}AcrossM`]) / 2),
    })),
  remarks: () => [
    'Sizes are a start for thin tube: the model and the Bench trim both loops until the two dips nearly meet.',
  ],
  build: { cuts: 'all four arms', raise: 'Set it on a plastic mast, the sky free all round.' },
  needs: ({ largeAcrossM, heightM }) => ({ spanM: largeAcrossM, heightM }),
  wires(d, design) {
    const gap = Math.max(4 * design.diameterM, 0.01 * d.largeTallM);
    const top = Math.max(d.heightM, Math.max(d.largeTallM, d.smallTallM) + 0.1);
    const sense = d.leftHand ? -1 : 1;
    const large = { tallM: d.largeTallM, acrossM: d.largeAcrossM, topM: top, sense };
    const small = { tallM: d.smallTallM, acrossM: d.smallAcrossM, topM: top, sense };
    const [up, down]: readonly [Point, Point] = [
      [0, 0, top + gap / 2],
      [0, 0, top - gap / 2],
    ];
    return {
      wires: [
        conductor(design, 'feed', down, up),
        ...arm(design, 'large arm 1', up, 0, large),
        ...arm(design, 'large arm 2', down, Math.PI, large),
        ...arm(design, 'small arm 1', up, Math.PI / 2, small),
        ...arm(design, 'small arm 2', down, (3 * Math.PI) / 2, small),
      ],
      ports: fedAt(0, 0.5),
      loads: [],
    };
  },
});
