import { describe, expect, jest, test } from '@jest/globals';
import { BLANK } from '@velvet-reed/contract';
import {
  type CandidateSpec,
  type ForecastPlace,
  kindCandidates,
  rankCandidates,
  readGains,
  readyCandidate,
  solveHearing,
} from '@velvet-reed/core/choose';
import { expectedNoise } from '@velvet-reed/core/site';
import { groundClass } from '@velvet-reed/core/solver';
import { fireEvent, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter } from 'react-router';
import { roomOf, targetChoices } from '@velvet-reed/station/derive';
import { spotsOf } from '@velvet-reed/station/spots';
import { TEST_STATION } from '@velvet-reed/station/testing/test-station';
import { ComparisonCard } from './side-by-side/comparison-card';
import { ProvenWorth } from './proven-worth';
import { RankingList } from './ranking/ranking-list';

const TARGETS = targetChoices(TEST_STATION, Date.UTC(2026, 2, 10));
const PLACE: ForecastPlace = {
  transmitters: [
    { name: '95.3 MHz', freqHz: 95.3e6, powerW: 4000, powerKind: 'ERP', distanceM: 1800 },
    { name: '104.9 MHz', freqHz: 104.9e6, powerW: 8000, powerKind: 'ERP', distanceM: 2500 },
  ],
  receivers: TEST_STATION.receivers,
  lineLossDb: () => 1,
  externalFaDb: (freqHz) => expectedNoise('residential', freqHz).faDb,
};
const LOOP: CandidateSpec = {
  id: 'bought-1',
  name: 'Wideband loop',
  source: 'bought',
  sizeM: 1,
  burden: { price: 250, hours: 2, sight: 1 },
  bought: {
    gains: readGains('9.6 MHz -28, 91 MHz -12, 105 MHz -12'),
    head: { gainDb: 20, noiseFigureDb: 4, iip2Dbm: 35, iip3Dbm: 15 },
  },
};
const RANKED = rankCandidates(
  [...kindCandidates(TARGETS, spotsOf(TEST_STATION), ['half-wave-dipole', 'ground-loop']), LOOP].map((spec) =>
    readyCandidate(spec, TARGETS, groundClass('average').ground, solveHearing),
  ),
  TARGETS,
  PLACE,
  {
    view: 'quiet',
    weights: { price: 1, effort: 1, sight: 1 },
    restrictions: { nothingVisible: true, lawnAllowed: true },
    room: roomOf(TEST_STATION),
  },
);

function show(waiting: ReadonlySet<string> = new Set()) {
  const [onBeside, onLeave] = [jest.fn(), jest.fn()];
  render(
    <MemoryRouter>
      <RankingList
        data={TEST_STATION}
        ranked={RANKED}
        view="quiet"
        waiting={waiting}
        beside={['bought-1']}
        onBeside={onBeside}
        onLeave={onLeave}
      />
    </MemoryRouter>,
  );
  const row = (name: string): HTMLElement => {
    const found = screen.getAllByRole('listitem').find((one) => one.textContent?.startsWith(name));
    if (!found) throw new Error(`no row ${name}`);
    return found;
  };
  return { row, onBeside, onLeave };
}

describe('the ranking', () => {
  test('what is withdrawn says why and cannot be drafted; what may stay can', () => {
    const { row } = show();
    expect(row('Half-wave dipole').textContent).toContain('nothing may be visible');
    expect(within(row('Half-wave dipole')).getByRole('button', { name: 'Draft the Half-wave dipole' })).toBeDisabled();
    expect(within(row('Loop on the ground')).getByRole('button', { name: /^Draft the/ })).toBeEnabled();
    expect(within(row('Wideband loop')).queryByRole('button', { name: /^Draft the/ })).toBeNull();
  });
  test('figures behind a row are drawn when somebody looks: the pair, its level, and where a filter helps', () => {
    const { row } = show();
    expect(within(row('Wideband loop')).queryByRole('table')).toBeNull();
    fireEvent.click(within(row('Wideband loop')).getByRole('button', { name: 'Why Wideband loop' }));
    const table = within(row('Wideband loop')).getByRole('table');
    expect(table.textContent).toContain('95.3 MHz and 104.9 MHz, f2−f1 at 9.600 MHz, in the head amplifier');
    expect(table.textContent).toContain('A filter helps only ahead of the head amplifier');
  });
  test('what is still computed stands last and says so', () => {
    show(new Set(['kind-ground-loop']));
    const all = within(screen.getByRole('list', { name: 'Ranking' }))
      .getAllByRole('listitem')
      .map((one) => one.textContent ?? '');
    expect(all.at(-1)).toBe('Loop on the ground: computing…');
  });
  test('ticks and leaving out are handed on by id', async () => {
    const { row, onBeside, onLeave } = show();
    for (const name of ['Wideband loop', 'Loop on the ground'])
      await userEvent.click(screen.getByRole('button', { name: `Why ${name}` }));
    expect(within(row('Wideband loop')).getByRole('checkbox')).toBeChecked();
    await userEvent.click(within(row('Loop on the ground')).getByRole('checkbox'));
    expect(onBeside).toHaveBeenCalledTimes(1);
    await userEvent.click(
      within(row('Loop on the ground')).getByRole('button', { name: 'Leave out Loop on the ground' }),
    );
    expect(onLeave).toHaveBeenCalledTimes(1);
  });
});

test('side by side: one column an antenna, the same rows for all', async () => {
  const onClear = jest.fn();
  render(<ComparisonCard candidates={RANKED} onClear={onClear} />);
  const table = screen.getByRole('table');
  expect(within(table).getAllByRole('columnheader')).toHaveLength(1 + RANKED.length);
  for (const name of ['Over the noise, weighted', 'Looks', 'Price, assumed', 'Why'])
    expect(within(table).getByRole('rowheader', { name })).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Clear' }));
  expect(onClear).toHaveBeenCalledTimes(1);
});

test('a proven dB has a price, with its range behind it; a doubtful one has none', async () => {
  const stored = (id: number) => ({ id, version: 1, stationId: 1, createdAt: '2026-03-10' });
  const [wire] = TEST_STATION.revisions;
  const trial = { name: 'Loop against V', antennaAId: 1, antennaBId: 2, freqHz: 9.65e6, worthDb: 3, plannedPairs: 6 };
  const withGains = (gains: readonly number[]) => ({
    ...TEST_STATION,
    antennas: [...TEST_STATION.antennas, { ...stored(2), ...BLANK.antennas, name: 'Loop', targetId: 1 }],
    revisions: [wire, { ...wire, ...stored(2), antennaId: 2, kind: 'amplified-loop' as const }],
    trials: [{ ...BLANK.trials, ...stored(1), ...trial }],
    readings: gains.map((db, round) => ({
      ...stored(round + 1),
      ...BLANK.readings,
      trialId: 1,
      round,
      levelADbm: -80,
      noiseADbm: -90,
      levelBDbm: -80 + db,
      noiseBDbm: -90,
    })),
  });
  const view = render(<ProvenWorth data={withGains([5, 7, 5, 7, 5, 7])} />);
  // 180 less 60, over 6 dB
  expect(view.container.textContent).toMatch(/Loop against V: Loop costs 20.per dB/);
  view.rerender(<ProvenWorth data={withGains([9, -8, 7])} />);
  expect(view.container.textContent).toContain('not proven: its trial needs more pairs');
  view.rerender(<ProvenWorth data={TEST_STATION} />);
  expect(view.container.textContent).toBe('');
});
