import { lazy, Suspense, useSyncExternalStore } from 'react';
import { dismissRecalled, forgetTable, onQuestion, openQuestion, recalledTable } from '../data/table-answers';
import { Button } from './button';

const Asked = lazy(() => import('./table-question-dialog'));

/** Asks what a table does not say, while a question is open. */
export function TableQuestionHost() {
  const question = useSyncExternalStore(onQuestion, openQuestion);
  const recalled = useSyncExternalStore(onQuestion, recalledTable);
  if (!question && recalled)
    return (
      <p role="status" className="border-b border-rule bg-paper px-3 py-1 text-sm sm:px-5">
        {recalled.fileName} was read as you answered before for this heading. Delete it if that was wrong.{' '}
        <Button look="quiet" onClick={() => forgetTable(recalled.key)}>
          Ask next time
        </Button>{' '}
        <Button look="quiet" onClick={dismissRecalled}>
          Keep it so
        </Button>
      </p>
    );
  if (!question) return null;
  return (
    <Suspense>
      <Asked key={`${question.fileName} ${question.question.key}`} open={question} />
    </Suspense>
  );
}
