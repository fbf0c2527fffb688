import type { Device, EventKind, Refusal } from '@velvet-reed/contract';
import type { Request, RequestHandler, Response } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import type { Door } from './door';
import type { EventLog } from './events';

/** Name of the cookie with a device's token: secure, of this host alone, by the prefix (RFC 6265bis, 4.1.3.2). */
export const TOKEN_COOKIE = '__Host-velvet-reed';

/** Requests that came in by which door, and by which device. */
const KNOWN = new WeakMap<Request, Device>();

/** The device that a request came from; undefined at the desk. */
export const deviceOf = (req: Request): Device | undefined => KNOWN.get(req);

/** Whether a request came by TLS from the local network. */
export const isFromNetwork = (req: Request): boolean => 'encrypted' in req.socket && req.socket.encrypted === true;

export const addressOf = (req: Request): string => (req.socket.remoteAddress ?? '').replace(/^::ffff:/, '');

function refuseWith(
  events: EventLog,
  req: Request,
  res: Response,
  status: number,
  kind: EventKind,
  message: string,
  what?: string,
): void {
  events.note(kind, addressOf(req), what ?? `${req.method} ${req.baseUrl}${req.path}`);
  // what was still to come of the request is not read
  if (!req.complete) res.set('Connection', 'close');
  res.status(status).json({ code: kind, message } satisfies Refusal);
}

/**
 * A foreign page must not read or write here: the Host must be ours (DNS rebinding), and so must the Origin where one is sent; a browser that says that
 * another site sent the request is believed (Fetch Metadata, W3C). From the network whatever changes something must say where it comes from.
 */
export function sameOriginOnly(door: Door, deskHosts: readonly string[]): RequestHandler {
  const { events } = door;
  const allowed = (req: Request): boolean => {
    const { host } = req.headers;
    if (!host || !URL.canParse(`http://${host}`)) return false;
    const { hostname } = new URL(`http://${host}`);
    return isFromNetwork(req) ? (door.network?.hosts ?? []).includes(hostname) : deskHosts.includes(hostname);
  };
  return (req, res, next) => {
    const { origin, host } = req.headers;
    const site = req.headers['sec-fetch-site'];
    const reads = req.method === 'GET' || req.method === 'HEAD';
    const own = `${isFromNetwork(req) ? 'https' : 'http'}://${host}`;
    const refuse = (kind: EventKind, message: string, what: string): void =>
      refuseWith(events, req, res, 403, kind, message, what);
    const foreign = 'Another page tried to reach this server. Open the address that the server printed.';
    if (!allowed(req))
      refuse(
        'FOREIGN_HOST',
        'This address is not served here. Open the address that the server printed.',
        String(host),
      );
    else if (origin !== undefined && origin !== own) refuse('FOREIGN_ORIGIN', foreign, origin);
    else if ((site === 'cross-site' || site === 'same-site') && (!reads || req.originalUrl.startsWith('/api')))
      refuse('FOREIGN_PAGE', foreign, site);
    else if (isFromNetwork(req) && !reads && origin === undefined) refuse('FOREIGN_ORIGIN', foreign, 'no origin');
    else next();
  };
}

/** Whatever is not on this list a phone cannot do: it reads and writes records, and uses instruments. */
const PHONE_MAY: readonly (readonly [method: string, path: RegExp])[] = [
  ['GET', /^\/api\/health$/],
  ['GET', /^\/api\/door\/me$/],
  ['POST', /^\/api\/door\/leave$/],
  ['GET', /^\/api\/stations$/],
  ['GET', /^\/api\/stations\/\d+(\/(events|search|deletion\/\w+\/\d+))?$/],
  ['POST', /^\/api\/stations\/\d+\/(changes|photo-changes|undo|sweeps|spectra|logs|recordings|calibrations|pictures)$/],
  ['GET', /^\/api\/(sweeps|spectra|calibrations)\/\d+\/samples$/],
  ['GET', /^\/api\/attachments\/\d+\/(bytes|check)$/],
  ['GET', /^\/api\/logs\/\d+\/(rows|summary|decodes|slots)$/],
  ['GET', /^\/api\/instruments$/],
  ['POST', /^\/api\/instruments\/[\w.:-]+\/(identity|sweep|spectrum|reading|turn|stop|route|hands|truth)$/],
];
/** What anybody in the local network may ask before being let in. */
const ANYBODY_MAY: readonly (readonly [method: string, path: RegExp])[] = [
  ['GET', /^\/api\/door\/(me|authority\.crt)$/],
  ['POST', /^\/api\/door\/(ask|claim)$/],
];
const may = (list: typeof PHONE_MAY, req: Request): boolean => {
  const method = req.method === 'HEAD' ? 'GET' : req.method;
  const asked = `${req.baseUrl}${req.path}`;
  return list.some(([allowed, path]) => allowed === method && path.test(asked));
};

