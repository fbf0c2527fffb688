import type { Express } from 'express';
import type { Backups } from './backups';
import { asRecord } from './request-values';

/** Copies of all stations: made, listed, put back; and a check of the database on demand. */
export function backupRoutes(app: Express, backups: Backups): void {
  app.get('/api/backups', (_req, res) => {
    res.json({ folder: backups.folder, backups: backups.list(), fault: backups.fault() ?? null });
  });
  app.post('/api/backups', async (_req, res) => {
    res.status(201).json(await backups.make('asked'));
  });
  app.post('/api/backups/restore', async (req, res) => {
    await backups.restore(String(asRecord(req.body).name));
    res.json({});
  });
  app.post('/api/backups/check', async (_req, res) => {
    res.json(await backups.check());
  });
}
