/** Numbers as a person would type them again, for the start values of forms; SI in, text with unit out. */
const trim = (value: number, digits = 7): string => String(Number(value.toPrecision(digits)));

export const typedFrequency = (freqHz: number): string =>
  freqHz >= 1e9
    ? `${trim(freqHz / 1e9)} GHz`
    : freqHz >= 1e6
      ? `${trim(freqHz / 1e6)} MHz`
      : freqHz >= 1e3
        ? `${trim(freqHz / 1e3)} kHz`
        : `${trim(freqHz)} Hz`;

export const typedLength = (lengthM: number): string =>
  lengthM >= 1000
    ? `${trim(lengthM / 1000, 5)} km`
    : lengthM >= 0.5
      ? `${trim(lengthM, 5)} m`
      : `${trim(lengthM * 1000, 5)} mm`;

export const typedPower = (powerW: number): string =>
  powerW >= 1000 ? `${trim(powerW / 1000)} kW` : `${trim(powerW)} W`;
export const typedNumber = (value: number): string => trim(value);
