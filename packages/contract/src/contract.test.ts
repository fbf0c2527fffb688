import { describe, expect, test } from '@jest/globals';
import { Ajv2020 } from 'ajv/dist/2020';
import fc from 'fast-check';
import {
  ModelFileError,
  SCHEMAS,
  BLANK,
  RESOURCE_NAMES,
  RESOURCES,
  stationFileSchema,
  type Columns,
  STATION_BLANK,
  readBatch,
  modelFileOf,
  packRecords,
  packSamples,
  unpackRecords,
  readModelFile,
  stationSchema,
  type ModelFileContent,
  unpackSamples,
} from './index';
import { randomStation } from './testing/random-station';

const STATION = {
  name: 'Hut',
  latDeg: 50,
  lonDeg: -19,
  environment: 'rural',
  noiseOffsetDb: 0,
  spanM: 38,
  heightM: 9,
  cableId: 'pe5',
  lineLengthM: 25,
  groundId: 'average',
  ...STATION_BLANK,
};
const faults = (schema: { validateSync(value: unknown, options: object): unknown }, value: unknown): string[] => {
  try {
    schema.validateSync(value, { strict: true, abortEarly: false });
    return [];
  } catch (error) {
    return error instanceof Error && 'errors' in error && Array.isArray(error.errors)
      ? error.errors.map(String)
      : ['?'];
  }
};

test('a null where none may stand was a fault of the server (levels, subject): in every column of every table it is a sentence', () => {
  const stations = Array.from({ length: 40 }, (_, seed) => randomStation(seed + 1).lists);
  for (const name of RESOURCE_NAMES) {
    const made = stations.flatMap((lists) => lists[name] ?? []).slice(0, 25);
    const columns: Columns = RESOURCES[name].columns;
    for (const record of made.length > 0 ? made : [BLANK[name]])
      for (const column of Object.keys(columns))
        for (const wrong of [null, 7, 'x', true, [], {}, [null]])
          try {
            SCHEMAS[name].validateSync({ ...record, [column]: wrong }, { strict: true, abortEarly: false });
          } catch (error) {
            expect([name, column, wrong, error instanceof Error ? error.name : error]).toEqual([
              ...[name, column, wrong],
              'ValidationError',
            ]);
          }
  }
});

