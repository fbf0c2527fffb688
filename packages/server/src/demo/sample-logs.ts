import { repeatableNoise } from './sample-noise';

const SENDERS = 40;

/** Where the invented senders lie: open sea to the south and east, by locator. */
const SEAS = ['IH90', 'HG83', 'JE25', 'KF41', 'IE77', 'JD08', 'GH12', 'LF36'];

/**
 * A night of decodes in place of a decoding program's: invented senders in open sea, more of them and stronger towards midnight. The same night and
 * the same transmissions on another antenna: a shift in SNR, and what falls below the weakest is missed.
 * @param fromMs first evening hour, UTC. @returns CSV with time, frequency, SNR, who, where and mode, one row per decode.
 */
export function nightOfDecodes(
  fromMs: number,
  hours: number,
  perHour: number,
  { shiftDb = 0, seed = 20260310 }: { readonly shiftDb?: number; readonly seed?: number } = {},
): string {
  const noise = repeatableNoise(seed);
  const own = repeatableNoise(seed + 1 + Math.round(10 * shiftDb));
  const rows = Array.from({ length: hours * perHour }, (_, i) => {
    const hour = i / perHour;
    const opening = Math.sin((Math.PI * hour) / hours);
    const snrDb = -22 + 16 * opening + 7 * noise() + shiftDb + (shiftDb === 0 ? 0 : 1.5 * own());
    const sender = Math.floor((SENDERS / 2) * (noise() + 1)) + 1;
    const atMs = fromMs + 15_000 * Math.round((hour * 3_600_000) / 15_000);
    const freqHz = 7_040_000 + 15 * Math.round(100 * noise());
    const time = new Date(atMs).toISOString().slice(0, 19).replace('T', ' ');
    const locator = SEAS[sender % SEAS.length];
    return {
      snrDb,
      row: `${time},${freqHz},${snrDb.toFixed(0)},beacon ${String(sender).padStart(2, '0')},${locator},weak-signal`,
    };
  });
  // nothing weaker decodes
  const heard = rows.filter(({ snrDb }) => snrDb >= -18).map(({ row }) => row);
  // one that no other station was near, once, at the limit: what a false decode looks like
  const odd = new Date(fromMs + 3_600_000 * Math.floor(hours / 2) + 7_500).toISOString().slice(0, 19).replace('T', ' ');
  return [
    'time_UTC,freq_Hz,snr_dB,sender,locator,mode',
    ...heard,
    ...(shiftDb === 0 ? [`${odd},7040300,-18,beacon 99,QF56,weak-signal`] : []),
  ].join('\n');
}

/** A loop walked round with a small source: a figure of eight whose nulls a little tilt fills, with a reading's scatter. @returns CSV of angle and level. */
export function loopPattern(stepDeg: number): string {
  const noise = repeatableNoise(77);
  const rows = Array.from({ length: 360 / stepDeg }, (_, i) => {
    const angleDeg = i * stepDeg;
    const field = Math.hypot(Math.cos(((angleDeg - 20) * Math.PI) / 180), 0.06);
    return `${angleDeg},${(20 * Math.log10(field) + 0.4 * noise()).toFixed(1)}`;
  });
  return ['azimuth_deg,level_dB', ...rows].join('\n');
}

/** Days and hours of a spring's floor. */
const SPRING_DAYS = 6;

/**
 * The floor of a week, hour by hour, in place of a logging receiver's: it breathes with the day, scatters, and in the later year stands 2.5 dB higher in
 * the evening. @returns CSV of time and level.
 */
export function springFloor(fromMs: number, year: number): string {
  const noise = repeatableNoise(40 + year);
  const rows = Array.from({ length: 24 * SPRING_DAYS }, (_, i) => {
    const atMs = fromMs + 3_600_000 * i;
    const hour = new Date(atMs).getUTCHours();
    const evening = hour >= 16 && hour < 20 ? 2.5 * year : 0;
    const levelDbm = -118 + 1.5 * Math.cos((Math.PI * (hour - 2)) / 12) + evening + 0.8 * noise();
    return `${new Date(atMs).toISOString().slice(0, 19).replace('T', ' ')},${levelDbm.toFixed(1)}`;
  });
  return ['time_UTC,level_dBm', ...rows].join('\n');
}
