import type { SetAside } from '@velvet-reed/station/record';
import { useWrite } from '../data/station';
import { Button } from '../ui/button';

const nameOf = ({ resource, record }: SetAside): string =>
  `${resource} ${typeof record.id === 'number' ? record.id : ''}${typeof record.name === 'string' ? ` "${record.name}"` : ''}`;

/** Records that cannot be read: named, saved as a file, deleted by hand; everything else works. */
export function SetAsideLine({ setAside }: { readonly setAside: readonly SetAside[] }) {
  const { trySave } = useWrite();
  if (setAside.length === 0) return null;
  return (
    <section aria-label="Records set aside" className="border-b border-rule bg-paper px-3 py-1 text-sm sm:px-5">
      <p className="text-caution">
        {setAside.length === 1 ? 'One record' : `${setAside.length} records`} of this station cannot be read and{' '}
        {setAside.length === 1 ? 'is' : 'are'} left out of every figure. Nothing was lost: save{' '}
        {setAside.length === 1 ? 'it' : 'them'} as a file, then delete or enter anew.{' '}
        <Button
          look="quiet"
          onClick={() =>
            void import('../ui/export').then(({ saveText }) =>
              saveText('set-aside.json', JSON.stringify(setAside, null, 2), 'application/json'),
            )
          }
        >
          Save as a file
        </Button>
      </p>
      <ul>
        {setAside.map((one) => (
          <li key={nameOf(one)}>
            {nameOf(one)}: {one.why}{' '}
            {typeof one.record.id === 'number' && typeof one.record.version === 'number' && (
              <Button
                look="danger"
                aria-label={`Delete ${nameOf(one)}`}
                onClick={() =>
                  void trySave(
                    [
                      {
                        op: 'delete',
                        resource: one.resource,
                        id: Number(one.record.id),
                        version: Number(one.record.version),
                        along: true,
                      },
                    ],
                    'Deleted.',
                  )
                }
              >
                Delete
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
