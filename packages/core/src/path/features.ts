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
