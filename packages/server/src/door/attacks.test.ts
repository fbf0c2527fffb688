import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { request as plainRequest, createServer, type IncomingHttpHeaders, type Server } from 'node:http';
import { Agent, request as tlsRequest } from 'node:https';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { pino } from 'pino';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { BLANK } from '@velvet-reed/contract';
import { createApp } from '../app';
import { openBackups } from '../backups';
import { openDatabase, type Database } from '../database';
import { migrator } from '../migrate';
import { HUT } from '../test-server';
import { openDoor, type Door } from './door';
import { CODE_MS, MOST_TRIES } from './pairing';
import { impatient, openNetwork } from './network';
import { LIMITS, TOKEN_COOKIE } from './gate';

/** One answer of the server. */
interface Answer {
  readonly status: number;
  readonly headers: IncomingHttpHeaders;
  readonly text: string;
  readonly body: Record<string, unknown>;
}
interface Said {
  readonly body?: unknown;
  readonly raw?: string | Buffer;
  readonly headers?: Readonly<Record<string, string>>;
  readonly token?: string;
}

let dir: string;
let db: Database;
let door: Door;
let desk: Server;
let phones: Server;
/** A clock that attacks may turn. */
let clockMs = Date.UTC(2026, 4, 1);
let deskPort: number;
let base: URL;
let deskToken: string;
let station: number;
let logged = '';
/** Each attack comes from an address of its own: what is bounded by address does not carry over. */
let phoneAddress = '127.0.1.1';
/** Keeps connections open, for attacks of many requests. */
let phoneAgent: Agent | undefined;

function send(url: string, method: string, { body, raw, headers = {}, token }: Said): Promise<Answer> {
  const { protocol } = new URL(url);
  const payload = raw ?? (body === undefined ? undefined : JSON.stringify(body));
  return new Promise((resolve, reject) => {
    const options = {
      method,
      headers: {
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(payload === undefined ? {} : { 'content-length': String(Buffer.byteLength(payload)) }),
        ...(token === undefined ? {} : { cookie: `${TOKEN_COOKIE}=${token}` }),
        ...headers,
      },
    };
    const answered = (res: import('node:http').IncomingMessage): void => {
      const parts: Buffer[] = [];
      res.on('data', (part: Buffer) => parts.push(part));
      res.on('end', () => {
        const text = Buffer.concat(parts).toString('utf8');
        let parsed: unknown;
        try {
          parsed = JSON.parse(text);
        } catch {
          parsed = undefined;
        }
        resolve({
          ...{ status: res.statusCode ?? 0, headers: res.headers, text },
          body: typeof parsed === 'object' && parsed !== null ? Object.fromEntries(Object.entries(parsed)) : {},
        });
      });
      res.on('error', reject);
    };
    // the certificate is verified: what these tests trust is the authority alone
    const req =
      protocol === 'https:'
        ? tlsRequest(
            url,
            {
              ...options,
              ca: door.network?.authorityPem,
              agent: phoneAgent ?? false,
              servername: '',
              localAddress: phoneAddress,
            },
            answered,
          )
        : plainRequest(url, { ...options, agent: false }, answered);
    req.on('error', reject);
    req.end(payload);
  });
}
const atDesk = (method: string, address: string, said: Said = {}) =>
  send(`http://127.0.0.1:${deskPort}${address}`, method, said);
const origin = () => base.origin;
const fromPhone = (method: string, address: string, { headers, ...said }: Said = {}) =>
  send(`${base.origin}${address}`, method, {
    ...said,
    headers: { ...(method === 'GET' ? {} : { origin: origin() }), ...headers },
  });

async function newCode(): Promise<{ readonly code: string; readonly secret: string }> {
  const { body } = await atDesk('POST', '/api/door/code');
  const secret = door.pairing.open();
  expect(typeof body.code).toBe('string');
  return secret;
}
/** Lets a phone in as its owner does. @returns its token. */
async function letIn(name: string): Promise<string> {
  const { code } = await newCode();
  const asked = await fromPhone('POST', '/api/door/ask', { body: { code, name } });
  expect(asked.status).toBe(200);
  await atDesk('POST', '/api/door/answer', { body: { check: asked.body.check, letIn: true } });
  const claimed = await fromPhone('POST', '/api/door/claim', { body: { ticket: asked.body.ticket } });
  const [cookie] = claimed.headers['set-cookie'] ?? [];
  const token = /^__Host-velvet-reed=([^;]+);/.exec(cookie ?? '')?.[1];
  if (token === undefined) throw new Error(`no token: ${claimed.text}`);
  return token;
}
const target = (name: string) => ({
  op: 'create',
  resource: 'targets',
  values: { name, lowHz: 9.4e6, highHz: 9.9e6, bandwidthHz: 5000, weight: 3, ...BLANK.targets },
});
const save = (at: typeof atDesk, stationId: number, changes: unknown, more: object = {}, token?: string) =>
  at('POST', `/api/stations/${stationId}/changes`, { body: { changes, ...more }, ...(token ? { token } : {}) });
interface SavedName {
  readonly id: number;
  readonly version: number;
}
const isSaved = (value: unknown): value is SavedName =>
  typeof value === 'object' && value !== null && 'id' in value && 'version' in value;
const savedOf = ({ body: { saved } }: Answer): readonly SavedName[] =>
  Array.isArray(saved) ? saved.filter(isSaved) : [];
