import { repeatableNoise } from './sample-noise';

const SENDERS = 40;

/**
 * A night of decodes in place of a decoding program's: invented senders in open sea, more of them and stronger towards midnight.
 * @param fromMs first evening hour, UTC. @returns CSV with time, frequency, SNR, who and mode, one row per decode.
 */
export function nightOfDecodes(fromMs: number, hours: number, perHour: number): string {
  const noise = repeatableNoise(20260310);
  const rows = Array.from({ length: hours * perHour }, (_, i) => {
    const hour = i / perHour;
    const opening = Math.sin((Math.PI * hour) / hours);
    const snrDb = -22 + 16 * opening + 7 * noise();
    const sender = Math.floor((SENDERS / 2) * (noise() + 1)) + 1;
    const atMs = fromMs + 15_000 * Math.round((hour * 3_600_000) / 15_000);
    const freqHz = 7_040_000 + 15 * Math.round(100 * noise());
    const time = new Date(atMs).toISOString().slice(0, 19).replace('T', ' ');
    return `${time},${freqHz},${snrDb.toFixed(0)},beacon ${String(sender).padStart(2, '0')},weak-signal`;
  });
  return ['time_UTC,freq_Hz,snr_dB,sender,mode', ...rows].join('\n');
}

/** A loop walked round with a small source: a figure of eight whose nulls a little tilt fills, with a reading's scatter. @returns CSV of angle and level. */
export function loopPattern(stepDeg: number): string {
  const noise = repeatableNoise(77);
  const rows = Array.from({ length: 360 / stepDeg }, (_, i) => {
    const angleDeg = i * stepDeg;
    const field = Math.hypot(Math.cos(((angleDeg - 20) * Math.PI) / 180), 0.06);
    return `${angleDeg},${(20 * Math.log10(field) + 0.4 * noise()).toFixed(1)}`;
  });
  return ['angle_deg,level_dB', ...rows].join('\n');
}
