import { randomUUID } from 'node:crypto';
import { applyWithin } from '../changes';
import type { Database } from '../database';
import { createOf, RESOURCES, updateOf } from '@velvet-reed/contract';
import { elementsEpochMs } from '@velvet-reed/core/site';
import { readLogFile, storeLog } from '../log-import';
import { storeRecording } from '../recording-store';
import { makeStation } from '../records';
import { readSweepFile, storeSweep } from '../sweep-import';
import { dipoleSweepFile } from './dipole-sweep';
import { EVENING_MS, FERRIN_POINT, FERRIN_POINT_RECORDS, SATELLITE_V } from './ferrin-point';
import { loopPattern, nightOfDecodes, springFloor } from './sample-logs';
import { clubLinks, clubSwitch } from './sample-guard';
import { weekOfPasses } from './sample-passes';
import { turnedPattern } from './sample-pattern';
import { sampleRecording } from './sample-recording';

const DAY_MS = 86_400_000;
const HOUR_MS = 3_600_000;
/** Listens on the V, when it is up. */
const DONGLE = '8-bit wide-range dongle';
const YEAR_MS = 365 * DAY_MS;
/** A week of the spring before. */
const SPRING_BEFORE_MS = EVENING_MS - YEAR_MS - 4 * DAY_MS;

/** Long logs of the demo: nights of decodes, the loop walked round, and the V dipole on a turntable. */
const LOGS = [
  {
    kind: 'decodes',
    antenna: 'old',
    name: 'night-of-decodes.csv',
    text: nightOfDecodes(EVENING_MS + 2 * HOUR_MS, 10, 60),
  },
  {
    kind: 'decodes',
    antenna: 'loop',
    name: 'same-night-on-the-loop.csv',
    text: nightOfDecodes(EVENING_MS + 2 * HOUR_MS, 10, 60, { shiftDb: 2.5 }),
  },
  {
    kind: 'decodes',
    antenna: 'loop',
    name: 'night-after-on-the-loop.csv',
    text: nightOfDecodes(EVENING_MS + DAY_MS + 2 * HOUR_MS, 10, 60, { shiftDb: 1, seed: 20260311 }),
  },
  ...[0, 1].map((year) => ({
    kind: 'levels' as const,
    antenna: 'old' as const,
    name: year === 0 ? 'floor-spring-before.csv' : 'floor-this-spring.csv',
    text: springFloor(year === 0 ? SPRING_BEFORE_MS : EVENING_MS - 6 * DAY_MS, year),
  })),
  { kind: 'pattern', antenna: 'loop', name: 'loop-walked-round.csv', text: loopPattern(5) },
  { kind: 'pattern', antenna: 'v', name: 'v-dipole-on-the-turntable.csv', text: turnedPattern(SATELLITE_V) },
] as const;

/**
 * Loads the demo into a database without any station, deleted ones included; never over a user's data. One transaction: a process killed in the
 * middle leaves no half of it, and the next start loads it anew.
 */
