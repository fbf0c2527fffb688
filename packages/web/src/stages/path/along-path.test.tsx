import { describe, expect, test } from '@jest/globals';
import { PATH_DEFAULTS, STAGE_DEFAULTS, type Saved } from '@velvet-reed/contract';
import { analysePath, STAGE_KINDS } from '@velvet-reed/core';
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter, Route, Routes } from 'react-router';
import { orderedStages, toPathReceiver, toPathStage } from '../../data/path-stages';
import type { StationData } from '../../data/station';
import { TEST_STATION } from '../../data/test-station';
import { AlongPath } from './along-path';
import { StageForms } from './stage-forms';
import { StageReports } from './stage-reports';
import { UNUSED_STAGE } from './unused-stage';

const shown = (view: React.ReactNode) =>
  render(
    <MemoryRouter initialEntries={['/s/1/path']}>
      <Routes>
        <Route path="/s/:station/path" element={view} />
      </Routes>
    </MemoryRouter>,
  );
const [path] = TEST_STATION.paths;
const [receiver] = TEST_STATION.receivers;

/** Places in both orders are those of the list; second order turned round. */
function dataOf(stages: readonly Partial<Saved<'pathStages'>>[]): StationData {
  return {
    ...TEST_STATION,
    pathStages: stages.map((stage, i) => ({
      ...{ id: i + 1, version: 1, stationId: 1, createdAt: '' },
      ...({ ...UNUSED_STAGE, shape: 'highpass', family: 'chebyshev' } as const),
      ...STAGE_DEFAULTS,
      ...{ pathId: path.id, name: `stage ${i}`, kind: 'pad', firstPlace: i, secondPlace: stages.length - i },
      ...stage,
    })),
  };
}
const question = { lowHz: 10.9995e9, highHz: 11.0005e9, bandwidthHz: 1e6, externalFaDb: 0, signals: [] };
const ordersOf = (data: StationData) =>
  ([1, 2] as const).map((order) => {
    const stored = orderedStages(data, path.id, order);
    const stages = stored.map((stage) => toPathStage(data, stage));
    return { order, stored, stages, analysis: analysePath(stages, toPathReceiver(receiver), question) };
  });
const along = (data: StationData, one = path) =>
  shown(<AlongPath data={data} path={one} receiver={receiver} orders={ordersOf(data)} />);

const AMPLIFIER = {
  kind: 'amplifier',
  name: 'amplifier',
  figures: { leastV: 4.3, currentMA: 120, polarity: 1 },
} as const;
const COAX = { kind: 'line', name: 'coax', lengthM: 35, figures: { loopOhmPerM: 0.12 } } as const;
const FEED = {
  kind: 'bias feed',
  name: 'feed',
  figures: { supplyV: 5, limitMA: 200, polarity: 1, chokeUH: 100, capacitorNF: 100 },
} as const;

describe('DC read off the stages', () => {
  test('35 m of 0.12 Ω/m leave 4.50 V of 5 (Ohm, by hand); a filter in the way is named in the order it stands in', () => {
    along(dataOf([AMPLIFIER, COAX, { kind: 'filter', name: 'high-pass' }, FEED]));
    const dc = screen.getByRole('region', { name: 'DC along this path' });
    expect(dc.textContent).toMatch(/Order 1amplifier gets 4\.50.*high-pass: no DC gets through it/);
    // turned round the feed stands at the antenna and feeds nothing
    expect(dc.textContent).toMatch(/Order 2amplifier: no bias feed stands between/);
  });
  test('alike in both orders is told once; without anything fed there is no such section', () => {
    const both = dataOf([AMPLIFIER, FEED].map((stage, i) => ({ ...stage, secondPlace: i })));
    along(both);
    const dc = screen.getByRole('region', { name: 'DC along this path' });
    expect(
      within(dc)
        .getAllByRole('heading', { level: 3 })
        .map(({ textContent }) => textContent),
    ).toEqual(['In both orders']);
    cleanup();
    along(dataOf([{ name: 'pad' }]));
    expect(screen.queryByRole('region', { name: 'DC along this path' })).toBeNull();
  });
});

