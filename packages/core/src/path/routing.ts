import { ShapeError } from '../errors';

/** One link of the routing: audio or control from one program or device to another. */
export interface Route {
  readonly kind: 'audio' | 'control';
  readonly from: string;
  readonly to: string;
  /** Cable, serial port, virtual port or virtual audio cable; empty when nobody said. */
  readonly via: string;
}

/** What is wrong with a routing. */
interface RoutingFinding {
  readonly missing: readonly string[];
  readonly loops: readonly string[];
  /** Ports that more than one pair of ends is said to use. */
  readonly shared: readonly string[];
}

/** An end that is a device and no program, by its first word. */
const DEVICE = /^(radio|receiver|transceiver|sound card|rotator)( \w)?$/i;
const isDevice = (end: string): boolean => DEVICE.test(end);

/**
 * Routes as they are written, one a line: "audio: from > to, via".
 * @throws ShapeError naming the line that is none.
 */
export function readRoutes(text: string): readonly Route[] {
  return text
    .split('\n')
    .map((one) => one.trim())
    .filter(Boolean)
    .map((line): Route => {
      const match = /^(audio|control)\s*:\s*([^>,]+)>\s*([^,]+)(?:,\s*(.*))?$/.exec(line);
      if (!match) throw new ShapeError(`"${line}" is no route. Write it as audio: from > to, via`);
      const [, kind, from, to, via = ''] = match;
      return { kind: kind === 'audio' ? 'audio' : 'control', from: from.trim(), to: to.trim(), via: via.trim() };
    });
}

/** Rings that links make. A device ends them: what a radio is given to transmit does not come out of its receiver, and control is asked and answered. */
function ringsOf(links: readonly Route[], kind: Route['kind']): readonly string[] {
  const own = links.filter((link) => link.kind === kind);
  const found = new Set<string>();
  const walk = (at: string, path: readonly string[]): void => {
    const seen = path.indexOf(at);
    if (seen >= 0) {
      const ring = path.slice(seen);
      // the same ring is found from each of its members: told once, from its first name
      const start = ring.indexOf([...ring].sort()[0]);
      const turned = [...ring.slice(start), ...ring.slice(0, start)];
      found.add(`${kind}: ${[...turned, turned[0]].join(' → ')} is a loop.`);
      return;
    }
    if (isDevice(at)) return;
    own.filter(({ from }) => from === at).forEach(({ to }) => walk(to, [...path, at]));
  };
  [...new Set(own.map(({ from }) => from))].forEach((start) => walk(start, []));
  return [...found];
}

/** Control ports on which more than one program is said to sit: a port opens once. */
function sharedPorts(links: readonly Route[]): readonly string[] {
  const ports = new Map<
    string,
    { readonly name: string; readonly programs: Set<string>; readonly pairs: Set<string> }
  >();
  for (const { kind, from, to, via } of links) {
    if (kind !== 'control' || via === '') continue;
    const key = via.toLowerCase();
    const port = ports.get(key) ?? { name: via, programs: new Set(), pairs: new Set() };
    [from, to].filter((end) => !isDevice(end)).forEach((end) => port.programs.add(end));
    port.pairs.add([from, to].sort().join(' and '));
    ports.set(key, port);
  }
  return [...ports.values()]
    .filter(({ pairs }) => pairs.size > 1)
    .map(
      ({ name, programs }) =>
        `${name} serves ${[...programs].join(' and ')}. A port opens for one program only: name two ports, or let one program hand it on.`,
    );
}

/** Missing links by name, loops per kind (audio that comes round whistles, control that comes round fights itself), and ports used twice. */
export function checkRouting(routes: readonly Route[]): RoutingFinding {
  const missing = routes
    .filter(({ via }) => via === '')
    .map(({ kind, from, to }) =>
      !isDevice(from) && !isDevice(to)
        ? `${from} to ${to}: a ${kind === 'audio' ? 'virtual audio cable' : 'pair of virtual serial ports'} is missing.`
        : `${from} to ${to}: ${kind === 'audio' ? 'an audio cable' : 'a serial or USB control cable'} is missing.`,
    );
  return { missing, loops: [...ringsOf(routes, 'audio'), ...ringsOf(routes, 'control')], shared: sharedPorts(routes) };
}
