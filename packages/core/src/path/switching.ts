/** What switches a satellite converter, as it arrives there. */
export interface Switched {
  /** undefined: between the two, and either may come. */
  readonly polarisation?: 'vertical' | 'horizontal';
  /** Whether its oscillator wants the tone of 22 kHz; undefined: it is none of the two usual ones. */
  readonly tone?: boolean;
  readonly sentence: string;
  /** It does not do what is meant. */
  readonly doubt: boolean;
}

/** Volts that mean vertical and horizontal. Source: EN 61319-1 (11.5 to 14 V and 16 to 19 V), from memory. */
const VERTICAL_V = [11.5, 14] as const;
const HORIZONTAL_V = [16, 19] as const;
/** Oscillators of the two bands, Hz: without a tone and with one. Common practice, no source. */
const LOW_BAND_HZ = 9.75e9;
const HIGH_BAND_HZ = 10.6e9;
/** Oscillators are off by less than this, ratio. */
const NEAR = 1e-3;

const near = (hz: number, other: number): boolean => Math.abs(hz / other - 1) < NEAR;
const within = (volts: number, [low, high]: readonly [number, number]): boolean => volts >= low && volts <= high;

/**
 * Which polarisation and band a switched satellite converter takes: 13 V vertical, 18 V horizontal, a tone of 22 kHz for the upper oscillator.
 * @param volts that arrive at it. @param oscillatorHz that the path counts with.
 */
export function switchedBy(volts: number, oscillatorHz: number): Switched {
  const polarisation = within(volts, VERTICAL_V) ? 'vertical' : within(volts, HORIZONTAL_V) ? 'horizontal' : undefined;
  const tone = near(oscillatorHz, HIGH_BAND_HZ) ? true : near(oscillatorHz, LOW_BAND_HZ) ? false : undefined;
  const way =
    polarisation === undefined
      ? `${volts.toFixed(1)} V say neither vertical (${VERTICAL_V[0]} to ${VERTICAL_V[1]} V) nor horizontal (${HORIZONTAL_V[0]} to ${HORIZONTAL_V[1]} V): change the supply`
      : `${volts.toFixed(1)} V make it ${polarisation}`;
  const band =
    tone === undefined
      ? ''
      : tone
        ? '; its oscillator of 10.6 GHz wants a tone of 22 kHz, which a plain bias feed does not give: without it the oscillator is 9.75 GHz'
        : '; no tone, so its oscillator is 9.75 GHz';
  return {
    ...(polarisation === undefined ? {} : { polarisation }),
    ...(tone === undefined ? {} : { tone }),
    sentence: `${way}${band}.`,
    doubt: polarisation === undefined || tone === true,
  };
}