describe('plugs of the path', () => {
  test('adapters from the box, the shopping list, and a wrong line', async () => {
    const user = userEvent.setup();
    const data = dataOf([{ ...COAX, connectorIn: 'N-m', connectorOut: 'SMA-m', secondPlace: 0 }]);
    along(data, { ...path, ...PATH_DEFAULTS, antennaConnector: 'N-f', receiverConnector: 'BNC-f' });
    const plugs = screen.getByRole('region', { name: 'Plugs and adapters' });
    expect(plugs.textContent).toMatch(/Missing, for the shopping list: an adapter SMA-f to BNC-m/);
    await user.type(within(plugs).getByLabelText(/^Adapters in the box/), 'SMA-f to BNC-m');
    expect(plugs.textContent).toMatch(/coax to .*: fewest adapters SMA-f to BNC-m/);
    await user.type(within(plugs).getByLabelText(/^Adapters in the box/), '{enter}nonsense');
    expect(within(plugs).getByRole('alert').textContent).toMatch(/"nonsense" is no adapter/);
    expect(within(plugs).getByRole('button').hasAttribute('disabled')).toBe(true);
  });
});

test('a converter: where the band lands, its image, what to tune; stage by stage with its own frequencies', () => {
  const converter = {
    kind: 'converter',
    name: 'converter',
    ...{ gainDb: 60, noiseFigureDb: 0.5, iip2Dbm: 0, iip3Dbm: -40 },
    figures: { oscillatorHz: 9.75e9, mixing: 0, imageRejectionDb: 40 },
  } as const;
  const data = dataOf([converter]);
  along(data);
  const plan = screen.getByRole('region', { name: 'Frequency plan' });
  expect(plan.textContent).toMatch(/11\.0+ GHz lands at 1\.2500.*GHz.*Its image is 8\.5000 GHz/);
  shown(<StageReports view={ordersOf(data)[0]} />);
  const table = screen.getByRole('region', { name: 'Order 1: stage by stage' });
  expect(within(table).getByRole('row', { name: /^converter/ }).textContent).toMatch(/0\.0.*dB/);
  expect(within(table).getAllByRole('row').at(-1)?.textContent).toMatch(/at 1\.2500 GHz.*60\.0/);
});

describe('forms of stages', () => {
  test('every kind but a part can be added, and asks what only it has', async () => {
    const user = userEvent.setup();
    shown(<StageForms path={path} stages={[]} runs={[]} />);
    for (const kind of STAGE_KINDS.filter((one) => one !== 'part')) {
      await user.click(screen.getByRole('button', { name: new RegExp(`^Add an? ${kind}$`) }));
      expect(screen.getByRole('button', { name: 'Add this stage' })).toBeTruthy();
      expect(screen.getByLabelText('Plug, antenna side')).toBeTruthy();
    }
    expect(screen.getByLabelText('Oscillator')).toBeTruthy();
  });
  test('a figure out of range and a plug that is none are told beside their fields', async () => {
    const user = userEvent.setup();
    shown(<StageForms path={path} stages={[]} runs={[]} />);
    await user.click(screen.getByRole('button', { name: 'Add a splitter' }));
    await user.clear(screen.getByLabelText('Outputs'));
    await user.type(screen.getByLabelText('Outputs'), '40');
    await user.type(screen.getByLabelText('Plug, antenna side'), 'cheese');
    await user.click(screen.getByRole('button', { name: 'Add this stage' }));
    const faults = (await screen.findAllByRole('alert')).map(({ textContent }) => textContent);
    expect(faults).toEqual(
      expect.arrayContaining([
        'Outputs must lie between 2 and 16. Correct it.',
        expect.stringContaining('"cheese" names no connector'),
      ]),
    );
  });
});
