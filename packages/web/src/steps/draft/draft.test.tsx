import { describe, expect, jest, test } from '@jest/globals';
import { antennaKind, type Design, startDesign, wireModel } from '@velvet-reed/core/antenna';
import { act, fireEvent, render, renderHook, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sweepBand, questionOf } from '../../data/model';
import { TEST_STATION } from '@velvet-reed/station/testing/test-station';
import { CutList } from './build/cut-list';
import { Figures } from './figures';
import { family } from './vary/comparison';
import { DimensionsPanel } from './model/dimensions-panel';
import { useEditing } from './editing';
import { gainAt } from './model-figures';

const DIPOLE = startDesign('half-wave-dipole', 9.65e6);

function Harness({
  start,
  onSave,
  onDesign,
}: {
  start: Design;
  onSave: () => void;
  onDesign: (design: Design) => void;
}) {
  const editing = useEditing(start);
  onDesign(editing.design);
  return <DimensionsPanel editing={editing} onSave={onSave} />;
}

function open(start: Design) {
  const seen: Design[] = [];
  const onSave = jest.fn();
  render(<Harness start={start} onSave={onSave} onDesign={(design) => seen.push(design)} />);
  const field = (name: string): HTMLElement => screen.getByRole('textbox', { name });
  return { onSave, field, last: (): Design | undefined => seen.at(-1) };
}

describe('dimensions', () => {
  test('what is typed with a unit is set; what is emptied follows its formula again', async () => {
    const user = userEvent.setup();
    const { field, last } = open(DIPOLE);
    await user.type(field('Overall length'), '49 ft 2 in');
    expect(last()?.dimensions.lengthM).toBeCloseTo(14.986, 3);
    expect(screen.getByText(/formula: 15\.\d+ m/)).toBeTruthy();
    await user.clear(field('Overall length'));
    expect(last()?.dimensions).toEqual({});
  });
  test('a wrong value says why, keeps the last sound design, and is not saved', async () => {
    const user = userEvent.setup();
    const { field, last, onSave } = open({ ...DIPOLE, dimensions: { lengthM: 15 } });
    await user.clear(field('Height of the wire'));
    await user.type(field('Height of the wire'), 'up there');
    expect(screen.getByRole('alert').textContent).toContain('"up there" is not a length');
    expect(last()?.dimensions).toEqual({ lengthM: 15 });
    await user.click(screen.getByRole('button', { name: 'Save as a new revision' }));
    expect(onSave).not.toHaveBeenCalled();
    expect(document.activeElement).toBe(field('Height of the wire'));
    await user.clear(field('Height of the wire'));
    await user.type(field('Height of the wire'), '7 m');
    await user.click(screen.getByRole('button', { name: 'Save as a new revision' }));
    expect(onSave).toHaveBeenCalledTimes(1);
    expect(last()?.dimensions).toEqual({ lengthM: 15, heightM: 7 });
  });
  test('a slider sets what it stands for', () => {
    const { last } = open(DIPOLE);
    fireEvent.change(screen.getByRole('slider', { name: 'Drag Height of the wire' }), { target: { value: '6' } });
    expect(last()?.dimensions.heightM).toBe(6);
  });
  test('whole numbers stay whole, and bands that are not used are not asked for', async () => {
    const user = userEvent.setup();
    const { field, last } = open(startDesign('fan-dipole', 7.1e6));
    expect(screen.queryByRole('textbox', { name: 'Band 3' })).toBeNull();
    await user.type(field('Pairs of arms'), '3');
    expect(screen.getByRole('textbox', { name: 'Band 3' })).toBeTruthy();
    await user.clear(field('Pairs of arms'));
    await user.type(field('Pairs of arms'), '2.5');
    expect(screen.getByRole('alert').textContent).toContain('must be a whole number');
    expect(last()?.dimensions.bands).toBe(2);
  });
  test('a design taken over replaces what was typed', () => {
    const { result } = renderHook(() => useEditing(DIPOLE));
    act(() => result.current.take({ ...DIPOLE, dimensions: { lengthM: 14.8 } }));
    expect(result.current.texts.lengthM).toBe('14.8 m');
    expect(result.current.changed).toBe(true);
  });
});

describe('cut list', () => {
  const draft = antennaKind('half-wave-dipole').draft(DIPOLE);
  test('millimetres or sixteenths of an inch, with what to buy and what goes wrong', async () => {
    const user = userEvent.setup();
    render(<CutList design={DIPOLE} draft={draft} />);
    expect(screen.getByText(/^7\d{3} mm$/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Inches' }));
    expect(screen.getByText(/^25 ft \d+ (\d+\/\d+ )?in$/)).toBeTruthy();
    expect(screen.getByText('centre insulator or feed block')).toBeTruthy();
    expect(screen.getByText(/choke it at the feed/)).toBeTruthy();
  });
  test('figures keep their units; large resistances read in kΩ', () => {
    const design = startDesign('ferrite-rod', 77.5e3);
    render(<Figures figures={antennaKind('ferrite-rod').draft(design).figures} />);
    expect(screen.getByRole('button', { name: /^402 kΩ, model/ })).toBeTruthy();
  });
});

describe('comparison', () => {
  const revisions = TEST_STATION.revisions;
  test('a height family leaves the rest alone', () => {
    const names = family({ by: 'parameter', id: 'heightM' }, { ...DIPOLE, dimensions: { heightM: 8 } }, 'average', []);
    expect(names.map((one) => one.design.dimensions.heightM)).toEqual([4, 6, 12]);
    expect(names[0].name).toBe('height of the wire 4.000 m');
  });
  test('grounds, conductors and revisions', () => {
    expect(family({ by: 'ground' }, DIPOLE, 'poor', []).map((one) => one.groundId)).toEqual(['good', 'sea']);
    expect(family({ by: 'conductor' }, DIPOLE, 'average', [])).toHaveLength(3);
    expect(family({ by: 'revisions', ids: [revisions[0].id] }, DIPOLE, 'average', revisions)[0].name).toBe(
      'revision 1',
    );
    expect(family({ by: 'nothing' }, DIPOLE, 'average', revisions)).toEqual([]);
  });
  test('what could not be built is left out', () => {
    const upright = { ...startDesign('v-dipole', 9.65e6), dimensions: { angleDeg: 170 } };
    // half of 170° is under the least angle of 90°
    expect(
      family({ by: 'parameter', id: 'angleDeg' }, upright, 'average', []).map((one) => one.design.dimensions.angleDeg),
    ).toEqual([90, 128, 180]);
  });
});

describe('what is asked of the solver', () => {
  test('the focus band, if it holds the frequency, else a stretch around that', () => {
    const focus = { lowHz: 9.4e6, highHz: 9.9e6 };
    expect(sweepBand(9.65e6, focus)).toEqual(focus);
    expect(sweepBand(145e6, focus)).toEqual({ lowHz: 145e6 * 0.88, highHz: 145e6 * 1.12 });
    expect(sweepBand(145e6, { lowHz: 1e3, highHz: 12e9 }).lowHz).toBeCloseTo(127.6e6, -3);
    const model = wireModel(DIPOLE, { type: 'free' });
    expect(questionOf(model, 9.65e6, focus)).toMatchObject({ model, freqHz: 9.65e6, ...focus });
  });
  test('gain between the angles of a cut is read off a straight line', () => {
    const spot = { elevation: { angleDeg: [0, 10, 20], gainDbi: [-10, 0, 5] } };
    expect(gainAt(spot, 5)).toBe(-5);
    expect(gainAt(spot, 0)).toBe(-10);
    expect(gainAt(spot, 20)).toBe(5);
  });
});
