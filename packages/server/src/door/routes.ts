import type { Express, Response } from 'express';
import type { Device, DoorBell, DoorState, Me, PhoneCode } from '@velvet-reed/contract';
import QRCode from 'qrcode';
import { asRecord } from '../request-values';
import { shutOut, type Door } from './door';
import { addressOf, deviceOf, isFromNetwork, TOKEN_COOKIE } from './gate';
import { RequestError } from '../refusals';

const YEAR_S = 365 * 86_400;
const named = ({ id, name, madeMs }: Device) => ({ id, name, madeMs });
const stringOf = (value: unknown): string | undefined =>
  typeof value === 'string' && value.length <= 200 ? value : undefined;

/** Cookies of a device: never for scripts, never sent from another site, never without TLS. */
function setToken(res: Response, token: string): void {
  res.cookie(TOKEN_COOKIE, token, {
    httpOnly: true,
    secure: true,
    sameSite: 'strict',
    path: '/',
    maxAge: YEAR_S * 1000,
    encode: String,
  });
}

/** The door over HTTP: what the desk sees and decides, and what a phone asks. */
export function doorRoutes(app: Express, door: Door): void {
  const { devices, events, pairing } = door;
  app.get('/api/door/me', (req, res) => {
    const device = deviceOf(req);
    res.json({
      place: isFromNetwork(req) ? 'network' : 'desk',
      device: device ? named(device) : null,
      open: door.network !== null,
      fingerprint: door.network?.fingerprint ?? null,
    } satisfies Me);
  });
  app.get('/api/door', (_req, res) => {
    res.json({
      network: door.network ? { addresses: door.network.addresses, fingerprint: door.network.fingerprint } : null,
      devices: devices.list(),
      events: events.list().slice(-100),
    } satisfies DoorState);
  });
  app.get('/api/door/authority.crt', (_req, res) => {
    if (!door.network) throw new RequestError('The local network is not listened to. Start with: npm start -- --lan');
    res.attachment('velvet-reed-authority.crt').type('application/x-x509-ca-cert').send(door.network.authorityPem);
  });
  app.post('/api/door/code', async (_req, res) => {
    if (!door.network) throw new RequestError('The local network is not listened to. Start with: npm start -- --lan');
    const { code, secret, untilMs } = pairing.open();
    const pictures = await Promise.all(
      door.network.addresses.map(async (address) => ({
        address,
        // behind "#" the secret is not sent to a server and stands in no log
        svg: await QRCode.toString(`${address}/pair#${secret}`, { type: 'svg', errorCorrectionLevel: 'M', margin: 2 }),
      })),
    );
    res.json({ code, untilMs, pictures } satisfies PhoneCode);
  });
  app.get('/api/door/code', (_req, res) => {
    const { open, asking } = pairing.state();
    const ringing = open ? { untilMs: open.code.untilMs, triesLeft: open.triesLeft } : null;
    res.json({ open: ringing, asking } satisfies DoorBell);
  });
  app.post('/api/door/code/close', (_req, res) => {
    pairing.close();
    res.json({});
  });
  app.post('/api/door/answer', (req, res) => {
    const { check, letIn } = asRecord(req.body);
    pairing.answer(stringOf(check) ?? '', letIn === true);
    res.json({});
  });
  app.post('/api/door/ask', (req, res) => {
    const { code, secret, name } = asRecord(req.body);
    const said = { code: stringOf(code), secret: stringOf(secret), name: stringOf(name) ?? '' };
    res.json(pairing.ask(said, addressOf(req)));
  });
  app.post('/api/door/claim', (req, res) => {
    const claimed = pairing.claim(stringOf(asRecord(req.body).ticket) ?? '', addressOf(req));
    if (claimed.state === 'waits') return void res.json({ state: 'waits' });
    setToken(res, claimed.token);
    res.json({ state: 'in', device: named(claimed.device) });
  });
  app.post('/api/door/revoke', (req, res) => {
    const id = stringOf(asRecord(req.body).id) ?? '';
    const device = devices.list().find((one) => one.id === id);
    if (!device || !shutOut(door, id)) throw new RequestError('This device is not let in any more. Reload the page.');
    events.note('DEVICE_REVOKED', '', device.name);
    res.json({});
  });
  app.post('/api/door/leave', (req, res) => {
    const device = deviceOf(req);
    if (!device) throw new RequestError('This page was not let in by a code; there is nothing to leave.');
    events.note('DEVICE_LEFT', addressOf(req), device.name);
    res.once('finish', () => shutOut(door, device.id));
    devices.revoke(device.id);
    res.clearCookie(TOKEN_COOKIE, { httpOnly: true, secure: true, sameSite: 'strict', path: '/' });
    res.json({});
  });
}
