import { createServer, type Server } from 'node:net';
import { respond, type AnalyserState } from './analyser';

/** A line longer than this is no command; the connection is closed. */
const LONGEST_LINE = 4096;

/** Puts a stand-in on a loopback TCP port; every connection shares the instrument's state, as on a bench. */
export function serveAnalyser(first: AnalyserState, port: number): Promise<Server> {
  let state = first;
  const server = createServer((socket) => {
    let waiting = '';
    socket.setEncoding('utf8');
    socket.on('error', () => socket.destroy());
    socket.on('data', (chunk: string) => {
      waiting += chunk;
      const lines = waiting.split('\n');
      waiting = lines.pop() ?? '';
      if (waiting.length > LONGEST_LINE) socket.destroy();
      for (const line of lines) {
        const answer = respond(state, line);
        state = answer.state;
        if (answer.reply !== undefined) socket.write(`${answer.reply}\n`);
      }
    });
  });
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => resolve(server));
  });
}
