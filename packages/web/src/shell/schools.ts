/**
 * Questions on which practitioners disagree, and what decides between them here: each is answered by an assumption that is named, or both ways are offered.
 * Common practice, no source, except where a figure follows from a formula of docs/physics.md.
 */
export const SCHOOLS = {
  wideband: [
    'Wideband loop or one for HF alone?',
    'The transmitters entered in Listen decide: wideband risks overload, HF alone gives up VHF. After buying, the pad test in Noise tells.',
  ],
  loop: [
    'Loop or dipole?',
    'Where your own house makes the floor, the quieter antenna wins; where the outside does, the larger one. Both rankings are offered, and a trial settles it.',
  ],
  snr: [
    'Level or SNR?',
    'Level, noise and SNR are shown apart, never as one number. SNR decides reception; a lower level alone is no fault.',
  ],
  keying: [
    'Sensing or key line?',
    'A key line switches before power comes; sensing switches after it, so it needs a power limit and a limiter. Without a measured delay neither counts as proof here.',
  ],
  filter: [
    'Filter ahead of the amplifier or behind it?',
    'Ahead costs its loss in noise figure, behind leaves the amplifier to the strong signals. Both orders are computed; the one that loses less SNR is preferred.',
  ],
  sharing: [
    'Splitter, switch or tap behind the mixer?',
    'A splitter costs its loss and keeps both receivers free, a switch costs nothing and serves one, a tap follows the first receiver’s tuning.',
  ],
  restricted: [
    'Which type where little is allowed?',
    'No vote: each is computed over your ground and within your rules, with its price, effort and sight beside it.',
  ],
  believed: [
    'Believe the model or the measurement?',
    'Both stay, with their difference: a measured value never overwrites a model, nor the other way round.',
  ],
  calibrated: [
    'Calibrate or compare?',
    'Each curve says raw, corrected or relative. Raw readings suffice for moving a dip, not for absolute resistance.',
  ],
  match: [
    'How good must the match be?',
    'For receiving, noise decides: where outside noise stands 10 dB over the receiver’s own, an SWR of 5 takes 2.6 dB off signal and noise alike and costs 0.3 dB of SNR. For transmitting the maker’s limit counts.',
  ],
  several: [
    'One antenna for all, or several?',
    'The table names what one leaves unserved; each further antenna costs its price and the effort of switching.',
  ],
  gain: [
    'More gain or less?',
    'The rise with the antenna decides: over 10 dB no amplifier helps, under 3 dB one at the antenna does.',
  ],
  stepped: [
    'Fast sweep or stepped?',
    'Fast shows what moves, stepped repeats better. Repeat a sweep: the spread of its points says which one you need.',
  ],
  slots: [
    'Long transmissions or short ones?',
    'Long ones reach deeper and give fewer chances in a night; drift of either station takes the gain back.',
  ],
  ears: ['Two ears, combining or switching?', 'Note which one you used: results of one way say nothing of another.'],
  earth: [
    'Earth rod or counterpoise?',
    'For receiving, a counterpoise does the work of a rod without digging. Earthing against lightning is another matter: local rules decide it.',
  ],
  build: [
    'Buy or build?',
    'Hours of building are counted as effort, money as price; how much each weighs is yours to say.',
  ],
  receiver: [
    'One wide receiver or a narrow one?',
    'A narrow one keeps strong signals out, a wide one sees more at once. Room before overload, computed with your transmitters, decides.',
  ],
  indoors: [
    'Do tests indoors count?',
    'Reflections from walls move a pattern by decibels: repeat it a quarter wave away, and take the difference as its error.',
  ],
  evidence: [
    'Decode, count or level?',
    'Each is evidence of something else; a result names which one it rests on, and they are never added together.',
  ],
} as const satisfies Readonly<Record<string, readonly [question: string, decides: string]>>;

export type SchoolId = keyof typeof SCHOOLS;
