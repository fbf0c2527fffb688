import { describe, expect, test } from '@jest/globals';
import { BLANK, type Saved } from '@velvet-reed/contract';
import { fireEvent, screen, within } from '@testing-library/react';
import { renderPage, verdictText } from '../../data/page-harness';
import type { StationData } from '@velvet-reed/station/record';
import { placed, TEST_STATION } from '@velvet-reed/station/testing/test-station';
import { dragWords } from './chain/drag-words';
import ChainRoom from './chain/page';
import EveryTargetRoom from './every-target/page';

const stored = (id: number) => ({ id, version: 1, stationId: 1, createdAt: '' });
const stage = (id: number, at: readonly [number, number], more: Partial<Saved<'pathStages'>>) => ({
  ...stored(id),
  ...BLANK.pathStages,
  shape: 'highpass' as const,
  ...{ pathId: 1, name: `stage ${id}`, kind: 'pad' as const, at },
  ...more,
});
const shown = (over: Partial<StationData>, Room = ChainRoom): void => {
  renderPage(Room, 'path', { ...TEST_STATION, ...over });
};

describe('the first sentence of Path', () => {
  test('nothing in between: both orders are the same', () => {
    shown({});
    expect(verdictText()).toMatch(/^Both orders serve 31 m broadcast alike: .* of SNR lost\. Next: /);
  });
  test('without a receiver it sends to Listen; without a path it asks for one', () => {
    shown({ receivers: [], paths: [] });
    expect(verdictText()).toMatch(/Next: enter a receiver and a target in Listen/);
    document.body.innerHTML = '';
    shown({ paths: [] });
    expect(verdictText()).toMatch(/Next: make a path/);
  });
  test('a target that the receiver cannot tune, and the converter that is missing', () => {
    const [target] = TEST_STATION.targets;
    shown({
      targets: [{ ...target, name: 'dish', lowHz: 10.99e9, highHz: 11.01e9 }],
      paths: [{ ...TEST_STATION.paths[0], antennaId: null }],
    });
    expect(verdictText()).toMatch(
      /dish is not heard like this: HF receiver does not tune to 11\.00 GHz, where it arrives\. Next: put a converter into the path that ends between/,
    );
  });
  test('an order in which the amplifier gets no supply loses, however little noise it adds', () => {
    const fed = { kind: 'amplifier', name: 'booster', gainDb: 20, noiseFigureDb: 1, iip2Dbm: 60, iip3Dbm: 20 } as const;
    const feed = { supplyV: 12, limitMA: 300, chokeUH: 100, capacitorNF: 100 };
    shown({
      ...placed([
        // order 1: high-pass, booster, feed; order 2: booster first, the high-pass between it and the feed
        stage(1, [0, 1], { kind: 'filter', name: 'high-pass', edgeLowHz: 3e6 }),
        stage(2, [1, 0], { ...fed, figures: { leastV: 9, currentMA: 100 } }),
        stage(3, [2, 2], { kind: 'bias feed', name: 'feed', figures: feed }),
      ]),
    });
    expect(verdictText()).toMatch(
      /^Order 1 serves 31 m broadcast better: .*; order 2 fails: high-pass: no DC gets through it/,
    );
  });
  test('what the antenna’s own amplifier makes no filter of this path takes away', () => {
    const [revision] = TEST_STATION.revisions;
    const near = (name: string, freqHz: number, id: number): StationData['transmitters'][number] => ({
      ...{ ...stored(id), ...BLANK.transmitters },
      ...{ name, freqHz, powerW: 50_000, powerKind: 'ERP', distanceM: 900, own: false },
    });
    shown({
      revisions: [{ ...revision, kind: 'amplified-loop' }],
      transmitters: [near('B', 95.3e6, 1), near('C', 104.95e6, 2)],
    });
    expect(verdictText()).toMatch(
      /nothing behind the antenna’s own amplifier helps: a filter at its input, or another antenna/,
    );
    expect(screen.getAllByText(/made inside the antenna, where no filter/)).toHaveLength(2);
  });
});

describe('tables of Path', () => {
  test('every target has its row; one out of reach says so', () => {
    const [target] = TEST_STATION.targets;
    shown(
      { targets: [target, { ...target, ...stored(2), name: 'weather picture', lowHz: 137e6, highHz: 138e6 }] },
      EveryTargetRoom,
    );
    const table = screen.getByRole('region', { name: 'Every order on every target' });
    expect(within(table).getByRole('row', { name: /^31 m broadcast/ }).textContent).toMatch(/dB.*dB/);
    expect(within(table).getByRole('row', { name: /^weather picture/ }).textContent).toMatch(
      /outside what HF receiver hears/,
    );
  });
  test('the row that overloads is told, with how much', () => {
    const [transmitter] = TEST_STATION.transmitters;
    shown({
      transmitters: [{ ...transmitter, freqHz: 9.1e6, powerW: 100_000, distanceM: 500 }],
      ...placed([
        stage(1, [0, 0], { kind: 'amplifier', name: 'weak one', gainDb: 20, noiseFigureDb: 2, iip3Dbm: -10 }),
      ]),
    });
    const compare = screen.getByTestId('compare');
    expect(within(compare).getByRole('row', { name: /^First stage overloaded/ }).textContent).toMatch(
      /weak one: .*dBm in all, \d+ dB too much/,
    );
    expect(within(compare).getByRole('row', { name: /^Room at the peaks/ }).textContent).toMatch(/dB/);
    const reports = screen.getByRole('region', { name: 'Order 1: stage by stage' });
    expect(within(reports).getByRole('row', { name: /^weak one/ }).textContent).toMatch(/−\d+\.\d\s?dB/);
  });
});

test('a path without any receiver asks which one there is, by its kind, where it is needed', () => {
  renderPage(ChainRoom, 'path', { ...TEST_STATION, paths: [], receivers: [] });
  fireEvent.click(screen.getByRole('button', { name: 'New path' }));
  expect(screen.getByText(/Which one do you have\?/)).toBeTruthy();
  expect(screen.getByRole('button', { name: /^Take the 8-bit wide/ })).toBeTruthy();
});

test('a dragged stage is told by its name and its place from the antenna', () => {
  const words = dragWords([
    { id: 7, name: 'High-pass' },
    { id: 9, name: 'Booster' },
  ]);
  const at = (id: number) => ({ id });
  expect(words.onDragStart({ active: at(7) })).toBe('High-pass picked up at place 1 of 2 from the antenna.');
  expect(words.onDragEnd({ active: at(7), over: at(9) })).toBe('High-pass put down at place 2 of 2 from the antenna.');
  expect(words.onDragEnd({ active: at(7), over: null })).toBe('High-pass put down where it was.');
});
