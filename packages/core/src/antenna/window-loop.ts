import { SPEED_OF_LIGHT_M_PER_S } from '../units/constants';
import { loopBuildPlan } from './build-plan';
import { conductor, fedAt, lengthParameter } from './dimensions';
import { wireKind } from './wire-kind';
import { lengthText } from '../units/format';

export const windowLoop = wireKind({
  id: 'window-loop',
  bandHz: [1.5e6, 35e6],
  burden: { price: 30, hours: 2, sight: 0 },
  spots: ['indoors', 'window'],
  answersTo: 'magnetic',
  atPlace: ({ widthM, riseM }, _, { spanM, heightM, lowM = 0 }) => ({
    widthM: Math.max(0.3, Math.min(widthM, spanM - 0.1)),
    riseM: Math.max(0.3, Math.min(riseM, heightM - lowM - 0.2)),
    footM: lowM + 0.1,
  }),
  usefulHz: (_, d) => [1.5e6, (0.35 * SPEED_OF_LIGHT_M_PER_S) / (d.widthM + d.riseM)],
  name: 'Wire loop around the frame',
  summary: 'thin wire taped around the frame, through a small transformer: unseen, passive, cannot be turned',
  parameters: [
    lengthParameter('widthM', 'Width', 1.2, { least: 0.2, most: 6 }),
    lengthParameter('riseM', 'Height of the loop', 1.2, { least: 0.2, most: 4 }),
    lengthParameter('footM', 'Height of the lower side', 1, { least: 0.05, most: 200, hint: 'over ground' }),
  ],
  ignores: ['freqHz', 'allowance'],
  materials: ['thin wire', 'isolating transformer 1:1', 'coax with two common-mode chokes', 'tape'],
  goesWrong: ['Metal frame or coated glass: a shorted turn around the loop.', 'The cable along a mains lead.'],
  pieces: ({ widthM, riseM }) => [{ name: 'loop wire', count: 1, finishedM: 2 * (widthM + riseM), keep: true }],
  remarks: () => ['Coated glass and metal frames take much of what arrives: try the frame of another window.'],
  build: ({ widthM, riseM }) => loopBuildPlan(lengthText(2 * (widthM + riseM))),
  needs: ({ widthM, riseM, footM }) => ({ spanM: widthM + 0.05, heightM: footM + riseM }),
  wires({ widthM, riseM, footM }, design) {
    const [w, top] = [widthM / 2, footM + riseM];
    return {
      wires: [
        conductor(design, 'lower side', [-w, 0, footM], [w, 0, footM]),
        conductor(design, 'right side', [w, 0, footM], [w, 0, top]),
        conductor(design, 'upper side', [w, 0, top], [-w, 0, top]),
        conductor(design, 'left side', [-w, 0, top], [-w, 0, footM]),
      ],
      ports: fedAt(0, 0.5),
      loads: [],
    };
  },
});
