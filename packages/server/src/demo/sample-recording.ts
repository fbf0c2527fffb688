import { madeSwitched, wavOf } from '@velvet-reed/core/recording';
import { EVENING_MS } from './ferrin-point';

const SAMPLE_RATE_HZ = 4000;
const CENTRE_HZ = 9_650_000;
const CARRIER_HZ = 740;
const QUIET_HZ = -1300;
const BANDWIDTH_HZ = 400;
const TURN_S = 6;

/** The two antennas recorded in turn at dusk, some 800 kB: the loop weaker and quieter, and ahead in SNR. Made up; its truth is known. */
export function sampleRecording(): { readonly name: string; readonly bytes: Buffer; readonly said: object } {
  const { iq } = madeSwitched({
    ...{ seed: 11, sampleRateHz: SAMPLE_RATE_HZ, turns: 8, periodS: TURN_S, carrierHz: CARRIER_HZ },
    ...{ bandwidthHz: BANDWIDTH_HZ, levelDbfs: [-48, -66], noiseDbfs: [-62, -85], fadingDb: 3, fadingS: 41 },
    ...{ jitter: 0.04, clickS: 0.12 },
  });
  return {
    name: 'dusk-old-wire-and-loop.wav',
    bytes: Buffer.from(wavOf(iq, SAMPLE_RATE_HZ, 2)),
    said: {
      ...{ name: 'dusk, old wire and loop in turn', meaning: 'iq', centreHz: CENTRE_HZ, startMs: EVENING_MS },
      ...{ lengthS: iq.length / 2 / SAMPLE_RATE_HZ, sampleRateHz: SAMPLE_RATE_HZ },
      ...{ signalHz: CENTRE_HZ + CARRIER_HZ, bandwidthHz: BANDWIDTH_HZ, quietHz: CENTRE_HZ + QUIET_HZ, turnS: TURN_S },
    },
  };
}
