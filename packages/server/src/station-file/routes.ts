import type { Express, RequestHandler } from 'express';
import type { Database } from '../database';
import type { ArrivedFile } from '../file-store';
import { RequestError } from '../refusals';
import { asRecord, authorOf, numberParam, readJson } from '../request-values';
import type { StationContents } from './contents';
import { readStationFile } from './read';
import { compareStation, takeAsNew, takeBeside } from './take';
import { stationContents, writeStationFile } from './write';

/** A whole station leaves as a file, and comes in: as new, or beside the one that is here. */
export function stationFileRoutes(
  app: Express,
  db: Database,
  {
    upload,
    arrived,
  }: { readonly upload: RequestHandler; readonly arrived: (req: Parameters<RequestHandler>[0]) => ArrivedFile },
): void {
  const known = (contents: StationContents) =>
    db.stations.findOne({ where: { uuid: contents.station.uuid } }).then((row) => (row ? Number(row.get('id')) : null));
  app.get('/api/stations/:station/file', async (req, res) => {
    const id = numberParam(req, 'station');
    const contents = await db.read((transaction) => stationContents(db, transaction, id));
    const name = String(contents.station.name)
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .toLowerCase();
    res
      .attachment(`${name}.station.zip`)
      .type('application/zip')
      .send(Buffer.from(await writeStationFile(contents)));
  });
  app.post('/api/station-files/look', upload, async (req, res) => {
    const contents = await readStationFile(arrived(req).bytes);
    const stationId = await known(contents);
    const compared =
      stationId === null
        ? undefined
        : await db.read((transaction) => compareStation(db, transaction, stationId, contents));
    res.json({
      ...{ name: String(contents.station.name), stationId },
      records: Object.values(contents.records).reduce((sum, list) => sum + list.length, 0),
      ...(compared ? { compared } : {}),
    });
  });
  app.post('/api/station-files/take', upload, async (req, res) => {
    const fields = asRecord({ ...(req.body ?? {}) });
    const contents = await readStationFile(arrived(req).bytes);
    const author = authorOf(req, fields);
    if (fields.how === 'new') return void res.status(201).json(await takeAsNew(db, contents, author));
    const stationId = await known(contents);
    if (fields.how !== 'beside' || stationId === null)
      throw new RequestError('Say whether it is taken as a new station or beside the one that is here.');
    const list = readJson(fields.take ?? '[]');
    const take = new Set(Array.isArray(list) ? list.filter((one): one is string => typeof one === 'string') : []);
    res.json({ stationId, ...(await takeBeside(db, stationId, contents, { take, author })) });
  });
}
