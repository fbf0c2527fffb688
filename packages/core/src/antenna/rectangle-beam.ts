import { OutOfRangeError } from '../errors';
import { wavelengthM } from '../units/wavelength';
import { conductor, fedAt, heightParameter, lengthParameter, uprightOnSupport, yesNoParameter } from './dimensions';
import type { Design } from './kind';
import { USUAL_PARTS, wireKind } from './wire-kind';

/**
 * Folded-tip two-element rectangle for 50 Ω: A long sides, B tips of the driven element, C gap, D tips of the reflector, E depth; metres.
 * Regression in log₁₀(wire diameter / λ). Source: Cebik's regression (coefficients from memory); fitted for 1e-5 to 1e-2.
 * @throws OutOfRangeError for a wire outside that range.
 */
export function rectangleBeamDimensions(freqHz: number, diameterM: number) {
  const lambda = wavelengthM(freqHz);
  const ratio = diameterM / lambda;
  if (!(ratio >= 1e-6 && ratio <= 0.02))
    throw new OutOfRangeError(
      'The wire is too thin or too thick for this regression (diameter of 1e-6 to 0.02 wavelengths). Choose another wire.',
      'diameterM',
    );
  const d1 = Math.log10(ratio);
  const a = (-0.0008571428571 * d1 - 0.009571428571) * d1 + 0.3398571429;
  const b = (-0.002142857143 * d1 - 0.02035714286) * d1 + 0.008285714286;
  const c = (0.001809523381 * d1 + 0.01780952381) * d1 + 0.05164285714;
  const d = 0.001 * d1 + 0.07178571429;
  return {
    sideM: a * lambda,
    drivenTipM: b * lambda,
    gapM: c * lambda,
    reflectorTipM: d * lambda,
    depthM: (b + c + d) * lambda,
  };
}

const start =
  (key: keyof ReturnType<typeof rectangleBeamDimensions>) =>
  (design: Design): number =>
    rectangleBeamDimensions(design.freqHz, design.diameterM)[key];

export const rectangleBeam = wireKind({
  id: 'rectangle-beam',
  bandHz: [3e6, 500e6],
  burden: { price: 90, hours: 9, sight: 3, mast: true },
  atPlace: uprightOnSupport(({ sideM }) => sideM),
  hearsAlong: true,
  name: 'Two-element rectangle beam',
  summary: 'driven element and reflector with tips folded toward each other: small, deep null behind',
  parameters: [
    lengthParameter('sideM', 'A: long sides', start('sideM')),
    lengthParameter('drivenTipM', 'B: driven tips', start('drivenTipM')),
    lengthParameter('gapM', 'C: gap between the tips', start('gapM'), { bareUnit: 'mm' }),
    lengthParameter('reflectorTipM', 'D: reflector tips', start('reflectorTipM')),
    heightParameter('Height of the middle'),
    yesNoParameter('upright', 'Elements upright'),
  ],
  trim: { id: 'sideM', name: 'the long sides', share: 1 },
  ignores: ['insulated'],
  materials: [...USUAL_PARTS, 'spreader frame or boom', 'insulating joiners for the two gaps'],
  goesWrong: [
    'Gaps off by millimetres at UHF: the match hardly suffers, but the null behind fills (model at 868 MHz, half the gap: SWR 1.3, front to back 19 dB instead of 40).',
    'Feed line along the boom instead of straight away behind.',
  ],
  pieces: ({ sideM, drivenTipM, reflectorTipM }) => [
    { name: 'half driven element', count: 2, finishedM: sideM / 2 + drivenTipM },
    { name: 'reflector', count: 1, finishedM: sideM + 2 * reflectorTipM },
  ],
  figures: ({ drivenTipM, gapM, reflectorTipM }) => [
    {
      label: 'E: depth',
      value: drivenTipM + gapM + reflectorTipM,
      dimension: 'length',
      figures: 4,
      origin: 'model',
      formula: 'B + C + D',
      source: 'Cebik’s regression for 50 Ω, from memory; check it with the model',
    },
  ],
  build: { cuts: 'both elements', raise: 'Set it on its mast, the driven side toward what you want.' },
  needs: ({ sideM, heightM, upright }) => ({ spanM: sideM, heightM: heightM + (upright ? sideM / 2 : 0) }),
  stiffM: ({ sideM }) => sideM,
  wires({ sideM, drivenTipM, gapM, reflectorTipM, heightM, upright }, design) {
    const s = sideM / 2;
    const front = 0;
    const back = -(drivenTipM + gapM + reflectorTipM);
    const h = upright ? Math.max(heightM, s + 0.05) : heightM;
    // forward along +x; elements along y, or along z when upright
    const at = (x: number, across: number) => (upright ? ([x, 0, h + across] as const) : ([x, across, h] as const));
    return {
      wires: [
        conductor(design, 'driven side', at(front, -s), at(front, s)),
        conductor(design, 'driven tip 1', at(front, -s), at(front - drivenTipM, -s)),
        conductor(design, 'driven tip 2', at(front, s), at(front - drivenTipM, s)),
        conductor(design, 'reflector side', at(back, -s), at(back, s)),
        conductor(design, 'reflector tip 1', at(back, -s), at(back + reflectorTipM, -s)),
        conductor(design, 'reflector tip 2', at(back, s), at(back + reflectorTipM, s)),
      ],
      ports: fedAt(0, 0.5),
      loads: [],
    };
  },
});
