/** Features of a radio or receiver that can stand in each other's way. */
export const FEATURES = [
  'IF tap',
  'diversity',
  'panadapter with switch',
  'independent bands',
  'click-tune',
  'splitter',
  'transmitting',
] as const;
export type Feature = (typeof FEATURES)[number];

/** Two features that do not go together, or only under a condition. */
export interface FeatureRule {
  readonly pair: readonly [Feature, Feature];
  readonly verdict: 'impossible' | 'with care';
  readonly reason: string;
}

/** Common practice, no source: each follows from where the signal is taken. */
const RULES: readonly FeatureRule[] = [
  {
    pair: ['IF tap', 'diversity'],
    verdict: 'impossible',
    reason:
      'the tap hands out what the radio’s own mixer made of ONE antenna: the second antenna never reaches it, and both would follow one oscillator.',
  },
  {
    pair: ['IF tap', 'independent bands'],
    verdict: 'impossible',
    reason: 'the tap only shows the band that the radio is tuned to; independent bands need the antenna itself.',
  },
  {
    pair: ['panadapter with switch', 'transmitting'],
    verdict: 'with care',
    reason: 'the switch must part the receiver before the transmitter starts; see Guard for its lead and isolation.',
  },
  {
    pair: ['splitter', 'transmitting'],
    verdict: 'impossible',
    reason: 'a splitter passes transmit power into the receiver; use a switch.',
  },
  {
    pair: ['splitter', 'diversity'],
    verdict: 'with care',
    reason: 'a splitter hands the same antenna to both receivers: for diversity each needs an antenna of its own.',
  },
];

/** What of a choice does not go together, and why. */
export const featureConflicts = (chosen: readonly Feature[]): readonly FeatureRule[] =>
  RULES.filter(({ pair }) => pair.every((one) => chosen.includes(one)));

/** One link of the routing: audio or control from one program or device to another. */
export interface Route {
  readonly kind: 'audio' | 'control';
  readonly from: string;
  readonly to: string;
  /** Cable, serial port, virtual port or virtual audio cable; empty when nobody said. */
  readonly via: string;
  /** Both ends are programs on one computer. */
  readonly programs: boolean;
}

/** What is wrong with a routing. */
export interface RoutingFinding {
  readonly missing: readonly string[];
  readonly loops: readonly string[];
}

/** Missing links by name, and loops per kind: audio that comes round whistles, control that comes round fights itself. */
export function checkRouting(routes: readonly Route[]): RoutingFinding {
  const missing = routes
    .filter(({ via }) => via.trim() === '')
    .map(({ kind, from, to, programs }) =>
      programs
        ? `${from} to ${to}: a ${kind === 'audio' ? 'virtual audio cable' : 'pair of virtual serial ports'} is missing.`
        : `${from} to ${to}: ${kind === 'audio' ? 'an audio cable' : 'a serial or USB control cable'} is missing.`,
    );
  const loops = (['audio', 'control'] as const).flatMap((kind) => {
    const own = routes.filter((route) => route.kind === kind);
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
      own.filter(({ from }) => from === at).forEach(({ to }) => walk(to, [...path, at]));
    };
    [...new Set(own.map(({ from }) => from))].forEach((start) => walk(start, []));
    return [...found];
  });
  return { missing, loops };
}
