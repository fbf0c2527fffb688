import { describe, expect, jest, test } from '@jest/globals';
import type { SweepData } from '@velvet-reed/core/formats';
import { findResonances } from '@velvet-reed/core/sweep';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter } from 'react-router';
import { TEST_STATION } from '@velvet-reed/station/testing/test-station';
import { BeforeAfter } from './changed/before-after';
import { Claims } from './instruments/claims';
import type { LoadedSweep } from '@velvet-reed/station/bench/loaded-sweep';
import { MarkerTable } from './marker-table';
import { SweepPlanner } from './instruments/sweep-planner';
import { WiresTogether } from './wires/wires-together';

/** Series resonance R + jRQ(f/f0 − f0/f) on 50 Ω. */
function loaded(id: number, name: string, f0: number): LoadedSweep {
  const freqHz = Float64Array.from({ length: 201 }, (_, i) => 13e6 + 20e3 * i);
  const parts = Array.from(freqHz, (f) => {
    const x = 42 * 11 * (f / f0 - f0 / f);
    const den = 92 ** 2 + x * x;
    return [(42 ** 2 - 2500 + x * x) / den, (100 * x) / den];
  });
  const sweep: SweepData = {
    freqHz,
    re: Float64Array.from(parts, ([re]) => re),
    im: Float64Array.from(parts, ([, im]) => im),
    referenceOhm: 50,
  };
  const header = {
    id,
    version: 1,
    stationId: 1,
    createdAt: '',
    name,
    antennaId: 1,
    points: 201,
    startHz: 13e6,
    stopHz: 17e6,
    referenceOhm: 50,
    phaseKnown: true,
    shown: true,
    correction: 'file' as const,
    attachmentId: 1,
  };
  return { header, sweep, dips: findResonances(sweep), look: 0 };
}

describe('claims', () => {
  test('a wrong claim is told; emptied fields claim nothing', async () => {
    const user = userEvent.setup();
    render(<Claims />);
    await user.type(screen.getByLabelText('SWR'), '1.38');
    expect(screen.queryByText(/Inconsistent/)).toBeNull();
    await user.type(screen.getByLabelText('Return loss or S11'), '-29');
    expect(screen.getByText(/Inconsistent\. SWR says SWR 1\.38, return loss says 1\.07/)).toBeTruthy();
    await user.clear(screen.getByLabelText('SWR'));
    expect(screen.queryByText(/Inconsistent/)).toBeNull();
    await user.type(screen.getByLabelText('SWR'), '0.5');
    expect(screen.getByRole('alert').textContent).toContain('SWR is 0.5; it must be at least 1');
  });
  test('more return loss than the line explains is not physical', async () => {
    const user = userEvent.setup();
    render(<Claims />);
    await user.clear(screen.getByLabelText('Matched loss of the line'));
    await user.type(screen.getByLabelText('Matched loss of the line'), '9 dB');
    // an open end behind 9 dB shows 1.29 (by hand: Γ = 10^(−0.9) = 0.126)
    expect(screen.getByText(/Not physical.*9\.0 dB even an open end shows no more than SWR 1\.29/)).toBeTruthy();
  });
});

test('the planner counts points in the targets’ bands and refuses a backward span', async () => {
  const user = userEvent.setup();
  render(<SweepPlanner data={TEST_STATION} />);
  expect(screen.getByRole('rowheader', { name: '31 m broadcast' })).toBeTruthy();
  await user.clear(screen.getByLabelText('to'));
  await user.type(screen.getByLabelText('to'), '0');
  expect(screen.getByRole('alert').textContent).toContain('Span (Hz) is 0; it must be above zero');
});

test('two wires: nothing is said before the table is full; a test cut of nothing is asked back', async () => {
  const user = userEvent.setup();
  render(<WiresTogether design={undefined} groundId="free" />);
  const boxes = screen.getAllByRole('textbox');
  for (const [i, text] of ['0 cm', '48 kHz', '12 kHz', '3 cm', '3 kHz', '62 kHz', '110 kHz'].entries())
    await user.type(boxes[i], text);
  expect(screen.queryByRole('list', { name: 'Cuts' })).toBeNull();
  expect(screen.queryByRole('alert')).toBeNull();
  await user.type(boxes[7], '150 kHz');
  expect(screen.getByRole('alert').textContent).toContain('A test trim of 0 mm shows nothing');
  await user.clear(boxes[0]);
  await user.type(boxes[0], '5 cm');
  expect(screen.getByRole('list', { name: 'Cuts' }).textContent).toMatch(/Wire 1: cut 10\.8.*Wire 2: cut 6\.0/);
});

