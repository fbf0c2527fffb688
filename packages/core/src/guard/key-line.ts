import { requirePositive } from '../errors';
import { fixed } from '../units/format';

/** A key line: what the radio may switch, and the coils that hang on it. */
export interface KeyLine {
  readonly supplyV: number;
  readonly coilOhm: number;
  readonly coils: number;
  /** What the radio's key line may switch, by its manual. */
  readonly mostV: number;
  readonly mostA: number;
}

/**
 * Current of the coils together, and whether the radio may switch them by itself. Whatever it is, a diode across each coil takes the voltage that
 * the coil makes when it is switched off; it lengthens the release by some milliseconds.
 * Source: Ohm's law; the diode is common practice, no source. The radio's manual decides.
 */
export function keyLine({ supplyV, coilOhm, coils, mostV, mostA }: KeyLine) {
  requirePositive(supplyV, 'Supply of the coils (V)');
  requirePositive(coilOhm, 'Resistance of a coil (ohm)');
  requirePositive(coils, 'Coils');
  requirePositive(mostV, 'Voltage that the key line may switch (V)');
  requirePositive(mostA, 'Current that the key line may switch (A)');
  const currentA = (coils * supplyV) / coilOhm;
  const fits = currentA <= mostA && supplyV <= mostV;
  const load = `${fixed(1000 * currentA, 0)} mA at ${fixed(supplyV, 0)} V`;
  return {
    currentA,
    fits,
    sentence: fits
      ? `${load}: the key line may switch that. A diode across each coil, its cathode to plus, or the first release ends the radio’s transistor.`
      : `${load}: more than the key line may switch (${fixed(1000 * mostA, 0)} mA, ${fixed(mostV, 0)} V). Put a transistor or a small relay between, a diode across each coil, its cathode to plus.`,
  };
}
