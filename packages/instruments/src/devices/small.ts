import { numberSetting, type Device, wordSetting } from '../scpi/instrument';
import { randomFrom } from '../world/random';
import { arriving, loopDbm } from '../world/range';
import type { Box, Lab } from '../world/lab';
import { handCommands, type OnBench } from './hands';

/** A turntable: where it stands is the lab's, since the power meter sees it. */
export type Turntable = OnBench;

/** Its cable lets it turn so far from the mark, degrees. */
const CABLE = { least: -10, most: 370, standard: 0, unit: 'angle' } as const;
/** So far it turns from one question about its place to the next, degrees: nobody asks, nothing turns. */
const TURNS_DEG = 30;

const turning = (lab: Lab): Lab => ({
  ...lab,
  azimuthDeg: lab.azimuthDeg + Math.max(-TURNS_DEG, Math.min(TURNS_DEG, lab.targetDeg - lab.azimuthDeg)),
});

/** Turns the antenna under test; azimuth in degrees, clockwise from the mark, not wrapped: its cable ends somewhere. */
export const TURNTABLE: Device<Turntable> = {
  identity: 'Velvet Reed,stand-in turntable,0,1',
  reset: (state) => state,
  commands: [
    {
      ...numberSetting<Turntable>(
        ':POSition:AZIMuth[:TARGet]',
        (s) => s.lab.azimuthDeg,
        (s, targetDeg) => ({ ...s, lab: { ...s.lab, targetDeg } }),
        CABLE,
      ),
      query: (state) => {
        const lab = turning(state.lab);
        return { state: { ...state, lab }, reply: String(Math.round(10 * lab.azimuthDeg) / 10) };
      },
    },
    {
      pattern: ':POSition:STOP',
      set: (state) => ({ state: { ...state, lab: { ...state.lab, targetDeg: state.lab.azimuthDeg } } }),
    },
    {
      pattern: ':POSition:HOME',
      query: (state) => ({ state, reply: state.lab.homed ? '1' : '0' }),
      set: (state) => ({ state: { ...state, lab: { ...state.lab, azimuthDeg: 0, targetDeg: 0, homed: true } } }),
    },
    ...handCommands<Turntable>(),
  ],
};

/** State of the power meter. */
export interface PowerMeter extends OnBench {
  readonly freqHz: number;
  readonly unit: 'DBM' | 'W';
}

/** Level with the antenna towards the transmitter, dBm, and what the meter hears of itself. */
const FORWARD_DBM = -22.2;
const METER_FLOOR_DBM = -110;
/** What an instrument sends for a reading that it did not get (SCPI-1999 vol. 1, 7.2.1.5). */
const DROPPED = '9.91E37';

/** The source on the first antenna of a box, dBm. */
const BOXED_DBM = -60;

/** What the box lets through of the source: both antennas add with the second set as it is, a little off. */
function boxedDbm({ world }: Lab, { through, gainDb, phaseDeg }: Box): number {
  const db = world.source.onSecond.db + gainDb + world.boxOff.db;
  const amplitude = 10 ** (db / 20);
  const angle = ((world.source.onSecond.deg + phaseDeg + world.boxOff.deg) * Math.PI) / 180;
  const sum = Math.hypot(1 + amplitude * Math.cos(angle), amplitude * Math.sin(angle));
  const level = { first: 1, second: amplitude, both: sum }[through];
  return BOXED_DBM + 20 * Math.log10(Math.max(1e-6, level));
}

/** What arrives with the antenna turned as it is, dBm. */
function turnedDbm(lab: Lab): number {
  const { world, azimuthDeg, homed, sweepsDone, loopAt, box } = lab;
  const facing = azimuthDeg + (homed ? 0 : world.range.offMarkDeg);
  const level = box
    ? boxedDbm(lab, box)
    : loopAt
      ? loopDbm(world.source.eastM - loopAt.eastM, world.source.northM - loopAt.northM, facing)
      : FORWARD_DBM + 10 * Math.log10(arriving(world.azimuth, world.range, facing));
  return 10 * Math.log10(10 ** (level / 10) + 10 ** (METER_FLOOR_DBM / 10)) + world.range.driftDb * sweepsDone;
}

