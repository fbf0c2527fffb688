import { inDb } from '@velvet-reed/core/units';
import { expect, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Value } from './value';

test('a number tells its unit and origin, and opens to formula, inputs and source', async () => {
  render(
    <Value
      shown={inDb(-12.04, 1, 'dBm')}
      provenance={{
        origin: 'model',
        formula: 'power − isolation',
        inputs: [['power', '100 W']],
        source: 'your entries',
      }}
    />,
  );
  const button = screen.getByRole('button', { name: /−12.0 dBm, model/ });
  // the mark is drawn: what is copied is the number and its unit
  expect(button.textContent).toBe('−12.0\u00a0dBm');
  await userEvent.click(button);
  expect(screen.getByText('Model: computed here')).toBeVisible();
  expect(screen.getByText('power − isolation')).toBeVisible();
  expect(screen.getByText('100 W')).toBeVisible();
  expect(screen.getByText('Source: your entries')).toBeVisible();
  await userEvent.keyboard('{Escape}');
  expect(screen.queryByText('Model: computed here')).toBeNull();
});

test('minus zero is zero', () => {
  expect(inDb(-0.01, 1).digits).toBe('0.0');
});
