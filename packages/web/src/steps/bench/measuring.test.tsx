import { describe, expect, test } from '@jest/globals';
import { SCHEMAS, BLANK } from '@velvet-reed/contract';
import type { SweepData } from '@velvet-reed/core/formats';
import { findResonances } from '@velvet-reed/core/sweep';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { learnedRate, learnRate } from '../../data/learned-rate';
import { levelDoubt } from '../../ui/level-doubt';
import { RecordForm } from '../../ui/record-form';
import { panned, zoomed } from '../../ui/gestures';
import { Distance } from './fault/distance';
import type { LoadedSweep } from '@velvet-reed/station/bench/loaded-sweep';
import { MarkerTable } from './marker-table';
import { PlaneChart } from './plane-chart';
import { trimChanges, trimDoubt, trimStory } from './trim-record';

const STEP = { antennaId: 1, lengthM: 7.5, freqHz: 9.5e6, ...BLANK.trimSteps };

describe('a trim step', () => {
  const context = { targetHz: 9.65e6, startLengthM: 7.65 };
  test('millimetres typed as metres are asked back with what was meant; a plausible value is not', () => {
    expect(trimDoubt({ ...STEP, lengthM: 75 }, [], context)).toMatch(/tenfold off the draft\. Did you mean 7\.5/);
    expect(trimDoubt({ ...STEP, freqHz: 9.5e3 }, [STEP], context)).toMatch(
      /thousandfold off the dips before.*9\.5000 MHz/,
    );
    expect(trimDoubt(STEP, [], context)).toBeUndefined();
  });
  test('its line in the notebook tells photo and way back', () => {
    expect(trimStory('each arm', { ...STEP, note: 'rain', undoNote: 'folded' })).toBe(
      'each arm 7.500 m, dip 9.5000 MHz. rain Undo: folded.',
    );
    const [step, entry] = trimChanges('V', 'each arm', STEP, new File([], 'end.jpg'));
    expect(step).toMatchObject({ values: { photoId: { new: 'photo' } } });
    expect(entry).toMatchObject({ values: { text: expect.stringContaining('With a photo.') } });
  });
});

test('a form asks once about a doubtful value and saves it when told that it is right', async () => {
  const user = userEvent.setup();
  const saved: unknown[] = [];
  render(
    <RecordForm
      fields={[{ name: 'lengthM', label: 'Length', kind: 'quantity', dimension: 'length', bareUnit: 'm' }]}
      schema={SCHEMAS.trimSteps}
      fixed={{ antennaId: 1, freqHz: 9.5e6, ...BLANK.trimSteps }}
      start={{ lengthM: '' }}
      submit="Save"
      doubt={(values) => trimDoubt(SCHEMAS.trimSteps.cast(values), [STEP], { targetHz: 9.65e6, startLengthM: 7.65 })}
      onSave={async (values) => saved.push(values)}
    />,
  );
  await user.type(screen.getByLabelText('Length'), '75');
  await user.click(screen.getByRole('button', { name: 'Save' }));
  expect((await screen.findByRole('alert')).textContent).toMatch(/Did you mean 7\.5/);
  expect(saved).toEqual([]);
  await user.click(screen.getByRole('button', { name: 'Save anyway' }));
  expect(saved).toMatchObject([{ lengthM: 75 }]);
});

describe('zoom', () => {
  test('keeps the place under the pointer, never goes below nought or under the narrowest span', () => {
    const [low, high] = zoomed([10e6, 20e6], 0.5, 0.2);
    expect(low + 0.2 * (high - low)).toBeCloseTo(12e6, 3);
    expect(high - low).toBeCloseTo(5e6, 3);
    expect(zoomed([0, 1e6], 4, 0.9)[0]).toBe(0);
    expect(zoomed([1e6, 1.001e6], 1e-6, 0.5)[1] - zoomed([1e6, 1.001e6], 1e-6, 0.5)[0]).toBeCloseTo(2000, 6);
    expect(panned([10, 20], 0.1)).toEqual([11, 21]);
  });
});

