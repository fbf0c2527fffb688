import { describe, expect, test } from '@jest/globals';
import { fireEvent, screen } from '@testing-library/react';
import { renderPage, verdictText } from '../../data/page-harness';
import type { StationData } from '@velvet-reed/station/record';
import { TEST_STATION } from '@velvet-reed/station/testing/test-station';
import TransmittersRoom from './transmitters/page';
import WantedRoom from './wanted/page';
import WhenRoom from './when/page';

const shown = (over: Partial<StationData>, Room = WantedRoom): void => {
  renderPage(Room, 'listen', { ...TEST_STATION, ...over });
};

describe('Listen', () => {
  test('a new station is told its region and what to do first', () => {
    shown({ targets: [], transmitters: [] });
    expect(verdictText()).toMatch(/^Ferrin Point lies in ITU Region 1\. Next: say what you want to hear/);
  });
  test('a station across the ocean lies in Region 2, an eastern one in Region 3 (ITU Radio Regulations, article 5)', () => {
    const at = (latDeg: number, lonDeg: number): void => {
      document.body.innerHTML = '';
      shown({ targets: [], station: { ...TEST_STATION.station, latDeg, lonDeg } });
    };
    at(38, -60);
    expect(verdictText()).toMatch(/ITU Region 2/);
    at(-39.7, 120.6);
    expect(verdictText()).toMatch(/ITU Region 3/);
  });
  test('sun times to the nearest minute; a sunset after midnight UTC says that it is the next UTC day', () => {
    // Portland, Oregon, 21 June 2026: rise 5:22, set 21:03 Pacific daylight time, as almanacs print it (from memory); 2 minutes either way are allowed
    shown({ targets: [], station: { ...TEST_STATION.station, latDeg: 45.52, lonDeg: -122.68 } }, WhenRoom);
    fireEvent.change(screen.getByLabelText(/^Day \(UTC\)/), { target: { value: '2026-06-21' } });
    const text = (screen.getByText(/^Sunrise/).textContent ?? '').replaceAll(/\s+/g, ' ');
    expect(text).toMatch(/Sunrise 12:2[0-4] UTC, sunset 04:0[1-5] UTC, the next UTC day;/);
    fireEvent.click(screen.getByRole('button', { name: 'Back to today' }));
  });
  test('targets and neighbours are counted; the own transmitter is no neighbour', () => {
    const [transmitter] = TEST_STATION.transmitters;
    shown({ transmitters: [transmitter, { ...transmitter, id: 2, own: true }] });
    expect(verdictText()).toMatch(/You want to hear one target from Ferrin Point; one transmitter nearby may disturb/);
  });
  test('the field of a neighbour stands beside it: 3 kW ERP at 7 km are −22 dBm isotropic at 97.4 MHz', () => {
    // √(30·3000·1.64)/7000 m = 54.9 mV/m = 94.8 dBµV/m; −77.21 − 20 log 97.4 + 94.8 = −22.2 dBm (by hand)
    shown({}, TransmittersRoom);
    const row = screen.getByRole('row', { name: /3 kW FM/ });
    expect(row.textContent).toMatch(/94\.8|95/);
    expect(row.textContent).toMatch(/−22/);
  });
});
