import { schemaFor, updateOf, type ResourceName, type Saved, type Stored } from '@velvet-reed/contract';
import { useState } from 'react';
import { showTrouble, useStationId, useWrite } from '../data/station';
import { previewDeletion, type DeletionPreview } from '../data/stations-bin';
import { Button } from './button';
import { ConfirmDeletion } from './confirm-deletion';
import { RecordForm, type FieldSpec } from './record-form';
import { typedRecord } from './typed-record';

/** Delete button for a record: what goes along is shown first; the toast offers to undo. */
export function DeleteButton({
  resource,
  record,
  name,
  onDeleted,
}: {
  readonly resource: ResourceName;
  readonly record: Pick<Stored, 'id' | 'version'>;
  readonly name: string;
  readonly onDeleted?: () => void;
}) {
  const { trySave } = useWrite();
  const stationId = useStationId();
  const [asked, setAsked] = useState<DeletionPreview>();
  const remove = async (): Promise<void> => {
    setAsked(undefined);
    const change = { op: 'delete', resource, id: record.id, version: record.version, along: true } as const;
    if (await trySave([change], `${name} deleted.`)) onDeleted?.();
  };
  const ask = async (): Promise<void> => {
    try {
      const preview = await previewDeletion(stationId, resource, record.id);
      const more = preview.goes.filter((one) => one !== '1 file').length + preview.released.length;
      if (more === 0) await remove();
      else setAsked(preview);
    } catch (error) {
      showTrouble(error);
    }
  };
  return (
    <>
      <Button look="danger" aria-label={`Delete ${name}`} onClick={() => void ask()}>
        Delete
      </Button>
      {asked && (
        <ConfirmDeletion title={`Delete ${name}?`} onDelete={() => void remove()} onClose={() => setAsked(undefined)}>
          {asked.goes.length > 0 && <p>Goes along: {asked.goes.join(', ')}.</p>}
          {asked.released.length > 0 && <p>Stays, without it: {asked.released.join(', ')}.</p>}
          <p className="mt-2 text-sm text-dim">Undo brings all of it back.</p>
        </ConfirmDeletion>
      )}
    </>
  );
}

/** Opens the fields that made a record, so that they can be changed. */
export function ChangeButton<R extends ResourceName>({
  resource,
  record,
  name,
  fields,
}: {
  readonly resource: R;
  readonly record: Saved<R>;
  readonly name: string;
  readonly fields: readonly FieldSpec[];
}) {
  const { save } = useWrite();
  const [open, setOpen] = useState(false);
  const { id: _id, version: _version, stationId: _station, createdAt: _created, ...values } = record;
  if (!open)
    return (
      <Button look="quiet" aria-label={`Change ${name}`} onClick={() => setOpen(true)}>
        Change
      </Button>
    );
  return (
    <div className="w-full basis-full">
      <RecordForm
        fields={fields}
        schema={schemaFor(resource)}
        fixed={values}
        start={typedRecord(fields, values)}
        submit="Save the change"
        onCancel={() => setOpen(false)}
        version={record.version}
        onSave={async (typed, version) => {
          await save([updateOf(resource, { id: record.id, version }, typed)], `${name} changed.`);
          setOpen(false);
        }}
      />
    </div>
  );
}
