import { ANTENNA_KINDS, type KindId, startDesign, wireModel } from '@velvet-reed/core/antenna';
import { CoreError } from '@velvet-reed/core/errors';
import { cableClass } from '@velvet-reed/core/line';
import { groundClass } from '@velvet-reed/core/solver';
import type { Command, Outcome } from '../scpi/instrument';
import { exerciseWorld, startLab, worldOf, type Box, type Lab, type Meant, type Plugged } from '../world/lab';

/** A stand-in's state: the bench that all share, beside its own settings. */
export interface OnBench {
  readonly lab: Lab;
}

const PLUGS: Readonly<Record<string, Plugged>> = {
  ANT: 'antenna',
  ANTENNA: 'antenna',
  OPEN: 'open',
  SHOR: 'short',
  SHORT: 'short',
  LOAD: 'load',
};
const ILLEGAL = '-224,"Illegal parameter value"';

const withLab = <S extends OnBench>(state: S, lab: Partial<Lab>): S => ({ ...state, lab: { ...state.lab, ...lab } });
const isThrough = (word: string | undefined): word is Box['through'] =>
  word === 'first' || word === 'second' || word === 'both';
/** The loop is on the meter, no box before it, and nobody sends next door. */
function withoutBox<S extends OnBench>(state: S, lab: Partial<Lab>): S {
  const { box: _box, sent: _sent, ...rest } = state.lab;
  return { ...state, lab: { ...rest, ...lab } };
}
const isKind = (word: string): word is KindId => ANTENNA_KINDS.some((kind) => kind.id === word);

/**
 * "half-wave-dipole 9650000 0.002 average pe5 25 lengthM=14.9": a design with its ground, cable and length of cable in words, so that what is
 * built follows from the listener's own draft. @throws CoreError for what cannot be built.
 */
function meantBy(text: string): Meant | undefined {
  const [kind = '', freq, diameter, groundId = 'free', cableId = 'pe5', lineM = '15', ...pairs] = text
    .trim()
    .split(/\s+/);
  if (!isKind(kind)) return undefined;
  const dimensions = Object.fromEntries(
    pairs.map((pair) => pair.split('=')).map(([name, value]) => [name, Number(value)] as const),
  );
  const start = startDesign(kind, Number(freq));
  const design = { ...start, diameterM: Number(diameter) || start.diameterM, dimensions };
  return {
    model: wireModel(design, groundClass(groundId).ground),
    aboutHz: design.freqHz,
    line: { ...cableClass(cableId), lengthM: Number(lineM) },
  };
}

/**
 * What a person's hands do at a real bench, as commands of their own subsystem: plug a standard or the antenna on, hang up the listener's
 * antenna, switch the noise source, begin an exercise. A real instrument refuses them (−113).
 */
export const handCommands = <S extends OnBench>(): readonly Command<S>[] => [
  {
    pattern: ':STANdin:CONNect',
    query: (state) => ({ state, reply: state.lab.plugged.toUpperCase() }),
    set: (state, [one]) => {
      const plugged = one?.kind === 'word' ? PLUGS[one.value] : undefined;
      return plugged ? { state: withLab(state, { plugged }) } : { state, fault: ILLEGAL };
    },
  },
  {
    pattern: ':STANdin:NOISe',
    query: (state) => ({ state, reply: state.lab.noiseSource ? '1' : '0' }),
    set: (state, [one]) => {
      const on = one?.kind === 'number' ? one.value !== 0 : one?.kind === 'word' ? one.value === 'ON' : undefined;
      return on === undefined ? { state, fault: ILLEGAL } : { state: withLab(state, { noiseSource: on }) };
    },
  },
  {
    pattern: ':STANdin:ANTenna',
    set: (state, [one, seed]): Outcome<S> => {
      try {
        const meant = one?.kind === 'text' ? meantBy(one.value) : undefined;
        if (!meant) return { state, fault: ILLEGAL };
        const world = worldOf(meant, seed?.kind === 'number' ? seed.value : state.lab.world.seed);
        // the table stays as it stands; another antenna is on it
        const { plugged, azimuthDeg, targetDeg, homed } = state.lab;
        return { state: { ...state, lab: { ...startLab(world), plugged, azimuthDeg, targetDeg, homed } } };
      } catch (error) {
        if (!(error instanceof CoreError)) throw error;
        return { state, fault: '-220,"Parameter error; this antenna cannot be built"' };
      }
    },
  },
  {
    pattern: ':STANdin:EXERcise',
    query: (state) => ({ state, reply: String(state.lab.world.aboutHz) }),
    set: (state, [one]) =>
      one?.kind === 'number'
        ? { state: { ...state, lab: startLab(exerciseWorld(one.value)) } }
        : { state, fault: ILLEGAL },
  },
  {
    pattern: ':STANdin:STATe',
    query: (state) => ({ state, reply: state.lab.faulty ? 'AFT' : 'BEF' }),
    set: (state, [one]) => {
      const faulty =
        one?.kind === 'word' ? { BEF: false, BEFORE: false, AFT: true, AFTER: true }[one.value] : undefined;
      return faulty === undefined ? { state, fault: ILLEGAL } : { state: withLab(state, { faulty }) };
    },
  },
  {
    pattern: ':STANdin:DISTant',
    query: (state) => ({ state, reply: String(state.lab.distantHz) }),
    set: (state, [one]) =>
      one?.kind === 'number' && one.value >= 0 && one.value <= 3e11
        ? { state: withLab(state, { distantHz: one.value }) }
        : { state, fault: ILLEGAL },
  },
  {
    pattern: ':STANdin:TRANsmit',
    query: (state) => ({ state, reply: String(state.lab.sent?.powerW ?? 0) }),
    set: (state, [power, pad]) =>
      power?.kind === 'number' &&
      pad?.kind === 'number' &&
      power.value >= 0 &&
      power.value <= 1e4 &&
      pad.value >= 0 &&
      pad.value <= 120
        ? { state: withLab(state, { sent: { powerW: power.value, padDb: pad.value } }) }
        : { state, fault: ILLEGAL },
  },
  {
    // carries a loop to a place and sets it on the table
    pattern: ':STANdin:PLACe',
    set: (state, [east, north]) =>
      east?.kind === 'number' && north?.kind === 'number' && Math.abs(east.value) <= 1e4 && Math.abs(north.value) <= 1e4
        ? { state: withoutBox(state, { loopAt: { eastM: east.value, northM: north.value } }) }
        : { state, fault: ILLEGAL },
  },
  {
    pattern: ':STANdin:BOX',
    set: (state, [through, gain, phase]) => {
      const open =
        through?.kind === 'word' ? { FIRS: 'first', SECO: 'second', BOTH: 'both' }[through.value] : undefined;
      return isThrough(open) && gain?.kind === 'number' && phase?.kind === 'number'
        ? { state: withoutBox(state, { box: { through: open, gainDb: gain.value, phaseDeg: phase.value } }) }
        : { state, fault: ILLEGAL };
    },
  },
  {
    pattern: ':STANdin:TRUTh',
    query: (state) => {
      const { fault, feed, source } = state.lab.world;
      const place = `${source.eastM.toFixed(1)},${source.northM.toFixed(1)}`;
      return { state, reply: `${fault.kind},${fault.lengthFactor},${fault.lossFactor},${feed.lengthM},${place}` };
    },
  },
];
