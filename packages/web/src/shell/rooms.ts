import type { CautionId } from '@velvet-reed/core/safety';
import type { SchoolId } from './schools';
import { STEPS, type StepId } from '@velvet-reed/station/steps';

/** A room of a step: one question, one address, a folder of its own. */
export interface Room {
  readonly id: string;
  readonly name: string;
  readonly asks: string;
  /** The usual cautions of what is done here, said in its margin; those of one control or build step stand there. */
  readonly cautions?: readonly CautionId[];
  /** Questions met here on which practitioners disagree. */
  readonly schools?: readonly SchoolId[];
}

/** The rooms of each step in the order in which people work; the first opens when the step is chosen. */
export const ROOMS: Readonly<Record<StepId, readonly Room[]>> = {
  listen: [
    { id: 'wanted', name: 'Wanted', asks: 'What do I want to hear?', cautions: ['headphones'] },
    { id: 'when', name: 'When', asks: 'When is it heard here?', cautions: ['headphones'], schools: ['slots'] },
    {
      id: 'transmitters',
      name: 'Transmitters',
      asks: 'Who transmits nearby, and how strongly?',
      schools: ['wideband'],
    },
    { id: 'outside-noise', name: 'Outside noise', asks: 'How much noise comes from outside?' },
    {
      id: 'receivers',
      name: 'Receivers',
      asks: 'What do I listen with?',
      cautions: ['headphones'],
      schools: ['receiver'],
    },
    {
      id: 'place',
      name: 'Place',
      asks: 'What does the place offer, and forbid?',
      cautions: ['powerLine', 'wind', 'lightning'],
      schools: ['earth'],
    },
    {
      id: 'survey',
      name: 'Survey',
      asks: 'What does an antenna hear of ten signals?',
      cautions: ['headphones', 'driving'],
      schools: ['snr'],
    },
  ],
  plot: [{ id: 'plan', name: 'Plan', asks: 'What is where?', cautions: ['powerLine', 'digging', 'neckHeight'] }],
  choose: [
    { id: 'ranking', name: 'Ranking', asks: 'Which antenna, here?', schools: ['loop', 'wideband', 'restricted'] },
    { id: 'every-target', name: 'Every target', asks: 'Which antenna serves which target?', schools: ['several'] },
    { id: 'coverage', name: 'Coverage', asks: 'What do my antennas not reach?', schools: ['several'] },
    { id: 'to-buy', name: 'To buy', asks: 'Is one from the shop worth its price?', schools: ['build', 'wideband'] },
    { id: 'side-by-side', name: 'Side by side', asks: 'How do two or more compare, line by line?' },
  ],
  draft: [
    {
      id: 'model',
      name: 'Model',
      asks: 'What do these dimensions do?',
      cautions: ['height', 'powerLine'],
      schools: ['believed'],
    },
    { id: 'build', name: 'Cut and build', asks: 'What do I cut, and in which order do I build?', schools: ['earth'] },
    { id: 'vary', name: 'Vary', asks: 'What if height, ground or a dimension were another?', cautions: ['height'] },
    { id: 'trim', name: 'Trim by model', asks: 'Which dimensions bring it on frequency?', cautions: ['knife'] },
    {
      id: 'windings',
      name: 'Windings',
      asks: 'How many turns: coils, transformers, chokes?',
      cautions: ['ferrite', 'enamel', 'solder', 'lathe'],
      schools: ['match'],
    },
    {
      id: 'feed-line',
      name: 'Feed line',
      asks: 'Does the cable hear too, and where does the choke sit?',
      cautions: ['height', 'ferrite'],
    },
    { id: 'lengths', name: 'Lengths', asks: 'How long is a wave, and a part of it?' },
  ],
  bench: [
    {
      id: 'sweep',
      name: 'Sweep',
      asks: 'Is it on frequency?',
      cautions: ['height', 'touching'],
      schools: ['match', 'calibrated'],
    },
    {
      id: 'trim',
      name: 'Trim',
      asks: 'How much do I cut next?',
      cautions: ['height', 'touching', 'knife'],
      schools: ['believed'],
    },
    {
      id: 'changed',
      name: 'What changed',
      asks: 'What is different since the sweep before?',
      cautions: ['height', 'touching'],
    },
    { id: 'fault', name: 'Fault distance', asks: 'How far away is the fault?', cautions: ['touching', 'coaxDc'] },
    {
      id: 'as-built',
      name: 'As built',
      asks: 'Which dimensions does it really have?',
      cautions: ['height'],
      schools: ['believed'],
    },
    { id: 'coil', name: 'Coil by noise', asks: 'Where does a coil resonate, and how sharply?' },
    {
      id: 'wires',
      name: 'Wires together',
      asks: 'What does cutting one wire do to the others?',
      cautions: ['height', 'touching', 'knife'],
    },
    {
      id: 'instruments',
      name: 'Instruments',
      asks: 'What do the instruments show, and how is a sweep planned?',
      cautions: ['battery', 'coaxDc'],
      schools: ['stepped', 'calibrated'],
    },
    { id: 'practice', name: 'Practice', asks: 'Can I find a hidden fault?' },
    { id: 'mast', name: 'At the mast', asks: 'One number, one action' },
  ],
  trials: [
    {
      id: 'pairs',
      name: 'Pairs',
      asks: 'Is B better than A?',
      cautions: ['headphones'],
      schools: ['snr', 'loop', 'ears'],
    },
    {
      id: 'conditions',
      name: 'Conditions',
      asks: 'When is which antenna better?',
      schools: ['loop'],
    },
    {
      id: 'recording',
      name: 'Recording',
      asks: 'What does a recording say: levels, antennas in turn, noise?',
      cautions: ['headphones'],
      schools: ['evidence'],
    },
    { id: 'decodes', name: 'Counts and decodes', asks: 'Who is heard more often?', schools: ['evidence', 'slots'] },
    { id: 'passes', name: 'Passes', asks: 'Which passes come, and how well are they heard?' },
    {
      id: 'pattern',
      name: 'Pattern',
      asks: 'How does it hear round about?',
      cautions: ['height', 'touching'],
      schools: ['indoors'],
    },
  ],
  noise: [
    {
      id: 'floor',
      name: 'Floor',
      asks: 'What is my floor, and who makes it?',
      cautions: ['headphones'],
      schools: ['gain'],
    },
    {
      id: 'devices',
      name: 'Own devices',
      asks: 'Which of my devices makes noise?',
      cautions: ['headphones', 'wetLawn'],
    },
    {
      id: 'spurs',
      name: 'Spurs and pad',
      asks: 'Who makes a signal that should not be there?',
      cautions: ['headphones'],
    },
    { id: 'gain', name: 'Gain', asks: 'How far may I turn it up?', cautions: ['headphones'], schools: ['gain'] },
    {
      id: 'direction',
      name: 'Direction',
      asks: 'Where does it come from?',
      cautions: ['headphones'],
    },
    { id: 'two-antennas', name: 'Two antennas', asks: 'How do I keep it out, or add what both hear?' },
    { id: 'meters', name: 'Meters', asks: 'What do S units and decibels say?' },
  ],
  path: [
    {
      id: 'chain',
      name: 'Chain',
      asks: 'What goes in between, in which order?',
      cautions: ['coaxDc'],
      schools: ['filter'],
    },
    { id: 'every-target', name: 'Every target', asks: 'Does the chain serve all of them?' },
    { id: 'supply', name: 'Supply and plugs', asks: 'Does the supply arrive, and does it fit together?' },
    { id: 'shelf', name: 'Shelf', asks: 'Which parts do I have?', cautions: ['battery'] },
    { id: 'best-order', name: 'Best order', asks: 'Which set and order is best for all targets?', schools: ['filter'] },
    { id: 'filter', name: 'Filter', asks: 'Which filter, from real parts?', schools: ['filter'] },
    { id: 'receiver', name: 'Receiver', asks: 'How is the receiver set up?', schools: ['receiver'] },
    {
      id: 'converter',
      name: 'Converter',
      asks: 'Where does a converter put it; what does sharing cost?',
      schools: ['sharing', 'ears'],
    },
  ],
  guard: [
    {
      id: 'inputs',
      name: 'Inputs',
      asks: 'What reaches each receiver while transmitting?',
      cautions: ['transmitter', 'touching', 'lightning'],
      schools: ['keying'],
    },
    {
      id: 'routes',
      name: 'Routes',
      asks: 'Which ways lead from the transmitter to a receiver?',
      cautions: ['transmitter'],
    },
    { id: 'states', name: 'States', asks: 'What if a relay sticks, or the key line is unplugged?' },
    { id: 'coupling', name: 'Coupling', asks: 'What does each antenna take from the other?' },
    {
      id: 'power-test',
      name: 'Stepwise test',
      asks: 'What arrives in truth, from the lowest power up?',
      cautions: ['transmitter', 'touching'],
    },
    { id: 'timing', name: 'Timing', asks: 'Does RF meet a relay that still moves?', schools: ['keying'] },
    { id: 'meter', name: 'Meter', asks: 'What does a wattmeter at zero prove?' },
    {
      id: 'people',
      name: 'People',
      asks: 'How strong is the field where people are?',
    },
  ],
  notebook: [
    { id: 'diary', name: 'Diary', asks: 'What did I do and find?' },
    { id: 'report', name: 'Report', asks: 'How do I take it along?' },
    { id: 'seasons', name: 'Seasons', asks: 'What moved since last year, and why?' },
    {
      ...{ id: 'upkeep', name: 'Upkeep', asks: 'What wants a look before it breaks?' },
      cautions: ['height', 'wind', 'powerLine'],
    },
    { id: 'files', name: 'Files', asks: 'Which raw files stand behind the figures?' },
    { id: 'bin', name: 'Bin', asks: 'What was deleted, and can it come back?' },
    { id: 'phone', name: 'Phone', asks: 'How does a phone come along, and who is let in?' },
    { id: 'station-file', name: 'Station file', asks: 'How do I carry it, keep it, and get it back?' },
  ],
};

/** The room at an address "/s/1/listen/when"; undefined for an address of no room. */
export function roomAt(pathname: string): { readonly step: (typeof STEPS)[number]; readonly room: Room } | undefined {
  const [, , , stageId, roomId] = pathname.split('/');
  const step = STEPS.find(({ id }) => id === stageId);
  const room = step && ROOMS[step.id].find(({ id }) => id === roomId);
  return step && room && { step, room };
}