test('levels: a lost minus sign is asked about, a level like those before is not', () => {
  expect(levelDoubt({ onDbm: 73 }, { onDbm: 'Noise' }, [-75])).toMatch(/minus sign may be missing.*−73\.0 dBm/);
  expect(levelDoubt({ onDbm: -80 }, { onDbm: 'Noise' }, [-75])).toBeUndefined();
  expect(levelDoubt({ onDbm: null }, { onDbm: 'Noise' }, [])).toBeUndefined();
});

test('the time per point is remembered once an analyser was seen at work', () => {
  localStorage.clear();
  expect(learnedRate()).toEqual({ seconds: 0.03, learned: false });
  learnRate(0.002);
  expect(learnedRate()).toEqual({ seconds: 0.002, learned: true });
});

/** A line of 20 m (velocity factor 0.66, no loss) that ends in a total reflection. */
function lineSweep(phaseKnown: boolean): LoadedSweep {
  const freqHz = Float64Array.from({ length: 301 }, (_, i) => 1e6 + 1e6 * i);
  const turn = (f: number): number => (-4 * Math.PI * f * 20) / (0.66 * 299_792_458);
  const sweep: SweepData = {
    freqHz,
    re: freqHz.map((f) => Math.cos(turn(f))),
    im: freqHz.map((f) => Math.sin(turn(f))),
    referenceOhm: 50,
  };
  const header = {
    ...{ id: 4, version: 1, stationId: 1, createdAt: '', name: 'line.s1p', antennaId: 1, points: 301 },
    ...{ startHz: 1e6, stopHz: 301e6, referenceOhm: 50, phaseKnown, shown: true, attachmentId: 1 },
    correction: 'file' as const,
  };
  return { header, sweep, dips: findResonances(sweep), look: 0 };
}
const LINE = { k1: 0, k2: 0, impedanceOhm: 50, velocityFactor: 0.66, lengthM: 20 };

describe('distance and plane', () => {
  test('the end of a 20 m line is named at 20 m; SWR alone is refused', () => {
    const { unmount } = render(<Distance loaded={[lineSweep(true)]} line={LINE} />);
    expect(screen.getByRole('status').textContent).toMatch(/Strongest at\s*20\.0\sm.*returning\s*100/);
    unmount();
    render(<Distance loaded={[lineSweep(false)]} line={LINE} />);
    expect(screen.getByRole('alert').textContent).toMatch(/SWR only: distances need the phase/);
  });
  test('the plane names its rings and says when there is no phase', () => {
    const { unmount } = render(
      <PlaneChart shown={[lineSweep(true)]} visible={[1e6, 301e6]} markers={[{ name: 'dip', freqHz: 5e6 }]} />,
    );
    for (const name of ['SWR 2', 'open', 'short', 'M1']) expect(screen.getByText(name)).toBeTruthy();
    unmount();
    render(<PlaneChart shown={[lineSweep(false)]} visible={[1e6, 301e6]} markers={[]} />);
    expect(screen.getByText(/no phase, no plane/)).toBeTruthy();
  });
  test('own markers can be removed, those that set themselves cannot', async () => {
    const user = userEvent.setup();
    const told: (readonly number[])[] = [];
    render(
      <MarkerTable
        shown={[lineSweep(true)]}
        markers={[
          { name: 'dip', freqHz: 5e6 },
          { name: '', freqHz: 7e6 },
        ]}
        own={[7e6]}
        onOwn={(own) => told.push(own)}
      />,
    );
    expect(screen.queryByRole('button', { name: 'Remove marker 1' })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Remove marker 2' }));
    await user.type(screen.getByLabelText('Marker at'), 'nine');
    await user.click(screen.getByRole('button', { name: 'Set marker' }));
    expect(screen.getByRole('alert').textContent).toMatch(/"nine" is not a frequency/);
    expect(told).toEqual([[]]);
  });
});
