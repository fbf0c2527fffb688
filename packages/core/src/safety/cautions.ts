/**
 * Hazards met at steps of building, measuring and listening, one sentence or two each. Each reminds; none is a permission: local codes, the manuals of the
 * equipment and licensed people decide. Common practice, no source.
 */
export const CAUTIONS = {
  height:
    'Ladder or mast work: a second person, a proper ladder on firm ground, no wind or wet. Leave roofs to trained people.',
  wind: 'Wind: a mast goes up or down only in still air. Know the wind at which it must come down, and lower it before the storm, not in it.',
  powerLine:
    'Look up first: keep mast, wire and yourself farther from any power line than their whole length. If unsure, ask the utility.',
  lightning:
    'Disconnect before a thunderstorm. Bonding and arresters follow the local code and a licensed electrician; an RF earth is not a lightning earth.',
  touching:
    'Before anyone touches an antenna or feed line, lock its transmitter off: the ends carry high voltage, and a key left plugged in can be pressed.',
  transmitter:
    'Transmitting beside a receiver: key-line switch or disconnect first, lowest power first, and stay below the limit its maker names. A wattmeter that shows zero proves little.',
  exposure:
    'Keep people out of the near field of a transmitting antenna. National limits and licence duties decide, not this figure.',
  solder:
    'Soldering: moving air, eyes protected, iron in its stand, clamp a long wire, and let the joint cool before you touch it.',
  gas: 'Gas iron or torch: keep the cartridge away from heat and flame, change it outdoors, and mind what burns behind the joint.',
  knife: 'Cut away from your body and secure the work. Wire ends spring: protect your eyes.',
  digging:
    'Before digging, boring or driving a stake, have buried cables and pipes located. Use no water lance near gas, water or power. If unsure, do not dig.',
  drilling:
    'Before drilling a wall, locate cables, pipes and fibre inside it, and stop if unsure. Protect your eyes; with a hammer drill your ears too.',
  wetLawn:
    'Wet grass, mud and rain do not go with mains: no mains lamp, tool or extension there, and residual-current protection wherever one is used. Firm shoes.',
  stakes:
    'Stakes, staples and wires in the grass: mark them for feet and mower. Someone will trip over what is not seen.',
  neckHeight:
    'A wire at head height is a hazard: keep it above reach or make it visible, and agree with whoever owns the tree or fence.',
  ferrite: 'Ferrite breaks into sharp shards: goggles, and sweep up.',
  enamel: 'Enamel gives off fumes when it is burned off: scrape it, or burn it in moving air.',
  lathe:
    'Winding on a lathe or drill: no loose sleeves, gloves or long hair, the guard in place, and the lowest speed by hand first.',
  cement:
    'Primer and cement for plastic pipe burn and make dizzy: moving air, no flame, the tin closed between two joints.',
  spray: 'Spray and lacquer: mask, moving air, no flame, and neither wind nor hot sun on the work.',
  sheetMetal: 'Sheet metal and rivets cut: gloves, eyes protected, edges rounded off before it is handled on a mast.',
  sun: 'Never look along a dish at the sun or into a laser, and never leave a dish pointed at the sun: heat gathers at its focus.',
  headphones:
    'Headphones: volume down before you tune, switch an antenna or a source of noise. A crash can hurt your ears.',
  battery:
    'Batteries: a fuse at the terminal, polarity checked, nothing metal loose beside them, and no damaged cell charged or carried on.',
  coaxDc:
    'DC over coax: disconnect before you change plugs; check voltage, polarity and short circuits by meter first. No pad, splitter or analyser belongs in that path.',
  mains:
    'Switch at the device or its plug. Fixed wiring and filters in the mains are for a licensed electrician; an inverter stays closed.',
  breakers:
    'Only the switches that any householder may work, with dry hands and a torch: say so in the house first; computers saved; think of freezers, alarms and medical devices. Nothing behind a cover; local rules and a licensed electrician come first.',
  solar: 'Solar wiring carries dangerous DC even when it is switched off: its installer opens it, nobody else.',
  turning:
    'What turns can catch a cable, a sleeve or a hand: clear the circle, watch the first round, and keep the stop within reach. A sender stays at the power that is allowed.',
  driving: 'In a car only when parked, or let a passenger read and type.',
} as const;

export type CautionId = keyof typeof CAUTIONS;
