import { v7 as newId } from 'uuid';
import type { Work } from '../http/context';
import { journal } from './schema/index';

/** Writes down what changed, in the transaction that changes it. */
export async function note(
  work: Work,
  act: string,
  subjectId: string,
  before: unknown,
  after: unknown,
): Promise<void> {
  await work.tx.insert(journal).values({
    nurseryId: work.nurseryId,
    id: newId(),
    personId: work.personId,
    act,
    subjectId,
    before: before ?? null,
    after: after ?? null,
  });
}
