import { describe, expect, test } from '@jest/globals';
import { BLANK } from '@velvet-reed/contract';
import { ladder } from '@velvet-reed/core/filter';
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { renderView } from '../../data/page-harness';
import { TEST_STATION } from '@velvet-reed/station/testing/test-station';
import type { StationData } from '@velvet-reed/station/record';
import { Converters } from './converter/converters';
import { DcFeed } from './supply/dc-feed';
import { DialAndTone } from './receiver/dial-and-tone';
import { Splitters } from './converter/splitters';
import { FilterDesigner } from './filter/filter-designer';
import { Notches } from './filter/notches';
import { Compatibility, SetupCards } from './receiver/receiver-tools';
import { Schematic } from './filter/schematic';
import { SeveralPaths } from './chain/several-paths';
import { Shelf } from './shelf/shelf';

const shown = (view: React.ReactNode) => renderView(view, 'path');
const WANTED = { name: '31 m', lowHz: 9.4e6, highHz: 9.9e6 };
const FM = [
  { name: 'B', freqHz: 95.3e6, levelDbm: -9 },
  { name: 'C', freqHz: 104.9e6, levelDbm: -9.6 },
];

const edge = async (user: ReturnType<typeof userEvent.setup>, text: string): Promise<void> => {
  await user.clear(screen.getByLabelText('Edge'));
  await user.type(screen.getByLabelText('Edge'), text);
};

describe('filter designer', () => {
  test('its effect on the whole path, place by place: ahead of the amplifier it helps, behind it does not', () => {
    const amplifier = {
      kind: 'amplifier',
      name: 'amplifier',
      gainDb: 14,
      noiseFigureDb: 3,
      iip2Dbm: 35,
      iip3Dbm: 5,
    } as const;
    const receiver = {
      ...{ name: 'receiver', noiseFigureDb: 15, iip2Dbm: 50, iip3Dbm: 10, fullScaleDbm: 0, bits: 16 },
      ...{ sampleRateHz: 60e6, complexSamples: false, minHz: 1e4, maxHz: 30e6 },
    };
    const question = { lowHz: 9.595e6, highHz: 9.605e6, bandwidthHz: 2500, externalFaDb: 45, signals: FM };
    const wanted = { name: '9.6 MHz', ...question };
    shown(
      <FilterDesigner
        signals={FM}
        wanted={wanted}
        targets={[
          wanted,
          { name: '11 m', lowHz: 25.6e6, highHz: 26.1e6 },
          { name: '2 m', lowHz: 144e6, highHz: 146e6 },
        ]}
        place={{ stages: [amplifier], receiver, question }}
      />,
    );
    const row = (name: RegExp) => screen.getByRole('row', { name }).textContent ?? '';
    // the product of the two carriers, −9 − 9.6 − 35 dBm, is far over the noise of some −95 dBm until both are stopped
    expect(row(/^without it/)).toMatch(/made in amplifier: 4\d dB over the noise/);
    expect(row(/^ahead of amplifier/)).toMatch(/\d+ dB under the noise/);
    expect(row(/^ahead of receiver/)).toMatch(/made in amplifier: 4\d dB over the noise/);
    // every target in the pass band is a goal, at the end that suffers most
    const goals = screen.getByRole('list', { name: 'Goals' }).textContent ?? '';
    expect(goals).toMatch(/11 m, 26\.10 MHz/);
    // wanted on both sides of the carriers: a band-stop lets all of it pass
    expect(goals).toMatch(/2 m, 144\.0\sMHz: loses 0\.\d\sdB/);
  });
  test('least order, tabulated parts, what to order, where to put it; a wrong order is told', async () => {
    const user = userEvent.setup();
    shown(<FilterDesigner signals={FM} wanted={WANTED} />);
    await edge(user, '30 MHz');
    // Matthaei, Young & Jones, table 4.05-2 at 0.1 dB, order 5, denormalised to 30 MHz and 50 Ω
    for (const value of ['121.7 pF', '209.6 pF', '363.7 nH'])
      expect(screen.getAllByText(value).length).toBeGreaterThan(0);
    expect(screen.getByText(/ahead of the amplifier/).closest('p')?.textContent).toMatch(
      /C and B.*11[78]\.\d\sdB.*useless there/,
    );
    await user.type(screen.getByLabelText('Order (empty: least)'), '4');
    expect(screen.getByRole('alert').textContent).toMatch(/even order needs unequal ends/);
  });
  test('a goal out of reach is marked as not met', async () => {
    const user = userEvent.setup();
    shown(<FilterDesigner signals={[{ name: 'too near', freqHz: 30.1e6, levelDbm: 0 }]} wanted={WANTED} />);
    await edge(user, '30 MHz');
    await user.clear(screen.getByLabelText('Stop transmitters by'));
    await user.type(screen.getByLabelText('Stop transmitters by'), '70 dB');
    expect(screen.getByText(/Not every goal is met/)).toBeTruthy();
  });
  test('a 30 MHz low-pass for 118 to 137 MHz met "every goal": it opens as a high-pass, and the low-pass is told off', async () => {
    const user = userEvent.setup();
    shown(<FilterDesigner signals={FM} wanted={{ name: 'air', lowHz: 118e6, highHz: 137e6 }} />);
    expect(screen.getByLabelText<HTMLSelectElement>('Passes').value).toBe('highpass');
    expect(screen.getByText(/air loses/).textContent).not.toMatch(/more than you allow/);
    await user.selectOptions(screen.getByLabelText('Passes'), 'lowpass');
    await edge(user, '30 MHz');
    expect(screen.getByText(/air loses/).textContent).toMatch(/which is more than you allow/);
    expect(screen.queryByText(/every goal is met/)).toBeNull();
  });
  test('a band-pass asks for two edges', async () => {
    const user = userEvent.setup();
    shown(<FilterDesigner signals={FM} wanted={WANTED} />);
    await user.selectOptions(screen.getByLabelText('Passes'), 'bandpass');
    expect(screen.getByLabelText('Upper edge')).toBeTruthy();
  });
});

