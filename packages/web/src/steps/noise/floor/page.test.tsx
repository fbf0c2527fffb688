import { describe, expect, test } from '@jest/globals';
import { BLANK } from '@velvet-reed/contract';
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { renderPage, verdictText } from '../../../data/page-harness';
import type { StationData } from '@velvet-reed/station/record';
import { TEST_STATION } from '@velvet-reed/station/testing/test-station';
import NoisePage from './page';

const stored = (id: number) => ({ id, version: 1, stationId: 1, createdAt: '' });
const check = (id: number, freqHz: number, offDbm: number, onDbm: number): StationData['levels'][number] => ({
  ...{ ...stored(id), ...BLANK.levels, kind: 'off and on' },
  ...{ antennaId: 1, freqHz, againstDbm: offDbm, levelDbm: onDbm },
});
const shown = (levels: StationData['levels']): void => {
  renderPage(NoisePage, 'noise', { ...TEST_STATION, levels });
};

describe('antenna off and on', () => {
  // −10 log(1 − 10^(−rise/10)): 20 dB cost 0.04, 13 dB 0.22, 2 dB 4.33 dB (by hand)
  test.each([
    [-98, '0.04', 'not needed'],
    [-105, '0.22', 'not needed'],
    [-116, '4.3', 'helps'],
  ])('a rise from −118 to %i dBm costs %s dB', (onDbm, cost, advice) => {
    shown([check(1, 9.6e6, -118, onDbm)]);
    const row = screen.getByRole('row', { name: /9\.600 MHz/ });
    expect(row.textContent).toContain(cost);
    expect(row.textContent).toContain(advice);
  });
  test('the worst frequency stands in the first sentence', () => {
    shown([check(1, 3.6e6, -118, -98), check(2, 9.6e6, -119, -106), check(3, 21.2e6, -121, -119)]);
    expect(verdictText()).toMatch(/^At 21\.2 MHz the receiver’s own noise decides: it costs 4\.3 dB/);
    const rows = within(screen.getByRole('region', { name: 'Antenna off and on' })).getAllByRole('row');
    expect(rows.slice(1).map(({ textContent }) => /^[\d.]+/.exec(textContent)?.[0])).toEqual([
      '3.600',
      '9.600',
      '21.20',
    ]);
  });
  test('nothing measured; and a noise that falls when the antenna comes on is asked about, not taken', async () => {
    const user = userEvent.setup();
    shown([]);
    expect(verdictText()).toMatch(/^Nothing measured yet\. Next: read the noise/);
    const form = screen.getByRole('region', { name: 'Log a reading' });
    await user.type(within(form).getByLabelText('Frequency'), 'nowhere');
    await user.click(within(form).getByRole('button', { name: 'Log this reading' }));
    expect((await within(form).findAllByRole('alert'))[0].textContent).toMatch(/nowhere/);
  });
});