const namesOf = async (stationId: number): Promise<readonly string[]> => {
  const { body } = await atDesk('GET', `/api/stations/${stationId}`);
  const list: unknown = body.targets;
  return Array.isArray(list) ? list.map((one: { name: string }) => one.name) : [];
};
const newStation = async (): Promise<number> => Number((await atDesk('POST', '/api/stations', { body: HUT })).body.id);
/** Words on a bare connection to the desk. @returns what came until it was closed. */
const talk = (words: string): Promise<string> =>
  new Promise((resolve) => {
    let got = '';
    const socket = connect(deskPort, '127.0.0.1', () => socket.write(words));
    socket.on('data', (part) => (got += part.toString()));
    socket.on('close', () => resolve(got));
    socket.on('error', () => resolve(got === '' ? 'closed' : got));
  });
/** A phone begins a form and leaves it at that. @returns the status that it is answered before its body is read. */
const beginUpload = (token: string, head: Readonly<Record<string, string>>): Promise<number> =>
  new Promise((resolve, reject) => {
    const headers = {
      ...{ origin: origin(), cookie: `${TOKEN_COOKIE}=${token}` },
      ...{ 'content-type': 'multipart/form-data; boundary=x', ...head },
    };
    const options = { method: 'POST', ca: door.network?.authorityPem, agent: false as const, headers };
    const req = tlsRequest(`${base.origin}/api/stations/${station}/pictures`, options, (res) =>
      resolve(res.statusCode ?? 0),
    );
    req.on('error', reject);
    req.write('--x');
  });
/** A form with one file, as browsers send it. */
function form(name: string, bytes: Uint8Array, fields: Readonly<Record<string, string>> = {}): Said {
  const edge = `edge${randomUUID()}`;
  const field = ([key, value]: readonly [string, string]): string =>
    `--${edge}\r\ncontent-disposition: form-data; name="${key}"\r\n\r\n${value}\r\n`;
  const raw = Buffer.concat([
    Buffer.from(Object.entries(fields).map(field).join('')),
    Buffer.from(
      `--${edge}\r\ncontent-disposition: form-data; name="file"; filename="${name}"\r\ncontent-type: text/html\r\n\r\n`,
    ),
    bytes,
    Buffer.from(`\r\n--${edge}--\r\n`),
  ]);
  return { raw, headers: { 'content-type': `multipart/form-data; boundary=${edge}` } };
}
const refused = ({ status, text }: Answer, ...expected: readonly number[]): void => {
  expect({ status, text }).toEqual({ status: expect.any(Number), text: expect.any(String) });
  expect(expected.length > 0 ? expected : [400, 401, 403, 404, 405, 409, 413, 415, 422]).toContain(status);
};

let attacks = 0;
beforeEach(() => {
  attacks += 1;
  phoneAddress = `127.0.1.${attacks}`;
});
beforeAll(async () => {
  dir = mkdtempSync(path.join(tmpdir(), 'velvet-reed-attacks-'));
  const file = path.join(dir, 'velvet-reed.sqlite');
  db = openDatabase(file);
  await migrator(db.sequelize).up();
  door = openDoor(path.join(dir, 'door'), () => clockMs);
  const logger = pino({ level: 'debug' }, { write: (line: string) => void (logged += line) });
  const app = createApp({
    ...{ db, logger, allowedHosts: ['127.0.0.1', 'localhost'], door, backups: openBackups(db, file), webDir: dir },
    place: { file, copies: () => [] },
  });
  desk = createServer(app);
  impatient(desk);
  await new Promise<void>((resolve) => desk.listen(0, '127.0.0.1', resolve));
  const address = desk.address();
  deskPort = typeof address === 'object' && address ? address.port : 0;
  [phones] = await openNetwork(door, app, { addresses: ['127.0.0.2'], port: 0, folder: path.join(dir, 'door') });
  base = new URL(door.network?.addresses[0] ?? '');
  station = await newStation();
  deskToken = await letIn('mast phone');
});
afterAll(async () => {
  desk.closeAllConnections();
  phones.closeAllConnections();
  desk.close();
  phones.close();
  await db.sequelize.close();
  rmSync(dir, { recursive: true });
});

describe('what an honest phone does works', () => {
  test('reads, writes, undoes its own', async () => {
    const token = deskToken;
    expect((await fromPhone('GET', '/api/stations', { token })).status).toBe(200);
    const key = randomUUID();
    expect(
      (await save(fromPhone, station, [target('from the mast')], { key, device: randomUUID() }, token)).status,
    ).toBe(200);
    expect(await namesOf(station)).toContain('from the mast');
    expect((await fromPhone('POST', `/api/stations/${station}/undo`, { token, body: { batch: key } })).status).toBe(
      200,
    );
    expect(await namesOf(station)).not.toContain('from the mast');
    expect((await fromPhone('GET', '/api/door/me', { token })).body).toMatchObject({
      place: 'network',
      device: { name: 'mast phone' },
    });
  });
  test('its cookie is for this host alone, not for scripts, not from elsewhere, not without TLS', async () => {
    const { code } = await newCode();
    const asked = await fromPhone('POST', '/api/door/ask', { body: { code, name: 'another' } });
    expect((await fromPhone('POST', '/api/door/claim', { body: { ticket: asked.body.ticket } })).body).toEqual({
      state: 'waits',
    });
    await atDesk('POST', '/api/door/answer', { body: { check: asked.body.check, letIn: true } });
    const claimed = await fromPhone('POST', '/api/door/claim', { body: { ticket: asked.body.ticket } });
    expect(claimed.headers['set-cookie']?.[0]).toMatch(
      /^__Host-velvet-reed=[\w.-]+; Max-Age=\d+; Path=\/; Expires=[^;]+; HttpOnly; Secure; SameSite=Strict$/,
    );
  });
  test('an interface is served to whoever asks, and says nothing of a station', async () => {
    expect((await fromPhone('GET', '/api/door/me')).body).toMatchObject({ place: 'network', device: null });
    expect((await fromPhone('GET', '/api/door/authority.crt')).text).toMatch(/BEGIN CERTIFICATE/);
  });
});

