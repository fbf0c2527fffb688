import { describe, expect, jest, test } from '@jest/globals';
import { act, render, renderHook, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Button } from './button';
import { PolarPlot } from './polar-plot';
import { useDrawnSpan } from './trace-chart';

describe('span that is drawn', () => {
  test('panning within it keeps the drawing; leaving it or zooming draws anew', () => {
    const start: { span: readonly [number, number] } = { span: [10, 20] };
    const { result, rerender } = renderHook(({ span }) => useDrawnSpan(span), { initialProps: start });
    const first = result.current;
    expect(first[0]).toBeLessThan(5);
    rerender({ span: [12, 22] });
    expect(result.current).toBe(first);
    rerender({ span: [30, 40] });
    expect(result.current).not.toBe(first);
    const second = result.current;
    rerender({ span: [32, 36] });
    expect(result.current).not.toBe(second);
    expect(result.current[0]).toBeLessThanOrEqual(32);
  });
});

describe('polar plot', () => {
  const curve = { name: 'model', look: 0, angleDeg: [0, 90, 180], gainDbi: [2.1, -7.9, -40] };
  test('the rim is the next whole decibel, rings step by ten, the curve ends in the middle at 30 dB down', () => {
    const { container } = render(<PolarPlot label="pattern" curves={[curve]} shape="compass" />);
    expect(screen.getByRole('img', { name: 'pattern' })).toBeTruthy();
    const rings = [...container.querySelectorAll('text')].map((one) => one.textContent);
    expect(rings).toEqual(expect.arrayContaining(['3 dBi', '−7', '−17', 'forward 0°', '90°', '180°']));
    const d = container.querySelector('g[transform] path')?.getAttribute('d') ?? '';
    // 2.1 dBi is 0.9 dB inside a rim of 128: straight up; −40 dBi lies in the middle
    const [, y] = /^M(-?[\d.e-]+),(-?[\d.e-]+)/.exec(d)?.slice(1).map(Number) ?? [];
    expect(y).toBeCloseTo((-128 * 29.1) / 30, 0);
    expect(d).toMatch(/L-?0,-?0$/);
  });
  test('elevations start at the horizon on the right and name both sides alike', () => {
    const { container } = render(<PolarPlot label="elevation" curves={[curve]} shape="half" />);
    const names = [...container.querySelectorAll('text')].map((one) => one.textContent);
    expect(names.filter((one) => one === '30°')).toHaveLength(2);
    const [x, y] =
      /^M(-?[\d.e-]+),(-?[\d.e-]+)/
        .exec(container.querySelector('g[transform] path')?.getAttribute('d') ?? '')
        ?.slice(1)
        .map(Number) ?? [];
    expect(x).toBeGreaterThan(120);
    expect(Math.abs(y)).toBeLessThan(1e-6);
  });
});

describe('button', () => {
  test('while its work is under way it keeps the focus and does nothing', async () => {
    const onClick = jest.fn();
    const user = userEvent.setup();
    const { rerender } = render(<Button onClick={onClick}>Save</Button>);
    await user.click(screen.getByRole('button'));
    rerender(
      <Button busy onClick={onClick}>
        Save
      </Button>,
    );
    act(() => screen.getByRole('button').focus());
    await user.keyboard('{Enter}');
    expect(onClick).toHaveBeenCalledTimes(1);
    expect(document.activeElement).toBe(screen.getByRole('button'));
    expect(screen.getByRole('button').getAttribute('aria-disabled')).toBe('true');
  });
});
