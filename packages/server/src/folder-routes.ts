import path from 'node:path';
import type { Express, Request } from 'express';
import type { Database } from './database';
import { importLog } from './log-import';
import { answerOf, asRecord, authorOf, numberParam } from './request-values';
import { tailOf, watchedFiles, watchedRows } from './watched-folders';

/** Tables that other programs write, in folders named at the start; nothing else on the disc is read. */
export function folderRoutes(app: Express, db: Database, folders: readonly string[]): void {
  const asked = async (req: Request) => {
    const { folder, name, answer, ...more } = asRecord(req.body);
    return { file: await watchedRows(folders, folder, name), answer: await answerOf(answer), more };
  };
  app.get('/api/folders', async (_req, res) => {
    res.json({ folders: folders.map((folder) => path.basename(folder)), files: await watchedFiles(folders) });
  });
  app.post('/api/stations/:station/tail', async (req, res) => {
    const { file, answer } = await asked(req);
    res.json(await tailOf(db, numberParam(req, 'station'), file, answer));
  });
  app.post('/api/stations/:station/tail/keep', async (req, res) => {
    const { file, answer, more } = await asked(req);
    const values = asRecord(more.values ?? {});
    const origin = { kind: 'decodes' as const, values, answer };
    res.status(201).json(await importLog(db, numberParam(req, 'station'), file, origin, authorOf(req, more)));
  });
}
