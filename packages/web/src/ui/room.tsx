import { CAUTIONS } from '@velvet-reed/core/safety';
import { useContext, useId, type ReactNode } from 'react';
import { VerdictChange } from './announced';
import { RoomNotes } from './room-notes';
import { Note } from './section';
import { useArrival } from './use-arrival';

/** A room's sheet: the verdict first, then what is looked at, then the evidence; the margin says why and what is assumed. */
export function Room({
  title,
  verdict,
  picker,
  margin,
  children,
}: {
  /** "Chain, Path". */
  readonly title: string;
  readonly verdict: ReactNode;
  /** Says what is shown: the only control above the evidence. */
  readonly picker?: ReactNode;
  readonly margin?: ReactNode;
  readonly children?: ReactNode;
}) {
  const id = useId();
  const { cautions, schools } = useContext(RoomNotes);
  useArrival(title);
  return (
    <div className="flex min-h-full flex-col xl:flex-row">
      <main
        id="sheet"
        tabIndex={-1}
        aria-labelledby={id}
        className="min-w-0 flex-1 bg-sheet px-4 py-4 outline-none sm:px-7"
      >
        <h1 id={id} className="sr-only">
          {title}
        </h1>
        <VerdictChange title={title}>{verdict}</VerdictChange>
        {picker && <div className="mb-3 flex flex-wrap items-end gap-x-4 gap-y-1">{picker}</div>}
        {children}
      </main>
      {(margin || cautions.length + schools.length > 0) && (
        <aside
          aria-label="Why and what is assumed"
          className="w-full shrink-0 border-rule bg-paper px-4 py-4 max-xl:border-t sm:px-5 xl:w-66 xl:border-l"
        >
          {margin}
          {schools.length > 0 && (
            <Note title="Two schools">
              {schools.map(([question, decides]) => (
                <p key={question} className="mb-1.5">
                  <b className="font-semibold">{question}</b> {decides}
                </p>
              ))}
            </Note>
          )}
          {cautions.length > 0 && (
            <Note title="Caution">
              <ul className="border-l-4 border-caution pl-3 text-caution">
                {cautions.map((caution) => (
                  <li key={caution} className="mb-1.5 leading-snug">
                    {CAUTIONS[caution]}
                  </li>
                ))}
              </ul>
            </Note>
          )}
        </aside>
      )}
    </div>
  );
}
