/** A number split for display: digits in one face, unit in another. */
export interface ShownQuantity {
  readonly digits: string;
  readonly unit: string;
}

const MINUS = '\u2212';
const sign = (text: string): string => (text.startsWith('-') ? MINUS + text.slice(1) : text);

/** Rounds to `figures` significant figures without exponent notation. */
export function significant(value: number, figures: number): string {
  if (value === 0) return '0';
  const decimals = Math.max(0, figures - 1 - Math.floor(Math.log10(Math.abs(value)) + 1e-12));
  return sign(value.toFixed(Math.min(decimals, 12)));
}

/** Rounds to a fixed number of decimals; −0 is shown as 0. */
export function fixed(value: number, decimals: number): string {
  const text = value.toFixed(decimals);
  return sign(Number(text) === 0 ? text.replace('-', '') : text);
}

/** A frequency with the prefix a listener would say: 518 kHz, 9.650 MHz, 1.09 GHz. */
export function showFrequency(freqHz: number, figures = 4): ShownQuantity {
  const size = Math.abs(freqHz);
  const [scale, unit] =
    size >= 1e9 ? [1e9, 'GHz'] : size >= 1e6 ? [1e6, 'MHz'] : size >= 1e3 ? [1e3, 'kHz'] : [1, 'Hz'];
  return { digits: significant(freqHz / Number(scale), figures), unit: String(unit) };
}

/** A length in mm, cm, m or km, or in feet and inches. */
export function showLength(lengthM: number, figures = 3, system: 'metric' | 'imperial' = 'metric'): ShownQuantity {
  if (system === 'imperial') {
    const inches = lengthM / 0.0254;
    if (Math.abs(inches) < 12) return { digits: significant(inches, figures), unit: 'in' };
    const feet = Math.floor(inches / 12);
    const rest = Math.round((inches - feet * 12) * 2) / 2;
    return rest >= 12 ? { digits: `${feet + 1}`, unit: 'ft' } : { digits: `${feet} ft ${rest}`, unit: 'in' };
  }
  const size = Math.abs(lengthM);
  if (size >= 1000) return { digits: significant(lengthM / 1000, figures), unit: 'km' };
  if (size >= 1) return { digits: significant(lengthM, figures), unit: 'm' };
  return { digits: significant(lengthM * 1000, figures), unit: 'mm' };
}

/** A power in µW, mW, W or kW. */
export function showPower(powerW: number, figures = 3): ShownQuantity {
  const size = Math.abs(powerW);
  if (size >= 1000) return { digits: significant(powerW / 1000, figures), unit: 'kW' };
  if (size >= 1 || size === 0) return { digits: significant(powerW, figures), unit: 'W' };
  if (size >= 1e-3) return { digits: significant(powerW * 1e3, figures), unit: 'mW' };
  return { digits: significant(powerW * 1e6, figures), unit: 'µW' };
}

/** A field strength in µV/m, mV/m or V/m. */
export function showField(fieldVPerM: number, figures = 3): ShownQuantity {
  const size = Math.abs(fieldVPerM);
  if (size >= 0.1 || size === 0) return { digits: significant(fieldVPerM, figures), unit: 'V/m' };
  if (size >= 1e-4) return { digits: significant(fieldVPerM * 1e3, figures), unit: 'mV/m' };
  return { digits: significant(fieldVPerM * 1e6, figures), unit: 'µV/m' };
}

/** Plain text of a shown quantity, for sentences, PDF and titles. */
export const plain = (shown: ShownQuantity): string => `${shown.digits} ${shown.unit}`;
/** "9.650 MHz" */
export const frequencyText = (freqHz: number, figures = 4): string => plain(showFrequency(freqHz, figures));
/** "7.38 m" */
export const lengthText = (lengthM: number, figures = 3): string => plain(showLength(lengthM, figures));

/** A band over so many decades has each end in its own unit. */
const WIDE = 1000;
const shortFrequency = (hz: number): string => {
  const { digits, unit } = showFrequency(hz, 7);
  return `${Number(digits)} ${unit}`;
};

/** A band as people write it, every digit that is meant and none more: "9.4 to 9.9 MHz", "161.9625 to 162.0375 MHz". */
export function bandText(lowHz: number, highHz: number): string {
  // "0.0001 to 1 GHz" is no way to write a hundred kilohertz
  if (lowHz > 0 && highHz / lowHz >= WIDE) return `${shortFrequency(lowHz)} to ${shortFrequency(highHz)}`;
  const { unit } = showFrequency(highHz);
  const scale = { Hz: 1, kHz: 1e3, MHz: 1e6, GHz: 1e9 }[unit] ?? 1;
  const exact = (hz: number): string => String(Number((hz / scale).toPrecision(7)));
  return `${exact(lowHz)} to ${exact(highHz)} ${unit}`;
}

/** The beginning of a sentence. */
export const capital = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;

/** A name as it reads inside a sentence: "V dipole" keeps its letter, "Half-wave dipole" does not. */
export const midSentence = (name: string): string =>
  /^[A-Z]\b/.test(name) ? name : name.charAt(0).toLowerCase() + name.slice(1);

const SMALL_NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'];
/** So many names are said in a sentence. */
const MOST_NAMES = 3;
/** "49 m, 31 m and VHF"; of a long list the first and how many more: "49 m, 31 m, VHF and two more". */
export function listText(names: readonly string[]): string {
  if (names.length > MOST_NAMES + 1)
    return `${names.slice(0, MOST_NAMES).join(', ')} and ${numberText(names.length - MOST_NAMES)} more`;
  return names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
}
/** A small number as a word: "two"; larger ones in digits. */
export const numberText = (count: number): string => SMALL_NUMBERS[count] ?? String(count);
/** "two arms", "one element", "12 radials"; of a thing with a number, "2 × arm 1". */
export const countText = (count: number, thing: string): string =>
  /\d$/.test(thing) ? `${count} × ${thing}` : `${numberText(count)} ${thing}${count === 1 ? '' : 's'}`;
/** The first of "name", "name 2", "name 3" that is not taken: two things of one name cannot be told apart. */
export function freeName(name: string, taken: readonly string[]): string {
  const others = new Set(taken);
  let free = name;
  for (let i = 2; others.has(free); i += 1) free = `${name} ${i}`;
  return free;
}

/** "14.0 dB" of a number; another unit where it is a level. */
export const inDb = (value: number, decimals = 1, unit = 'dB'): ShownQuantity => {
  const text = value.toFixed(decimals);
  return { digits: Number(text) === 0 ? text.replace('-', '') : text.replace('-', '−'), unit };
};
