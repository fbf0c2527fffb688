/** The receiver at the end of a path. */
export interface PathReceiver {
  readonly name: string;
  readonly noiseFigureDb: number;
  readonly iip2Dbm: number;
  readonly iip3Dbm: number;
  readonly fullScaleDbm: number;
  readonly bits: number;
  readonly sampleRateHz: number;
  readonly complexSamples: boolean;
  readonly minHz: number;
  readonly maxHz: number;
}

/** A carrier at the antenna connector. */
export interface PathSignal {
  readonly name: string;
  readonly freqHz: number;
  readonly levelDbm: number;
  /** Nobody entered it: it is usual, and counts beside what was entered. */
  readonly assumed?: true;
}

/** Wanted band and noise for a path analysis. */
export interface PathQuestion {
  readonly lowHz: number;
  readonly highHz: number;
  readonly bandwidthHz: number;
  /** External noise figure at the antenna connector (after efficiency and mismatch), dB. */
  readonly externalFaDb: number;
  /** Thermal noise of the antenna's own losses at its connector, ratio to kT₀, 0 to 1; absent: none. */
  readonly antennaNoise?: number;
  readonly signals: readonly PathSignal[];
}