test('the schematic draws and names every part, also those of band filters', () => {
  const band = {
    shape: 'bandpass',
    family: 'butterworth',
    order: 3,
    rippleDb: 0.1,
    edgesHz: [9e6, 10e6],
    lineOhm: 50,
  } as const;
  const { container } = shown(<Schematic branches={ladder({ ...band, first: 'shunt' })} />);
  for (const name of ['L1', 'C1', 'L2', 'C2', 'L3', 'C3']) expect(screen.getByText(name)).toBeTruthy();
  expect(container.querySelectorAll('svg path').length).toBeGreaterThanOrEqual(6);
});

describe('feed', () => {
  test('DC: volts at the amplifier, and each barrier with its sentence', async () => {
    const user = userEvent.setup();
    shown(<DcFeed />);
    expect(screen.getByRole('status').textContent).toMatch(/4\.50\sV.*48\.6\sm/);
    const barrier = screen.getByLabelText('Between injector and amplifier also');
    await user.selectOptions(barrier, 'pad');
    expect(screen.getByRole('status').textContent).toMatch(/even with its output open/);
    await user.selectOptions(barrier, 'leg');
    expect(screen.getByRole('status').textContent).toMatch(/this output blocks DC/);
    await user.selectOptions(barrier, 'none');
    await user.click(screen.getByLabelText('the amplifier wants the other polarity'));
    expect(screen.getByRole('status').textContent).toMatch(/polarity is wrong/);
  });
  test('splitters by arithmetic: 10 log(9/4), 10 log(16/4), 10 log 2 + 0.5', () => {
    shown(<Splitters noiseFigureDb={6} outsideDb={3} />);
    const loss = (name: RegExp): string =>
      within(screen.getByRole('row', { name })).getAllByRole('cell')[0].textContent ?? '';
    expect(loss(/^T of two/)).toMatch(/3\.52/);
    expect(loss(/^T of three/)).toMatch(/6\.02/);
    expect(loss(/^hybrid/)).toMatch(/3\.51/);
    // Friis, by hand: 3.01 + 0.5 dB ahead of 6 dB make 9.51 dB; (2.0 + 8.93 − 1)/(2.0 + 3.98 − 1) = 1.99, 3.0 dB at VHF
    const cost = within(screen.getByRole('row', { name: /^hybrid/ })).getAllByRole('cell')[2].textContent ?? '';
    expect(cost).toMatch(/^(2\.9\d|3\.0\d)/);
  });
  test('a converter below the signal keeps the sense, one above mirrors', async () => {
    const user = userEvent.setup();
    const here = { rfHz: 11e9, elevationDeg: 30, receiverNoiseFigureDb: 6, environment: 'rural' } as const;
    const { unmount } = shown(<Converters here={here} />);
    // a sample gives no orders: without a converter in the path nothing is said
    expect(screen.queryByRole('status')?.textContent ?? '').toBe('');
    unmount();
    shown(<Converters here={{ ...here, stage: { oscillatorHz: 9.75e9, gainDb: 60, noiseFigureDb: 0.5 } }} />);
    await user.clear(screen.getByLabelText('Pad behind it'));
    await user.type(screen.getByLabelText('Pad behind it'), '20 dB');
    expect(screen.getByRole('status').textContent).toMatch(/0\.50\d\sdB/);
    expect(screen.getByRole('status').textContent).not.toMatch(/mirrored/);
    await user.clear(screen.getByLabelText('Oscillator'));
    await user.type(screen.getByLabelText('Oscillator'), '12.25 GHz');
    expect(screen.getByRole('status').textContent).toMatch(/mirrored/);
    await user.clear(screen.getByLabelText(/^The dish looks up by/));
    await user.type(screen.getByLabelText(/^The dish looks up by/), '200');
    expect(screen.getByRole('alert').textContent).toMatch(/0 to 90 degrees/);
  });
  test('a notch with an impossible value is told', async () => {
    const user = userEvent.setup();
    shown(<Notches wanted={WANTED} />);
    expect(screen.getByRole('status').textContent).toMatch(/Series circuit: coil/);
    await user.clear(screen.getByLabelText('Capacitor, pF'));
    await user.type(screen.getByLabelText('Capacitor, pF'), '0');
    expect(screen.getByRole('alert').textContent).toMatch(/must be above zero/);
  });
});

