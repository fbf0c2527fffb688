import { additions } from './additions';

/** The zone whose clock an appointment keeps; those of earlier releases keep to UTC, as they did. */
export const clocksOfAppointments = additions(
  '0030-clocks-of-appointments',
  {},
  { appointments: [['zone', "TEXT NOT NULL DEFAULT ''", '""']] },
);
