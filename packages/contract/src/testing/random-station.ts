import { ANTENNA_KINDS, startDesign } from '@velvet-reed/core/antenna';
import { CABLE_CLASSES } from '@velvet-reed/core/line';
import { isChoice, STAGE_KINDS, stageKind } from '@velvet-reed/core/path';
import { PLOT_KINDS } from '@velvet-reed/core/plot';
import { ENVIRONMENTS } from '@velvet-reed/core/site';
import { GROUND_CLASSES } from '@velvet-reed/core/solver';
import { parseQuantity } from '@velvet-reed/core/units';
import { BLANK, STATION_BLANK, type ResourceName, type Values } from '../resources';

/** A loss is known at a frequency or not at all. */
const bothOrNeither = (figures: readonly (readonly [string, number])[]): Record<string, number> => {
  const known = figures.filter(([id]) => id.startsWith('known'));
  return Object.fromEntries(known.length === 1 ? figures.filter((one) => one !== known[0]) : figures);
};

/** Uniform numbers in [0, 1) from a seed (mulberry32). */
function uniformFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t = (t + Math.imul(t ^ (t >>> 7), t | 61)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Records of a made-up station. Numbers that name other records count from 1 in the list of that resource. */
export interface RandomStation {
  readonly seed: number;
  readonly station: Readonly<Record<string, unknown>>;
  readonly lists: Readonly<Partial<Record<ResourceName, readonly Readonly<Record<string, unknown>>[]>>>;
  /** Samples of the sweeps, in their order: frequency in Hz, reflection as re and im. */
  readonly sweeps: readonly { readonly name: string; readonly touchstone: string; readonly antennaId: number | null }[];
}

const STAMP_MS = Date.UTC(2026, 2, 8, 12);

/**
 * A station of a listener as odd as the fields allow: any number of targets from 10 kHz to 24 GHz, every kind with dimensions inside its limits, no
 * receiver or several, transmitters near and far, paths, sweeps, trials, logs and rules. The same seed gives the same station.
 */
export function randomStation(seed: number): RandomStation {
  const uniform = uniformFrom(seed);
  const between = (low: number, high: number): number => low + (high - low) * uniform();
  const log = (low: number, high: number): number => low * (high / low) ** uniform();
  const count = (most: number): number => Math.floor((most + 1) * uniform() ** 2);
  const whole = (low: number, high: number): number => Math.floor(between(low, high + 1));
  const pick = <T>(list: readonly T[]): T => list[Math.min(list.length - 1, Math.floor(uniform() * list.length))];
  const maybe = (share = 0.5): boolean => uniform() < share;
  const many = <T>(most: number, make: (i: number) => T): readonly T[] =>
    Array.from({ length: count(most) }, (_, i) => make(i));
  const round = (value: number, digits = 6): number => Number(value.toPrecision(digits));
  const level = (low = -135, high = -20): number => Math.round(between(low, high) * 10) / 10;
  const idOf = (list: readonly unknown[]): number => whole(1, list.length);
  const maybeId = (list: readonly unknown[]): number | null => (list.length > 0 && maybe(0.7) ? idOf(list) : null);

  const station = {
    ...STATION_BLANK,
    name: `Made up ${seed}`,
    latDeg: round(between(-85, 85)),
    lonDeg: round(between(-180, 180)),
    environment: pick(ENVIRONMENTS),
    noiseOffsetDb: Math.round(between(-10, 25)),
    spanM: round(log(0.3, 400), 3),
    heightM: round(log(0.3, 60), 3),
    cableId: pick(CABLE_CLASSES).id,
    lineLengthM: round(maybe(0.1) ? 0 : log(0.5, 300), 3),
    groundId: pick(GROUND_CLASSES).id,
    nothingVisible: maybe(0.2),
    lawnAllowed: maybe(0.8),
    noDrilling: maybe(0.2),
    noTransmitting: maybe(0.3),
    noStakes: maybe(0.3),
    askFirst: maybe(0.2),
    priceWeight: whole(0, 5),
    effortWeight: whole(0, 5),
    sightWeight: whole(0, 5),
  };

  const targets = many(30, (i): Values<'targets'> => {
    const lowHz = Math.round(log(10e3, 23e9));
    const highHz = Math.min(24e9, Math.round(lowHz * (1 + log(1e-4, maybe(0.1) ? 1 : 0.1))) + 10);
    const place = maybe(0.4);
    return {
      ...BLANK.targets,
      name: `target ${i + 1}`,
      lowHz,
      highHz,
      bandwidthHz: pick([10, 500, 2400, 5000, 10e3, 200e3, 2e6]),
      weight: whole(1, 5),
      ...(place ? { latDeg: round(between(-90, 90)), lonDeg: round(between(-180, 180)) } : {}),
      ...(maybe(0.2) ? { arrivalDeg: whole(0, 90) } : {}),
      ...(maybe(0.2) ? { fromMin: whole(0, 1439), toMin: whole(0, 1439) } : {}),
    };
  });
  const receivers = many(4, (i): Values<'receivers'> => {
    const minHz = Math.round(log(1e3, 1e8));
    return {
      ...BLANK.receivers,
      name: `receiver ${i + 1}`,
      bits: Math.round(between(6, 18) * 10) / 10,
      fullScaleDbm: Math.round(between(-50, 15)),
      sampleRateHz: Math.round(log(48e3, 250e6)),
      complexSamples: maybe(),
      noiseFigureDb: Math.round(between(1, 40)),
      iip2Dbm: Math.round(between(-10, 90)),
      iip3Dbm: Math.round(between(-40, 45)),
      minHz,
      maxHz: Math.min(300e9, Math.round(minHz * log(2, 1e5)) + 1),
      superhet: maybe(0.2),
      gains: many(3, (n) => ({
        name: `gain ${n + 1}`,
        noiseFigureDb: Math.round(between(1, 30)),
        fullScaleDbm: Math.round(between(-70, 0)),
        ...(maybe() ? { iip2Dbm: Math.round(between(-20, 60)), iip3Dbm: Math.round(between(-40, 20)) } : {}),
      })),
    };
  });
  const transmitters = many(8, (i): Values<'transmitters'> => ({
    ...{ ...BLANK.transmitters, name: `transmitter ${i + 1}` },
    freqHz: Math.round(log(10e3, 24e9)),
    powerW: round(log(0.001, 1e6), 2),
    powerKind: pick(['ERP', 'EIRP', 'EMRP'] as const),
    distanceM: round(log(1, 1e6), 3),
    own: maybe(0.15),
  }));
  const antennas = many(5, (i): Values<'antennas'> => ({
    ...BLANK.antennas,
    name: `antenna ${i + 1}`,
    targetId: maybeId(targets),
  }));
  const revisions = antennas.flatMap((_, i): Values<'revisions'>[] =>
    Array.from({ length: whole(0, 2) }, (_unused, number) => {
      const kind = pick(ANTENNA_KINDS);
      const design = startDesign(kind.id, Math.round(log(10e3, 24e9)));
      const set = kind.parameters.filter(() => maybe(0.3));
      return {
        antennaId: i + 1,
        number: number + 1,
        kind: kind.id,
        freqHz: design.freqHz,
        diameterM: maybe(0.7) ? design.diameterM : round(log(2e-5, 0.05), 2),
        insulated: maybe(0.3),
        allowance: round(between(0, 0.1), 2),
        dimensions: Object.fromEntries(
          set.map(({ id, least, most, whole: counted }) => {
            const value = least > 0 ? log(least, most) : between(least, most);
            return [id, counted ? Math.round(value) : Math.min(most, Math.max(least, round(value, 4)))];
          }),
        ),
        gates: maybe(0.2) ? ['tested'] : [],
        done: [],
      };
    }),
  );
  const trimSteps = antennas.flatMap((_, i) => {
    let lengthM = log(0.02, 50);
    let freqHz = log(20e3, 2e9);
    return many(5, (): Values<'trimSteps'> => {
      lengthM *= between(0.9, 1.01);
      freqHz *= between(0.97, 1.1);
      return { ...BLANK.trimSteps, antennaId: i + 1, lengthM: round(lengthM), freqHz: Math.round(freqHz) };
    });
  });
  const trials =
    antennas.length < 2
      ? []
      : many(3, (i): Values<'trials'> => ({
          ...BLANK.trials,
          name: `trial ${i + 1}`,
          antennaAId: 1,
          antennaBId: 2,
          freqHz: Math.round(log(10e3, 24e9)),
          worthDb: pick([1, 3, 6]),
          conditions: '',
          primary: maybe(0.7) ? 'snr' : pick(['level', 'noise'] as const),
          plannedPairs: maybe(0.6) ? null : whole(2, 20),
          fadingS: maybe(0.5) ? null : round(log(1, 100)),
        }));
  const readings = trials.flatMap((_, i) => {
    const [ahead, spread] = [between(-6, 6), pick([0, 0.05, 1, 4, 12])];
    return many(16, (round_): Values<'readings'> => {
      const off = (): number =>
        Math.round((spread * (uniform() + uniform() - 1) + between(-0.2, 0.2) * Math.sign(spread)) * 10) / 10;
      const levelADbm = level(-100, -50);
      const noiseADbm = level(-130, -101);
      const read = (value: number): number | null => (maybe(0.95) ? Math.round(value * 10) / 10 : null);
      return {
        trialId: i + 1,
        round: round_,
        levelADbm: read(levelADbm),
        noiseADbm: read(noiseADbm),
        levelBDbm: read(levelADbm + ahead + off()),
        noiseBDbm: read(noiseADbm + off()),
        ...{ atMs: null, receiverId: null, bandwidthHz: null, conditions: '', scale: pick(['dBm', 'dBFS'] as const) },
        differenceDb: maybe(0.9) ? null : level(-20, 20),
      };
    });
  });
  const noiseChecks = many(6, (): Values<'levels'> => {
    const offDbm = level(-135, -90);
    return {
      ...{ ...BLANK.levels, kind: 'off and on', antennaId: maybeId(antennas) },
      freqHz: Math.round(log(10e3, 3e9)),
      againstDbm: offDbm,
      levelDbm: Math.round((offDbm + between(-2, 25)) * 10) / 10,
    };
  });
  const paths =
    targets.length === 0 || receivers.length === 0
      ? []
      : many(3, (i): Values<'paths'> => ({
          ...BLANK.paths,
          name: `path ${i + 1}`,
          receiverId: idOf(receivers),
          targetId: idOf(targets),
          antennaId: maybeId(antennas),
        }));
  const pathStages = paths.flatMap((_, i) => {
    const stages = many(5, (place): Values<'pathStages'> => {
      const kind = pick(STAGE_KINDS.filter((one) => one !== 'part'));
      const own = stageKind(kind).fields.filter(({ shared }) => !shared);
      const edgeLowHz = Math.round(log(10e3, 2e9));
      return {
        ...BLANK.pathStages,
        pathId: i + 1,
        name: `${kind} ${place + 1}`,
        kind,
        figures: bothOrNeither(
          own
            .flatMap((field) => (isChoice(field) || (field.optional && !maybe(0.5)) ? [] : [field]))
            .map((field): readonly [string, number] => [
              field.id,
              maybe(0.5) && field.start !== ''
                ? parseQuantity(field.start, field.dimension, field.bareUnit ? { bareUnit: field.bareUnit } : {})
                : (field.id === 'outputs' ? whole : between)(field.least ?? 0, field.most ?? 1),
            ]),
        ),
        choices: Object.fromEntries(own.filter(isChoice).map(({ id, options }) => [id, pick(options).value])),
        cableId: pick(CABLE_CLASSES).id,
        lengthM: round(log(0.1, 200), 3),
        gainDb: whole(5, 40),
        noiseFigureDb: whole(1, 10),
        iip2Dbm: whole(0, 80),
        iip3Dbm: whole(-20, 40),
        lossDb: whole(0, 30),
        shape: pick(['lowpass', 'highpass', 'bandpass', 'bandstop'] as const),
        family: pick(['butterworth', 'chebyshev'] as const),
        order: whole(1, 9),
        edgeLowHz,
        edgeHighHz: Math.round(edgeLowHz * log(1.05, 30)),
      };
    });
    return stages;
  });
  const pathOrders = paths.flatMap((_, i) =>
    Array.from({ length: 1 + (i % 3) }, (_unused, k): Values<'pathOrders'> => ({
      ...BLANK.pathOrders,
      ...{ pathId: i + 1, number: k + 1 },
    })),
  );
  const orderPlaces = pathOrders.flatMap(({ pathId, number }, order) =>
    pathStages.flatMap((stage, k): Values<'orderPlaces'>[] =>
      // every order in another sequence, the third without its first stage
      stage.pathId !== pathId || (number === 3 && k % 4 === 0)
        ? []
        : [{ orderId: order + 1, stageId: k + 1, place: number === 2 ? 500 - k : k }],
    ),
  );
  const planned: Values<'transmitters'>[] = [];
  const guardPlans = many(2, (i): Values<'guardPlans'> => {
    const [powerW, freqHz] = [round(log(0.1, 1500), 2), Math.round(log(136e3, 10e9))];
    const name = `transmitter ${i + 1} of mine`;
    planned.push({ ...BLANK.transmitters, name, freqHz, powerW, powerKind: 'output', distanceM: null, own: true });
    return {
      ...{ ...BLANK.guardPlans, name, freqHz, transmitterId: transmitters.length + planned.length },
      marginToKeepDb: whole(0, 20),
      meterResolutionW: pick([0.01, 0.1, 1]),
    };
  });
  const guardInputs = guardPlans.flatMap((_, i) =>
    many(4, (k): Values<'guardInputs'> => ({
      guardPlanId: i + 1,
      name: `input ${k + 1}`,
      antennaName: antennas.length > 0 && maybe(0.8) ? `antenna ${whole(1, antennas.length)}` : 'elsewhere',
      ...{ antennaId: maybe(0.3) ? maybeId(antennas) : null, receiverId: maybeId(receivers) },
      disconnects: maybe(0.7),
      isolationDb: whole(0, 120),
      limitDbm: whole(-20, 20),
    })),
  );
  const plotFeatures = many(8, (i): Values<'plotFeatures'> => {
    const kind = pick(PLOT_KINDS.filter((one) => one !== 'picture'));
    return {
      name: `${kind} ${i + 1}`,
      kind,
      points: Array.from(
        { length: whole(1, 4) },
        () => [round(between(-40, 40), 3), round(between(-40, 40), 3)] as const,
      ),
      heightM: round(between(0, 15), 2),
      endHeightM: round(between(0, 15), 2),
      clearanceM: round(between(0, 5), 2),
      widthM: 0,
      antennaId: kind === 'antenna' ? maybeId(antennas) : null,
      ...{ transmitterId: null, attachmentId: null },
    };
  });
  const noiseFloors = many(2, (): Values<'levels'> => ({
    ...{ ...BLANK.levels, kind: 'floor' },
    freqHz: Math.round(log(100e3, 1e9)),
    levelDbm: level(),
    bandwidthHz: pick([500, 2400, 10e3]),
    antennaId: maybeId(antennas),
  }));
  const boughtAntennas = many(3, (i): Values<'boughtAntennas'> => ({
    name: `bought ${i + 1}`,
    gains: Array.from({ length: whole(1, 4) }, (_, k) => ({
      freqHz: Math.round(1e6 * 10 ** k),
      gainDbi: whole(-40, 12),
    })),
    amplified: maybe(),
    gainDb: whole(0, 30),
    noiseFigureDb: whole(1, 12),
    iip2Dbm: whole(10, 90),
    iip3Dbm: whole(-10, 40),
    inputFilterHz: maybe(0.3) ? 30e6 : null,
    sizeM: round(log(0.05, 20), 2),
    price: whole(0, 800),
    hours: whole(0, 20),
    sight: whole(0, 3),
  }));
  const recordings = many(3, (i): Values<'recordings'> => ({
    ...BLANK.recordings,
    name: `recording ${i + 1}.wav`,
    fileBytes: whole(100, 1e9),
    checksum: String(i).repeat(64),
    lengthS: round(log(1, 1e4)),
    sampleRateHz: pick([8000, 96_000, 2_000_000]),
    meaning: pick(['real', 'iq', 'two'] as const),
    centreHz: Math.round(log(10e3, 3e9)),
    startMs: maybe() ? STAMP_MS : null,
    receiverId: maybeId(receivers),
    antennaAId: maybeId(antennas),
    antennaBId: maybeId(antennas),
    signalHz: maybe() ? Math.round(log(10e3, 3e9)) : null,
    bandwidthHz: maybe() ? pick([50, 500, 5000]) : null,
    quietHz: maybe() ? Math.round(log(10e3, 3e9)) : null,
    turnS: maybe() ? whole(2, 60) : null,
    fullScaleDbm: maybe() ? whole(-60, 10) : null,
    attachmentId: null,
  }));
  let clockMs = STAMP_MS;
  const floorReadings = many(40, (): Values<'levels'> => {
    clockMs += Math.round(log(1e3, 1e7));
    return { ...BLANK.levels, kind: 'log', atMs: clockMs, freqHz: 9.6e6, levelDbm: level(-125, -80) };
  });
  const deviceSwitchings = many(4, (): Values<'levels'> => ({
    ...{ ...BLANK.levels, kind: 'device' },
    subject: pick(['lamp', 'heater', 'charger']),
    freqHz: Math.round(log(100e3, 100e6)),
    levelDbm: level(-110, -80),
    againstDbm: level(-120, -90),
    atMs: STAMP_MS + whole(0, 1e8),
  }));
  const surveyReadings =
    antennas.length === 0
      ? []
      : many(6, (i): Values<'levels'> => ({
          ...{ ...BLANK.levels, kind: 'survey' },
          antennaId: idOf(antennas),
          subject: `signal ${(i % 3) + 1}`,
          freqHz: Math.round(log(100e3, 1e9)),
          levelDbm: level(-110, -40),
          againstDbm: level(-130, -90),
          atMs: STAMP_MS + i * 60_000,
        }));
  const sweeps = many(3, (i) => {
    const middle = log(100e3, 2e9);
    const [lowHz, highHz] = [middle * between(0.7, 0.95), middle * between(1.05, 1.4)];
    const points = whole(2, 200);
    const [resonanceHz, q, ohm] = [middle * between(0.8, 1.2), log(3, 200), log(5, 500)];
    const lines = Array.from({ length: points }, (_, k) => {
      const freqHz = lowHz + ((highHz - lowHz) * k) / (points - 1);
      const x = ohm * q * (freqHz / resonanceHz - resonanceHz / freqHz);
      const below = (ohm + 50) ** 2 + x ** 2;
      return `${freqHz} ${((ohm - 50) * (ohm + 50) + x ** 2) / below} ${(100 * x) / below}`;
    });
    return {
      name: `sweep ${i + 1}.s1p`,
      touchstone: ['# Hz S RI R 50', ...lines].join('\n'),
      antennaId: maybeId(antennas),
    };
  });
  return {
    seed,
    station,
    lists: {
      ...{ targets, receivers, antennas, revisions, trimSteps, trials, readings },
      transmitters: [...transmitters, ...planned],
      ...{
        paths,
        pathStages,
        pathOrders,
        orderPlaces,
        guardPlans,
        guardInputs,
        plotFeatures,
        boughtAntennas,
        recordings,
      },
      levels: [...noiseChecks, ...noiseFloors, ...floorReadings, ...deviceSwitchings, ...surveyReadings],
    },
    sweeps,
  };
}