describe('receiver', () => {
  const dongle: StationData['receivers'][number] = {
    ...TEST_STATION.receivers[0],
    name: 'dongle',
    sampleRateHz: 28.8e6,
    bits: 8,
    maxHz: 14.4e6,
    minHz: 1e5,
    complexSamples: false,
  };
  test('ghosts of direct sampling, the clean range, and a standard read wrongly', async () => {
    const user = userEvent.setup();
    shown(<SetupCards receivers={[dongle]} wanted={{ lowHz: 14e6, highHz: 14.2e6 }} stages={[]} />);
    expect(screen.getByRole('listitem').textContent).toMatch(/Ghosts: 14\.70 MHz, 42\.90 MHz/);
    await user.type(screen.getByLabelText('reads as'), '10.000087 MHz');
    expect(screen.getByRole('status').textContent).toMatch(/\+8\.7\sppm/);
  });
  test('features and routes', async () => {
    const user = userEvent.setup();
    shown(<Compatibility station={TEST_STATION.station} />);
    await user.click(screen.getByLabelText('IF tap'));
    await user.click(screen.getByLabelText('diversity'));
    expect(screen.getByText(/IF tap with diversity: impossible/)).toBeTruthy();
    const routes = screen.getByLabelText(/^Routes, one a line/);
    await user.clear(routes);
    await user.type(routes, 'whisper');
    await user.click(screen.getByRole('button', { name: 'Keep the routes' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/"whisper" is no route/);
  });
});

test('dial and tone: 136.0 kHz and 1.5 kHz are 137.5 kHz in the upper side band, 134.5 kHz in the lower (by hand)', async () => {
  const user = userEvent.setup();
  shown(<DialAndTone />);
  expect(screen.getByRole('status').textContent).toMatch(/137\.5/);
  await user.selectOptions(screen.getByLabelText('Side band'), 'lower');
  expect(screen.getByRole('status').textContent).toMatch(/134\.5/);
  await user.type(screen.getByLabelText('Oscillator of a converter (empty: none)'), '125 MHz');
  expect(screen.getByRole('status').textContent).toMatch(/125\.1345/);
});

test('a part on the shelf can be changed, and shows what it is', async () => {
  const user = userEvent.setup();
  const part = {
    ...BLANK.parts,
    ...{ id: 7, version: 1, stationId: 1, createdAt: '', name: 'box', supplyV: 12, currentA: null, cost: 3 },
    ...{ noiseFigureDb: 2, iip2Dbm: null, iip3Dbm: 10, p1Dbm: null, connectorIn: 'N-f', connectorOut: 'N-f' },
    transfer: [{ freqHz: 1e6, gainDb: 20 }],
  };
  shown(<Shelf data={{ ...TEST_STATION, parts: [part] }} path={TEST_STATION.paths[0]} orders={[]} />);
  await user.click(screen.getByRole('button', { name: 'Change box' }));
  const field = (label: string): string => screen.getByLabelText<HTMLInputElement>(label).value;
  expect(['Name', 'Noise figure', 'Fed over the coax with, V', 'Plug, antenna side', 'Cost'].map(field)).toEqual([
    'box',
    '2 dB',
    '12',
    'N-f',
    '3',
  ]);
  await user.clear(screen.getByLabelText('Noise figure'));
  await user.type(screen.getByLabelText('Noise figure'), 'loud');
  await user.click(screen.getByRole('button', { name: 'Save the part' }));
  expect((await screen.findByRole('alert')).textContent).toMatch(/loud/);
});

test('two paths stand side by side when the second is ticked', async () => {
  const user = userEvent.setup();
  const [path] = TEST_STATION.paths;
  const data = { ...TEST_STATION, paths: [path, { ...path, id: 99, name: 'Other' }] };
  shown(<SeveralPaths data={data} current={path.id} />);
  expect(screen.queryByRole('table')).toBeNull();
  await user.click(screen.getByLabelText('Other'));
  expect(screen.getByRole('row', { name: /^Other/ })).toBeTruthy();
});
