import { describe, expect, test } from '@jest/globals';
import { BLANK } from '@velvet-reed/contract';
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { renderView } from '../../data/page-harness';
import { TEST_STATION } from '@velvet-reed/station/testing/test-station';
import type { StationData } from '@velvet-reed/station/record';
import { Devices } from './devices/devices';
import { FloorLog } from './floor/floor-log';
import { GainSetting } from './gain/gain-setting';
import { SMeter } from './meters/s-meter';
import { Spurs } from './spurs/spurs';

const stored = (id: number) => ({ id, version: 1, stationId: 1, createdAt: '' });
const shown = (view: React.ReactNode) => renderView(view, 'noise');
const FM: StationData['transmitters'] = [
  {
    ...stored(1),
    ...BLANK.transmitters,
    name: 'B',
    freqHz: 95.3e6,
    powerW: 4000,
    powerKind: 'ERP',
    distanceM: 1800,
    own: false,
  },
  {
    ...stored(2),
    ...BLANK.transmitters,
    name: 'C',
    freqHz: 104.9e6,
    powerW: 8000,
    powerKind: 'ERP',
    distanceM: 2500,
    own: false,
  },
];

describe('spurs', () => {
  test('names the pair, says when nobody can make it, and where a pad puts it', async () => {
    const user = userEvent.setup();
    shown(<Spurs data={{ ...TEST_STATION, transmitters: FM }} />);
    await user.type(screen.getByLabelText('Spur seen at'), '9.6 MHz');
    const list = screen.getByRole('list', { name: /Who can make it/ });
    expect(within(list).getAllByRole('listitem')[0].textContent).toMatch(/C and B: f1 − f2, order 2/);
    await user.clear(screen.getByLabelText('Spur seen at'));
    await user.type(screen.getByLabelText('Spur seen at'), '50 MHz');
    expect(screen.getByText(/No pair or triple of the 2 transmitters/)).toBeTruthy();
    await user.type(screen.getByLabelText('Spur without the pad'), '-61 dBm');
    await user.type(screen.getByLabelText('Spur with the pad'), '-71 dBm');
    expect(screen.getByText(/Product made before the pad \(amplifier\)/)).toBeTruthy();
    await user.click(screen.getByLabelText('an amplifier stands ahead of the pad'));
    expect(screen.getByText(/A real signal/)).toBeTruthy();
  });
});

const switching = (
  id: number,
  subject: string,
  levelDbm: number,
  againstDbm: number,
): StationData['levels'][number] => ({
  ...{ ...stored(id), ...BLANK.levels, kind: 'device' },
  ...{ subject, freqHz: 136e3, levelDbm, againstDbm, atMs: id },
});

