/** Tests that tell the sky, the cable, the house and the receiver apart, in the order in which they are worth doing. */
const TEST_IDS = [
  'pad in',
  'dummy at the receiver',
  'dummy at the antenna’s end',
  'other leads off',
  'computer on battery',
  'choke on',
  'main switch off',
] as const;
export type NoiseTestId = (typeof TEST_IDS)[number];

/** A test and how it is done. */
export interface NoiseTest {
  readonly id: NoiseTestId;
  /** One sentence: what is changed between the two readings. */
  readonly does: string;
}

/** The tests. Common practice, no source. */
export const NOISE_TESTS: readonly NoiseTest[] = [
  {
    id: 'pad in',
    does: 'Read the noise, then put a pad of 10 dB between cable and receiver, and read again. Gain stays as it is.',
  },
  {
    id: 'dummy at the receiver',
    does: 'Read the noise, then take the cable off the receiver, put a dummy (50 Ω) in its place, and read again.',
  },
  {
    id: 'dummy at the antenna’s end',
    does: 'Read the noise, then take the antenna off the far end of its cable, put the dummy there, and read again.',
  },
  {
    id: 'other leads off',
    does: 'Read the noise, then pull every lead but the antenna and the supply: network, screen, second cable. Read again.',
  },
  {
    id: 'computer on battery',
    does: 'Read the noise, then pull the chargers of computer and receiver, run both on batteries, and read again.',
  },
  {
    id: 'choke on',
    does: 'Read the noise, then wind the cable through a ferrite core where it enters the house, and read again.',
  },
  {
    id: 'main switch off',
    does: 'Radio and computer on batteries: read the noise, then switch off the house at its main switch, and read again.',
  },
];

export const isNoiseTest = (text: string): text is NoiseTestId => TEST_IDS.some((id) => id === text);

/** Two readings of a test, dBm in the same bandwidth. */
export interface TestReading {
  readonly test: NoiseTestId;
  readonly freqHz: number;
  readonly beforeDbm: number;
  readonly afterDbm: number;
}

/** What a test proves. */
export interface TestFinding {
  readonly test: NoiseTestId;
  readonly freqHz: number;
  /** How far the noise fell, dB; negative: it rose. */
  readonly fellDb: number;
  /** Who makes the noise, as far as this test can tell. */
  readonly blames: 'receiver' | 'overload' | 'cable' | 'supply' | 'house' | 'outside' | 'nobody';
  /** What it proves, one sentence. */
  readonly proves: string;
  /** What its remedy brings here, dB; absent: there is none to be had from it. */
  readonly bringsDb?: number;
}

/** Less than this is no change, dB: two readings by eye scatter as much. */
const NO_CHANGE_DB = 1;
const PAD_DB = 10;
/** More than the pad by this is a product, dB. */
const MORE_DB = 1.5;

const db = (value: number): string => `${Math.abs(value).toFixed(Math.abs(value) < 10 ? 1 : 0)} dB`;

/** Readings at frequencies within this of each other speak of the same noise, ratio. Assumed. */
const SAME_BAND = 0.1;
const isSameBand = (a: number, b: number): boolean => Math.abs(a / b - 1) < SAME_BAND;