export async function loadDemo(db: Database): Promise<boolean> {
  if ((await db.stations.count({ paranoid: false })) > 0) return false;
  const name = 'old-dipole-before-trimming.s1p';
  const file = { name, bytes: Buffer.from(dipoleSweepFile(15.06, 8e6, 11e6, 301)) };
  const content = await readSweepFile(db, 0, file, { antennaId: null });
  // two sweeps of the spring before, when the wire was 1.3 % shorter
  const earlier = await Promise.all(
    [14.865, 14.87].map(async (lengthM, i) => {
      const spring = {
        name: `old-dipole-spring-before-${i + 1}.s1p`,
        bytes: Buffer.from(dipoleSweepFile(lengthM, 8e6, 11e6, 301)),
      };
      return { file: spring, content: await readSweepFile(db, 0, spring, { antennaId: null }) };
    }),
  );
  const logs = await Promise.all(
    LOGS.map(async ({ kind, antenna, name: called, text }) => {
      const log = { name: called, bytes: Buffer.from(text) };
      return { kind, antenna, file: log, content: await readLogFile(log, { kind }) };
    }),
  );
  const author = () => ({ key: randomUUID(), device: '' });
  return db.write(async (transaction) => {
    if ((await db.stations.count({ paranoid: false, transaction })) > 0) return false;
    const station = await makeStation(db, transaction, FERRIN_POINT, author());
    const stationId = Number(station.id);
    await applyWithin(db, transaction, stationId, { changes: FERRIN_POINT_RECORDS, author: author() });
    const old = await db.tables.antennas.findOne({ where: { stationId }, transaction });
    const origin = {
      ...{ antennaId: Number(old?.get('id')), correction: 'file', calibrationId: null },
      measuredMs: EVENING_MS - DAY_MS,
    };
    for (const [i, spring] of earlier.entries()) {
      const measuredMs = SPRING_BEFORE_MS + 19 * i * DAY_MS;
      await storeSweep(db, transaction, stationId, { ...spring, origin: { ...origin, measuredMs }, author: author() });
    }
    // what was swept a year ago is not drawn over today's until it is asked for
    const swept = await db.tables.sweeps.findAll({ where: { stationId }, attributes: ['id', 'version'], transaction });
    const hidden = swept.map((row) =>
      updateOf('sweeps', { id: Number(row.get('id')), version: Number(row.get('version')) }, { shown: false }),
    );
    await applyWithin(db, transaction, stationId, { changes: hidden, author: author() });
    await storeSweep(db, transaction, stationId, { file, content, origin, author: author() });
    const loop = await db.tables.antennas.findOne({ where: { stationId }, order: [['id', 'DESC']], transaction });
    const antennas = await db.tables.antennas.findAll({ where: { stationId }, order: [['id', 'ASC']], transaction });
    const [, vDipole] = antennas;
    const numbers = { old: Number(old?.get('id')), v: Number(vDipole?.get('id')), loop: Number(loop?.get('id')) };
    for (const { kind, antenna, file: log, content: rows } of logs) {
      const values = {
        antennaId: numbers[antenna],
        ...(kind === 'levels' ? { freqHz: 9.65e6, bandwidthHz: 2500 } : {}),
      };
      await storeLog(db, transaction, stationId, {
        ...{ file: log, content: rows, author: author() },
        origin: { kind, values },
      });
    }
    const satellite = await db.tables.satellites.findOne({ where: { stationId }, transaction });
    if (satellite) {
      const elements = { name: '', line1: String(satellite.get('line1')), line2: String(satellite.get('line2')) };
      const heard = weekOfPasses(elements, FERRIN_POINT, elementsEpochMs(elements));
      const changes = heard.map((values) => ({
        ...{ op: 'create' as const, resource: 'passes' as const },
        values: { ...values, satelliteId: Number(satellite.get('id')), antennaId: null },
      }));
      await applyWithin(db, transaction, stationId, { changes, author: author() });
    }
    const plan = await db.tables.guardPlans.findOne({ where: { stationId }, transaction });
    const input = await db.tables.guardInputs.findOne({ where: { stationId }, order: [['id', 'ASC']], transaction });
    if (plan && input && old) {
      const ids = { plan: Number(plan.get('id')), oldDipole: Number(old.get('id')), hfInput: Number(input.get('id')) };
      // the V is only put up for a pass, with the dongle: no input hangs on either while the club transmits
      const dongle = await db.tables.receivers.findOne({ where: { stationId, name: DONGLE }, transaction });
      const loose = updateOf(
        'guardPlans',
        { id: ids.plan, version: Number(plan.get('version')) },
        { hangingOnNothing: String(numbers.v), receiversOnNothing: dongle ? String(Number(dongle.get('id'))) : '' },
      );
      const parts = [createOf('guardParts', clubSwitch(ids.plan)), loose];
      const [part] = await applyWithin(db, transaction, stationId, { changes: parts, author: author() });
      const links = clubLinks({ ...ids, part: Number(part?.id) }).map((values) => createOf('guardLinks', values));
      await applyWithin(db, transaction, stationId, { changes: links, author: author() });
    }
    const { said, ...recorded } = sampleRecording();
    await storeRecording(db, transaction, stationId, {
      ...{ file: recorded, author: author() },
      said: {
        ...{ ...RESOURCES.recordings.blank, ...said },
        ...{ antennaAId: Number(old?.get('id')), antennaBId: Number(loop?.get('id')) },
      },
    });
    await db.edits.destroy({ where: { stationId }, transaction }); // a newcomer's first undo must not take the demo apart
    return true;
  });
}
