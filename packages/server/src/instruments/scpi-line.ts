import { connect } from 'node:net';
import type { Duplex } from 'node:stream';
import { InstrumentError } from './scpi-error';

/** Where an instrument is: at an address of the network, or at a serial port of this computer. */
export type Way = { readonly host: string; readonly port: number } | { readonly path: string; readonly baud: number };

export const wayText = (way: Way): string => ('path' in way ? way.path : `${way.host}:${way.port}`);

/** A connection that is open. */
export interface Line {
  readonly stream: Duplex;
  isOpen(): boolean;
  /** Gives it up; what arrives later is lost. A serial port can be opened again once this has come to its end. */
  close(): Promise<void>;
}

const unreached = (name: string, way: Way, why: string): InstrumentError =>
  new InstrumentError(
    `The ${name} at ${wayText(way)} ${why}. See whether it is switched on and connected, then try again.`,
  );

function openSocket(name: string, way: { readonly host: string; readonly port: number }, ms: number): Promise<Line> {
  return new Promise((resolve, reject) => {
    const socket = connect(way);
    const fail = (why: string): void => {
      clearTimeout(timer);
      socket.destroy();
      reject(unreached(name, way, why));
    };
    const timer = setTimeout(() => fail('does not answer'), ms);
    socket.once('error', () => fail('cannot be reached'));
    socket.once('connect', () => {
      clearTimeout(timer);
      socket.removeAllListeners('error');
      socket.on('error', () => socket.destroy());
      socket.setNoDelay(true);
      resolve({
        stream: socket,
        isOpen: () => !socket.destroyed,
        close: () => Promise.resolve(void socket.destroy()),
      });
    });
  });
}

/** Why a serial port does not open, by what the system says. */
function serialFault(name: string, way: Way, said: string): InstrumentError {
  if (/permission|access denied/i.test(said))
    return new InstrumentError(
      `This user may not open ${wayText(way)}, where the ${name} is. On Linux add the user to the group that owns it, often dialout, and sign in anew; elsewhere end the program that holds it.`,
    );
  if (/lock|busy|in use/i.test(said))
    return new InstrumentError(
      `Another program holds ${wayText(way)}, where the ${name} is. End it there, then try again.`,
    );
  return unreached(name, way, 'cannot be opened');
}

/** 8 data bits, no parity, one stop bit, no handshake: what instruments come with. Common practice, no source. */
async function openSerial(name: string, way: { readonly path: string; readonly baud: number }): Promise<Line> {
  // the package holds native code: loaded for those only who have a serial instrument
  const { SerialPort } = await import('serialport');
  const port = new SerialPort({ path: way.path, baudRate: way.baud, autoOpen: false });
  await new Promise<void>((resolve, reject) => {
    port.open((error) => (error ? reject(serialFault(name, way, error.message)) : resolve()));
  });
  port.on('error', () => undefined);
  return {
    stream: port,
    isOpen: () => port.isOpen,
    close: () => new Promise((resolve) => port.close(() => resolve())),
  };
}

/** Opens a connection. @param ms longest time for it. @throws InstrumentError that says what to see to. */
export const openLine = (name: string, way: Way, ms: number): Promise<Line> =>
  'path' in way ? openSerial(name, way) : openSocket(name, way, ms);
