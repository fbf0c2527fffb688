/** Hazards met at build and measuring steps. Each reminds; none is a permission. Local codes and licensed people decide. */
export const CAUTIONS = {
  height:
    'Ladder or mast work: a second person, a proper ladder on firm ground, no wind or wet; a mast goes up only in still air. Leave roofs to trained people.',
  powerLine:
    'Look up first: keep mast, wire and yourself farther from any power line than their whole length. If unsure, ask the utility.',
  lightning:
    'Disconnect before a thunderstorm. Bonding and arresters follow the local code and a licensed electrician; an RF earth is not a lightning earth.',
  solder: 'Soldering: ventilate, protect your eyes, clamp the wire, let it cool before you touch it.',
  crimpKnife: 'Cut away from your body; secure the work. Wire ends spring: protect your eyes.',
  digging: 'Before digging or driving a stake, have buried cables and pipes located. If unsure, do not dig.',
  drilling: 'Before drilling a wall, locate cables, pipes and fibre inside it; protect your eyes. Stop if unsure.',
  wetLawn: 'Wet grass and mains do not go together: no mains tool or extension on a wet lawn, and firm shoes.',
  ferrite: 'Ferrite breaks into sharp shards: goggles, and sweep up. Strip enamel and use glue or spray in moving air.',
  headphones:
    'Headphones: volume down before you tune, switch an antenna or a noise source. A crash can hurt your ears.',
  battery: 'Batteries: fuse at the terminal, no charging unattended, nothing metal loose beside them.',
  neckHeight: 'A wire at head height is a hazard: keep its ends above reach and make them visible.',
  coaxDc:
    'Coax-fed DC: check voltage and polarity first; no pad, splitter or analyser in that path. Disconnect the supply before joining plugs.',
  transmitter:
    'Lock the transmitter off while anyone touches an antenna or feed line; ends carry high voltage. A wattmeter that shows zero proves little.',
  exposure:
    'Keep people out of the near field of a transmitting antenna. National limits and licence duties decide, not this figure.',
} as const;

export type CautionId = keyof typeof CAUTIONS;