/** The value of a cookie; undefined when it is not there, or there more than once. */
function cookieOf(req: Request, name: string): string | undefined {
  const found = (req.headers.cookie ?? '')
    .split(';')
    .map((pair) => pair.trim())
    .filter((pair) => pair.startsWith(`${name}=`));
  return found.length === 1 ? found[0].slice(name.length + 1) : undefined;
}

/** Requests under /api that come from the network: only from a device that was let in, and only what a phone may do. */
export function pairedOnly({ devices, events, connections }: Door): RequestHandler {
  const keep = (id: string, { socket }: Request, res: Response): void => {
    const open = connections.get(id) ?? new Set();
    connections.set(id, open.add(socket));
    res.once('close', () => open.delete(socket));
  };
  return (req, res, next) => {
    if (!isFromNetwork(req)) return next();
    const known = devices.know(cookieOf(req, TOKEN_COOKIE), addressOf(req));
    if (known.state === 'in') KNOWN.set(req, known.device);
    if (may(ANYBODY_MAY, req)) return next();
    if (known.state !== 'in') {
      const revoked = known.state === 'revoked';
      const message = revoked
        ? 'The computer does not let this phone in any more. Ask whoever sits at it for a new code.'
        : 'This phone is not let in. At the computer open Notebook, Phone, and press "Let a phone in".';
      return refuseWith(events, req, res, 401, revoked ? 'REVOKED' : 'UNPAIRED', message);
    }
    if (!may(PHONE_MAY, req))
      return refuseWith(
        events,
        req,
        res,
        403,
        'DESK_ONLY',
        'This is done at the computer only, not from a phone.',
        `${known.device.name}: ${req.method} ${req.baseUrl}${req.path}`,
      );
    keep(known.device.id, req, res);
    next();
  };
}

const keyOf = (req: Request): string => deviceOf(req)?.id ?? ipKeyGenerator(addressOf(req));
/** A share of what a page asks for at its busiest; the desk is not limited. */
export const LIMITS = { paired: 1200, unpaired: 120, doorbell: 20, dayBytes: 1e9 } as const;

/** So many requests a minute; above it 429 with the time to wait. */
const perMinute = (events: EventLog, limit: (req: Request) => number): RequestHandler =>
  rateLimit({
    windowMs: 60_000,
    limit,
    keyGenerator: keyOf,
    skip: (req) => !isFromNetwork(req),
    standardHeaders: 'draft-7',
    legacyHeaders: false,
    validate: false,
    handler: (req, res) =>
      refuseWith(events, req, res, 429, 'TOO_OFTEN', 'Too many requests at once. Wait a minute, then try again.'),
  });

/** Bounds of what comes in from the network: requests a minute, tries at the door, bytes a day for each device. */
export function bounded({ events, now }: Door): readonly RequestHandler[] {
  const spent = new Map<string, { day: number; bytes: number }>();
  const doorbell = perMinute(events, () => LIMITS.doorbell);
  return [
    perMinute(events, (req) => (deviceOf(req) ? LIMITS.paired : LIMITS.unpaired)),
    (req, res, next) => (req.path === '/door/ask' ? doorbell(req, res, next) : next()),
    (req, res, next) => {
      const device = deviceOf(req);
      if (!device) return next();
      const day = Math.floor(now() / 86_400_000);
      const before = spent.get(device.id);
      const bytes = (before?.day === day ? before.bytes : 0) + Number(req.headers['content-length'] ?? 0);
      // a body of unknown length cannot be counted before it is read
      if (bytes > LIMITS.dayBytes || req.headers['transfer-encoding'] !== undefined)
        return refuseWith(
          events,
          req,
          res,
          413,
          'QUOTA',
          'This phone has sent all that it may in a day. Send the rest from the computer.',
          device.name,
        );
      spent.set(device.id, { day, bytes });
      next();
    },
  ];
}
