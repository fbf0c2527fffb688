import { expect, test } from '@jest/globals';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { toNumbers } from './shell/to-numbers';
import { Curves } from './ui/curves';

const points = Array.from({ length: 101 }, (_, i) => ({ x: 5 + i / 50, y: i === 3 ? null : -i / 10 }));
const page = (
  <main id="sheet">
    <Curves
      evidence
      label="Loss over frequency"
      name="loss-of-it"
      x={{ head: 'frequency (Hz)', of: (x) => 10 ** x, decimals: 0 }}
      y={{ head: 'loss (dB)', decimals: 1 }}
      caption="Loss (model)."
      traces={[{ id: 'a', name: 'loss', look: 0, points }]}
      bands={[]}
      markers={[]}
      visible={[5, 7]}
      drawn={[5, 7]}
      range={[-10, 0]}
      ticks={[-10, 0]}
      logarithmic={false}
    />
  </main>
);

test('the numbers of a picture unfold to the same values, thinned; first and last stay', async () => {
  const user = userEvent.setup();
  render(page);
  expect(screen.queryByRole('table')).toBeNull();
  await user.click(screen.getByText('Numbers'));
  const rows = within(screen.getByRole('table')).getAllByRole('row').slice(1);
  expect(rows).toHaveLength(24);
  expect(rows[0].textContent).toBe('loss1000000.0');
  expect(rows.at(-1)?.textContent).toBe('loss10000000−10.0');
  for (const kind of ['SVG', 'PNG', 'CSV'])
    expect(screen.getByRole('button', { name: `${kind} of loss of it` })).toBeTruthy();
});

test('one key leads from the picture to its numbers, and back', async () => {
  render(page);
  toNumbers();
  const table = await screen.findByRole('region', { name: 'Numbers of loss of it' });
  await new Promise((resolve) => setTimeout(resolve));
  expect(document.activeElement).toBe(table);
  toNumbers();
  expect(document.activeElement).toBe(document.querySelector('[data-evidence]'));
});