type Attack = readonly [name: string, run: () => Promise<void>];
const phone =
  (method: string, address: string, expected: readonly number[], said: Said = {}) =>
  async (): Promise<void> =>
    refused(await fromPhone(method, address, said), ...expected);
const deskly =
  (method: string, address: string, expected: readonly number[], said: Said = {}) =>
  async (): Promise<void> =>
    refused(await atDesk(method, address, said), ...expected);

const FOREIGN: readonly Attack[] = [
  [
    'a foreign Host at the desk (rebinding)',
    deskly('GET', '/api/stations', [403], { headers: { host: 'evil.example' } }),
  ],
  [
    'a foreign Host that ends like ours',
    deskly('GET', '/api/stations', [403], { headers: { host: '127.0.0.1.evil.example' } }),
  ],
  ['a Host with a name before it', deskly('GET', '/api/stations', [403], { headers: { host: 'evil@127.0.0.2' } })],
  [
    'no Host',
    async () =>
      expect(await talk('GET /api/stations HTTP/1.1\r\nconnection: close\r\n\r\n')).toMatch(/^HTTP\/1\.1 400/),
  ],
  [
    'an empty Host',
    async () =>
      expect(await talk('GET /api/stations HTTP/1.1\r\nhost:\r\nconnection: close\r\n\r\n')).toMatch(/^HTTP\/1\.1 403/),
  ],
  [
    'the Host of the desk at the door of the network',
    async () =>
      refused(
        await fromPhone('GET', '/api/stations', { token: deskToken, headers: { host: `127.0.0.1:${deskPort}` } }),
        403,
      ),
  ],
  [
    'a foreign Host at the door of the network, with a token',
    async () =>
      refused(await fromPhone('GET', '/api/stations', { token: deskToken, headers: { host: 'evil.example' } }), 403),
  ],
  [
    'a foreign Origin',
    deskly('POST', '/api/stations', [403], { body: HUT, headers: { origin: 'http://evil.example' } }),
  ],
  [
    'the Origin "null" of a sandboxed frame',
    deskly('POST', '/api/stations', [403], { body: HUT, headers: { origin: 'null' } }),
  ],
  [
    'our Origin with another port',
    async () =>
      refused(
        await atDesk('POST', '/api/stations', { body: HUT, headers: { origin: `http://127.0.0.1:${deskPort + 1}` } }),
        403,
      ),
  ],
  [
    'our Origin with another scheme',
    async () =>
      refused(
        await atDesk('POST', '/api/stations', { body: HUT, headers: { origin: `https://127.0.0.1:${deskPort}` } }),
        403,
      ),
  ],
  [
    'an Origin that begins like ours',
    async () =>
      refused(
        await atDesk('POST', '/api/stations', {
          body: HUT,
          headers: { origin: `http://127.0.0.1:${deskPort}.evil.example` },
        }),
        403,
      ),
  ],
  [
    'a form of another site',
    deskly('POST', '/api/stations', [400, 403], {
      raw: 'name=x',
      headers: { 'content-type': 'application/x-www-form-urlencoded', 'sec-fetch-site': 'cross-site' },
    }),
  ],
  [
    'JSON written as text, as a form can send it',
    deskly('POST', '/api/stations', [400], { raw: JSON.stringify(HUT), headers: { 'content-type': 'text/plain' } }),
  ],
  [
    'a read that the browser says comes from another site',
    deskly('GET', '/api/stations', [403], { headers: { 'sec-fetch-site': 'cross-site' } }),
  ],
  [
    'a write of a neighbour on the same host',
    deskly('POST', '/api/stations', [403], { body: HUT, headers: { 'sec-fetch-site': 'same-site' } }),
  ],
  [
    'a write from the network that does not say where it comes from',
    async () =>
      refused(
        await send(`${base.origin}/api/stations/${station}/changes`, 'POST', {
          body: { changes: [target('x')] },
          token: deskToken,
        }),
        403,
      ),
  ],
  [
    'a page framed by another: not allowed to be',
    async () => {
      const { headers } = await atDesk('GET', '/api/health');
      expect(headers['content-security-policy']).toMatch(/frame-ancestors 'none'/);
      expect(headers['x-content-type-options']).toBe('nosniff');
      expect(headers['access-control-allow-origin']).toBeUndefined();
    },
  ],
  [
    'a question of another site whether it may (CORS preflight)',
    async () => {
      const { headers, status } = await atDesk('OPTIONS', '/api/stations', {
        headers: { origin: 'http://evil.example', 'access-control-request-method': 'POST' },
      });
      expect(status).toBe(403);
      expect(headers['access-control-allow-origin']).toBeUndefined();
    },
  ],
  [
    'plain HTTP at the door of the network',
    async () => {
      await expect(send(`http://${base.host}/api/stations`, 'GET', {})).rejects.toThrow();
    },
  ],
];

