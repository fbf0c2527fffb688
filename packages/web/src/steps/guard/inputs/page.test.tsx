import { describe, expect, test } from '@jest/globals';
import { BLANK } from '@velvet-reed/contract';
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { renderPage, verdictText } from '../../../data/page-harness';
import type { StationData } from '@velvet-reed/station/record';
import { TEST_STATION } from '@velvet-reed/station/testing/test-station';
import GuardPage from './page';

const stored = (id: number) => ({ id, version: 1, stationId: 1, createdAt: '' });
const PLAN: StationData['guardPlans'] = [
  {
    ...stored(1),
    ...BLANK.guardPlans,
    hangingOnNothing: '1',
    receiversOnNothing: '1',
    name: 'Mine',
    transmitterId: 9,
    freqHz: 29.7e6,
    marginToKeepDb: 10,
    meterResolutionW: 0.1,
  },
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

const rowsText = (): string =>
  screen.getByRole('region', { name: 'Receiver inputs while transmitting' }).textContent ?? '';

describe('what transmitting leaves at every receiver input', () => {
  test('100 W through 62 dB as typed are −12 dBm, 12 dB below 0 dBm; what a stuck relay brings nobody knows', () => {
    shown([input(1, {})]);
    expect(rowsText()).toMatch(/not known.*Receiver A on Antenna 1.*−12\.0\s?dBm.*12\.0\s?dB margin/);
    expect(rowsText()).toMatch(/Key down: −12\.0 dBm, 12\.0 dB below the limit: the whole way, as typed/);
    expect(verdictText()).toMatch(
      /^Not known: Receiver A \(relay moving, 7\.100 MHz\)\. “Transmit antenna to Antenna 1” has no figure/,
    );
  });
  test('59 dB leave 9 dB: less than the 10 dB asked for; 40 dB are danger', () => {
    shown([input(1, { isolationDb: 59 }), input(2, { name: 'Receiver B', isolationDb: 40 })]);
    expect(rowsText()).toMatch(/Receiver A.*−9\.0\s?dBm.*less than the 10 dB asked for/);
    expect(rowsText()).toMatch(/danger.*Receiver B.*\+?10\.0\s?dBm/);
    expect(verdictText()).toMatch(/^Do not transmit: Receiver B gets 10\.0 dBm \(key down, 7\.100 MHz\)/);
  });
  test('an antenna that nothing disconnects is red, whatever was typed of others, and the radio’s own protection does not cover it', () => {
    shown([
      input(1, { isolationDb: 90 }),
      input(2, { name: 'Receiver B', antennaName: 'Antenna 2', disconnects: false, isolationDb: null }),
    ]);
    expect(rowsText()).toMatch(
      /uncovered.*Receiver B on Antenna 2.*The protection inside the radio does not cover Receiver B/,
    );
    expect(verdictText()).toMatch(
      /^Do not transmit yet: antenna 2 is not disconnected|^Do not transmit yet: Antenna 2 is not disconnected/,
    );
  });
  test('what was typed for an antenna that nothing disconnects is used, as assumed, and compared with the limit', () => {
    shown([input(1, { name: 'SDR', antennaName: 'Quiet wire', disconnects: false, isolationDb: 27.9 })]);
    expect(rowsText()).toMatch(/danger.*SDR on Quiet wire.*22\.1\s?dBm/);
  });
  test('a receiver of the station without an input is red until it is said to hang on nothing', () => {
    const receivers = [{ ...TEST_STATION.receivers[0], id: 5, name: 'Dongle' }];
    const plans = (receiversOnNothing: string) => PLAN.map((plan) => ({ ...plan, receiversOnNothing }));
    renderPage(GuardPage, 'guard', {
      ...{ ...TEST_STATION, receivers, transmitters: OWN, guardPlans: plans(''), guardInputs: [] },
    });
    expect(verdictText()).toMatch(/^Do not transmit yet: Dongle of this station is not in the drawing/);
    cleanup();
    renderPage(GuardPage, 'guard', {
      ...{ ...TEST_STATION, receivers, transmitters: OWN, guardPlans: plans('5'), guardInputs: [] },
    });
    expect(verdictText()).not.toMatch(/Dongle/);
  });
  test('without a transmitter it says so, and a power that is none is told beside its field', async () => {
    const user = userEvent.setup();
    shown([], []);
    expect(verdictText()).toMatch(/^No transmitter has a Guard plan yet\. Next: enter its power/);
    await user.clear(screen.getByLabelText('Transmit power (peak)'));
    await user.type(screen.getByLabelText('Transmit power (peak)'), 'plenty');
    await user.click(screen.getByRole('button', { name: 'Plan for this transmitter' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/plenty/);
  });
});
