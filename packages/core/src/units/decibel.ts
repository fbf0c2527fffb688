/** Power ratio of a level in dB. */
export const powerRatio = (db: number): number => 10 ** (db / 10);
/** Level in dB of a power ratio; −Infinity for 0 (callers decide what "none" means). */
export const powerDb = (ratio: number): number => 10 * Math.log10(ratio);
/** Amplitude (voltage) ratio of a level in dB, at equal impedance. */
export const amplitudeRatio = (db: number): number => 10 ** (db / 20);
/** Level in dB of an amplitude ratio, at equal impedance. */
export const amplitudeDb = (ratio: number): number => 20 * Math.log10(ratio);

/** Sum of unrelated powers given in dBm (or any common dB reference). −Infinity for an empty list. */
export const sumPowersDb = (levelsDb: readonly number[]): number =>
  powerDb(levelsDb.reduce((sum, level) => sum + powerRatio(level), 0));

/** Sum of amplitudes that all meet in phase, as the level of the sum. */
export const sumAmplitudesDb = (levelsDb: readonly number[]): number =>
  amplitudeDb(levelsDb.reduce((sum, level) => sum + amplitudeRatio(level), 0));

/** Watts to dBm. */
export const wattsToDbm = (powerW: number): number => powerDb(powerW * 1000);
/** dBm to watts. */
const dbmToWatts = (levelDbm: number): number => powerRatio(levelDbm) / 1000;

/** RMS voltage of a level across a real resistance. */
export const dbmToVoltsRms = (levelDbm: number, resistanceOhm = 50): number =>
  Math.sqrt(dbmToWatts(levelDbm) * resistanceOhm);
/** Level of an RMS voltage across a real resistance. */
export const voltsRmsToDbm = (voltsRms: number, resistanceOhm = 50): number =>
  wattsToDbm(voltsRms ** 2 / resistanceOhm);
