import { USUAL_RATES } from '@velvet-reed/core/choose';
import { OWN_CABLE, readAdapters, readRoutes } from '@velvet-reed/core/path';
import { ENVIRONMENTS, readHorizon } from '@velvet-reed/core/site/given';
import { GROUND_CLASSES } from '@velvet-reed/core/solver';
import { withRule, real, maybeReal, whole, line, text, choice, flag, withBlank } from '../columns';
import { tableOf } from '../table';
import { CABLE_IDS, readBy } from './shared';

/** A place to listen from, what it offers, and the line into the house. */
export const STATION = tableOf({
  label: 'station',
  columns: {
    name: line('Name'),
    latDeg: real('Latitude (degrees)', -90, 90),
    lonDeg: real('Longitude (degrees)', -180, 180),
    environment: choice('Noise class', ENVIRONMENTS),
    noiseOffsetDb: real('Noise offset (dB)', -30, 40),
    spanM: real('Longest straight run (m)', 0.1, 2000),
    heightM: real('Support height (m)', 0.1, 300),
    cableId: choice('Cable', CABLE_IDS),
    lineLengthM: real('Line length (m)', 0, 2000),
    groundId: choice(
      'Ground',
      GROUND_CLASSES.map((one) => one.id),
    ),
    /** Loss of the listener's own cable at 10 and 100 MHz, dB per 100 m; null until entered. */
    ownCableDb10: maybeReal('Own cable at 10 MHz (dB per 100 m)', 0.01, 500),
    ownCableDb100: maybeReal('Own cable at 100 MHz (dB per 100 m)', 0.01, 500),
    /** When the line into the house was laid, and when its loss was measured. */
    lineSinceMs: maybeReal('Line in use since (ms)', 0, 1e14),
    lineMeasuredMs: maybeReal('Line measured (ms)', 0, 1e14),
    nothingVisible: withBlank(flag('Nothing may be visible'), false),
    lawnAllowed: withBlank(flag('The lawn may be used'), true),
    noDrilling: withBlank(flag('No drilling'), false),
    noTransmitting: withBlank(flag('No transmitting'), false),
    noStakes: withBlank(flag('No stakes or rods in the ground'), false),
    askFirst: withBlank(flag('Permission is asked first'), false),
    /** Wind that the weakest support stands, and the wind forecast, m/s. */
    windLimitMPerS: maybeReal('Wind limit (m/s)', 0, 120),
    windForecastMPerS: maybeReal('Wind forecast (m/s)', 0, 120),
    /** Adapters at hand, one a line: "SMA-m to N-f". */
    adapterBox: withRule(text('Adapters in the box'), readBy(readAdapters)),
    /** Audio and control between programs and devices, one a line: "audio: from > to, via". */
    routes: withRule(withBlank(text('Routes', 4000), ''), readBy(readRoutes)),
    /** How high the horizon stands, azimuth and elevation by commas: "0 5, 90 12"; empty: flat. */
    horizon: withRule(text('Horizon', 1000), readBy(readHorizon)),
    /** How much price, work and looks count in the ranking, 0 to 5. */
    /** What a metre of wire, tube and mast costs, and a post, in the listener's currency. */
    wirePerM: withBlank(real('Wire, a metre', 0, 1000), USUAL_RATES.wirePerM),
    tubePerM: withBlank(real('Tube, a metre', 0, 1000), USUAL_RATES.tubePerM),
    mastPerM: withBlank(real('Mast, a metre', 0, 10000), USUAL_RATES.mastPerM),
    perPost: withBlank(real('Post or pole', 0, 10000), USUAL_RATES.perPost),
    priceWeight: withBlank(whole('Weight of the price', 0, 5), 1),
    effortWeight: withBlank(whole('Weight of the work', 0, 5), 1),
    sightWeight: withBlank(whole('Weight of the looks', 0, 5), 1),
  },
  rules: (schema) =>
    schema.test(
      'own-cable',
      'Your own cable needs its loss at 10 MHz and at 100 MHz. Enter both, or choose a class.',
      (value) => value.cableId !== OWN_CABLE || (value.ownCableDb10 !== null && value.ownCableDb100 !== null),
    ),
});
