import { wavelengthM } from '../units/wavelength';
import { conductor, countParameter, fedAt, lengthParameter } from './dimensions';
import { wireKind } from './wire-kind';
import { RAD } from '../units/constants';

/** Gap between disc and cone at the feed, as a share of the cone's length. Common practice, no source. */
const GAP_SHARE = 0.02;

/** Least height of the feed: the cone's own height, its gap, and a hand's breadth. */
const standingM = (coneM: number): number => coneM * Math.cos(30 * RAD) + GAP_SHARE * coneM + 0.05;

export const discone = wireKind({
  id: 'discone',
  bandHz: [20e6, 1.3e9],
  burden: { price: 110, hours: 8, sight: 3, mast: true },
  spots: ['attic', 'roof', 'deck', 'balcony', 'garden', 'trees'],
  atPlace: ({ coneM }, _, room) => ({ heightM: Math.max(room.heightM, standingM(coneM)) }),
  usefulHz: ({ freqHz }) => [freqHz, 8 * freqHz],
  name: 'Discone',
  summary: 'a disc over a cone of rods: one antenna for a decade of VHF and UHF',
  school:
    'One antenna for all of VHF and UHF, or several for their bands: the discone hears everything, strong stations nearby included.',
  parameters: [
    countParameter('rods', 'Rods of disc and cone, each', 8, 6, 16),
    lengthParameter('coneM', 'Rods of the cone', (design) => 0.25 * wavelengthM(design.freqHz) * 1.05, {
      least: 0.02,
      most: 30,
    }),
    lengthParameter('discM', 'Radius of the disc', (_, { coneM }) => 0.35 * coneM, { least: 0.005, most: 15 }),
    lengthParameter('heightM', 'Height of the feed', 5, { least: 0.1, most: 100, hint: 'over ground' }),
  ],
  ignores: ['insulated', 'allowance'],
  materials: ['rods', 'hub with an insulator', 'chassis socket', 'mast clamp'],
  goesWrong: [
    'Below its lowest frequency the SWR climbs steeply: cut it for the bottom of the range.',
    'It hears everything: expect strong stations at the receiver.',
  ],
  pieces: ({ rods, coneM, discM }) => [
    { name: 'cone rod', count: rods, finishedM: coneM, keep: true },
    { name: 'disc rod', count: rods, finishedM: discM, keep: true },
  ],
  figures: ({ coneM }) => [
    {
      label: 'Useful from',
      value: (1.05 * 299_792_458) / (4 * coneM),
      dimension: 'frequency',
      figures: 2,
      origin: 'catalogue',
      formula: 'cone rods of a quarter wave',
      source: 'common practice, no source',
    },
  ],
  build: { cuts: 'all rods to one length each', raise: 'Clamp it to the mast, cone down, clear of metal.' },
  // the cone hangs below the feed: its tips stay clear of the ground
  needs: ({ coneM, heightM }) => ({ spanM: coneM, heightM: Math.max(heightM, standingM(coneM)) }),
  wires({ rods, coneM, discM, heightM }, design) {
    const gap = Math.max(4 * design.diameterM, GAP_SHARE * coneM);
    const [out, down] = [coneM * Math.sin(30 * RAD), coneM * Math.cos(30 * RAD)];
    const h = Math.max(heightM, standingM(coneM), down + gap + 0.05);
    const around = (i: number) => [Math.cos((2 * Math.PI * i) / rods), Math.sin((2 * Math.PI * i) / rods)];
    return {
      wires: [
        conductor(design, 'feed', [0, 0, h - gap], [0, 0, h]),
        ...Array.from({ length: rods }, (_, i) => {
          const [x, y] = around(i);
          return conductor(design, `disc rod ${i + 1}`, [0, 0, h], [discM * x, discM * y, h]);
        }),
        ...Array.from({ length: rods }, (_, i) => {
          const [x, y] = around(i);
          return conductor(design, `cone rod ${i + 1}`, [0, 0, h - gap], [out * x, out * y, h - gap - down]);
        }),
      ],
      ports: fedAt(0, 0.5),
      loads: [],
    };
  },
});
