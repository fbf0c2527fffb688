import { additions, type NewColumns } from './additions';

const NEW_TABLES: Readonly<Record<string, string>> = {
  plotFeatures: `name TEXT NOT NULL, kind TEXT NOT NULL, points JSON NOT NULL, heightM REAL NOT NULL, endHeightM REAL NOT NULL,
    clearanceM REAL NOT NULL, widthM REAL NOT NULL, antennaId INTEGER REFERENCES antennas(id), attachmentId INTEGER REFERENCES attachments(id)`,
  satellites: `name TEXT NOT NULL, line1 TEXT NOT NULL, line2 TEXT NOT NULL, freqHz REAL NOT NULL, leastDeg REAL NOT NULL`,
  surveyReadings: `antennaId INTEGER NOT NULL REFERENCES antennas(id), name TEXT NOT NULL, freqHz REAL NOT NULL, levelDbm REAL NOT NULL,
    noiseDbm REAL NOT NULL, atMs REAL NOT NULL`,
  noiseFloors: `freqHz REAL NOT NULL, levelDbm REAL NOT NULL, bandwidthHz REAL NOT NULL, antennaId INTEGER REFERENCES antennas(id)`,
  boughtAntennas: `name TEXT NOT NULL, gains JSON NOT NULL, amplified INTEGER NOT NULL, gainDb REAL NOT NULL, noiseFigureDb REAL NOT NULL,
    iip2Dbm REAL NOT NULL, iip3Dbm REAL NOT NULL, inputFilterHz REAL, sizeM REAL NOT NULL, price REAL NOT NULL, hours REAL NOT NULL, sight INTEGER NOT NULL`,
};

const NEW_COLUMNS: NewColumns = {
  stations: [
    ['ownCableDb10', 'REAL', 'null'],
    ['ownCableDb100', 'REAL', 'null'],
    ['nothingVisible', 'INTEGER NOT NULL DEFAULT 0', 'false'],
    ['lawnAllowed', 'INTEGER NOT NULL DEFAULT 1', 'true'],
    ['noDrilling', 'INTEGER NOT NULL DEFAULT 0', 'false'],
    ['noTransmitting', 'INTEGER NOT NULL DEFAULT 0', 'false'],
    ['windLimitMPerS', 'REAL', 'null'],
    ['windForecastMPerS', 'REAL', 'null'],
    ['priceWeight', 'INTEGER NOT NULL DEFAULT 1', '1'],
    ['effortWeight', 'INTEGER NOT NULL DEFAULT 1', '1'],
    ['sightWeight', 'INTEGER NOT NULL DEFAULT 1', '1'],
  ],
  targets: ['latDeg', 'lonDeg', 'arrivalDeg', 'fromMin', 'toMin'].map((name) => [name, 'REAL', 'null'] as const),
  pathStages: [['plotFeatureId', 'INTEGER REFERENCES plotFeatures(id)', 'null']],
};

/** The plan, positions and hours of wishes, satellites, measured floors, antennas to buy, restrictions. */
export const placeAndWishes = additions('0003-place-and-wishes', NEW_TABLES, NEW_COLUMNS);
