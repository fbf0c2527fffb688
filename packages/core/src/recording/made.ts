/** Numbers from a seed: uniform in [0, 1), and normal of scatter 1. */
export interface Chance {
  readonly uniform: () => number;
  readonly normal: () => number;
}

/** Source: mulberry32, common practice, no source; normal by Box & Muller, Ann. Math. Stat. 29 (1958) 610. */
export function chanceOf(seed: number): Chance {
  // asked a million times over: the functions are held, not looked up
  const { imul, sqrt, log, cos, PI } = Math;
  let state = seed >>> 0;
  const uniform = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
  const normal = (): number => sqrt(-2 * log(1 - uniform())) * cos(2 * PI * uniform());
  return { uniform, normal };
}

/** One turn of a made recording, as it was put in. */
interface MadeTurn {
  readonly antenna: 'A' | 'B';
  readonly startS: number;
  readonly stopS: number;
  readonly levelDbfs: number;
  readonly noiseDbfs: number;
}

/** A made recording: I and Q in turn, full scale 1. */
export interface MadeRecording {
  readonly iq: Float32Array;
  readonly turns: readonly MadeTurn[];
}

/** Scatter of I and of Q while a switch clicks. */
const CLICK = 0.1;

/** How a switched recording is made up. */
export interface SwitchedAsk {
  readonly seed: number;
  readonly sampleRateHz: number;
  readonly turns: number;
  readonly periodS: number;
  readonly carrierHz: number;
  readonly bandwidthHz: number;
  /** Mean level of the carrier and noise in the bandwidth, dBFS, on A and on B. */
  readonly levelDbfs: readonly [a: number, b: number];
  readonly noiseDbfs: readonly [a: number, b: number];
  /** Depth of the fading, dB each way, and its period, s. */
  readonly fadingDb: number;
  readonly fadingS: number;
  /** Turns differ from the period by at most this share. */
  readonly jitter: number;
  /** A switch clicks this long, s. */
  readonly clickS: number;
}

/**
 * A carrier that fades in noise, heard on two antennas in turn, with clicks where they are switched: a recording whose truth is known. For
 * the demonstration and for tests.
 */
export function madeSwitched(ask: SwitchedAsk): MadeRecording {
  const { seed, sampleRateHz, turns, periodS, carrierHz, bandwidthHz } = ask;
  const chance = chanceOf(seed);
  const stops: number[] = [];
  for (let i = 0; i < turns; i += 1)
    stops.push((stops[i - 1] ?? 0) + periodS * (1 + ask.jitter * (2 * chance.uniform() - 1)));
  const count = Math.floor(stops[turns - 1] * sampleRateHz);
  const iq = new Float32Array(2 * count);
  const powers = new Float64Array(turns);
  const counts = new Float64Array(turns);
  // noise of the whole band from the noise in the measured one; half of it in I, half in Q
  const scales = ask.noiseDbfs.map((db) => Math.sqrt((10 ** (db / 10) * sampleRateHz) / bandwidthHz / 2));
  const [slow, fast] = [2 * Math.PI * chance.uniform(), 2 * Math.PI * chance.uniform()];
  const { sin, cos, PI } = Math;
  // a fade is slow: its level is taken once in so many moments
  const FADE_FRAMES = 64;
  let [turn, amplitude] = [0, 0];
  for (let i = 0; i < count; i += 1) {
    const at = i / sampleRateHz;
    const before = turn;
    while (turn < turns - 1 && at >= stops[turn]) turn += 1;
    const side = turn % 2;
    if (i % FADE_FRAMES === 0 || turn !== before) {
      const phase = (2 * PI * at) / ask.fadingS;
      const fade = ask.fadingDb * (0.7 * sin(phase + slow) + 0.3 * sin(2.15 * phase + fast));
      amplitude = 10 ** ((ask.levelDbfs[side] + fade) / 20);
    }
    powers[turn] += amplitude * amplitude;
    counts[turn] += 1;
    const angle = 2 * PI * carrierHz * at;
    const clicking = turn > 0 && at - stops[turn - 1] < ask.clickS;
    const noise = clicking ? CLICK : scales[side];
    iq[2 * i] = amplitude * cos(angle) + noise * chance.normal();
    iq[2 * i + 1] = amplitude * sin(angle) + noise * chance.normal();
  }
  return {
    iq,
    turns: stops.map((stopS, i): MadeTurn => ({
      antenna: i % 2 === 0 ? 'A' : 'B',
      startS: stops[i - 1] ?? 0,
      stopS: i === turns - 1 ? count / sampleRateHz : stopS,
      levelDbfs: 10 * Math.log10(powers[i] / counts[i]),
      noiseDbfs: ask.noiseDbfs[i % 2],
    })),
  };
}

/**
 * Values as a WAV file of 16 bits.
 * @param values full scale 1, channels in turn. Source: Multimedia Programming Interface and Data Specifications 1.0 (1991).
 */
export function wavOf(values: Float32Array, sampleRateHz: number, channels: 1 | 2): Uint8Array<ArrayBuffer> {
  const HEAD = 44;
  const bytes = new Uint8Array(HEAD + 2 * values.length);
  const view = new DataView(bytes.buffer);
  const text = (at: number, word: string): void =>
    [...word].forEach((letter, i) => view.setUint8(at + i, letter.charCodeAt(0)));
  text(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  text(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, channels, true);
  view.setUint32(24, sampleRateHz, true);
  view.setUint32(28, 2 * channels * sampleRateHz, true);
  view.setUint16(32, 2 * channels, true);
  view.setUint16(34, 16, true);
  text(36, 'data');
  view.setUint32(40, 2 * values.length, true);
  values.forEach((value, i) =>
    view.setInt16(HEAD + 2 * i, Math.max(-32768, Math.min(32767, Math.round(32767 * value))), true),
  );
  return bytes;
}
