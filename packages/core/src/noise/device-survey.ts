import { studentQuantile } from '../numeric/special';

/** One switching-off of a device: the floor with it on and with it off, dBm. */
export interface DeviceSwitching {
  readonly device: string;
  readonly onDbm: number;
  readonly offDbm: number;
}

/** What a device adds to the floor. */
export interface DeviceEffect {
  readonly device: string;
  /** Change when it goes off, dB: negative when the floor falls. */
  readonly changesDb: readonly number[];
  readonly meanDb: number;
  /** 95 % interval of the mean; undefined for a single switching. */
  readonly low?: number;
  readonly high?: number;
  readonly verdict: 'proven' | 'unproven';
  readonly reason: string;
}

/** A smaller effect is not worth hunting, dB. Common practice, no source. */
const WORTH_DB = 1;

/**
 * Devices by what switching them off takes from the floor, largest first. A single switching proves nothing: the floor may have fallen by itself
 * at that moment; repeated ones count by Student's interval.
 */
export function deviceEffects(switchings: readonly DeviceSwitching[]): readonly DeviceEffect[] {
  const names = [...new Set(switchings.map(({ device }) => device))];
  return names
    .map((device): DeviceEffect => {
      const changesDb = switchings.filter((one) => one.device === device).map(({ onDbm, offDbm }) => offDbm - onDbm);
      const n = changesDb.length;
      const meanDb = changesDb.reduce((sum, value) => sum + value, 0) / n;
      if (n < 2)
        return {
          device,
          changesDb,
          meanDb,
          verdict: 'unproven',
          reason: 'switched once only: it may be a lucky coincidence. Switch it again.',
        };
      const sd = Math.sqrt(changesDb.reduce((sum, value) => sum + (value - meanDb) ** 2, 0) / (n - 1));
      const half = (studentQuantile(0.975, n - 1) * sd) / Math.sqrt(n);
      const proven = meanDb + half < 0 && meanDb <= -WORTH_DB;
      return {
        device,
        changesDb,
        meanDb,
        low: meanDb - half,
        high: meanDb + half,
        verdict: proven ? 'proven' : 'unproven',
        reason: proven
          ? `${n} switchings agree within ±${half.toFixed(1)} dB.`
          : meanDb > -WORTH_DB
            ? `less than ${WORTH_DB} dB: not worth hunting.`
            : `${n} switchings scatter by ±${half.toFixed(1)} dB: it may be chance. Switch it more often.`,
      };
    })
    .sort((a, b) => Number(b.verdict === 'proven') - Number(a.verdict === 'proven') || a.meanDb - b.meanDb);
}
