import type { FilterDesign, namedParts } from '@velvet-reed/core/filter';
import { windingFor } from '@velvet-reed/core/resonator';
import { fixed, significant } from '@velvet-reed/core/units';

const henryText = (henry: number): string =>
  henry < 1e-6 ? `${significant(henry * 1e9, 4)} nH` : `${significant(henry * 1e6, 4)} µH`;
const faradText = (farad: number): string =>
  farad < 1e-9 ? `${significant(farad * 1e12, 4)} pF` : `${significant(farad * 1e9, 4)} nF`;

export type Named = ReturnType<typeof namedParts>;

/** A part of a series as it is printed on: 120 pF, not 120.0. */
const partText = (farad: number): string =>
  farad < 1e-9 ? `${Number((farad * 1e12).toPrecision(3))} pF` : `${Number((farad * 1e9).toPrecision(3))} nF`;

/** A powder core of 4 nH per turn², and a coil of 8 mm in air with 1.5 mm from turn to turn. */
export const USUAL_COIL = { alHenry: 4e-9, diameterM: 0.008, pitchM: 0.0015 };
const woundText = (henry: number, coil: typeof USUAL_COIL): string => {
  const { coreTurns, coreError, airTurns, airLengthM } = windingFor(henry, coil);
  return `${coreTurns} turns on the core (${coreError < 0 ? '−' : '+'}${fixed(100 * Math.abs(coreError), 0)} %), or ${fixed(airTurns, 1)} in air over ${fixed(airLengthM * 1000, 0)} mm; trim by spacing`;
};

/** Each part with its ideal value and what it is built from. */
export function partRows(names: Named, design: FilterDesign, coil: typeof USUAL_COIL = USUAL_COIL) {
  let next = 0;
  return names.flat().map(({ name, kind, value }) => {
    if (kind === 'coil') return { name, ideal: henryText(value), real: woundText(value, coil) };
    const capacitor = design.capacitors[next];
    next += 1;
    return { name, ideal: faradText(value), real: capacitor.parts.map(partText).join(' + ') };
  });
}
