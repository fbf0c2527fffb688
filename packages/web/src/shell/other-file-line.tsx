import { useOtherFile } from '../data/data-file';
import { Button } from '../ui/button';

/** Another data folder is served at this address than the one that the page shows: nothing goes from one into the other. */
export function OtherFileLine() {
  if (!useOtherFile()) return null;
  return (
    <p role="alert" className="border-b border-rule bg-paper px-3 py-1 text-sm text-caution sm:px-5">
      Another data folder is served at this address now. What you see belongs to the one before, and cannot be changed.
      Copy what you typed, then reload the page. <Button onClick={() => location.reload()}>Reload the page</Button>
    </p>
  );
}
