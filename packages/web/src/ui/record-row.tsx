import type { ResourceName, Stored } from '@velvet-reed/contract';
import { useWrite } from '../data/station';
import { Button } from './button';

/** Delete button for a record; the toast offers to undo. */
export function DeleteButton({
  resource,
  record,
  name,
}: {
  readonly resource: ResourceName;
  readonly record: Pick<Stored, 'id' | 'version'>;
  readonly name: string;
}) {
  const { trySave } = useWrite();
  return (
    <Button
      look="danger"
      aria-label={`Delete ${name}`}
      onClick={() =>
        void trySave([{ op: 'delete', resource, id: record.id, version: record.version }], `${name} deleted.`)
      }
    >
      Delete
    </Button>
  );
}
