import { dbmToDbMicrovolt } from '@velvet-reed/core/units';
import {
  formatCommands,
  numberSetting,
  numbersReply,
  PLAIN,
  spanSettings,
  type Device,
  type NumberFormat,
  wordSetting,
} from '../scpi/instrument';
import { randomFrom, type Random } from '../world/random';
import type { HeardStation, Lab, World } from '../world/lab';
import { handCommands, type OnBench } from './hands';

/** State of the spectrum receiver between two messages. */
export interface Receiver extends OnBench {
  readonly startHz: number;
  readonly stopHz: number;
  readonly points: number;
  readonly bandwidthHz: number;
  readonly attenuationDb: number;
  readonly averages: number;
  readonly format: NumberFormat;
  readonly unit: 'DBM' | 'DBUV';
}

const settings = {
  startHz: 70e3,
  stopHz: 90e3,
  points: 401,
  bandwidthHz: 100,
  attenuationDb: 0,
  averages: 50,
  format: PLAIN,
  unit: 'DBM',
} as const;
const range = { least: 1e3, most: 2e9, unit: 'frequency' } as const;
const LIMITS = {
  start: { ...range, standard: settings.startHz },
  stop: { ...range, standard: settings.stopHz },
};
export const startReceiver = (lab: Lab): Receiver => ({ lab, ...settings });

/** Thermal noise at 290 K, dBm per Hz. */
const THERMAL = -174;
/** Noise figure of the receiver itself, dB. */
const NOISE_FIGURE_DB = 12;
/** Noise from outside at the antenna, dB above thermal noise, without the source. */
const OUTSIDE_DB = 30;

const mw = (dbm: number): number => 10 ** (dbm / 10);
/** Frequencies and levels of what the amplifier makes of two strong stations, second and third order, dBm at its input. */
function products(world: World, stations: readonly HeardStation[]): readonly HeardStation[] {
  const { iip2Dbm, iip3Dbm } = world.amplifier;
  return stations.flatMap((a, i) => [
    { freqHz: 2 * a.freqHz, levelDbm: 2 * a.levelDbm - iip2Dbm - 6 },
    ...stations.flatMap((b, j) => [
      ...(j > i
        ? [a.freqHz + b.freqHz, Math.abs(a.freqHz - b.freqHz)].map((freqHz) => ({
            freqHz,
            levelDbm: a.levelDbm + b.levelDbm - iip2Dbm,
          }))
        : []),
      ...(j === i
        ? []
        : [{ freqHz: Math.abs(2 * a.freqHz - b.freqHz), levelDbm: 2 * a.levelDbm + b.levelDbm - 2 * iip3Dbm }]),
    ]),
  ]);
}

/** Power in one bin, mW, before the detector's scatter. */
function power({ lab, bandwidthHz, attenuationDb }: Receiver, freqHz: number, lines: readonly HeardStation[]): number {
  const { coil, amplifier } = lab.world;
  const gain = mw(amplifier.gainDb - attenuationDb);
  const off = coil.q * (freqHz / coil.freqHz - coil.freqHz / freqHz);
  const source = lab.noiseSource ? coil.riseRatio / (1 + off * off) : 0;
  const outside = mw(THERMAL + OUTSIDE_DB + throughSwitch(lab).noiseDb + 10 * Math.log10(bandwidthHz)) * (1 + source);
  const own = mw(THERMAL + amplifier.noiseFigureDb + 10 * Math.log10(bandwidthHz));
  const receiver = mw(THERMAL + NOISE_FIGURE_DB + 10 * Math.log10(bandwidthHz));
  const heard = lines.reduce((sum, line) => {
    const away = (freqHz - line.freqHz) / (0.5 * bandwidthHz);
    return Math.abs(away) > 6 ? sum : sum + mw(line.levelDbm) * Math.exp(-Math.LN2 * away * away);
  }, 0);
  return gain * (outside + own + heard) + receiver;
}

/** Scatter of a detector that averages n looks at noise: χ² with 2n degrees of freedom, here by its normal limit in dB. */
const scatterDb = (averages: number, random: Random): number => (4.343 / Math.sqrt(averages)) * random.normal();

