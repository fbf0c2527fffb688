import { OutOfRangeError } from '../errors';
import type { Point, PlaceOnWire, Wire } from '../solver/model';
import { COPPER_CONDUCTIVITY_S_PER_M } from '../units/constants';
import { wavelengthM } from '../units/wavelength';
import type { Design, Dimensions, Parameter, PlaceRoom } from './kind';

/** Sleeve of ordinary hook-up wire. Assumed: PVC of 0.5 mm. */
const SLEEVE_M = 0.0005;
const SLEEVE_PERMITTIVITY = 3;
const SLEEVE_LOSS_TANGENT = 0.02;

/** All dimensions of a design by name: set ones as set, the others by closed form. */
export function dimensionsOf(parameters: readonly Parameter[], design: Design): Dimensions {
  const out: Record<string, number> = {};
  for (const parameter of parameters)
    out[parameter.id] = design.dimensions[parameter.id] ?? parameter.start(design, out);
  return out;
}

/** Units that dimensions are kept in. */
const UNIT: Readonly<Partial<Record<Parameter['dimension'], string>>> = { length: ' m', angle: '°', frequency: ' Hz' };

/** Refuses a dimension outside its range, the first one in order. @throws OutOfRangeError naming it. */
export function checkDimensions(parameters: readonly Parameter[], design: Design): void {
  const values: Record<string, number> = {};
  for (const parameter of parameters) {
    const { id, label, least, most, whole, dimension } = parameter;
    const unit = UNIT[dimension] ?? '';
    // closed forms of later dimensions lean on earlier ones: those must be sound first
    const value = design.dimensions[id] ?? parameter.start(design, values);
    values[id] = value;
    if (!Number.isFinite(value) || value < least || value > most)
      throw new OutOfRangeError(
        `${label} is ${Number.isFinite(value) ? `${Number(value.toPrecision(4))}${unit}` : 'not a number'}; it must be between ${least}${unit} and ${most}${unit}. Correct that value.`,
        id,
      );
    if (whole && !Number.isInteger(value))
      throw new OutOfRangeError(`${label} must be a whole number. Correct it.`, id);
  }
}

type Start = Parameter['start'];
const as = (start: number | Start): Start => (typeof start === 'number' ? () => start : start);

export const lengthParameter = (
  id: string,
  label: string,
  start: number | Start,
  more: Partial<Pick<Parameter, 'least' | 'most' | 'hint' | 'bareUnit'>> = {},
): Parameter => ({ id, label, dimension: 'length', bareUnit: 'm', least: 0.001, most: 600, ...more, start: as(start) });

const setParameter =
  (dimension: Parameter['dimension'], unit: Pick<Parameter, 'bareUnit'> = {}) =>
  (id: string, label: string, start: number, least: number, most: number, hint?: string): Parameter => ({
    ...{ id, label, dimension, ...unit, least, most },
    ...(hint ? { hint } : {}),
    start: () => start,
  });
/** An angle that begins where it is said. */
export const angleParameter = setParameter('angle', { bareUnit: '°' });
/** A number without unit that begins where it is said. */
export const plainParameter = setParameter('plain');

export const countParameter = (id: string, label: string, start: number, least: number, most: number): Parameter => ({
  id,
  label,
  dimension: 'plain',
  least,
  most,
  whole: true,
  start: () => start,
});

/** Something that is so or not: 1 or 0, asked as yes or no. */
export const yesNoParameter = (id: string, label: string): Parameter => ({
  ...countParameter(id, label, 0, 0, 1),
  yesNo: true,
});

/** Parameters that count with the dimensions as they are: a fan of three pairs has no fourth band. */
export const parametersInUse = (parameters: readonly Parameter[], d: Partial<Dimensions>): readonly Parameter[] =>
  parameters.filter(({ counts }) => counts === undefined || counts(filled(d)));

const filled = (d: Partial<Dimensions>): Dimensions =>
  Object.fromEntries(Object.entries(d).flatMap(([id, value]) => (value === undefined ? [] : [[id, value]])));

/** Height over ground of the feed or of a level wire: half a wave, as far as an ordinary mast goes. */
export const heightParameter = (label = 'Height of the feed', most = 200): Parameter =>
  lengthParameter('heightM', label, (design) => Math.min(9, Math.max(0.6, wavelengthM(design.freqHz) / 2)), {
    least: 0.01,
    most,
    hint: 'over ground',
  });

/** Hung from the top of the support, or set on it. */
export const onSupport = (_: Dimensions, __: Design, room: PlaceRoom): Dimensions => ({ heightM: room.heightM });

/** The same for what may stand upright: then its upper end is as high as the support. @param tallM how tall it then is. */
export const uprightOnSupport =
  (tallM: (d: Dimensions) => number) =>
  (d: Dimensions, _: Design, room: PlaceRoom): Dimensions => ({
    heightM: d.upright ? Math.max(0.05, room.heightM - tallM(d) / 2) : room.heightM,
  });

/** A conductor of the design's wire: copper, with its sleeve when insulated. */
export function conductor(design: Design, name: string, from: Point, to: Point, radiusM = design.diameterM / 2): Wire {
  return {
    name,
    from,
    to,
    radiusM,
    conductivitySPerM: COPPER_CONDUCTIVITY_S_PER_M,
    ...(design.insulated
      ? {
          insulation: {
            outerRadiusM: radiusM + SLEEVE_M,
            relPermittivity: SLEEVE_PERMITTIVITY,
            lossTangent: SLEEVE_LOSS_TANGENT,
          },
        }
      : {}),
  };
}

export const fedAt = (wire: number, position: number): readonly PlaceOnWire[] => [{ wire, position }];
