import { describe, expect, test } from '@jest/globals';
import { BLANK, type Saved } from '@velvet-reed/contract';
import { analysePath, dcPath, STAGE_KINDS } from '@velvet-reed/core/path';
import { cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ordersOf } from '@velvet-reed/station/path/orders';
import { toDcStage, toPathReceiver, toPathStage } from '@velvet-reed/station/path/stages';
import type { StationData } from '@velvet-reed/station/record';
import { renderView } from '../../data/page-harness';
import { placed, TEST_STATION } from '@velvet-reed/station/testing/test-station';
import { AlongPath } from './supply/along-path';
import { StageForms } from './chain/stage-forms';
import { StageReports } from './chain/stage-reports';
import { FilterLosses } from './filter-losses';

const shown = (view: React.ReactNode) => renderView(view, 'path');
const [path] = TEST_STATION.paths;
const [receiver] = TEST_STATION.receivers;

/** Places in both orders are those of the list; second order turned round. */
function dataOf(
  stages: readonly (Partial<Saved<'pathStages'>> & { readonly at?: readonly [number, number] })[],
): StationData {
  return {
    ...TEST_STATION,
    ...placed(
      stages.map((stage, i) => ({
        ...{ id: i + 1, version: 1, stationId: 1, createdAt: '' },
        ...BLANK.pathStages,
        shape: 'highpass' as const,
        ...{ pathId: path.id, name: `stage ${i}`, kind: 'pad' },
        ...{ at: [i, stages.length - i] as const },
        ...stage,
      })),
    ),
  };
}
const question = { lowHz: 10.9995e9, highHz: 11.0005e9, bandwidthHz: 1e6, externalFaDb: 0, signals: [] };
const viewsOf = (data: StationData) =>
  ordersOf(data, path.id).map(({ record, stages: stored }) => {
    const order = record.number;
    const stages = stored.map((stage) => toPathStage(data, stage));
    const dcStages = stored.map((stage) => toDcStage(data, stage));
    return {
      order,
      stored,
      stages,
      dcStages,
      dc: dcPath(dcStages),
      receiver: toPathReceiver(receiver),
      analysis: analysePath(stages, toPathReceiver(receiver), question),
    };
  });
const along = (data: StationData, one = path) =>
  shown(<AlongPath data={data} path={one} receiver={receiver} orders={viewsOf(data)} />);

const AMPLIFIER = {
  kind: 'amplifier',
  name: 'amplifier',
  figures: { leastV: 4.3, currentMA: 120 },
} as const;
const COAX = { kind: 'line', name: 'coax', lengthM: 35, figures: { loopOhmPerM: 0.12 } } as const;
const FEED = {
  kind: 'bias feed',
  name: 'feed',
  figures: { supplyV: 5, limitMA: 200, chokeUH: 100, capacitorNF: 100 },
} as const;