/** What the meter shows with nothing sent, dBm. */
const QUIET_DBM = -75;

/** What the meter shows of a transmitter next door, behind a pad and an amplifier that compresses by a third of what is over its limit. */
function leaking({ world, sent }: Lab): number {
  const power = sent && sent.powerW > 0 ? 10 * Math.log10(1000 * sent.powerW) - world.leak.lossDb - sent.padDb : -300;
  const linear = 10 * Math.log10(10 ** (power / 10) + 10 ** (QUIET_DBM / 10));
  const over = linear - world.leak.compressDbm;
  return over > 0 ? world.leak.compressDbm + over / 3 : linear;
}

/** Reads power at one frequency, dBm. */
export const POWER_METER: Device<PowerMeter> = {
  identity: 'Velvet Reed,stand-in power meter,0,1',
  reset: (state) => ({ ...state, freqHz: 868e6, unit: 'DBM' }),
  commands: [
    numberSetting(
      '[:SENSe]:FREQuency[:CW]',
      (s) => s.freqHz,
      (s, freqHz) => ({ ...s, freqHz }),
      { least: 10e3, most: 300e9, standard: 868e6, unit: 'frequency' },
    ),
    wordSetting<PowerMeter, PowerMeter['unit']>(
      ':UNIT:POWer',
      { DBM: 'DBM', W: 'W' },
      (s) => s.unit,
      (s, unit) => ({ ...s, unit }),
    ),
    {
      pattern: ':MEASure[:SCALar]:POWer[:AC]',
      query: (state) => {
        const { lab } = state;
        const scatter = 0.15 * randomFrom(lab.seed + 15485863 + lab.sweepsDone * 4241).normal();
        const dbm = (lab.sent ? leaking(lab) : turnedDbm(lab)) + scatter;
        const drops = !lab.sent && (lab.sweepsDone + 1) % lab.world.range.dropsEvery === 0;
        const shown = state.unit === 'DBM' ? dbm.toFixed(2) : (10 ** (dbm / 10) / 1000).toExponential(3);
        const reply = drops ? DROPPED : shown;
        return { state: { ...state, lab: { ...lab, sweepsDone: lab.sweepsDone + 1 } }, reply };
      },
    },
    ...handCommands<PowerMeter>(),
  ],
};

/** State of the LCR meter. */
export interface LcrMeter extends OnBench {
  readonly freqHz: number;
}

/** The coil in the clips: inductance, own capacitance, Q; and the padding capacitor beside it. */
const COIL = { henry: 9.703e-3, ownFarad: 32.9e-12, q: 85 };
const PADDING_FARAD = 390e-12;

/** Reads a coil (own capacitance makes it look larger towards its resonance) or a capacitor. */
export const LCR_METER: Device<LcrMeter> = {
  identity: 'Velvet Reed,stand-in LCR meter,0,1',
  reset: (state) => ({ ...state, freqHz: 10e3 }),
  commands: [
    numberSetting(
      ':SOURce:FREQuency[:CW]',
      (s) => s.freqHz,
      (s, freqHz) => ({ ...s, freqHz }),
      { least: 100, most: 300e3, standard: 10e3, unit: 'frequency' },
    ),
    {
      pattern: ':MEASure[:SCALar]:INDuctance',
      query: (state) => {
        const omega = 2 * Math.PI * state.freqHz;
        const error = 1 + 0.001 * randomFrom(state.lab.seed + 49979687).normal();
        return {
          state,
          reply: ((COIL.henry * error) / (1 - omega * omega * COIL.henry * COIL.ownFarad)).toExponential(4),
        };
      },
    },
    {
      pattern: ':MEASure[:SCALar]:CAPacitance',
      query: (state) => {
        const part = 1 + 0.01 * randomFrom(state.lab.seed + 67867967).normal();
        return { state, reply: (PADDING_FARAD * part).toExponential(4) };
      },
    },
    ...handCommands<LcrMeter>(),
  ],
};

export const startPowerMeter = (lab: Lab): PowerMeter => ({ lab, freqHz: 868e6, unit: 'DBM' });
export const startLcrMeter = (lab: Lab): LcrMeter => ({ lab, freqHz: 10e3 });
