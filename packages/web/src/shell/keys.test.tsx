import { beforeEach, expect, jest, test } from '@jest/globals';
import { act, fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { actionOf, chooseKeys, DELIVERED, KEY_ACTIONS, keyOf, withKey } from './keys';
import Shortcuts from './shortcuts';
import { useShellKeys } from './use-shell-keys';

beforeEach(() => act(() => chooseKeys(DELIVERED)));

function Page({ done, undone = () => undefined }: { done: (action: string) => void; undone?: () => void }) {
  useShellKeys(done, undone);
  return (
    <section aria-label="Here">
      <input aria-label="Name" />
      <select aria-label="Choice">
        <option>Tall</option>
      </select>
      <button type="button">Go</button>
    </section>
  );
}

test('no two actions are delivered with one character', () => {
  const keys = KEY_ACTIONS.map(({ key }) => key);
  expect(new Set(keys).size).toBe(keys.length);
});

test('a character may be changed, but not to one that is taken; switched off, none answers', () => {
  const changed = withKey(DELIVERED, 'theme', 'n');
  if (typeof changed === 'string') throw new Error(changed);
  expect([actionOf('n', changed), actionOf('N', changed), actionOf('t', changed)]).toEqual([
    'theme',
    'theme',
    undefined,
  ]);
  expect(withKey(changed, 'palette', 'n')).toMatch(/“n” already means: day or night theme/);
  expect(withKey(changed, 'palette', 'ab')).toMatch(/One character/);
  expect(actionOf('4', { ...DELIVERED, on: false })).toBeUndefined();
});

test('characters are silent in fields and choices, behind a dialog, and with Ctrl; Ctrl+K and Ctrl+Z always answer', () => {
  const done = jest.fn();
  const undone = jest.fn();
  render(<Page done={done} undone={undone} />);
  for (const name of ['Name', 'Choice']) fireEvent.keyDown(screen.getByLabelText(name), { key: '4', code: 'Digit4' });
  fireEvent.keyDown(document.body, { key: '4', code: 'Digit4', ctrlKey: true });
  expect(done).not.toHaveBeenCalled();
  fireEvent.keyDown(screen.getByRole('button', { name: 'Go' }), { key: '4', code: 'Digit4' });
  fireEvent.keyDown(document.body, { key: '?', code: 'Slash', shiftKey: true });
  fireEvent.keyDown(screen.getByLabelText('Name'), { key: 'k', code: 'KeyK', ctrlKey: true });
  expect(done.mock.calls).toEqual([['bench'], ['shortcuts'], ['palette']]);
  fireEvent.keyDown(screen.getByLabelText('Name'), { key: 'z', code: 'KeyZ', ctrlKey: true });
  expect(undone).not.toHaveBeenCalled();
  fireEvent.keyDown(document.body, { key: 'z', code: 'KeyZ', ctrlKey: true });
  expect(undone).toHaveBeenCalledTimes(1);
  const dialog = document.body.appendChild(document.createElement('div'));
  dialog.setAttribute('role', 'dialog');
  fireEvent.keyDown(document.body, { key: '4', code: 'Digit4' });
  fireEvent.keyDown(document.body, { key: 'k', code: 'KeyK', ctrlKey: true });
  expect(done).toHaveBeenCalledTimes(3);
  dialog.remove();
});

test('Esc in a field gives the focus to what stands around it, so that Tab goes on from there', async () => {
  const user = userEvent.setup();
  render(<Page done={() => undefined} />);
  await user.click(screen.getByLabelText('Name'));
  await user.keyboard('{Escape}');
  expect(document.activeElement).toBe(screen.getByRole('region', { name: 'Here' }));
  await user.tab();
  expect(document.activeElement).toBe(screen.getByLabelText('Name'));
});

test('the sheet of keys changes a character, refuses a taken one with its reason, and switches all off', async () => {
  const user = userEvent.setup();
  render(<Shortcuts onClose={() => undefined} />);
  const field = screen.getByRole('textbox', { name: 'Character for: day or night theme' });
  await user.click(field);
  await user.keyboard('n');
  expect(field).toHaveProperty('value', 'n');
  expect(document.activeElement).toBe(field);
  await user.keyboard('4');
  expect(screen.getByRole('alert').textContent).toMatch(/“4” already means: go to Bench/);
  expect(JSON.parse(localStorage.getItem('velvet-reed.keys') ?? '')).toMatchObject({
    on: true,
    chosen: { theme: 'n' },
  });
  await user.click(screen.getByRole('checkbox', { name: 'Single characters answer' }));
  expect(field).toHaveProperty('disabled', true);
  await user.click(screen.getByRole('button', { name: /as delivered/ }));
  expect(field).toHaveProperty(
    'value',
    KEY_ACTIONS.map((action) => [action.id, keyOf(action, DELIVERED)]).find(([id]) => id === 'theme')?.[1],
  );
});
