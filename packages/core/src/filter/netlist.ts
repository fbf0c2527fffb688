import type { Branch } from './ladder';

/** A part with its name, as lists and drawings show it. */
export interface NamedPart {
  readonly name: string;
  readonly kind: 'coil' | 'capacitor';
  readonly value: number;
}

/** Parts of a ladder in order: coils L1, L2, … and capacitors C1, C2, … */
export function namedParts(branches: readonly Branch[]): readonly (readonly NamedPart[])[] {
  let coils = 0;
  let capacitors = 0;
  return branches.map(({ henry, farad }) => [
    ...(henry === undefined ? [] : [{ name: `L${(coils += 1)}`, kind: 'coil' as const, value: henry }]),
    ...(farad === undefined ? [] : [{ name: `C${(capacitors += 1)}`, kind: 'capacitor' as const, value: farad }]),
  ]);
}

/**
 * A ladder as a circuit for a general simulator (SPICE 3 format): source and load of the line's resistance, an AC sweep; the loss is
 * −20 log of twice v(out). Coils carry their resistance.
 */
export function spiceNetlist(
  branches: readonly Branch[],
  lineOhm: number,
  span: { readonly lowHz: number; readonly highHz: number; readonly pointsPerDecade: number },
  coilOhm: (henry: number) => number = () => 0,
): string {
  const lines = ['* ladder filter; loss in dB = -db(2*v(out))', 'V1 src 0 AC 1', `RS src n0 ${lineOhm}`];
  const names = namedParts(branches);
  let node = 0;
  let inner = 0;
  const element = (part: NamedPart, from: string, to: string): void => {
    if (part.kind === 'capacitor') {
      lines.push(`${part.name} ${from} ${to} ${part.value.toExponential(9)}`);
      return;
    }
    const ohm = coilOhm(part.value);
    if (ohm <= 0) {
      lines.push(`${part.name} ${from} ${to} ${part.value.toExponential(9)}`);
      return;
    }
    inner += 1;
    lines.push(
      `${part.name} ${from} x${inner} ${part.value.toExponential(9)}`,
      `R${part.name} x${inner} ${to} ${ohm.toExponential(9)}`,
    );
  };
  branches.forEach((branch, i) => {
    const from = `n${node}`;
    const to = branch.place === 'shunt' ? '0' : `n${(node += 1)}`;
    const parts = names[i];
    if (parts.length === 2 && branch.joined === 'series') {
      inner += 1;
      const middle = `m${inner}`;
      element(parts[0], from, middle);
      element(parts[1], middle, to);
    } else parts.forEach((part) => element(part, from, to));
  });
  lines.push(`Rout n${node} 0 ${lineOhm}`, `Eout out 0 n${node} 0 1`);
  lines.push(`.ac dec ${span.pointsPerDecade} ${span.lowHz} ${span.highHz}`, '.print ac vdb(out)', '.end', '');
  return lines.join('\n');
}
