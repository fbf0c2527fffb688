import { real, line, flag, ref, maybeRef } from '../columns';
import { tableOf } from '../table';
import { FREQUENCY } from './shared';

export const guardPlans = tableOf({
  label: 'guard plan',
  columns: {
    name: line('Name'),
    /** Its power stands there. */
    transmitterId: ref('transmitters', 'Transmitter'),
    freqHz: real('Highest transmit frequency (Hz)', ...FREQUENCY),
    marginToKeepDb: real('Margin to keep (dB)', 0, 60),
    meterResolutionW: real('Wattmeter resolution (W)', 1e-6, 1e4),
  },
});

export const guardInputs = tableOf({
  label: 'receiver input',
  columns: {
    guardPlanId: ref('guardPlans', 'Guard plan'),
    name: line('Receiver input'),
    /** Its name as it was entered; counts where the antenna is not one of the station's. */
    antennaName: line('Antenna'),
    antennaId: maybeRef('antennas', 'Antenna'),
    receiverId: maybeRef('receivers', 'Receiver'),
    disconnects: flag('Disconnected while transmitting'),
    isolationDb: real('Isolation (dB)', 0, 200),
    limitDbm: real('Limit (dBm)', -60, 50),
  },
});