describe('DC read off the stages', () => {
  test('35 m of 0.12 Ω/m leave 4.50 V of 5 (Ohm, by hand)', () => {
    along(dataOf([AMPLIFIER, COAX, FEED]));
    const dc = screen.getByRole('region', { name: 'DC along this path' });
    expect(dc.textContent).toMatch(/Order 1amplifier gets 4\.50/);
  });
  test('a filter in the way is named in the order it stands in, and no voltage is told behind it', () => {
    along(dataOf([AMPLIFIER, COAX, { kind: 'filter', name: 'high-pass' }, FEED]));
    const dc = screen.getByRole('region', { name: 'DC along this path' });
    expect(dc.textContent).toMatch(/Order 1high-pass: no DC gets through it/);
    expect(dc.textContent).not.toMatch(/gets 4\.50|of room are left/);
    // turned round the feed stands at the antenna and feeds nothing
    expect(dc.textContent).toMatch(/Order 2amplifier: no bias feed stands between/);
  });
  test('alike in both orders is told once; without anything fed there is no such section', () => {
    const both = dataOf([AMPLIFIER, FEED].map((stage, i) => ({ ...stage, at: [i, i] as const })));
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
  const data = dataOf([{ ...COAX, connectorIn: 'N-m', connectorOut: 'SMA-m', at: [0, 0] }]);
  const ends = { ...path, ...BLANK.paths, antennaConnector: 'N-f', receiverConnector: 'BNC-f' };
  const plugs = () => screen.getByRole('region', { name: 'Plugs and adapters' });
  test('the shopping list without a box, the fewest adapters with one', () => {
    along(data, ends);
    expect(plugs().textContent).toMatch(/Missing, for the shopping list: an adapter SMA-f to BNC-m/);
    cleanup();
    along({ ...data, station: { ...data.station, adapterBox: 'SMA-f to BNC-m' } }, ends);
    expect(plugs().textContent).toMatch(/coax to .*: fewest adapters SMA-f to BNC-m/);
  });
  test('a line that is no adapter and a plug that is none are told beside their fields, and nothing is sent', async () => {
    const user = userEvent.setup();
    along(data, ends);
    await user.type(within(plugs()).getByLabelText('Adapters in the box'), 'nonsense');
    await user.click(within(plugs()).getByRole('button', { name: 'Keep the box' }));
    expect((await within(plugs()).findByRole('alert')).textContent).toMatch(/"nonsense" is no adapter/);
    await user.clear(within(plugs()).getByLabelText('Plug of the antenna'));
    await user.type(within(plugs()).getByLabelText('Plug of the antenna'), 'cheese');
    await user.click(within(plugs()).getByRole('button', { name: 'Keep the plugs' }));
    expect((await within(plugs()).findAllByRole('alert'))[0].textContent).toMatch(/"cheese" names no connector/);
  });
});

test('a converter: where the band lands, its image, what to tune; stage by stage with its own frequencies', () => {
  const converter = {
    kind: 'converter',
    name: 'converter',
    ...{ gainDb: 60, noiseFigureDb: 0.5, iip2Dbm: 0, iip3Dbm: -40 },
    figures: { oscillatorHz: 9.75e9, imageRejectionDb: 40 },
  } as const;
  const data = dataOf([converter]);
  along(data);
  const plan = screen.getByRole('region', { name: 'Frequency plan' });
  expect(plan.textContent).toMatch(/11\.0+ GHz lands at 1\.2500.*GHz.*Its image is 8\.5000 GHz/);
  shown(<StageReports view={viewsOf(data)[0]} />);
  const table = screen.getByRole('region', { name: 'Order 1: stage by stage' });
  expect(within(table).getByRole('row', { name: /^converter/ }).textContent).toMatch(/0\.0.*dB/);
  expect(within(table).getAllByRole('row').at(-1)?.textContent).toMatch(/at 1\.2500 GHz.*60\.0/);
});

test('what a filter takes counts at the frequency that it stands at, not at the antenna’s', () => {
  const converter = {
    kind: 'converter',
    name: 'converter',
    figures: { oscillatorHz: 9.75e9, imageRejectionDb: 40 },
  } as const;
  const highPass = { kind: 'filter', name: 'high-pass', edgeLowHz: 2.5e9, lossDb: 0 } as const;
  const signals = [{ name: 'beacon', freqHz: 11e9, levelDbm: -90 }];
  const takes = (data: StationData): string => {
    cleanup();
    const [first] = viewsOf(data);
    const analysis = analysePath(first.stages, toPathReceiver(receiver), { ...question, signals });
    shown(<FilterLosses view={{ ...first, analysis }} />);
    return screen.getByRole('region', { name: 'What the filters take' }).textContent ?? '';
  };
  // ahead of the converter 11 GHz passes; behind it 1.25 GHz is an octave under the edge: order 5, 0.1 dB, x = 2: 35 dB (Chebyshev, T5(2) = 362)
  expect(takes(dataOf([highPass, converter]))).toMatch(/wanted band 0\.[01] dB, beacon 0\.[01] dB/);
  expect(takes(dataOf([converter, highPass]))).toMatch(/wanted band 34\.[78] dB, beacon 34\.[78] dB/);
});

describe('forms of stages', () => {
  test('every kind but a part can be added, and asks what only it has', async () => {
    const user = userEvent.setup();
    shown(
      <StageForms
        target={TEST_STATION.targets[0]}
        path={path}
        orders={[]}
        stages={[]}
        runs={[]}
        wanted={[]}
        carriers={[]}
      />,
    );
    for (const kind of STAGE_KINDS.filter((one) => one !== 'part')) {
      await user.click(screen.getByRole('button', { name: new RegExp(`^Add an? ${kind}$`) }));
      expect(screen.getByRole('button', { name: 'Add this stage' })).toBeTruthy();
      expect(screen.getByLabelText('Plug, antenna side')).toBeTruthy();
    }
    expect(screen.getByLabelText('Oscillator')).toBeTruthy();
  });
  test('a figure out of range and a plug that is none are told beside their fields', async () => {
    const user = userEvent.setup();
    shown(
      <StageForms
        target={TEST_STATION.targets[0]}
        path={path}
        orders={[]}
        stages={[]}
        runs={[]}
        wanted={[]}
        carriers={[]}
      />,
    );
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
