import { expect, test } from '@jest/globals';
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useEffect, useState } from 'react';
import { Disclosure } from '../ui/disclosure';
import { keepFocus } from './kept-focus';

function Page() {
  useEffect(keepFocus, []);
  const [rows, setRows] = useState(['One', 'Two', 'Three']);
  const [below, setBelow] = useState(false);
  return (
    <main id="sheet" tabIndex={-1}>
      <div>
        <Disclosure label="Add">
          {(close) => (
            <form>
              <input aria-label="Name" />
              <button type="button" onClick={close}>
                Cancel
              </button>
            </form>
          )}
        </Disclosure>
      </div>
      <ul>
        {rows.map((row) => (
          <li key={row}>
            <button type="button" onClick={() => setRows(rows.filter((one) => one !== row))}>
              Delete {row}
            </button>
          </li>
        ))}
      </ul>
      <p>
        <button type="button" onClick={() => setBelow(true)}>
          Open below
        </button>
      </p>
      <p>Something between</p>
      {below && (
        <form>
          <button type="button" onClick={() => setBelow(false)}>
            Shut
          </button>
        </form>
      )}
    </main>
  );
}
const focused = (name: string): Promise<void> =>
  waitFor(() =>
    expect(document.activeElement).toBe(screen.getByRole(/Name/.test(name) ? 'textbox' : 'button', { name })),
  );

test('a form that opens in the place of its button takes the focus, and gives it back', async () => {
  const user = userEvent.setup();
  render(<Page />);
  await user.click(screen.getByRole('button', { name: 'Add' }));
  await focused('Name');
  await user.click(screen.getByRole('button', { name: 'Cancel' }));
  await focused('Add');
});

test('behind a deleted row the next one has the focus; behind the last one, the one above; behind them all, what had it before', async () => {
  const user = userEvent.setup();
  render(<Page />);
  await user.click(screen.getByRole('button', { name: 'Open below' }));
  await user.click(screen.getByRole('button', { name: 'Delete Two' }));
  await focused('Delete Three');
  await user.keyboard('{Enter}');
  await focused('Delete One');
  await user.keyboard('{Enter}');
  await focused('Open below');
});

test('what was opened elsewhere gives the focus back to its opener', async () => {
  const user = userEvent.setup();
  render(<Page />);
  await user.click(screen.getByRole('button', { name: 'Open below' }));
  await user.click(screen.getByRole('button', { name: 'Shut' }));
  await focused('Open below');
});

test('with nothing else left, the room has it; what a person left on purpose stays left', async () => {
  const user = userEvent.setup();
  render(<Page />);
  const gone = document.body.appendChild(document.createElement('button'));
  gone.focus();
  gone.remove();
  await waitFor(() => expect(document.activeElement).toBe(screen.getByRole('main')));
  await user.click(screen.getByRole('button', { name: 'Add' }));
  await focused('Name');
  screen.getByRole('textbox').blur();
  await user.click(screen.getByText('Something between'));
  expect(document.activeElement).not.toBe(screen.getByRole('textbox'));
});
