import { expect, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import { Announced, VerdictChange } from './announced';

test('a result is told by its text, without the words of its buttons, and no control stands in the live region', () => {
  const result = (db: string) => (
    <Announced>
      It loses{' '}
      <button type="button" aria-label="show where this comes from">
        {db} dB
      </button>
      .
    </Announced>
  );
  const { rerender } = render(result('2.0'));
  const told = screen.getByRole('status');
  expect(told.textContent).toBe('It loses 2.0 dB.');
  expect(told.querySelector('button')).toBeNull();
  rerender(result('3.1'));
  expect(told.textContent).toBe('It loses 3.1 dB.');
});

test('long results are told by their first whole sentences', () => {
  const sentence = 'Order one gives twelve volts at the amplifier through the feed. ';
  render(<Announced>{sentence.repeat(9)}</Announced>);
  const told = screen.getByRole('status').textContent ?? '';
  expect(told.length).toBeLessThanOrEqual(240);
  expect(told.endsWith('feed.')).toBe(true);
});

test('the change of a verdict is told; arriving in another room is not', () => {
  const { rerender, container } = render(<VerdictChange title="Chain, Path">All is well.</VerdictChange>);
  const told = (): string => container.querySelector('[aria-live]')?.textContent ?? '';
  expect(told()).toBe('');
  rerender(<VerdictChange title="Shelf, Path">Nothing lies there.</VerdictChange>);
  expect(told()).toBe('');
  rerender(<VerdictChange title="Shelf, Path">One part lies there.</VerdictChange>);
  expect(told()).toBe('One part lies there.');
});