const UNPAIRED: readonly Attack[] = [
  ['no cookie', phone('GET', '/api/stations', [401])],
  ['a station without a cookie', async () => refused(await fromPhone('GET', `/api/stations/${station}`), 401)],
  ['samples without a cookie', phone('GET', '/api/sweeps/1/samples', [401])],
  ['a photo without a cookie', phone('GET', '/api/attachments/1/bytes', [401])],
  [
    'following a station without a cookie',
    async () => refused(await fromPhone('GET', `/api/stations/${station}/events`), 401),
  ],
  ['writing without a cookie', async () => refused(await save(fromPhone, station, [target('x')]), 401)],
  ['an instrument without a cookie', phone('POST', '/api/instruments/a/turn', [401], { body: {} })],
  ['a made-up token', phone('GET', '/api/stations', [401], { token: `${randomUUID()}.${'a'.repeat(43)}` })],
  [
    'a token with another secret',
    async () =>
      refused(await fromPhone('GET', '/api/stations', { token: `${deskToken.split('.')[0]}.${'a'.repeat(43)}` }), 401),
  ],
  [
    'a token without its secret',
    async () => refused(await fromPhone('GET', '/api/stations', { token: deskToken.split('.')[0] }), 401),
  ],
  [
    'the hash that is kept, as if it were the token',
    async () => {
      const hash = /"hash": "([0-9a-f]{64})"/.exec(readFileSync(path.join(dir, 'door/devices.json'), 'utf8'))?.[1];
      const [id] = deskToken.split('.');
      expect(hash).toBeDefined();
      refused(await fromPhone('GET', '/api/stations', { token: `${id}.${hash}` }), 401);
    },
  ],
  [
    'two cookies of one name, one of them planted',
    async () =>
      refused(
        await fromPhone('GET', '/api/stations', {
          headers: { cookie: `${TOKEN_COOKIE}=planted; ${TOKEN_COOKIE}=${deskToken}` },
        }),
        401,
      ),
  ],
  [
    'the token in the address',
    async () => refused(await fromPhone('GET', `/api/stations?${TOKEN_COOKIE}=${deskToken}`), 401),
  ],
  [
    'the token in a header of another kind',
    async () =>
      refused(await fromPhone('GET', '/api/stations', { headers: { authorization: `Bearer ${deskToken}` } }), 401),
  ],
  ['an address written otherwise: twice the slash', phone('GET', '//api/stations', [401, 404])],
  ['an address written otherwise: capitals', phone('GET', '/API/stations', [401, 404])],
  ['an address written otherwise: dots', phone('GET', '/x/../api/stations', [401, 404])],
  ['an address written otherwise: percent', phone('GET', '/%61pi/stations', [401, 404])],
  ['a slash behind it', async () => refused(await fromPhone('GET', '/api/stations/', {}), 401)],
];

const DESK_ONLY: readonly (readonly [string, string, string, unknown?])[] = [
  ['the list of devices', 'GET', '/api/door'],
  ['a code for a further phone', 'POST', '/api/door/code', {}],
  ['letting a further phone in', 'POST', '/api/door/answer', { check: '0000', letIn: true }],
  ['revoking another phone', 'POST', '/api/door/revoke', { id: randomUUID() }],
  ['the folder of the data', 'GET', '/api/server'],
  ['the backups', 'GET', '/api/backups'],
  ['putting a backup back', 'POST', '/api/backups/restore', { name: 'x' }],
  ['the whole station as a file', 'GET', '/api/stations/1/file'],
  ['the bin', 'GET', '/api/stations/1/bin'],
  ['bringing back out of the bin', 'POST', '/api/stations/1/bin/back', { batch: randomUUID() }],
  ['changing the station itself', 'PATCH', '/api/stations/1', { version: 1, name: 'x' }],
  ['emptying the bin', 'POST', '/api/stations/1/bin/empty', {}],
  ['deleting a station', 'POST', '/api/stations/1/delete', { version: 1 }],
  ['taking a station file', 'POST', '/api/station-files/take', {}],
  ['the folders of decoders', 'GET', '/api/folders'],
];

