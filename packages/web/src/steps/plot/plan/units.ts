import { CoreError } from '@velvet-reed/core/errors';
import type { PlanPoint } from '@velvet-reed/core/plot';
import { parseQuantity, showLength, type ShownQuantity } from '@velvet-reed/core/units';
import { useState } from 'react';
import { localStore } from '../../../data/browser-store';

export type UnitSystem = 'metric' | 'imperial';
const STORAGE = 'velvet-reed.units';

/** Metres or feet on the plan; remembered by the browser. */
export function useUnits(): readonly [UnitSystem, (system: UnitSystem) => void] {
  const [system, setSystem] = useState<UnitSystem>(() =>
    localStore.getItem(STORAGE) === 'imperial' ? 'imperial' : 'metric',
  );
  return [
    system,
    (next) => {
      localStore.setItem(STORAGE, next);
      setSystem(next);
    },
  ];
}

const FOOT_M = 0.3048;
export const bareUnit = (system: UnitSystem): string => (system === 'imperial' ? 'ft' : 'm');
export const inSystem = (lengthM: number, system: UnitSystem): ShownQuantity => showLength(lengthM, 3, system);

/** A length as it would be typed again: metres to the centimetre, feet to the hundredth. */
export const typedIn = (lengthM: number, system: UnitSystem): string =>
  system === 'imperial' ? `${Number((lengthM / FOOT_M).toFixed(2))} ft` : `${Number(lengthM.toFixed(2))} m`;

/** Corners as text: "−17 2; 4 3" east and north in the unit system, separated by semicolons. */
export const cornersText = (points: readonly PlanPoint[], system: UnitSystem): string =>
  points
    .map((point) => point.map((value) => Number((system === 'imperial' ? value / FOOT_M : value).toFixed(2))).join(' '))
    .join('; ');

/** Reads corners; each number may carry a unit ("12.5", "3 ft"). The fault says how to type them. */
export function readCorners(
  text: string,
  system: UnitSystem,
  least: number,
): { readonly value: PlanPoint[] } | { readonly fault: string } {
  const example = 'Type east and north for each corner, like -17 2; 4 3.5.';
  const points: PlanPoint[] = [];
  for (const [i, part] of text
    .replaceAll('−', '-')
    .split(/[;\n]/)
    .map((one) => one.trim())
    .filter(Boolean)
    .entries()) {
    const match = /^([+-]?[\d.]+\s*[a-z'"]*)[\s,]+([+-]?[\d.]+\s*[a-z'"]*)$/i.exec(part);
    if (!match) return { fault: `Corner ${i + 1}, "${part}", is not a pair. ${example}` };
    try {
      const [x, y] = [match[1], match[2]].map((one) => parseQuantity(one, 'length', { bareUnit: bareUnit(system) }));
      points.push([x, y]);
    } catch (error) {
      if (error instanceof CoreError) return { fault: `Corner ${i + 1}: ${error.message}` };
      throw error;
    }
  }
  return points.length >= least
    ? { value: points }
    : { fault: `${least === 1 ? 'A position is' : `At least ${least} corners are`} needed. ${example}` };
}
