import { AlertDialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { Button } from './button';

/** Asks before something goes that takes more along than its own row. */
export function ConfirmDeletion({
  title,
  children,
  onDelete,
  onClose,
}: {
  readonly title: string;
  readonly children: ReactNode;
  readonly onDelete: () => void;
  readonly onClose: () => void;
}) {
  return (
    <AlertDialog.Root open onOpenChange={(open) => !open && onClose()}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
        <AlertDialog.Content className="fixed top-1/4 left-1/2 z-50 w-[min(32rem,92vw)] -translate-x-1/2 border border-dim bg-sheet p-5">
          <AlertDialog.Title className="text-lg font-semibold">{title}</AlertDialog.Title>
          <AlertDialog.Description asChild>
            <div className="my-3">{children}</div>
          </AlertDialog.Description>
          <div className="flex flex-wrap gap-3">
            <AlertDialog.Cancel asChild>
              <Button>Keep it</Button>
            </AlertDialog.Cancel>
            <AlertDialog.Action asChild>
              <Button look="danger" onClick={onDelete}>
                Delete
              </Button>
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
