import { requirePositive, requireRange } from '../errors';
import { complex, divide, magnitude, add, multiply, type Complex } from '../numeric/complex';
import { LINE_OHM } from '../line/coax';

/** A transmit-receive switch as its parts: what leaks while it is open, what shorts the receiver then, what each costs in receive. */
export interface SwitchParts {
  /** Capacitance of the open series contact, F. */
  readonly offFarad: number;
  /** Resistance of the closed contact that shorts the receiver, Ω; null where there is none. */
  readonly shuntOhm: number | null;
  /** Resistance of the closed series contact, Ω. */
  readonly onOhm: number;
  /** Capacitance of the open shunt contact, F. */
  readonly shuntFarad: number;
}

/** Loss of a series impedance and a shunt admittance behind it, between two 50 Ω, dB. */
function lossDb(series: Complex, shunt: Complex): number {
  // A = 1 + ZY, B = Z, C = Y, D = 1: S21 = 2/(A + B/Z₀ + C·Z₀ + D); Pozar sec. 4.4
  const sum = add(
    add(complex(2), multiply(series, shunt)),
    add(divide(series, complex(LINE_OHM)), multiply(shunt, complex(LINE_OHM))),
  );
  return 20 * Math.log10(magnitude(sum) / 2);
}

/** Isolation while transmitting and loss while receiving of a switch between 50 Ω, dB. */
export function switchLosses(parts: SwitchParts, freqHz: number) {
  requirePositive(freqHz, 'Frequency (Hz)');
  requirePositive(parts.offFarad, 'Capacitance of the open contact (F)');
  requireRange(parts.onOhm, 'Resistance of the closed contact (ohm)', 0);
  requireRange(parts.shuntFarad, 'Capacitance of the open shunt (F)', 0);
  if (parts.shuntOhm !== null) requirePositive(parts.shuntOhm, 'Resistance of the closed shunt (ohm)');
  const omega = 2 * Math.PI * freqHz;
  return {
    isolationDb: lossDb(
      complex(0, -1 / (omega * parts.offFarad)),
      complex(parts.shuntOhm === null ? 0 : 1 / parts.shuntOhm),
    ),
    receiveLossDb: lossDb(complex(parts.onOhm), complex(0, omega * parts.shuntFarad)),
  };
}
