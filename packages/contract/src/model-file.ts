import { CoreError } from '@velvet-reed/core/errors';
import type { Ground, LumpedLoad, Point, Wire, WireModel } from '@velvet-reed/core/solver';
import { array, mixed, number, object, string, ValidationError, type InferType } from 'yup';
import { choice, flag, quantity } from './fields';

const MODEL_FORMAT = 'velvet-reed-model';
const VERSION = 1;

const pointSchema = (label: string) =>
  mixed<[number, number, number]>(
    (value): value is [number, number, number] =>
      Array.isArray(value) &&
      value.length === 3 &&
      value.every((one) => typeof one === 'number' && Number.isFinite(one)),
  )
    .typeError(`${label} must be three numbers: x, y and z in metres. Correct it.`)
    .required(`${label} is missing. Give x, y and z in metres.`);

const wireSchema = object({
  name: string().max(80),
  from: pointSchema('"from" of a wire'),
  to: pointSchema('"to" of a wire'),
  radiusM: quantity('Radius of a wire (m)', 1e-7, 10),
  conductivitySPerM: number().positive(
    'The conductivity of a wire must be above zero. Leave it out for a perfect conductor.',
  ),
  insulation: object({
    outerRadiusM: quantity('Outer radius of an insulation (m)', 1e-7, 10),
    relPermittivity: quantity('Permittivity of an insulation', 1, 1000),
    lossTangent: quantity('Loss tangent of an insulation', 0, 10),
  })
    .optional()
    .default(undefined),
});

const placeShape = {
  wire: quantity('Wire number of a port or load', 0, 1e5).integer('The wire number of a port or load must be whole.'),
  position: quantity('Position of a port or load', 0, 1),
};
const loadSchema = object({
  ...placeShape,
  ohm: number().min(0),
  henry: number().min(0),
  farad: number().min(0),
  parallel: flag('Parallel').optional(),
});

const groundSchema = object({
  type: choice('Ground', ['free', 'perfect', 'real'] as const),
  relPermittivity: number().min(1, 'The permittivity of the ground must be at least 1.'),
  conductivitySPerM: number().min(0, 'The conductivity of the ground must be at least 0.'),
}).test(
  'real',
  'Real ground needs relPermittivity and conductivitySPerM. Add them.',
  (value) => value.type !== 'real' || (value.relPermittivity !== undefined && value.conductivitySPerM !== undefined),
);

const fileSchema = object({
  format: choice('"format"', [MODEL_FORMAT] as const),
  version: number()
    .oneOf([VERSION], `This file is of a version that is not known here; version ${VERSION} is.`)
    .required(),
  freqHz: quantity('Frequency (Hz)', 1e3, 1e11),
  wires: array()
    .of(wireSchema.required())
    .min(1, 'There is no wire in the file. Add at least one.')
    .required('"wires" is missing.'),
  ports: array()
    .of(object(placeShape).required())
    .min(1, 'There is no port in the file. Say where it is fed.')
    .required('"ports" is missing.'),
  loads: array().of(loadSchema.required()).required('"loads" is missing. Give an empty list if there are none.'),
  ground: groundSchema.required('"ground" is missing.'),
}).required('The file is empty.');

type ModelFileValue = InferType<typeof fileSchema>;

/** A wire model with the frequency it is meant for. */
export interface ModelFileContent {
  readonly model: WireModel;
  readonly freqHz: number;
}

const groundOf = (ground: ModelFileValue['ground']): Ground =>
  ground.type === 'real'
    ? {
        type: 'real',
        relPermittivity: ground.relPermittivity ?? 13,
        conductivitySPerM: ground.conductivitySPerM ?? 0.005,
      }
    : { type: ground.type };

const toPoint = ([x, y, z]: readonly [number, number, number]): Point => [x, y, z];

/** A model file that cannot be read, with a sentence that says how to mend it. */
export class ModelFileError extends CoreError {
  readonly code = 'MODEL_FILE';
}

function validated(value: unknown): ModelFileValue {
  try {
    return fileSchema.validateSync(value, { strict: true });
  } catch (error) {
    if (error instanceof ValidationError) throw new ModelFileError(error.message, error.path);
    throw error;
  }
}

/** Reads a model file that is already parsed JSON. @throws ModelFileError */
export function readModelFile(value: unknown): ModelFileContent {
  const file = validated(value);
  return {
    freqHz: file.freqHz,
    model: {
      wires: file.wires.map(({ name, from, to, radiusM, conductivitySPerM, insulation }): Wire => ({
        ...(name === undefined ? {} : { name }),
        from: toPoint(from),
        to: toPoint(to),
        radiusM,
        ...(conductivitySPerM === undefined ? {} : { conductivitySPerM }),
        ...(insulation === undefined ? {} : { insulation }),
      })),
      ports: file.ports.map(({ wire, position }) => ({ wire, position })),
      loads: file.loads.map((load): LumpedLoad => ({ ...load })),
      ground: groundOf(file.ground),
    },
  };
}

/** The same as a value to write as JSON. */
export const modelFileOf = ({ model, freqHz }: ModelFileContent): object => ({
  format: MODEL_FORMAT,
  version: VERSION,
  freqHz,
  ...model,
});
