import type { KeptMark, TodayBook } from '../contract';
import { markedUntil } from '../reading/marks';
import type { HeldWrite } from './heldWrite';

/**
 * What is kept about Today as it will be once a write is taken in: acts marked, marks taken back.
 * @param by the name of whoever made it
 */
export function bookAhead(book: TodayBook, write: HeldWrite, by: string): TodayBook {
  const marks = (() => {
    switch (write.route) {
      case 'markAct':
        return [write.body];
      case 'markTogether':
        return write.body.marks;
      default:
        return [];
    }
  })().map(
    ({
      id,
      rule,
      subjectId,
      mark,
      on,
      until,
      reason = '',
      minutes = null,
      trees,
      assignedTo = null,
    }): KeptMark => ({
      id,
      rule,
      subjectId,
      mark,
      on,
      until: markedUntil({ mark, rule, on, until }),
      reason,
      minutes: mark === 'done' ? minutes : null,
      trees,
      assignedTo: mark === 'assigned' ? assignedTo : null,
      by,
    }),
  );
  const gone = new Set(
    write.route === 'undoMark' ? [write.params.mark] : write.route === 'undoMarks' ? write.body.marks : [],
  );
  const known = new Set(book.marks.map(({ id }) => id));
  return {
    ...book,
    // The last first, as the server has them.
    marks: [
      ...marks.filter(({ id }) => !known.has(id)).reverse(),
      ...book.marks.filter(({ id }) => !gone.has(id)),
    ],
  };
}