describe('sentences that say how to mend', () => {
  test('a good station passes', () => expect(faults(stationSchema, STATION)).toEqual([]));
  test.each([
    [{ ...STATION, name: '   ' }, /Name is empty\. Give it a name/],
    [{ ...STATION, latDeg: 91 }, /Latitude .* must be at most 90\. Enter a smaller value/],
    [{ ...STATION, latDeg: '50' }, /enter a number/],
    [{ ...STATION, latDeg: NaN }, /enter a (finite )?number/],
    [{ ...STATION, heightM: Infinity }, /finite number|at most/],
    [{ ...STATION, cableId: 'rope' }, /Cable must be one of/],
    [{ ...STATION, spanM: undefined }, /Longest straight run \(m\) is missing\. Enter it/],
  ])('%j', (station, sentence) => {
    expect(faults(stationSchema, station).join(' ')).toMatch(sentence);
  });
  test('edges in the wrong order and an antenna against itself', () => {
    expect(
      faults(SCHEMAS.targets, { name: 'x', lowHz: 2e6, highHz: 1e6, bandwidthHz: 500, weight: 3, ...BLANK.targets }),
    ).toEqual(['The lower edge must lie below the upper edge. Exchange the two.']);
    expect(
      faults(SCHEMAS.trials, {
        name: 'x',
        antennaAId: 1,
        antennaBId: 1,
        freqHz: 1e6,
        worthDb: 3,
        conditions: '',
      }).join(),
    ).toMatch(/are the same/);
  });
  test('what belongs together comes together: place, hours, the two figures of an own cable', () => {
    const target = { name: 'x', lowHz: 1e6, highHz: 2e6, bandwidthHz: 500, weight: 3, ...BLANK.targets };
    expect(faults(SCHEMAS.targets, { ...target, latDeg: 50, lonDeg: -19 })).toEqual([]);
    expect(faults(SCHEMAS.targets, { ...target, latDeg: 50 }).join()).toMatch(/latitude and longitude/);
    expect(faults(SCHEMAS.targets, { ...target, fromMin: 60 }).join()).toMatch(/beginning and an end/);
    expect(faults(stationSchema, { ...STATION, cableId: 'own', ownCableDb10: 4 }).join()).toMatch(/at 100 MHz/);
    expect(faults(stationSchema, { ...STATION, cableId: 'own', ownCableDb10: 4, ownCableDb100: 13 })).toEqual([]);
  });
  test('a stage has the figures of its kind, and plugs that can be read', () => {
    const stage = {
      ...BLANK.pathStages,
      ...{ pathId: 1, name: 'Hub', kind: 'splitter' },
    };
    const figures = { outputs: 4, excessDb: 0.5 };
    expect(faults(SCHEMAS.pathStages, { ...stage, figures })).toEqual([]);
    expect(faults(SCHEMAS.pathStages, { ...stage, figures: { ...figures, outputs: 1 } }).join()).toMatch(
      /Outputs must lie between 2 and 16/,
    );
    expect(faults(SCHEMAS.pathStages, stage).join()).toMatch(/Outputs is missing/);
    expect(faults(SCHEMAS.pathStages, { ...stage, figures, connectorIn: 'cheese' }).join()).toMatch(/such as N-m/);
    expect(faults(SCHEMAS.pathStages, { ...stage, kind: 'balun' }).join()).toMatch(/must be one of/);
    expect(faults(SCHEMAS.pathStages, { ...stage, figures: undefined }).join()).toMatch(/Figures are missing/);
  });
  test('a box of adapters and a part have connectors that can be read', () => {
    expect(faults(stationSchema, { ...STATION, adapterBox: 'N-m to SMA-f\n\nBNC-m to N-f' })).toEqual([]);
    expect(faults(stationSchema, { ...STATION, adapterBox: 'N-m' }).join()).toMatch(/"N-m" is no adapter/);
    const part = { connectorIn: '', connectorOut: 'N-f' };
    expect(faults(SCHEMAS.parts, part).join()).toMatch(/Connector at the antenna side is empty/);
  });
  test('a feature of the plan needs points that are pairs of metres', () => {
    const feature = {
      name: 'mast',
      kind: 'support',
      points: [[1, 2]],
      heightM: 9,
      endHeightM: 0,
      clearanceM: 0,
      widthM: 0,
      antennaId: null,
      transmitterId: null,
      attachmentId: null,
    };
    expect(faults(SCHEMAS.plotFeatures, feature)).toEqual([]);
    for (const points of [[], [[1]], [[1, 'x']], [[1, 1e9]], 'here'])
      expect(faults(SCHEMAS.plotFeatures, { ...feature, points }).join()).toMatch(/Points/);
    expect(faults(SCHEMAS.plotFeatures, { ...feature, kind: 'castle' }).join()).toMatch(/Kind must be one of/);
  });
  test('a batch needs a list of known operations', async () => {
    const one = (change: unknown) => readBatch({ changes: [change] });
    await expect(readBatch(undefined)).rejects.toThrow(/no body/);
    await expect(readBatch({ changes: [] })).rejects.toThrow(/nothing to save/);
    await expect(one({ op: 'create', resource: 'moons', values: {} })).rejects.toThrow(/Resource must be one of/);
    await expect(one({ op: 'update', resource: 'targets', values: {} })).rejects.toThrow(/(Record|Version) is missing/);
    await expect(one({ op: 'upsert' })).rejects.toThrow(/create, update or delete/);
    await expect(one(7)).rejects.toThrow(/create, update or delete/);
  });
});

test('samples survive the bytes exactly, and half a sample is refused', () => {
  const number = fc.double({ noNaN: true });
  fc.assert(
    fc.property(fc.array(fc.tuple(number, number, number), { maxLength: 30 }), (rows) => {
      const sweep = {
        freqHz: Float64Array.from(rows, (r) => r[0]),
        re: Float64Array.from(rows, (r) => r[1]),
        im: Float64Array.from(rows, (r) => r[2]),
      };
      expect(unpackSamples(packSamples(sweep), 75)).toEqual({ ...sweep, referenceOhm: 75 });
    }),
    { seed: 41 },
  );
  expect(() => unpackSamples(new Uint8Array(25), 50)).toThrow(/incomplete/);
});

