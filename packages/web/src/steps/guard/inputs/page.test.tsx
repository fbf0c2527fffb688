import { describe, expect, test } from '@jest/globals';
import { BLANK } from '@velvet-reed/contract';
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { renderPage, verdictText } from '../../../data/page-harness';
import type { StationData } from '../../../data/station';
import { TEST_STATION } from '../../../data/test-station';
import GuardPage from './page';

const stored = (id: number) => ({ id, version: 1, stationId: 1, createdAt: '' });
const PLAN: StationData['guardPlans'] = [
  { ...stored(1), name: 'Mine', transmitterId: 9, freqHz: 29.7e6, marginToKeepDb: 10, meterResolutionW: 0.1 },
];
const OWN: StationData['transmitters'] = [
  {
    ...stored(9),
    ...BLANK.transmitters,
    name: 'Mine',
    freqHz: 7.1e6,
    powerW: 100,
    powerKind: 'output',
    distanceM: null,
    own: true,
  },
];
const input = (id: number, over: Partial<StationData['guardInputs'][number]>): StationData['guardInputs'][number] => ({
  ...stored(id),
  ...BLANK.guardInputs,
  ...{ guardPlanId: 1, name: 'Receiver A', antennaName: 'Antenna 1', disconnects: true, isolationDb: 62, limitDbm: 0 },
  ...over,
});
const shown = (inputs: StationData['guardInputs'], plans = PLAN): void => {
  renderPage(GuardPage, 'guard', { ...TEST_STATION, transmitters: OWN, guardPlans: plans, guardInputs: inputs });
};

describe('what transmitting leaves at every receiver input', () => {
  test('100 W through 62 dB are −12 dBm, 12 dB below 0 dBm (50 dBm − 62 dB, by hand)', () => {
    shown([input(1, {})]);
    const row = screen.getByRole('region', { name: 'Receiver inputs while transmitting' });
    expect(row.textContent).toMatch(/below.*Receiver A on Antenna 1.*−12\.0\s?dBm.*12\.0\s?dB margin/);
    expect(verdictText()).not.toMatch(/uncovered|danger/i);
  });
  test('59 dB leave 9 dB: thin, not safe, where 10 dB are to be kept; 40 dB are danger', () => {
    shown([input(1, { isolationDb: 59 }), input(2, { name: 'Receiver B', isolationDb: 40 })]);
    const rows = screen.getByRole('region', { name: 'Receiver inputs while transmitting' }).textContent ?? '';
    expect(rows).toMatch(/thin.*Receiver A.*−9\.0\s?dBm/);
    expect(rows).toMatch(/danger.*Receiver B.*\+?10\.0\s?dBm/);
    expect(verdictText()).toMatch(/Receiver B/);
  });
  test('an antenna that nothing disconnects comes first, whatever its figures say', () => {
    shown([
      input(1, { isolationDb: 90 }),
      input(2, { name: 'Receiver B', antennaName: 'Antenna 2', disconnects: false }),
    ]);
    expect(screen.getByRole('region', { name: 'Receiver inputs while transmitting' }).textContent).toMatch(
      /uncovered.*Receiver B on Antenna 2/,
    );
    expect(verdictText()).toMatch(/Receiver B|Antenna 2/);
  });
  test('without a transmitter it says so, and a power that is none is told beside its field', async () => {
    const user = userEvent.setup();
    shown([], []);
    expect(verdictText()).toMatch(/^No transmitter is planned for\. Next: enter its power/);
    await user.clear(screen.getByLabelText('Transmit power (peak)'));
    await user.type(screen.getByLabelText('Transmit power (peak)'), 'plenty');
    await user.click(screen.getByRole('button', { name: 'Plan for this transmitter' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/plenty/);
  });
});
