import { describe, expect, test } from '@jest/globals';
import {
  ANTENNA_KINDS,
  type BuildStep,
  type KindId,
  startDesign,
  tryDraft,
  withEntry,
} from '@velvet-reed/core/antenna';
import { CAUTIONS, type CautionId } from '@velvet-reed/core/safety';
import { screen, within } from '@testing-library/react';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { renderView } from './data/page-harness';
import { TEST_STATION } from '@velvet-reed/station/testing/test-station';
import { ROOMS } from './shell/rooms';
import { SCHOOLS } from './shell/schools';
import type { StepId } from '@velvet-reed/station/steps';
import { BuildPlan } from './steps/draft/build/build-plan';
import { Room } from './ui/room';
import { RoomNotes } from './ui/room-notes';
import { Caution } from './ui/section';

const stepsOf = (kind: KindId): readonly BuildStep[] => {
  const { draft } = tryDraft(startDesign(kind, ANTENNA_KINDS.find(({ id }) => id === kind)?.bandHz[0] ?? 7e6));
  return withEntry(draft?.steps ?? [], false);
};

/** Which hazard has to be told at which step of building. Common practice, no source. */
const AT_BUILDING: readonly (readonly [KindId, step: string, readonly CautionId[]])[] = [
  ['half-wave-dipole', 'crimp', ['solder', 'gas']],
  ['half-wave-dipole', 'cut', ['knife']],
  ['half-wave-dipole', 'raise', ['height', 'wind', 'powerLine', 'touching']],
  ['half-wave-dipole', 'first-sweep', ['height', 'wind', 'touching']],
  ['half-wave-dipole', 'seal', ['spray']],
  ['half-wave-dipole', 'ends', ['neckHeight']],
  ['half-wave-dipole', 'entry', ['drilling']],
  ['half-wave-dipole', 'storm', ['lightning']],
  ['ground-loop', 'locate', ['digging']],
  ['ground-loop', 'lay', ['wetLawn', 'stakes']],
  ['amplified-loop', 'dc', ['coaxDc']],
  ['amplified-loop', 'power', ['battery']],
  ['amplified-loop', 'seal', ['cement']],
  ['ferrite-rod', 'wind', ['ferrite', 'lathe', 'enamel']],
  ['horn', 'cut', ['sheetMetal']],
  ['dish', 'point', ['sun']],
];
describe('a build step tells its hazards', () => {
  test.each(AT_BUILDING)('%s, %s', (kind, id, wanted) => {
    const steps = stepsOf(kind);
    const step = steps.find((one) => one.id === id);
    if (!step) throw new Error(`${kind} has no step ${id}`);
    renderView(
      <BuildPlan revision={TEST_STATION.revisions[0]} steps={steps} evidence={new Map()} antennaName="Wire" />,
      'draft',
    );
    const row = screen.getAllByRole('listitem')[steps.indexOf(step)];
    for (const caution of wanted) expect(within(row).getByText(CAUTIONS[caution], { exact: false })).toBeTruthy();
  });
});

/** Which hazard has to be told in which room. */
const IN_ROOMS: readonly (readonly [StepId, room: string, readonly CautionId[]])[] = [
  ['listen', 'wanted', ['headphones']],
  ['listen', 'survey', ['headphones', 'driving']],
  ['listen', 'place', ['wind', 'powerLine', 'lightning']],
  ['draft', 'windings', ['lathe', 'ferrite', 'enamel', 'solder']],
  ['bench', 'sweep', ['height', 'touching']],
  ['bench', 'instruments', ['battery', 'coaxDc']],
  ['trials', 'pairs', ['headphones']],
  ['noise', 'floor', ['headphones']],
  ['noise', 'devices', ['wetLawn', 'headphones']],
  ['guard', 'inputs', ['transmitter', 'touching', 'lightning']],
];
test.each(IN_ROOMS)('the margin of %s, %s tells its hazards', (step, id, wanted) => {
  const cautions = ROOMS[step].find((room) => room.id === id)?.cautions ?? [];
  renderView(
    <RoomNotes value={{ cautions, schools: [] }}>
      <Room title="Here" verdict="So it is." />
    </RoomNotes>,
    step,
  );
  const margin = screen.getByRole('complementary');
  for (const caution of wanted) expect(within(margin).getByText(CAUTIONS[caution])).toBeTruthy();
});

const HERE = fileURLToPath(new URL('.', import.meta.url));
const inline = readdirSync(join(HERE, 'steps'), { recursive: true, encoding: 'utf8' })
  .filter((name) => name.endsWith('.tsx') && !name.includes('.test.'))
  .flatMap((name) =>
    [...readFileSync(join(HERE, 'steps', name), 'utf8').matchAll(/<Caution of=(?:"(\w+)"|\{\[([^\]]*)\]\})/g)].flatMap(
      ([, one, list]) => (one ? [one] : [...(list ?? '').matchAll(/'(\w+)'/g)].map(([, id]) => id)),
    ),
  );
test('several hazards of one control stand in one caution', () => {
  renderView(<Caution of={['mains', 'solar']} />, 'noise');
  expect(screen.getByText(`${CAUTIONS.mains} ${CAUTIONS.solar}`, { exact: false })).toBeTruthy();
  expect(inline).toEqual(expect.arrayContaining(['mains', 'solar', 'sun', 'exposure']));
});

test('nothing stands in the table of cautions that nobody is told', () => {
  const told = new Set([
    ...ANTENNA_KINDS.flatMap(({ id }) => stepsOf(id).flatMap(({ cautions }) => cautions ?? [])),
    ...Object.values(ROOMS).flatMap((rooms) => rooms.flatMap(({ cautions }) => cautions ?? [])),
    ...inline,
  ]);
  expect([...told].sort()).toEqual(Object.keys(CAUTIONS).sort());
});

test('every question of the schools stands in a room, and a room shows both sides of it', () => {
  const told = new Set(Object.values(ROOMS).flatMap((rooms) => rooms.flatMap(({ schools }) => schools ?? [])));
  expect([...told].sort()).toEqual(Object.keys(SCHOOLS).sort());
  renderView(
    <RoomNotes value={{ cautions: [], schools: [SCHOOLS.match] }}>
      <Room title="Here" verdict="So it is." />
    </RoomNotes>,
    'bench',
  );
  expect(within(screen.getByRole('complementary')).getByText(/costs 0\.3 dB of SNR/)).toBeTruthy();
});

test('the figures of the match school: SWR 5 behind 10 dB of outside noise', () => {
  // mismatch 1 − |Γ|², Γ = 4/6; SNR with the receiver's noise at a tenth of the outside noise, before and after
  const passed = 1 - (4 / 6) ** 2;
  const lossDb = -10 * Math.log10(passed);
  const snrDb = (received: number): number => 10 * Math.log10(received / (received + 0.1));
  expect(lossDb).toBeCloseTo(2.6, 1);
  expect(snrDb(1) - snrDb(passed)).toBeCloseTo(0.3, 1);
});