/** What each test proves; the tests with a dummy are read together where both were made in the same band. */
export function testFindings(readings: readonly TestReading[]): readonly TestFinding[] {
  return readings.map((reading): TestFinding => {
    const { test, freqHz, beforeDbm, afterDbm } = reading;
    const fellDb = beforeDbm - afterDbm;
    const found = (blames: TestFinding['blames'], proves: string, bringsDb?: number): TestFinding => ({
      ...{ test, freqHz, fellDb, blames, proves },
      ...(bringsDb === undefined ? {} : { bringsDb }),
    });
    if (fellDb < -NO_CHANGE_DB)
      return found('nobody', `The noise rose by ${db(fellDb)}: something else changed meanwhile. Make the test again.`);
    switch (test) {
      case 'pad in':
        if (fellDb > PAD_DB + MORE_DB)
          return found(
            'overload',
            `Noise that falls by ${db(fellDb)} behind a pad of 10 dB is made in the receiver by strong carriers: a filter for them, or less gain.`,
          );
        return fellDb > PAD_DB - 3
          ? found(
              'outside',
              'The noise falls as the pad says: it comes down the cable, and the receiver makes next to nothing.',
            )
          : found(
              'receiver',
              `The noise falls by ${db(fellDb)} only: the receiver’s own decides, and an amplifier at the antenna may help.`,
            );
      case 'dummy at the receiver':
        return fellDb < NO_CHANGE_DB
          ? found('receiver', 'The dummy changes nothing: the receiver and what is plugged into it make the noise.')
          : found(
              'outside',
              `${db(fellDb)} of the noise come down the cable: from the antenna, or from the cable itself.`,
            );
      case 'dummy at the antenna’s end': {
        const near = readings.find((one) => one.test === 'dummy at the receiver' && isSameBand(one.freqHz, freqHz));
        if (fellDb < NO_CHANGE_DB)
          return found(
            'cable',
            'Without the antenna the noise stays: the cable takes it in. A choke at both ends, or another way for the cable.',
          );
        if (!near)
          return found(
            'outside',
            `${db(fellDb)} come in by the antenna. A dummy at the receiver tells what the cable adds.`,
          );
        const cableDb = near.beforeDbm - near.afterDbm - fellDb;
        return cableDb < NO_CHANGE_DB
          ? found('outside', `All that comes, ${db(fellDb)}, comes in by the antenna: the cable is clean.`)
          : found(
              'cable',
              `${db(fellDb)} come in by the antenna; the cable alone stands ${db(cableDb)} over the receiver.`,
            );
      }
      case 'other leads off':
        return fellDb < NO_CHANGE_DB
          ? found('nobody', 'No other lead brings noise into the receiver.')
          : found('supply', 'A lead beside the antenna brings noise in: find which, and choke it.', fellDb);
      case 'computer on battery':
        return fellDb < NO_CHANGE_DB
          ? found('nobody', 'The chargers make none of the noise.')
          : found(
              'supply',
              'The chargers make the noise: a linear supply or batteries, and a choke on the lead.',
              fellDb,
            );
      case 'choke on':
        return fellDb < NO_CHANGE_DB
          ? found('nobody', 'One choke there changes nothing: the noise does not come along the screen of the cable.')
          : found(
              'cable',
              'The noise came along the screen of the cable: leave the choke on, and try a second at the antenna.',
              fellDb,
            );
      case 'main switch off':
        return fellDb < NO_CHANGE_DB
          ? found('outside', 'The noise stays with the house off: neighbours, the line in the street, or the sky.')
          : found('house', 'Your own house makes the noise: switch circuit by circuit, then device by device.', fellDb);
    }
  });
}

/** All tests together. */
export interface WhoseVerdict {
  readonly findings: readonly TestFinding[];
  readonly sentence: string;
  readonly next: string;
}

/** The latest reading of each test in the band of the latest of all: what was mended since, or heard on another band, says nothing of this noise. */
const latestOf = <T extends TestReading>(readings: readonly T[]): readonly T[] => {
  const last = readings.at(-1);
  return readings.filter(
    (one, i) =>
      last !== undefined &&
      isSameBand(one.freqHz, last.freqHz) &&
      !readings.slice(i + 1).some((later) => later.test === one.test && isSameBand(later.freqHz, last.freqHz)),
  );
};

/**
 * What decides: overload first, because it spoils every other reading; then what brings most; then what is left to try.
 * @param readings oldest first; the band of the latest counts.
 */
export function whoseNoise(readings: readonly TestReading[]): WhoseVerdict {
  const findings = testFindings(latestOf(readings));
  const undone = NOISE_TESTS.find(({ id }) => !findings.some(({ test }) => test === id));
  const next = undone
    ? `the test “${undone.id}”. ${undone.does}`
    : 'repeat the test that brought most at another hour.';
  if (findings.length === 0)
    return {
      findings,
      sentence: 'Nobody knows yet whether the sky, the cable, the house or the receiver makes the noise.',
      next,
    };
  const overload = findings.find(({ blames }) => blames === 'overload');
  if (overload)
    return {
      findings,
      sentence: overload.proves,
      next: 'stop the strong carrier in Path, then read everything again.',
    };
  const worst = findings
    .filter(({ bringsDb }) => bringsDb !== undefined)
    .sort((a, b) => (b.bringsDb ?? 0) - (a.bringsDb ?? 0))
    .at(0);
  const cable = findings.find(({ test, blames }) => test === 'dummy at the antenna’s end' && blames === 'cable');
  const best = worst ?? cable ?? findings[findings.length - 1];
  const brings = best.bringsDb === undefined ? '' : ` That brings ${db(best.bringsDb)} here.`;
  return { findings, sentence: `${best.proves}${brings}`, next };
}