describe('noise log', () => {
  const at = (minute: number): number => Date.UTC(2026, 7, 4, 9, minute);
  const readings: StationData['levels'] = [-88, -88.2, -87.9, -88.1, -88, -101, -101.2, -100.9, -101.1, -101].map(
    (levelDbm, i) => ({
      ...{ ...stored(i + 1), ...BLANK.levels, kind: 'log' },
      atMs: at(7 + i),
      freqHz: 136e3,
      levelDbm,
    }),
  );
  test('the step is told with its time, and the device that was switched beside it', () => {
    const switched = { ...switching(99, 'inverter', -88, -101), atMs: at(13) };
    shown(<FloorLog data={{ ...TEST_STATION, levels: [...readings, switched] }} />);
    expect(screen.getByText(/Step of/).textContent).toMatch(
      /−13\.0\sdB.*at 09:12 UTC.*You switched inverter within three minutes/,
    );
  });
  test('medians of the classes stand behind it where they are near, by ITU-R P.372 (kT₀B + F_am, by hand)', async () => {
    const user = userEvent.setup();
    // man-made F_am = c − d·log f of the Recommendation at 9.6 MHz: residential 72.5 − 27.7·0.98227 = 45.29; kT₀ −173.975 dBm/Hz, 1 Hz
    const near = readings.map((one) => ({ ...one, freqHz: 9.6e6, levelDbm: one.levelDbm - 30 }));
    const station = { ...TEST_STATION.station, environment: 'residential' as const, noiseOffsetDb: 0 };
    shown(<FloorLog data={{ ...TEST_STATION, station, levels: near }} />);
    await user.clear(screen.getByLabelText('Frequency of the log'));
    await user.type(screen.getByLabelText('Frequency of the log'), '9.6 MHz');
    // 34 dB more in the 2.5 kHz that the form begins with: 23 dB over the strongest reading
    expect(screen.getByText(/residential/).closest('li')?.textContent).toMatch(/−9[0-5].*outside the drawing/);
    await user.clear(screen.getByLabelText('Log taken in a bandwidth of'));
    await user.type(screen.getByLabelText('Log taken in a bandwidth of'), '1 Hz');
    const list = screen.getByRole('list', { name: 'Medians of the noise classes' });
    const own = within(list)
      .getByText(/residential/)
      .closest('li');
    // −128.69 from man-made alone; rough atmospheric noise can add to it
    expect(Number(/−(\d+)/.exec(own?.textContent ?? '')?.[1])).toBeGreaterThan(120);
    expect(Number(/−(\d+)/.exec(own?.textContent ?? '')?.[1])).toBeLessThanOrEqual(129);
    expect(own?.textContent).not.toMatch(/outside the drawing/);
  });
  test('a time that is none and a level that is none are told beside the form', async () => {
    const user = userEvent.setup();
    shown(<FloorLog data={TEST_STATION} />);
    expect(screen.getByText(/steps are found from eight readings on/)).toBeTruthy();
    await user.type(screen.getByLabelText('Time, UTC'), 'noonish');
    await user.click(screen.getByRole('button', { name: 'Log the floor' }));
    expect(screen.getByRole('alert').textContent).toMatch(/"noonish" is not a time/);
    await user.clear(screen.getByLabelText('Time, UTC'));
    await user.type(screen.getByLabelText('Floor'), 'loud');
    await user.click(screen.getByRole('button', { name: 'Log the floor' }));
    expect(screen.getByRole('alert').textContent).toMatch(/"loud"/);
  });
});

test('devices: proven first, coincidence named', () => {
  const levels = [
    switching(1, 'heater', -88, -88.4),
    switching(2, 'inverter', -88, -100.8),
    switching(3, 'inverter', -88, -101.3),
  ];
  shown(<Devices data={{ ...TEST_STATION, levels }} />);
  const rows = screen.getAllByRole('row').map((row) => row.textContent ?? '');
  expect(rows[1]).toMatch(/^inverter.*proven/);
  expect(rows[2]).toMatch(/^heater.*lucky coincidence/);
});

describe('gain and S meter', () => {
  test('the advice follows the rows; a broken row is told', async () => {
    const user = userEvent.setup();
    shown(<GainSetting />);
    // the example shows how it looks, and orders nothing
    expect(screen.queryByRole('status')).toBeNull();
    expect(screen.getByText(/These rows are an example/)).toBeTruthy();
    const rows = screen.getByLabelText(/^Gain and noise, a row each/);
    await user.type(rows, '\n30, -80.1');
    expect(screen.getByRole('status').textContent).toMatch(/Leave the gain at\s*25\sdB/);
    await user.clear(rows);
    await user.type(rows, '0, -100, 3');
    expect(screen.getByRole('alert').textContent).toMatch(/“0, -100, 3”, is not two figures/);
  });
  test('S7 on 7 MHz is −85 dBm; on 145 MHz it is −105 (S9 −93 dBm)', async () => {
    const user = userEvent.setup();
    shown(<SMeter />);
    expect(screen.getByRole('status').textContent).toMatch(/−85\.0\sdBm.*is S7\.0.*1\.57/);
    await user.clear(screen.getByLabelText('On'));
    await user.type(screen.getByLabelText('On'), '145 MHz');
    await user.clear(screen.getByLabelText(/^Reading/));
    await user.type(screen.getByLabelText(/^Reading/), '-105 dBm');
    expect(screen.getByRole('status').textContent).toMatch(/is S7\.0/);
  });
});
