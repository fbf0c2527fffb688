import { describe, expect, test } from '@jest/globals';
import { ladder } from '@velvet-reed/core';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter, Route, Routes } from 'react-router';
import { TEST_STATION } from '../../data/test-station';
import type { StationData } from '../../data/station';
import { Converters } from './converters';
import { DcFeed } from './dc-feed';
import { Splitters } from './splitters';
import { FilterDesigner } from './filter-designer';
import { Notches } from './notches';
import { Compatibility, SetupCards } from './receiver-tools';
import { Schematic } from './schematic';
import { SeveralPaths } from './several-paths';

const shown = (view: React.ReactNode) =>
  render(
    <MemoryRouter initialEntries={['/s/1/path']}>
      <Routes>
        <Route path="/s/:station/path" element={view} />
      </Routes>
    </MemoryRouter>,
  );
const WANTED = { name: '31 m', lowHz: 9.4e6, highHz: 9.9e6 };
const FM = [
  { name: 'B', freqHz: 95.3e6, levelDbm: -9 },
  { name: 'C', freqHz: 104.9e6, levelDbm: -9.6 },
];

describe('filter designer', () => {
  test('least order, tabulated parts, what to order, where to put it; a wrong order is told', async () => {
    const user = userEvent.setup();
    shown(<FilterDesigner signals={FM} wanted={WANTED} />);
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
    await user.clear(screen.getByLabelText('Stop transmitters by'));
    await user.type(screen.getByLabelText('Stop transmitters by'), '70 dB');
    expect(screen.getByText(/not every goal can be met/)).toBeTruthy();
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
    expect(screen.getByRole('status').textContent).toMatch(/this leg blocks DC/);
    await user.selectOptions(barrier, 'none');
    await user.click(screen.getByLabelText('the amplifier wants the other polarity'));
    expect(screen.getByRole('status').textContent).toMatch(/polarity is wrong/);
  });
  test('splitters by arithmetic: 10 log(9/4), 10 log(16/4), 10 log 2 + 0.5', () => {
    shown(<Splitters />);
    const loss = (name: RegExp): string =>
      within(screen.getByRole('row', { name })).getAllByRole('cell')[0].textContent ?? '';
    expect(loss(/^T of two/)).toMatch(/3\.52/);
    expect(loss(/^T of three/)).toMatch(/6\.02/);
    expect(loss(/^hybrid/)).toMatch(/3\.51/);
  });
  test('a converter below the signal keeps the sense, one above mirrors', async () => {
    const user = userEvent.setup();
    shown(<Converters />);
    expect(screen.getByRole('status').textContent).toMatch(/0\.50\d\sdB/);
    expect(screen.getByRole('status').textContent).not.toMatch(/mirrored/);
    await user.clear(screen.getByLabelText('Oscillator'));
    await user.type(screen.getByLabelText('Oscillator'), '12.25 GHz');
    expect(screen.getByRole('status').textContent).toMatch(/mirrored/);
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
    shown(<SetupCards receivers={[dongle]} wanted={{ lowHz: 14e6, highHz: 14.2e6 }} />);
    expect(screen.getByRole('listitem').textContent).toMatch(/Ghosts: 14\.70 MHz, 42\.90 MHz/);
    await user.type(screen.getByLabelText('reads as'), '10.000087 MHz');
    expect(screen.getByRole('status').textContent).toMatch(/\+8\.7\sppm/);
  });
  test('features and routes', async () => {
    const user = userEvent.setup();
    shown(<Compatibility />);
    await user.click(screen.getByLabelText('IF tap'));
    await user.click(screen.getByLabelText('diversity'));
    expect(screen.getByText(/IF tap with diversity: impossible/)).toBeTruthy();
    const routes = screen.getByLabelText(/^Routes, one a line/);
    await user.clear(routes);
    await user.type(routes, 'whisper');
    expect(screen.getByRole('alert').textContent).toMatch(/"whisper" is no route/);
  });
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
