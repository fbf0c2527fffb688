/** A measured pattern as it is taken along; its schema stands in docs/formats.md. Angles in degrees, levels in dB against the peak. */
export interface PatternFile {
  readonly format: 'velvet-reed-pattern';
  readonly version: 1;
  readonly name: string;
  readonly cut: 'azimuth' | 'elevation';
  readonly origin: 'measured';
  readonly angleDeg: readonly number[];
  readonly levelDb: readonly number[];
  readonly turns: number;
  /** Taken out of the levels, dB; null where no direction was read again. */
  readonly driftDb: number | null;
  /** The model laid over it, where one was: turned and lifted so that it lies best. */
  readonly model?: {
    readonly antenna: string;
    readonly freqHz: number;
    readonly rotationDeg: number;
    readonly levelDb: readonly number[];
    readonly rmsDb: number;
  };
}

const hundredth = (one: number): number => Math.round(100 * one) / 100;

/** @param pattern figures as computed; they are written to hundredths. */
export const patternFileText = (pattern: Omit<PatternFile, 'format' | 'version' | 'origin'>): string => {
  const { model, ...rest } = pattern;
  const file: PatternFile = {
    ...{ format: 'velvet-reed-pattern', version: 1, ...rest, origin: 'measured' },
    ...{ angleDeg: rest.angleDeg.map(hundredth), levelDb: rest.levelDb.map(hundredth) },
    driftDb: rest.driftDb === null ? null : hundredth(rest.driftDb),
    ...(model
      ? {
          model: {
            ...model,
            ...{ rotationDeg: hundredth(model.rotationDeg), rmsDb: hundredth(model.rmsDb) },
            levelDb: model.levelDb.map(hundredth),
          },
        }
      : {}),
  };
  return `${JSON.stringify(file, undefined, 2)}\n`;
};
