import { v7 as newId } from 'uuid';
import type { Work } from '../http/context';
import { journal } from './schema/index';
import type { Tx } from './tenant';

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

/** What changed last in a nursery. */
export async function lastChange(tx: Tx, nurseryId: string): Promise<string | null> {
  const { rows } = await tx.$client.query<{ id: string }>(
    'select id from journal where nursery_id = $1 order by id desc limit 1',
    [nurseryId],
  );
  return rows[0]?.id ?? null;
}