const PAIRING: readonly Attack[] = [
  [
    'guessing the code: five tries, then the right one is void too',
    async () => {
      const { code } = await newCode();
      for (let i = 0; i < MOST_TRIES; i += 1) {
        const wrong = String((Number(code) + 1 + i) % 1e6).padStart(6, '0');
        refused(await fromPhone('POST', '/api/door/ask', { body: { code: wrong, name: 'guesser' } }), 422);
      }
      refused(await fromPhone('POST', '/api/door/ask', { body: { code, name: 'guesser' } }), 422);
      expect(door.pairing.state()).toEqual({ open: null, asking: null });
    },
  ],
  [
    'a code after its two minutes',
    async () => {
      const { code } = await newCode();
      clockMs += CODE_MS + 1;
      refused(await fromPhone('POST', '/api/door/ask', { body: { code, name: 'late' } }), 422);
    },
  ],
  [
    'a code that was used once',
    async () => {
      const { code } = await newCode();
      expect((await fromPhone('POST', '/api/door/ask', { body: { code, name: 'first' } })).status).toBe(200);
      refused(await fromPhone('POST', '/api/door/ask', { body: { code, name: 'second' } }), 422);
    },
  ],
  [
    'the picture with the secret, photographed: nobody is let in without a yes at the desk',
    async () => {
      const { secret } = await newCode();
      const thief = await fromPhone('POST', '/api/door/ask', { body: { secret, name: 'mast phone' } });
      expect(thief.status).toBe(200);
      expect((await fromPhone('POST', '/api/door/claim', { body: { ticket: thief.body.ticket } })).body).toEqual({
        state: 'waits',
      });
      // the owner's phone shows another number, or none: the desk says no
      refused(await fromPhone('POST', '/api/door/ask', { body: { secret, name: 'mast phone' } }), 422);
      await atDesk('POST', '/api/door/answer', { body: { check: thief.body.check, letIn: false } });
      const no = await fromPhone('POST', '/api/door/claim', { body: { ticket: thief.body.ticket } });
      refused(no, 422);
      expect(no.headers['set-cookie']).toBeUndefined();
    },
  ],
  [
    'an older code when a newer one was made',
    async () => {
      const { code } = await newCode();
      await newCode();
      refused(await fromPhone('POST', '/api/door/ask', { body: { code, name: 'old' } }), 422);
    },
  ],
  [
    'claiming twice with one ticket',
    async () => {
      const { code } = await newCode();
      const asked = await fromPhone('POST', '/api/door/ask', { body: { code, name: 'twice' } });
      await atDesk('POST', '/api/door/answer', { body: { check: asked.body.check, letIn: true } });
      expect((await fromPhone('POST', '/api/door/claim', { body: { ticket: asked.body.ticket } })).body.state).toBe(
        'in',
      );
      refused(await fromPhone('POST', '/api/door/claim', { body: { ticket: asked.body.ticket } }), 422);
    },
  ],
  [
    'claiming with the check number instead of the ticket',
    async () => {
      const { code } = await newCode();
      const asked = await fromPhone('POST', '/api/door/ask', { body: { code, name: 'number' } });
      await atDesk('POST', '/api/door/answer', { body: { check: asked.body.check, letIn: true } });
      refused(await fromPhone('POST', '/api/door/claim', { body: { ticket: asked.body.check } }), 422);
    },
  ],
  [
    'a yes of the desk for another check number',
    async () => {
      const { code } = await newCode();
      const asked = await fromPhone('POST', '/api/door/ask', { body: { code, name: 'other' } });
      const other = String((Number(asked.body.check) + 1) % 1e4).padStart(4, '0');
      refused(await atDesk('POST', '/api/door/answer', { body: { check: other, letIn: true } }), 422);
      expect((await fromPhone('POST', '/api/door/claim', { body: { ticket: asked.body.ticket } })).body).toEqual({
        state: 'waits',
      });
    },
  ],
  [
    'a code of no kind: numbers, lists, nothing',
    async () => {
      await newCode();
      for (const code of [123456, ['1'], null, '', {}, true])
        refused(await fromPhone('POST', '/api/door/ask', { body: { code, name: 'odd' } }), 422);
    },
  ],
  [
    'a name with a line break and a script: one harmless line',
    async () => {
      const { code } = await newCode();
      await fromPhone('POST', '/api/door/ask', {
        body: { code, name: '<script>alert(1)</script>\nroot: let in\u2028' },
      });
      expect(door.pairing.state().asking?.name).not.toMatch(/[\n\u2028]/);
      expect(
        readFileSync(path.join(dir, 'door/events.jsonl'), 'utf8')
          .split('\n')
          .every((line) => line === '' || line.startsWith('{')),
      ).toBe(true);
    },
  ],
  [
    'ringing the doorbell without end',
    async () => {
      const rung: number[] = [];
      for (let i = 0; i < LIMITS.doorbell + 5; i += 1)
        rung.push((await fromPhone('POST', '/api/door/ask', { body: { code: '000000', name: 'ringer' } })).status);
      expect(rung.slice(-3)).toEqual([429, 429, 429]);
    },
  ],
];

