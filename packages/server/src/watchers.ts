import type { Request, Response } from 'express';
import type { Database } from './database';
import { currentRun, stationRevision } from './station-answer';

/** A sign of life this often keeps the connection open through whatever lies between, ms. */
const ALIVE_MS = 20_000;

/**
 * Tells a client the revision of a station whenever it changes, as server-sent events, until the client goes. Each commit is looked at once the present
 * burst of writes is over.
 */
export function watchStation(db: Database, stationId: number, req: Request, res: Response): void {
  res.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache, no-transform' });
  let told = -1;
  let asked = false;
  const look = async (): Promise<void> => {
    asked = false;
    const revision = await stationRevision(db, stationId);
    if (revision === told || res.writableEnded) return;
    told = revision;
    res.write(`data: ${currentRun()} ${revision}\n\n`);
  };
  const onCommit = (): void => {
    if (asked) return;
    asked = true;
    setImmediate(() => void look().catch(() => res.end()));
  };
  const alive = setInterval(() => res.write(': still here\n\n'), ALIVE_MS);
  alive.unref();
  const end = (): void => void res.end();
  db.commits.on('commit', onCommit);
  db.commits.once('end', end);
  req.on('close', () => {
    clearInterval(alive);
    db.commits.off('commit', onCommit);
    db.commits.off('end', end);
    res.end();
  });
  onCommit();
}
