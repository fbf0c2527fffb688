import { SCHEMAS, BLANK } from '@velvet-reed/contract';
import { expect, jest, test } from '@jest/globals';
import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { RefusedError } from '../data/api';
import { RecordForm, type FieldSpec } from './record-form';

const FIELDS: readonly FieldSpec[] = [
  { name: 'name', label: 'Name', kind: 'text' },
  { name: 'lowHz', label: 'From', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
  { name: 'highHz', label: 'To', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
];
const start = { name: '31 m', lowHz: '9.4 MHz', highHz: '9.9' };
const show = (onSave: (values: Record<string, unknown>) => Promise<unknown>) =>
  render(
    <RecordForm
      fields={FIELDS}
      schema={SCHEMAS.targets}
      fixed={{ bandwidthHz: 5000, weight: 3, ...BLANK.targets }}
      start={start}
      submit="Save"
      onSave={(values) => onSave(values)}
    />,
  );
const type = async (label: string, text: string): Promise<void> => {
  await userEvent.clear(screen.getByLabelText(label));
  await userEvent.type(screen.getByLabelText(label), text);
};

test('typed units become SI', async () => {
  const save = jest.fn(async (_values: Record<string, unknown>) => undefined);
  show(save);
  await type('From', '9400 kHz');
  await userEvent.click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() =>
    expect(save).toHaveBeenCalledWith({
      name: '31 m',
      lowHz: 9.4e6,
      highHz: 9.9e6,
      bandwidthHz: 5000,
      weight: 3,
      ...BLANK.targets,
    }),
  );
});

test('bad input gets its sentence beside the field, is not saved, and the other fields stay', async () => {
  const save = jest.fn(async (_values: Record<string, unknown>) => undefined);
  show(save);
  await type('From', 'nine');
  await userEvent.click(screen.getByRole('button', { name: 'Save' }));
  expect(await screen.findByRole('alert')).toHaveTextContent('"nine" is not a frequency. Type it like 9.65 MHz');
  expect(screen.getByLabelText('From')).toHaveAttribute('aria-invalid', 'true');
  expect(screen.getByLabelText('To')).toHaveValue('9.9');
  expect(save).not.toHaveBeenCalled();
});

test('edges the wrong way round are told once both are readable', async () => {
  const save = jest.fn(async (_values: Record<string, unknown>) => undefined);
  show(save);
  await type('From', '12 MHz');
  await userEvent.click(screen.getByRole('button', { name: 'Save' }));
  expect(await screen.findByRole('alert')).toHaveTextContent('The lower edge must lie below the upper edge');
  expect(save).not.toHaveBeenCalled();
});

test('what the server refuses lands beside its field or under the form', async () => {
  const refusals = [
    { code: 'X', message: 'No.', fields: [{ field: 'name', message: 'That name is taken. Choose another.' }] },
    { code: 'STALE_WRITE', message: 'Changed elsewhere. Reload.' },
  ];
  show(async () => {
    const refusal = refusals.shift();
    if (refusal) throw new RefusedError(409, refusal);
  });
  await userEvent.click(screen.getByRole('button', { name: 'Save' }));
  expect(await screen.findByText('That name is taken. Choose another.')).toBeVisible();
  await type('Name', 'other');
  await userEvent.click(screen.getByRole('button', { name: 'Save' }));
  expect(await screen.findByText('Changed elsewhere. Reload.')).toBeVisible();
  expect(screen.getByLabelText('Name')).toHaveValue('other');
});

test('what is saved is meant for the state in which typing began; after a save or a refusal the next typing counts', async () => {
  const versions: number[] = [];
  const refused = new RefusedError(409, { code: 'STALE_WRITE', message: 'This target was changed elsewhere.' });
  let refuse = false;
  const form = (version: number, start: string) => (
    <RecordForm
      fields={[{ name: 'text', label: 'Text', kind: 'text' }]}
      schema={SCHEMAS.entries}
      fixed={{ step: 'notebook', atMs: 0 }}
      start={{ text: start }}
      submit="Save"
      version={version}
      onSave={async (_values, its) => {
        versions.push(its);
        if (refuse) throw refused;
      }}
    />
  );
  const view = render(form(1, 'old'));
  const save = async (): Promise<void> => {
    const before = versions.length;
    fireEvent.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() => expect(versions).toHaveLength(before + 1));
  };
  fireEvent.change(screen.getByLabelText('Text'), { target: { value: 'mine' } });
  view.rerender(form(2, 'theirs')); // another tab saved
  expect(screen.getByLabelText('Text')).toHaveValue('mine');
  refuse = true;
  await save();
  await screen.findByText('This target was changed elsewhere.');
  refuse = false;
  await save(); // told, the person presses again
  fireEvent.change(screen.getByLabelText('Text'), { target: { value: 'mine too' } });
  view.rerender(form(4, 'mine'));
  await save();
  expect(versions).toEqual([1, 2, 2]);
});