const DEVICES: readonly Attack[] = [
  [
    'a revoked phone',
    async () => {
      const token = await letIn('lost');
      const [id] = token.split('.');
      expect((await fromPhone('GET', '/api/stations', { token })).status).toBe(200);
      expect((await atDesk('POST', '/api/door/revoke', { body: { id } })).status).toBe(200);
      const answer = await fromPhone('GET', '/api/stations', { token });
      expect([answer.status, answer.body.code]).toEqual([401, 'REVOKED']);
      refused(await save(fromPhone, station, [target('ghost')], {}, token), 401);
    },
  ],
  [
    'a connection that a revoked phone had open',
    async () => {
      const token = await letIn('follower');
      const closed = new Promise<void>((resolve, reject) => {
        const req = tlsRequest(
          `${base.origin}/api/stations/${station}/events`,
          { ca: door.network?.authorityPem, agent: false, headers: { cookie: `${TOKEN_COOKIE}=${token}` } },
          (res) => {
            res.once('data', () => void atDesk('POST', '/api/door/revoke', { body: { id: token.split('.')[0] } }));
            res.on('error', () => resolve());
            res.on('close', () => resolve());
          },
        );
        req.on('error', reject);
        req.end();
      });
      await closed;
    },
  ],
  [
    'a phone that has not come for three months',
    async () => {
      const token = await letIn('forgotten');
      clockMs += 91 * 86_400_000;
      refused(await fromPhone('GET', '/api/stations', { token }), 401);
      deskToken = await letIn('mast phone again');
    },
  ],
  [
    'undoing what another device did, by saying its name',
    async () => {
      const [key, other] = [randomUUID(), randomUUID()];
      await save(atDesk, station, [target('of the desk')], { key, device: other });
      refused(
        await fromPhone('POST', `/api/stations/${station}/undo`, {
          token: deskToken,
          body: { batch: key, device: other },
        }),
        409,
      );
      expect(await namesOf(station)).toContain('of the desk');
    },
  ],
  [
    'saving in the name of another device',
    async () => {
      const [key, other] = [randomUUID(), randomUUID()];
      expect((await save(fromPhone, station, [target('signed')], { key, device: other }, deskToken)).status).toBe(200);
      refused(await atDesk('POST', `/api/stations/${station}/undo`, { body: { batch: key, device: other } }), 409);
    },
  ],
  [
    "a target of another station, changed through one's own",
    async () => {
      const foreign = await newStation();
      const [one] = savedOf(await save(atDesk, foreign, [target('theirs')]));
      refused(
        await save(
          fromPhone,
          station,
          [{ op: 'update', resource: 'targets', id: one.id, version: one.version, values: { name: 'mine' } }],
          {},
          deskToken,
        ),
        404,
      );
      refused(
        await save(
          fromPhone,
          station,
          [{ op: 'delete', resource: 'targets', id: one.id, version: one.version }],
          {},
          deskToken,
        ),
        404,
      );
      refused(
        await save(
          fromPhone,
          station,
          [{ op: 'create', resource: 'antennas', values: { name: 'x', targetId: one.id } }],
          {},
          deskToken,
        ),
        400,
      );
      expect(await namesOf(foreign)).toEqual(['theirs']);
    },
  ],
  [
    'a batch of another station under the same name',
    async () => {
      const [foreign, key] = [await newStation(), randomUUID()];
      await save(atDesk, foreign, [target('once')], { key });
      refused(
        await fromPhone('POST', `/api/stations/${station}/undo`, { token: deskToken, body: { batch: key } }),
        409,
      );
      expect(await namesOf(foreign)).toEqual(['once']);
    },
  ],
  [
    'more than a phone may send in a day',
    async () => {
      const token = await letIn('flood');
      const length = String(Math.ceil(LIMITS.dayBytes) + 1);
      const answer = await beginUpload(token, { 'content-length': length });
      expect(answer).toBe(413);
    },
  ],
  [
    'a body whose length is not told',
    async () => {
      const answer = await beginUpload(deskToken, { 'transfer-encoding': 'chunked' });
      expect(answer).toBe(413);
    },
  ],
  [
    'more requests than a page ever sends',
    async () => {
      const token = await letIn('hammer');
      phoneAgent = new Agent({ keepAlive: true, maxSockets: 20 });
      const statuses = new Set<number>();
      for (let i = 0; i < LIMITS.paired + 60; i += 20)
        for (const { status } of await Promise.all(
          Array.from({ length: 20 }, () => fromPhone('GET', '/api/health', { token })),
        ))
          statuses.add(status);
      phoneAgent.destroy();
      phoneAgent = undefined;
      expect([...statuses].sort()).toEqual([200, 429]);
    },
  ],
];

const SCRIPT = '"><img src=x onerror=alert(1)><script>alert(1)</script>';
const FORMULA = '=HYPERLINK("http://evil.example","x")';
const stationFile = async (stationId: number): Promise<Record<string, Uint8Array>> => {
  const { statusCode, bytes } = await new Promise<{ statusCode: number; bytes: Buffer }>((resolve, reject) => {
    plainRequest(`http://127.0.0.1:${deskPort}/api/stations/${stationId}/file`, { agent: false }, (res) => {
      const parts: Buffer[] = [];
      res.on('data', (part: Buffer) => parts.push(part));
      res.on('end', () => resolve({ statusCode: res.statusCode ?? 0, bytes: Buffer.concat(parts) }));
    })
      .on('error', reject)
      .end();
  });
  expect(statusCode).toBe(200);
  return unzipSync(bytes);
};
const archive =
  (change: (files: Record<string, Uint8Array>) => Uint8Array): (() => Promise<void>) =>
  async () => {
    const before = (await atDesk('GET', '/api/stations')).text;
    const bytes = change(await stationFile(station));
    for (const address of ['look', 'take'])
      refused(await atDesk('POST', `/api/station-files/${address}`, form('a.zip', bytes, { how: 'new' })));
    expect((await atDesk('GET', '/api/stations')).text).toBe(before);
  };
