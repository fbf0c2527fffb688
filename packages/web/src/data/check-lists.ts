/** What is done before transmitting: said on the card for the shack and in the report. */
export const BEFORE_TRANSMITTING = [
  'Nobody works on an antenna; their transmitter was locked off while they did.',
  'Every antenna is plugged as drawn above; nothing else hangs on a receiver.',
  'Key line plugged and tried into the dummy load: each relay is heard.',
  'Lowest power first, one eye on the receivers; stop when anything differs.',
];

/** What is done before a storm. */
export const BEFORE_STORM = [
  'All antennas off the receivers and out of the house, before it is near.',
  'Mains plugs out. What is bonded stays bonded: arresters and earths by local code.',
];