describe('model file', () => {
  const model: ModelFileContent = {
    freqHz: 14.1e6,
    model: {
      wires: [
        {
          name: 'dipole',
          from: [0, -5, 9],
          to: [0, 5, 9],
          radiusM: 0.001,
          conductivitySPerM: 5.8e7,
          insulation: { outerRadiusM: 0.002, relPermittivity: 3, lossTangent: 0.02 },
        },
      ],
      ports: [{ wire: 0, position: 0.5 }],
      loads: [{ wire: 0, position: 0.25, ohm: 4, henry: 2e-5, parallel: false }],
      ground: { type: 'real', relPermittivity: 13, conductivitySPerM: 0.005 },
    },
  };
  test('comes back as it went out', () => {
    expect(readModelFile(JSON.parse(JSON.stringify(modelFileOf(model))))).toEqual(model);
  });
  test.each([
    [{ format: 'other' }, /"format" must be one of: velvet-reed-model/],
    [{ version: 9 }, /version that is not known/],
    [{ wires: [] }, /There is no wire in the file/],
    [{ wires: [{ from: [0, 0], to: [0, 0, 1], radiusM: 1 }] }, /"from" of a wire must be three numbers/],
    [{ ports: [] }, /Say where it is fed/],
    [{ ports: [{ wire: 0, position: 2 }] }, /Position of a port or load must be at most 1/],
    [{ ground: { type: 'real' } }, /Real ground needs relPermittivity/],
  ])('a fault says how to mend it: %j', (patch, sentence) => {
    const file = { ...modelFileOf(model), ...patch };
    expect(() => readModelFile(file)).toThrow(ModelFileError);
    expect(() => readModelFile(file)).toThrow(sentence);
  });
  test('anything else is refused, not taken for a model', () => {
    for (const value of [null, 3, [], 'text']) expect(() => readModelFile(value)).toThrow(ModelFileError);
  });
});

test('records packed by field come back the same, of every made-up station; what is no packed list is not read', () => {
  for (let seed = 1; seed <= 20; seed += 1)
    for (const list of Object.values(randomStation(seed).lists))
      expect(unpackRecords(JSON.parse(JSON.stringify(packRecords(list))))).toEqual(JSON.parse(JSON.stringify(list)));
  for (const wrong of [[], null, { count: 2, fields: { id: [1] } }, { count: 1 }])
    expect(unpackRecords(wrong)).toBeUndefined();
});

describe('one table of resources', () => {
  const worlds = Array.from({ length: 40 }, (_, i) => randomStation(100 + i));
  test('what the schemas take, the published JSON Schema takes as well (judged by a general-purpose validator)', () => {
    const validate = new Ajv2020({ allErrors: true }).compile(stationFileSchema());
    for (const { station, lists } of worlds) {
      validate({ station, ...lists });
      expect(validate.errors).toBeNull();
    }
    validate({ station: { ...worlds[0].station, latDeg: 200 }, targets: [{ name: 'x' }] });
    expect(validate.errors?.map(({ instancePath }) => instancePath)).toEqual(
      expect.arrayContaining(['/station/latDeg', '/targets/0']),
    );
  });
  test('a blank column may be left out, and its blank is something that the schema takes', () => {
    for (const name of RESOURCE_NAMES)
      for (const [column, value] of Object.entries(BLANK[name])) {
        const columns: Columns = RESOURCES[name].columns;
        expect(() => columns[column].schema.validateSync(value, { strict: true })).not.toThrow();
      }
  });
  test('every reference names a table that is there', () => {
    for (const name of RESOURCE_NAMES) {
      const columns: Columns = RESOURCES[name].columns;
      for (const { to } of Object.values(columns)) if (to !== undefined) expect(RESOURCE_NAMES).toContain(to);
    }
  });
});