const CONTENT: readonly Attack[] = [
  [
    'an archive that climbs out of its folder',
    archive((files) => zipSync({ ...files, '../../evil.sh': strToU8('x') })),
  ],
  ['an archive with an absolute path', archive((files) => zipSync({ ...files, '/etc/evil': strToU8('x') }))],
  ['an archive with a path of another system', archive((files) => zipSync({ ...files, '..\\evil.exe': strToU8('x') }))],
  [
    'an archive with a link',
    archive((files) => zipSync({ ...files, link: [strToU8('/etc/passwd'), { os: 3, attrs: 0o120777 << 16 }] })),
  ],
  [
    'an archive with a part that nobody listed, of zeros',
    archive((files) => zipSync({ ...files, 'bytes/zeros': new Uint8Array(60_000_000) }, { level: 9 })),
  ],
  [
    'an archive in an archive instead of the station',
    archive(() => zipSync({ 'station.json': zipSync({ a: strToU8('x') }) })),
  ],
  ['an archive that is cut', archive((files) => zipSync(files).subarray(0, 300))],
  [
    'a part that was changed behind its checksum',
    archive((files) => {
      const name = Object.keys(files).find((one) => one.endsWith('.json') && !one.includes('manifest')) ?? '';
      return zipSync({ ...files, [name]: strToU8(strFromU8(files[name]).replace('Hut', 'Nut')) });
    }),
  ],
  [
    'a page sent as a picture',
    async () =>
      refused(
        await atDesk(
          'POST',
          `/api/stations/${station}/pictures`,
          form('x.png', Buffer.from('<html><script>alert(1)</script>')),
        ),
        400,
      ),
  ],
  [
    'a picture with a script in it, as a picture of vectors',
    async () =>
      refused(
        await atDesk(
          'POST',
          `/api/stations/${station}/pictures`,
          form('x.svg', Buffer.from('<svg onload="alert(1)"/>')),
        ),
        400,
      ),
  ],
  [
    'a raw file that is a page: served as bytes to be saved, never drawn',
    async () => {
      const touchstone = `! ${SCRIPT}\n# MHz S RI R 50\n9.0 0.6 -0.3\n9.4 0.05 0\n9.8 0.6 0.3\n`;
      const made = await atDesk('POST', `/api/stations/${station}/sweeps`, form('evil.html', Buffer.from(touchstone)));
      expect(made.status).toBe(201);
      const { headers, status } = await atDesk('GET', `/api/attachments/${String(made.body.attachmentId)}/bytes`);
      expect(status).toBe(200);
      expect(headers['content-type']).toBe('application/octet-stream');
      expect(headers['content-disposition']).toMatch(/^attachment/);
      expect(headers['x-content-type-options']).toBe('nosniff');
    },
  ],
  [
    'a file name with paths and control characters',
    async () => {
      const sweep = '# MHz S RI R 50\n9.0 0.6 -0.3\n9.4 0.05 0\n';
      const made = await atDesk(
        'POST',
        `/api/stations/${station}/sweeps`,
        form('..%2F..%2Fetc\u0007passwd.s1p', Buffer.from(sweep)),
      );
      expect(JSON.stringify(made.body)).not.toMatch(/\\u0007|\.\.\//);
    },
  ],
  [
    'a scripted name in every text: kept as text, told as JSON',
    async () => {
      await save(atDesk, station, [target(SCRIPT)]);
      const answer = await atDesk('GET', `/api/stations/${station}`);
      expect(answer.headers['content-type']).toMatch(/application\/json/);
      expect(await namesOf(station)).toContain(SCRIPT);
    },
  ],
  [
    'a scripted search',
    async () => {
      const { headers, text } = await atDesk(
        'GET',
        `/api/stations/${station}/search?q=${encodeURIComponent('" OR 1=1 -- <script>')}`,
      );
      expect(headers['content-type']).toMatch(/application\/json/);
      expect(text).not.toMatch(/SQLITE|syntax/i);
    },
  ],
  [
    'a formula as a name: tables for people hold text',
    async () => {
      const own = await newStation();
      await save(atDesk, own, [target(FORMULA), target('+SUM(1)'), target('@x'), target('-2+3')]);
      const csv = Object.entries(await stationFile(own)).filter(([name]) => name.endsWith('.csv'));
      expect(csv.length).toBeGreaterThan(0);
      for (const [, bytes] of csv) expect(strFromU8(bytes)).not.toMatch(/(^|[,;\n"])([=@]|\+(?!\d))(?=[A-Za-z0-9(])/m);
    },
  ],
  [
    'SQL in a name',
    async () => {
      const own = await newStation();
      await save(atDesk, own, [target("x'); DROP TABLE targets; --")]);
      expect(await namesOf(own)).toEqual(["x'); DROP TABLE targets; --"]);
    },
  ],
  [
    'fields that are no fields: __proto__ and constructor',
    async () => {
      const raw =
        '{"changes":[{"op":"create","resource":"targets","values":{"__proto__":{"polluted":1},"constructor":{"x":1},"name":"p"}}]}';
      refused(
        await atDesk('POST', `/api/stations/${station}/changes`, {
          raw,
          headers: { 'content-type': 'application/json' },
        }),
        400,
      );
      expect(Reflect.get({}, 'polluted')).toBeUndefined();
    },
  ],
  [
    'a resource that is none',
    async () => {
      for (const resource of ['edits', 'stations', '__proto__', 'sqlite_master', 'constructor'])
        refused(await save(atDesk, station, [{ op: 'create', resource, values: {} }]), 400);
    },
  ],
  [
    'a body of two megabytes',
    deskly('POST', '/api/stations', [413], {
      raw: `{"a":"${'x'.repeat(2e6)}"}`,
      headers: { 'content-type': 'application/json' },
    }),
  ],
  [
    'a pressed body that swells',
    deskly('POST', '/api/stations', [400, 413, 415], {
      raw: Buffer.from('H4sIAAAAAAAAA+3BMQEAAADCoPVPbQ0PoAAAAAAAAAAAAAAAAAAAAIC3AYbSVKsAQAAA', 'base64'),
      headers: { 'content-type': 'application/json', 'content-encoding': 'gzip' },
    }),
  ],
  [
    'ten thousand levels of brackets',
    deskly('POST', '/api/stations', [400, 413], {
      raw: '['.repeat(10_000) + ']'.repeat(10_000),
      headers: { 'content-type': 'application/json' },
    }),
  ],
  [
    'a method that an address does not have',
    async () => {
      for (const [method, address] of [
        ['PUT', '/api/stations'],
        ['DELETE', `/api/stations/${station}`],
        ['PATCH', '/api/door'],
        ['GET', '/api/door/code/close'],
        ['DELETE', '/api/backups'],
      ]) {
        const answer = await atDesk(method, address);
        expect([address, answer.status]).toEqual([address, 405]);
        expect(answer.headers.allow).toBeTruthy();
      }
      refused(await atDesk('GET', '/api/none'), 404);
    },
  ],
  [
    'a backup named with a path',
    async () => refused(await atDesk('POST', '/api/backups/restore', { body: { name: '../../../etc/passwd' } })),
  ],
  [
    'an id that is none',
    async () => {
      for (const id of ['0', '-1', '1e3', '1.5', 'NaN', "1'", '99999999999999999999'])
        refused(await atDesk('GET', `/api/stations/${encodeURIComponent(id)}`), 404, 400);
    },
  ],
  [
    'a head that never ends',
    async () => {
      // the server gives up at 15 s; here it is asked whether it would
      expect([desk.headersTimeout, desk.requestTimeout, phones.headersTimeout, phones.requestTimeout]).toEqual([
        15_000, 120_000, 15_000, 120_000,
      ]);
    },
  ],
  [
    'a head of a megabyte',
    async () => {
      const answer = await talk(`GET /api/health HTTP/1.1\r\nhost: 127.0.0.1\r\nx: ${'a'.repeat(1e6)}\r\n\r\n`);
      expect(answer).toMatch(/^HTTP\/1\.1 431|closed/);
    },
  ],
  [
    'two lengths in one request (smuggling)',
    async () => {
      const answer = await talk(
        'POST /api/stations HTTP/1.1\r\nhost: 127.0.0.1\r\ncontent-length: 4\r\ntransfer-encoding: chunked\r\n\r\n0\r\n\r\nGET /api/stations HTTP/1.1\r\nhost: 127.0.0.1\r\n\r\n',
      );
      expect(answer).toMatch(/^HTTP\/1\.1 400/);
      expect(answer.match(/HTTP\/1\.1/g)).toHaveLength(1);
    },
  ],
];

describe.each([
  ['foreign pages', FOREIGN],
  ['phones that were not let in', UNPAIRED],
  ['devices', DEVICES],
  ['what is sent', CONTENT],
  ['pairing', PAIRING],
] as const)('attacks: %s', (_kind, attacks) => {
  test.each(attacks.map(([name, run]) => [name, run] as const))('%s', async (_name, run) => run(), 60_000);
});

describe('attacks: a phone that is let in, at what the desk alone does', () => {
  test.each(DESK_ONLY.map(([name, method, address, body]) => [name, method, address, body] as const))(
    '%s',
    async (_name, method, address, body) => {
      const answer = await fromPhone(method, address, { token: deskToken, ...(body === undefined ? {} : { body }) });
      expect([answer.status, answer.body.code]).toEqual([403, 'DESK_ONLY']);
    },
  );
});

test('there are at least sixty of them', () => {
  expect(
    FOREIGN.length + UNPAIRED.length + DEVICES.length + CONTENT.length + PAIRING.length + DESK_ONLY.length,
  ).toBeGreaterThanOrEqual(60);
});

test('nothing secret stands in a log, an event, a backup or a station file', async () => {
  const { code, secret } = await newCode();
  await fromPhone('POST', '/api/door/ask', { body: { secret: 'wrong-secret-that-was-typed', code, name: 'n' } });
  const [id, own] = deskToken.split('.');
  const files = Object.values(await stationFile(station)).map((bytes) => strFromU8(bytes, true));
  const made = await atDesk('POST', '/api/backups');
  expect(made.status).toBe(201);
  const { body } = await atDesk('GET', '/api/backups');
  const folder = String(body.folder);
  const backup = readFileSync(path.join(folder, String(made.body.name))).toString('latin1');
  const kept = readFileSync(path.join(dir, 'door/devices.json'), 'utf8');
  const events = readFileSync(path.join(dir, 'door/events.jsonl'), 'utf8');
  for (const text of [logged, backup, events, kept, ...files])
    for (const hidden of [own, secret, 'wrong-secret-that-was-typed']) expect(text.includes(hidden)).toBe(false);
  expect(kept).toContain(id);
  expect(backup.includes(id) && backup.includes('mast phone')).toBe(false);
  for (const name of ['devices.json', 'events.jsonl', 'tls/authority-key.pem', 'tls/listener-key.pem'])
    expect(statSync(path.join(dir, 'door', name)).mode & 0o077).toBe(0);
});
