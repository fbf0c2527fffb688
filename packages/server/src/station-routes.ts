import { readBatch, RESOURCE_NAMES, STATION_BLANK, undoSchema } from '@velvet-reed/contract';
import type { Express } from 'express';
import { binOf, bringBack, emptyBin } from './bin';
import { applyChanges, deletionPreview } from './changes';
import type { Database } from './database';
import { undo } from './history';
import { createStation, deletedStations, deleteStation, present, updateStation } from './records';
import { NoSuchAddressError } from './refusals';
import { asRecord, authorOf, deviceName, numberParam, requireVersion, revisionParam } from './request-values';
import { searchStation } from './search';
import { stationDelta, stationRecords, stationTag } from './station-answer';
import { watchStation } from './watchers';

/** Stations and their records over HTTP. */
export function stationRoutes(app: Express, db: Database): void {
  app.get('/api/health', async (_req, res) => {
    await db.sequelize.query('SELECT 1');
    res.json({ ok: true });
  });
  app.get('/api/stations', async (_req, res) => {
    const rows = await db.stations.findAll({ order: [['id', 'ASC']] });
    res.json(rows.map((row) => present(row)));
  });
  app.get('/api/stations/deleted', async (_req, res) => {
    res.json(await deletedStations(db));
  });
  app.post('/api/stations', async (req, res) => {
    const { key, device, ...values } = asRecord(req.body);
    // what is not said begins as the table says
    res.status(201).json(await createStation(db, { ...STATION_BLANK, ...values }, authorOf(req, { key, device })));
  });
  app.get('/api/stations/:station', async (req, res) => {
    const id = numberParam(req, 'station');
    const device = deviceName(req, req.query.device);
    const tag = await stationTag(db, id, device);
    // kept by the browser, but asked for again each time: unchanged, only the tag travels
    res.set({ 'Cache-Control': 'private, no-cache', ETag: tag });
    if (req.headers['if-none-match'] === tag) return void res.status(304).end();
    const since = revisionParam(req);
    const delta = since === undefined ? undefined : await stationDelta(db, id, { since, device });
    res.json(delta ? { delta } : await stationRecords(db, id, device, req.query.packed === '1'));
  });
  app.get('/api/stations/:station/events', async (req, res) => {
    const id = numberParam(req, 'station');
    await stationTag(db, id, ''); // a station that is not there is told before anything is opened
    watchStation(db, id, req, res);
  });
  app.patch('/api/stations/:station', async (req, res) => {
    const { key, device, ...changes } = asRecord(req.body);
    const version = requireVersion(changes);
    delete changes.version;
    const author = authorOf(req, { key, device });
    res.json(await updateStation(db, numberParam(req, 'station'), { version, changes, author }));
  });
  app.post('/api/stations/:station/delete', async (req, res) => {
    const body = asRecord(req.body);
    res.json(await deleteStation(db, numberParam(req, 'station'), requireVersion(body), authorOf(req, body)));
  });
  app.post('/api/stations/:station/changes', async (req, res) => {
    const { changes, ...names } = await readBatch(req.body);
    const batch = { changes, author: authorOf(req, names) };
    res.json(await applyChanges(db, numberParam(req, 'station'), batch, revisionParam(req)));
  });
  app.get('/api/stations/:station/deletion/:resource/:record', async (req, res) => {
    const resource = RESOURCE_NAMES.find((name) => name === req.params.resource);
    if (!resource) throw new NoSuchAddressError();
    res.json(await deletionPreview(db, numberParam(req, 'station'), resource, numberParam(req, 'record')));
  });
  app.get('/api/stations/:station/search', async (req, res) => {
    const text = typeof req.query.q === 'string' ? req.query.q.slice(0, 200) : '';
    res.json(await searchStation(db, numberParam(req, 'station'), text));
  });
  app.get('/api/stations/:station/bin', async (req, res) => {
    res.json(await binOf(db, numberParam(req, 'station')));
  });
  app.post('/api/stations/:station/bin/back', async (req, res) => {
    const { batch, device: said } = await undoSchema.validate(req.body ?? {}, { strict: true });
    const device = deviceName(req, said);
    res.json({ records: await bringBack(db, numberParam(req, 'station'), batch ?? '', device) });
  });
  app.post('/api/stations/:station/bin/empty', async (req, res) => {
    res.json({ records: await emptyBin(db, numberParam(req, 'station')) });
  });
  app.post('/api/stations/:station/undo', async (req, res) => {
    const { batch, device: said } = await undoSchema.validate(req.body ?? {}, { strict: true });
    const device = deviceName(req, said);
    res.json(await undo(db, numberParam(req, 'station'), { batch, device }));
  });
}
