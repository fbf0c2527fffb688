import { alongLine, reflectionOf, renormalise } from '@velvet-reed/core/line';
import { add, complex, type Complex, divide } from '@velvet-reed/core/numeric';
import { SPEED_OF_LIGHT_M_PER_S } from '@velvet-reed/core/units';
import type { AntennaTruth } from './antenna';

/** What the listener cannot see between plug and wire. */
export interface HiddenFeed {
  readonly impedanceOhm: number;
  readonly velocityFactor: number;
  readonly lengthM: number;
  /** Matched loss k1·√f + k2·f, dB per 100 m with f in MHz. */
  readonly k1: number;
  readonly k2: number;
  /** The plug at the antenna: inductance in series, capacitance across. */
  readonly plugHenry: number;
  readonly plugFarad: number;
  readonly joint: 'sound' | 'open' | 'shorted';
}

/** Fringe of an open end and resistance of a whisker: nothing is ideal outdoors. */
const FRINGE_FARAD = 0.4e-12;
const WHISKER_OHM = 0.4;

/** What hangs at the far end of the cable at one frequency. */
function endImpedance(feed: HiddenFeed, antenna: Complex, freqHz: number): Complex {
  const omega = 2 * Math.PI * freqHz;
  const behind =
    feed.joint === 'open'
      ? complex(1, -1 / (omega * FRINGE_FARAD))
      : feed.joint === 'shorted'
        ? complex(WHISKER_OHM, omega * 5e-9)
        : antenna;
  const series = add(behind, complex(0, omega * feed.plugHenry));
  const across = divide(complex(1), complex(0, omega * feed.plugFarad));
  return divide(
    complex(series.re * across.re - series.im * across.im, series.re * across.im + series.im * across.re),
    add(series, across),
  );
}

/** Reflections on 50 Ω at the near end of the cable. */
export function reflectionsAt(antenna: AntennaTruth, feed: HiddenFeed, freqHz: Float64Array) {
  const z = antenna(freqHz);
  const re = new Float64Array(freqHz.length);
  const im = new Float64Array(freqHz.length);
  freqHz.forEach((freq, i) => {
    const end = endImpedance(feed, complex(z.re[i], z.im[i]), freq);
    const lossDb = ((feed.k1 * Math.sqrt(freq / 1e6) + feed.k2 * (freq / 1e6)) * feed.lengthM) / 100;
    const wavelengths = (freq * feed.lengthM) / (feed.velocityFactor * SPEED_OF_LIGHT_M_PER_S);
    const near = renormalise(
      alongLine(reflectionOf(end, feed.impedanceOhm), lossDb, wavelengths),
      feed.impedanceOhm,
      50,
    );
    re[i] = near.re;
    im[i] = near.im;
  });
  return { re, im };
}