/** Signal and noise on the second antenna against the first, dB: weaker, quieter, and ahead in SNR by their difference. */
const SECOND = { signalDb: -10, noiseDb: -13.5 };
/** Through an open switch. */
const OPEN_DB = -60;
/** The distant station at its median, dBm, and how deep it fades, dB. */
const DISTANT_DBM = -92;
const FADE_DB = 3;

/** What the switch lets through, as it stands, dB. */
const throughSwitch = ({ route }: Lab): { readonly signalDb: number; readonly noiseDb: number } =>
  route === 0 ? { signalDb: OPEN_DB, noiseDb: OPEN_DB } : route === 2 ? SECOND : { signalDb: 0, noiseDb: 0 };

/** The station that a person tuned to: it fades slowly, alike on both antennas. */
const distant = ({ distantHz, sweepsDone }: Lab): readonly HeardStation[] =>
  distantHz === 0 ? [] : [{ freqHz: distantHz, levelDbm: DISTANT_DBM + FADE_DB * Math.sin(sweepsDone / 5) }];

function trace(state: Receiver): { readonly lab: Lab; readonly values: Float64Array } {
  const { lab, startHz, stopHz, points, averages } = state;
  const { signalDb } = throughSwitch(lab);
  const all = [...lab.world.stations, ...distant(lab), ...products(lab.world, lab.world.stations)];
  const lines = all.map((line) => ({ ...line, levelDbm: line.levelDbm + signalDb }));
  const random = randomFrom(lab.seed + 104729 + lab.sweepsDone * 6007);
  const values = Float64Array.from({ length: points }, (_, i) => {
    const freq = startHz + ((stopHz - startHz) * i) / Math.max(1, points - 1);
    return 10 * Math.log10(power(state, freq, lines)) + scatterDb(averages, random);
  });
  return { lab: { ...lab, sweepsDone: lab.sweepsDone + 1 }, values };
}

const inUnit = (values: Float64Array, unit: Receiver['unit']): Float64Array =>
  unit === 'DBM' ? values : values.map(dbmToDbMicrovolt);

/** A receiver that gives spectra, dBm per resolution bandwidth. */
export const RECEIVER: Device<Receiver> = {
  identity: 'Velvet Reed,stand-in receiver,0,1',
  reset: (state) => ({ ...state, ...settings }),
  commands: [
    ...spanSettings<Receiver>((state, change) => ({ ...state, ...change }), LIMITS),
    numberSetting(
      '[:SENSe]:SWEep:POINts',
      (s) => s.points,
      (s, points) => ({ ...s, points: Math.round(points) }),
      { least: 2, most: 20001, standard: settings.points },
    ),
    numberSetting(
      '[:SENSe]:BANDwidth[:RESolution]',
      (s) => s.bandwidthHz,
      (s, bandwidthHz) => ({ ...s, bandwidthHz }),
      { least: 1, most: 1e6, standard: settings.bandwidthHz, unit: 'frequency' },
    ),
    numberSetting(
      '[:SENSe]:AVERage:COUNt',
      (s) => s.averages,
      (s, averages) => ({ ...s, averages: Math.round(averages) }),
      { least: 1, most: 9999, standard: settings.averages },
    ),
    numberSetting(
      ':INPut:ATTenuation',
      (s) => s.attenuationDb,
      (s, attenuationDb) => ({ ...s, attenuationDb }),
      { least: 0, most: 60, standard: settings.attenuationDb, unit: 'ratio' },
    ),
    wordSetting<Receiver, Receiver['unit']>(
      ':UNIT:POWer',
      { DBM: 'DBM', DBUV: 'DBUV' },
      (s) => s.unit,
      (s, unit) => ({ ...s, unit }),
    ),
    {
      pattern: ':READ',
      query: (state) => {
        if (!(state.startHz < state.stopHz)) return { state, fault: '-221,"Settings conflict; start lies above stop"' };
        const { lab, values } = trace(state);
        return { state: { ...state, lab }, reply: numbersReply(inUnit(values, state.unit), state.format) };
      },
    },
    ...formatCommands<Receiver>(),
    ...handCommands<Receiver>(),
  ],
};