test('the fifteen figures of two wires were lost by a reload, and a cut learned set one of them: each is kept, all are set', async () => {
  const user = userEvent.setup();
  const record: Record<string, string> = {};
  const kept = () => ({
    texts: record,
    keep: (typed: Readonly<Record<string, string>>) => void Object.assign(record, typed),
  });
  const view = render(<WiresTogether design={undefined} groundId="free" kept={kept()} />);
  const boxes = screen.getAllByRole('textbox');
  for (const [i, text] of ['5 cm', '48 kHz', '12 kHz', '3 cm', '3 kHz', '62 kHz', '110 kHz', '150 kHz'].entries())
    await user.type(boxes[i], text);
  // half of what is wanted was cut, and the dips rose by half of their needs: the sensitivities stay, half is left
  for (const [label, text] of [
    ['Cut now off wire 1', '5.4 cm'],
    ['Cut now off wire 2', '3 cm'],
    ['dip 1 then rose by', '55 kHz'],
    ['dip 2 then rose by', '75 kHz'],
  ] as const) {
    await user.clear(screen.getByLabelText(label));
    await user.type(screen.getByLabelText(label), text);
  }
  await user.click(screen.getByRole('button', { name: 'Learn from this cut' }));
  expect(record).toMatchObject({ cut0: '1 cm', cut1: '1 cm', need0: '55 kHz', need1: '75 kHz', origin: 'learned' });
  // 48 kHz by 5 cm is 9.6 kHz a centimetre, 62 by 3 is 20.7 (by hand)
  expect(parseFloat(record['moved0-0'])).toBeCloseTo(9.6, 0);
  expect(parseFloat(record['moved1-1'])).toBeCloseTo(20.7, 0);
  expect(screen.getByRole('list', { name: 'Cuts' }).textContent).toMatch(/Wire 1: cut 5\.\d/);
  view.unmount();
  render(<WiresTogether design={undefined} groundId="free" kept={kept()} />);
  expect(screen.getByRole('list', { name: 'Cuts' }).textContent).toMatch(/Wire 1: cut 5\.\d.*test cuts not counted/);
});

test('before and after needs one of each, and a single sweep cannot be compared', async () => {
  const user = userEvent.setup();
  const { rerender } = render(
    <MemoryRouter>
      <BeforeAfter onFault={() => undefined} loaded={[loaded(1, 'good', 14.18e6)]} antennaName="wire" />
    </MemoryRouter>,
  );
  expect(screen.queryByText('Before and after')).toBeNull();
  rerender(
    <MemoryRouter>
      <BeforeAfter
        onFault={() => undefined}
        loaded={[loaded(1, 'good', 14.18e6), loaded(2, 'bad', 15.6e6)]}
        antennaName="wire"
      />
    </MemoryRouter>,
  );
  await user.selectOptions(screen.getByLabelText('good counts as'), 'before');
  expect(screen.queryByRole('status')).toBeNull();
  await user.selectOptions(screen.getByLabelText('bad counts as'), 'after');
  expect(screen.getByRole('status').textContent).toContain('moved by 1.42 MHz up');
  expect(screen.getByRole('list', { name: 'Dips' }).textContent).toContain('+1420');
});

test('a marker that lies outside every sweep is asked back with the figure it may have been; inside it is set', async () => {
  const user = userEvent.setup();
  const set = jest.fn<(markers: readonly number[]) => void>();
  render(<MarkerTable shown={[loaded(1, 'one', 14.18e6)]} markers={[]} own={[]} onOwn={set} />);
  const field = screen.getByLabelText('Marker at');
  await user.type(field, '1.4{Enter}');
  expect(set).not.toHaveBeenCalled();
  expect(screen.getByRole('alert').textContent).toMatch(/1\.4000 MHz lies outside every sweep shown/);
  await user.click(screen.getByRole('button', { name: 'Set it at 14.000 MHz' }));
  expect(set).toHaveBeenLastCalledWith([14e6]);
  await user.clear(field);
  await user.type(field, '15.2{Enter}');
  expect(set).toHaveBeenLastCalledWith([15.2e6]);
});
