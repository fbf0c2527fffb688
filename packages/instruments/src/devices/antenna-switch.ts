import type { Device, Outcome } from '../scpi/instrument';
import { handCommands, type OnBench } from './hands';

/** A switch between two antennas: which is closed is the lab's, since the receiver hears it. */
export type AntennaSwitch = OnBench;

const routed = <S extends OnBench>(state: S, route: 0 | 1 | 2): Outcome<S> => ({
  state: { ...state, lab: { ...state.lab, route } },
});
const CHANNELS: Readonly<Record<number, 1 | 2>> = { 1: 1, 2: 2 };
const RANGE = '-222,"Data out of range"';

/** Closes one of two antennas onto the receiver (SCPI-1999 ROUTe): the other opens first, so that they never meet. */
export const ANTENNA_SWITCH: Device<AntennaSwitch> = {
  identity: 'Velvet Reed,stand-in antenna switch,0,1',
  reset: (state) => ({ ...state, lab: { ...state.lab, route: 0 } }),
  commands: [
    {
      pattern: ':ROUTe:CLOSe',
      query: (state, [one]) =>
        one?.kind === 'channel'
          ? { state, reply: state.lab.route === one.value ? '1' : '0' }
          : { state, fault: '-109,"Missing parameter"' },
      set: (state, [one]) => {
        if (one?.kind !== 'channel') return { state, fault: '-109,"Missing parameter"' };
        const channel = CHANNELS[one.value];
        return channel ? routed(state, channel) : { state, fault: RANGE };
      },
    },
    {
      pattern: ':ROUTe:CLOSe:STATe',
      query: (state) => ({ state, reply: state.lab.route === 0 ? '(@)' : `(@${state.lab.route})` }),
    },
    { pattern: ':ROUTe:OPEN:ALL', set: (state) => routed(state, 0) },
    ...handCommands<AntennaSwitch>(),
  ],
};
