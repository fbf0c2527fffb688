import { createServer, type Server } from 'node:net';
import { ANALYSER, startAnalyser } from './devices/analyser';
import { ANTENNA_SWITCH } from './devices/antenna-switch';
import type { OnBench } from './devices/hands';
import { RECEIVER, startReceiver } from './devices/receiver';
import { LCR_METER, POWER_METER, startLcrMeter, startPowerMeter, TURNTABLE } from './devices/small';
import { GREETING, type Habit, withHabits } from './habits';
import { openSession, respond, type Device, type Reply } from './scpi/instrument';
import { startLab, startWorld, type Lab } from './world/lab';

/** A line longer than this is no command; the connection is closed. */
const LONGEST_LINE = 8192;

/** Stand-ins by what they are, in the order in which lists show them. */
export const STAND_INS = ['analyser', 'receiver', 'turntable', 'power-meter', 'lcr-meter', 'antenna-switch'] as const;
export type StandIn = (typeof STAND_INS)[number];

/** One instrument's memory; the bench is handed in and out, since all stand on the same one. */
type Answering = (lab: Lab, line: string) => { readonly lab: Lab; readonly replies: readonly Reply[] };

function answering<S extends OnBench>(device: Device<S>, start: S): Answering {
  let session = openSession(start);
  return (lab, line) => {
    const answer = respond(device, { ...session, state: { ...session.state, lab } }, line);
    session = answer.session;
    return { lab: session.state.lab, replies: answer.replies };
  };
}

/** All stand-ins on one bench, without sockets. */
export function openBench(
  seed: number,
  habits: readonly Habit[] = [],
): (name: StandIn, line: string) => readonly Reply[] {
  let lab = startLab(startWorld(seed));
  const instruments: Readonly<Record<StandIn, Answering>> = {
    analyser: answering(ANALYSER, startAnalyser(lab)),
    receiver: answering(RECEIVER, startReceiver(lab)),
    turntable: answering(TURNTABLE, { lab }),
    'power-meter': answering(POWER_METER, startPowerMeter(lab)),
    'lcr-meter': answering(LCR_METER, startLcrMeter(lab)),
    'antenna-switch': answering(ANTENNA_SWITCH, { lab }),
  };
  const plain = (name: StandIn) => (line: string) => {
    const answer = instruments[name](lab, line);
    lab = answer.lab;
    return answer.replies;
  };
  const made = new Map(STAND_INS.map((name) => [name, withHabits(name, habits, plain(name))]));
  return (name, line) => made.get(name)?.(line) ?? [];
}

/** Replies of one program message as bytes: joined by semicolons, ended by a line feed (IEEE 488.2, 8.3). */
export function framed(replies: readonly Reply[]): Buffer {
  const parts = replies.map((reply) => (typeof reply === 'string' ? Buffer.from(reply, 'latin1') : Buffer.from(reply)));
  return Buffer.concat([
    ...parts.flatMap((part, i) => (i === 0 ? [part] : [Buffer.from(';'), part])),
    Buffer.from('\n'),
  ]);
}

/** Puts a stand-in on a loopback TCP port (0: any free one); every connection shares the instrument's state, as on a bench. */
export function serve(
  answer: (line: string) => readonly Reply[],
  port = 0,
  habits: readonly Habit[] = [],
): Promise<Server> {
  const server = createServer((socket) => {
    let waiting = '';
    socket.setEncoding('latin1');
    socket.setNoDelay(true);
    socket.on('error', () => socket.destroy());
    if (habits.includes('greeting'))
      setTimeout(() => socket.destroyed || socket.write(GREETING.text), GREETING.afterMs);
    socket.on('data', (chunk: string) => {
      waiting += chunk;
      const lines = waiting.split('\n');
      waiting = lines.pop() ?? '';
      if (waiting.length > LONGEST_LINE) socket.destroy();
      for (const line of lines) {
        const replies = answer(line.replace(/\r$/, '').slice(0, LONGEST_LINE));
        if (replies.length > 0) socket.write(framed(replies));
      }
    });
  });
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => resolve(server));
  });
}

/** Port a listening server was given. */
export function portOf(server: Server): number {
  const address = server.address();
  return typeof address === 'object' && address ? address.port : 0;
}
