import { v7 as newId } from 'uuid';
import type { Work } from '../http/context';
import { journal } from './schema/index';

/** One thing that changed. */
export interface Change {
  act: string;
  subjectId: string;
  before: unknown;
  after: unknown;
}

/** Writes down several changes at once. */
export async function noteAll(work: Work, changes: readonly Change[]): Promise<void> {
  if (changes.length === 0) return;
  await work.tx.insert(journal).values(
    changes.map(({ act, subjectId, before, after }) => ({
      nurseryId: work.nurseryId,
      id: newId(),
      personId: work.personId,
      act,
      subjectId,
      before: before ?? null,
      after: after ?? null,
    })),
  );
}

/** Writes down what changed, in the transaction that changes it. */
export async function note(
  work: Work,
  act: string,
  subjectId: string,
  before: unknown,
  after: unknown,
): Promise<void> {
  await noteAll(work, [{ act, subjectId, before, after }]);
}
