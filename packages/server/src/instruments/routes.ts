import {
  handsRequestSchema,
  packSamples,
  packSpectrum,
  readingRequestSchema,
  routeRequestSchema,
  spectrumRequestSchema,
  sweepRequestSchema,
  turnRequestSchema,
} from '@velvet-reed/contract';
import type { Express } from 'express';
import type { Bench } from './bench';

const STRICT = { strict: true, abortEarly: true } as const;
/** What an instrument could not do goes along as a header of sentences. */
const TOLD = 'X-Told';

/** Instruments over HTTP: what is within reach, and one reading at a time. Nothing is stored here. */
export function instrumentRoutes(app: Express, bench: Bench): void {
  app.get('/api/instruments', (_req, res) => {
    res.json(bench.list());
  });
  app.post('/api/instruments/:id/identity', async (req, res) => {
    res.json({ identity: await bench.identify(req.params.id) });
  });
  app.post('/api/instruments/:id/sweep', async (req, res) => {
    const request = await sweepRequestSchema.validate(req.body, STRICT);
    const { value, told } = await bench.sweep(req.params.id, request);
    res.set(TOLD, told.join(' '));
    res.type('application/octet-stream').send(Buffer.from(packSamples(value)));
  });
  app.post('/api/instruments/:id/spectrum', async (req, res) => {
    const request = await spectrumRequestSchema.validate(req.body, STRICT);
    const { value, told, bandwidthHz } = await bench.spectrum(req.params.id, request);
    res.set(TOLD, told.join(' '));
    res.set('X-Bandwidth', String(bandwidthHz));
    res.type('application/octet-stream').send(Buffer.from(packSpectrum(value)));
  });
  app.post('/api/instruments/:id/reading', async (req, res) => {
    const request = await readingRequestSchema.validate(req.body, STRICT);
    const { value, told } = await bench.read(req.params.id, request);
    res.json({ value, told: told.join(' ') });
  });
  app.post('/api/instruments/:id/turn', async (req, res) => {
    const request = await turnRequestSchema.validate(req.body, STRICT);
    const left = new AbortController();
    // a page that goes away must not leave a table turning
    res.once('close', () => left.abort());
    res.json({ value: await bench.turn(req.params.id, request, left.signal) });
  });
  app.post('/api/instruments/:id/stop', async (req, res) => {
    await bench.stopTurning(req.params.id);
    res.json({});
  });
  app.post('/api/instruments/:id/route', async (req, res) => {
    await bench.route(req.params.id, await routeRequestSchema.validate(req.body, STRICT));
    res.json({});
  });
  app.post('/api/instruments/:id/hands', async (req, res) => {
    const request = await handsRequestSchema.validate(req.body, STRICT);
    res.json({ aboutHz: await bench.hands(req.params.id, request) });
  });
  app.post('/api/instruments/:id/truth', async (req, res) => {
    res.json(await bench.truth(req.params.id));
  });
}
