import { ShapeError } from '../errors';

/** What another gain of a receiver makes of its figures. */
export interface GainSetting {
  /** "middle gain", "20 dB". */
  readonly name: string;
  readonly noiseFigureDb: number;
  readonly fullScaleDbm: number;
  /** Input intercepts; absent: nobody said, taken to move with full scale. */
  readonly iip2Dbm?: number;
  readonly iip3Dbm?: number;
}

/** Most gains that are kept of one receiver. */
export const MOST_GAINS = 12;

const within = (value: unknown, least: number, most: number): boolean =>
  typeof value === 'number' && value >= least && value <= most;
const isMaybe = (value: unknown, least: number, most: number): boolean =>
  value === undefined || within(value, least, most);

/** Whether something read is a gain of a receiver, its figures within what can be meant. */
export const isGainSetting = (value: unknown): value is GainSetting =>
  typeof value === 'object' &&
  value !== null &&
  'name' in value &&
  typeof value.name === 'string' &&
  value.name.trim() !== '' &&
  value.name.length <= 40 &&
  'noiseFigureDb' in value &&
  within(value.noiseFigureDb, 0, 80) &&
  'fullScaleDbm' in value &&
  within(value.fullScaleDbm, -100, 50) &&
  isMaybe('iip2Dbm' in value ? value.iip2Dbm : undefined, -60, 150) &&
  isMaybe('iip3Dbm' in value ? value.iip3Dbm : undefined, -60, 100);

/** Figures at a gain; an intercept that nobody said moves with full scale: both are set by the same stages. Assumed. */
export function falling(
  lowest: { readonly fullScaleDbm: number; readonly iip2Dbm: number; readonly iip3Dbm: number },
  gain: GainSetting,
): Required<Omit<GainSetting, 'name'>> {
  const moveDb = gain.fullScaleDbm - lowest.fullScaleDbm;
  return {
    ...{ noiseFigureDb: gain.noiseFigureDb, fullScaleDbm: gain.fullScaleDbm },
    iip2Dbm: gain.iip2Dbm ?? lowest.iip2Dbm + moveDb,
    iip3Dbm: gain.iip3Dbm ?? lowest.iip3Dbm + moveDb,
  };
}

/** Units that may stand behind a figure. */
const UNITS = /\s*dBm?\b/gi;

/** A figure with or without its unit; NaN for what is none. */
function figureOf(text: string): number {
  const bare = text.replaceAll('−', '-').replace(',', '.').replace(UNITS, '').trim();
  return bare === '' ? NaN : Number(bare);
}

/**
 * Gains of a receiver, one a line: name; noise figure in dB; full scale in dBm; and, where known, the second- and third-order input intercepts in dBm.
 * @throws ShapeError naming the line that is none: no row is left out in silence.
 */
export function readGainSettings(text: string): readonly GainSetting[] {
  const lines = text
    .split('\n')
    .map((line, i) => ({ line: line.trim(), number: i + 1 }))
    .filter(({ line }) => line !== '');
  if (lines.length > MOST_GAINS)
    throw new ShapeError(`${lines.length} gains are typed; at most ${MOST_GAINS} are kept. Leave some out.`);
  return lines.map(({ line, number }): GainSetting => {
    const [name, ...figures] = line.split(/[;\t]/).map((part) => part.trim());
    const [noiseFigureDb, fullScaleDbm, iip2Dbm, iip3Dbm] = figures.map(figureOf);
    const gain: unknown = {
      ...{ name, noiseFigureDb, fullScaleDbm },
      ...(figures.length > 2 ? { iip2Dbm } : {}),
      ...(figures.length > 3 ? { iip3Dbm } : {}),
    };
    if (figures.length < 2 || figures.length > 4 || !isGainSetting(gain))
      throw new ShapeError(
        `Line ${number}, “${line}”, is no gain. Write its name, noise figure and full scale, like “middle gain; 17 dB; −50 dBm”.`,
      );
    return gain;
  });
}

/** The same as somebody would have typed it. */
export const gainSettingsText = (gains: readonly GainSetting[]): string =>
  gains
    .map(({ name, noiseFigureDb, fullScaleDbm, iip2Dbm, iip3Dbm }) =>
      [name, noiseFigureDb, fullScaleDbm, iip2Dbm, iip3Dbm].filter((one) => one !== undefined).join('; '),
    )
    .join('\n');
