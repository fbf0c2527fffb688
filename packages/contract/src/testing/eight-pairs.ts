/** Eight alternating pairs of a worked example, [level A, noise A, level B, noise B] in dBm: SNR of A 12 8 15 4 7 9 2 9 dB, of B 15 15 14 8 12 11 9 14. */
export const EIGHT_PAIRS = [
  [-73, -85, -95, -110],
  [-76, -84, -97, -112],
  [-70, -85, -96, -110],
  [-81, -85, -103, -111],
  [-79, -86, -99, -111],
  [-75, -84, -98, -109],
  [-83, -85, -104, -113],
  [-77, -86, -98, -112],
] as const;
