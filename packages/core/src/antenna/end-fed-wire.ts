import { wavelengthM } from '../units/wavelength';
import { conductor, fedAt, lengthParameter } from './dimensions';
import { INSULATION_FACTOR } from './half-wave-dipole';
import { wireKind } from './wire-kind';

const MOST_HEIGHT_M = 60;
/** Less wire than this, and a feed less far below it, is no wire antenna, m. Common practice, no source. */
const LEAST_WIRE_M = 5;
const LEAST_RISE_M = 1.5;
/** More wire than this wins nothing that a listener notices, m. Common practice, no source. */
const MOST_WIRE_M = 60;
/** Lengths of the level part that are tried below the longest, m. */
const TRIED_M = [5, 8, 12, 17, 24, 34, 48];

export const endFedWire = wireKind({
  id: 'end-fed-wire',
  bandHz: [10e3, 60e6],
  burden: { price: 50, hours: 3, sight: 1 },
  spots: ['garden', 'trees'],
  answersTo: 'electric',
  // as much wire as the run takes beside a counterpoise of a third of it at most
  atPlace({ wireM, counterpoiseM }, _, room) {
    const counterM = Math.min(counterpoiseM, room.spanM / 3);
    return {
      heightM: Math.min(MOST_HEIGHT_M, Math.max(LEAST_RISE_M, room.heightM)),
      counterpoiseM: counterM,
      wireM: Math.max(LEAST_WIRE_M, Math.min(wireM, room.spanM - counterM)),
    };
  },
  // the whole run, and shorter wires: a wire of the wrong length is deaf on a band
  sizes({ wireM, counterpoiseM }, _, room) {
    const wholeM = Math.max(LEAST_WIRE_M, Math.min(MOST_WIRE_M, room.spanM - counterpoiseM));
    const shorter = TRIED_M.filter((triedM) => triedM < 0.9 * wireM).slice(-2);
    return [...(wholeM > 1.1 * wireM ? [{ wireM: wholeM }] : []), ...shorter.map((triedM) => ({ wireM: triedM }))];
  },
  // of any length: below a tenth of a wave it is a short wire, and still one
  usefulHz: () => [30e3, 20e6],
  hearsAlong: true,
  name: 'End-fed wire with counterpoise',
  summary:
    'as much wire as there is room for, up and away, through a 9:1 transformer; a shorter one near the ground as its other half',
  school:
    'A 9:1 transformer takes any length and gives away some dB; a tuner at the feed takes one length at a time and gives away none.',
  parameters: [
    lengthParameter('wireM', 'Wire, level part', (design) => Math.max(LEAST_WIRE_M, 0.35 * wavelengthM(design.freqHz))),
    lengthParameter('feedM', 'Height of the feed', 1, { least: 0.05, most: 20 }),
    lengthParameter('heightM', 'Height of the wire', 6, { least: 0.3, most: MOST_HEIGHT_M }),
    lengthParameter('counterpoiseM', 'Counterpoise', (design) => 0.25 * wavelengthM(design.freqHz) * INSULATION_FACTOR),
  ],
  trim: { id: 'wireM', name: 'the level wire', share: 1 },
  materials: [
    '9:1 transformer at the feed',
    'common-mode choke behind it',
    'coax with plug, sleeve and heat-shrink',
    'rope and insulators',
    'stakes',
  ],
  goesWrong: [
    'No counterpoise: the feed line takes its place and brings the noise of the house.',
    'Near a half wave the feed point is several kΩ: 50 Ω coax hears nothing there without a transformer.',
  ],
  pieces: ({ wireM, heightM, feedM, counterpoiseM }) => [
    { name: 'wire', count: 1, finishedM: wireM + heightM - feedM },
    { name: 'counterpoise', count: 1, finishedM: counterpoiseM },
  ],
  remarks: () => ['Closed form gives no impedance for a wire of any length: read the model.'],
  build: {
    cuts: 'wire and counterpoise',
    raise: 'Pull the far end up; run the counterpoise the other way, out of reach of feet.',
  },
  needs: ({ wireM, counterpoiseM, heightM }) => ({ spanM: wireM + counterpoiseM, heightM }),
  wires({ wireM, feedM, heightM, counterpoiseM }, design) {
    const foot = Math.min(0.2, 0.2 * (heightM - feedM));
    return {
      wires: [
        conductor(design, 'feed', [0, 0, feedM], [0, 0, feedM + foot]),
        conductor(design, 'rise', [0, 0, feedM + foot], [0, 0, heightM]),
        conductor(design, 'wire', [0, 0, heightM], [wireM, 0, heightM]),
        conductor(design, 'counterpoise', [0, 0, feedM], [-counterpoiseM, 0, feedM]),
      ],
      ports: fedAt(0, 0.5),
      loads: [],
    };
  },
});
