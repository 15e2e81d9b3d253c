import { say } from '@kauri/core';
import { and, eq } from 'drizzle-orm';
import { receipt } from '../db/schema/index';
import type { Tx } from '../db/tenant';
import { Refusal } from './problems';

interface Write {
  tx: Tx;
  nurseryId: string;
  /** Given by the client. */
  id: string;
  route: string;
  bodyHash: string;
}

/**
 * Does a write once for its id. A retry with the same id and body gets the first answer and writes
 * nothing; it waits while the first is still under way.
 * @throws Refusal 409 when the id was used for something else
 */
export async function answerOnce<T>(
  { tx, nurseryId, id, route, bodyHash }: Write,
  work: () => Promise<T>,
): Promise<T> {
  const mine = and(eq(receipt.nurseryId, nurseryId), eq(receipt.id, id));
  const claimed = await tx
    .insert(receipt)
    .values({ nurseryId, id, route, bodyHash })
    .onConflictDoNothing()
    .returning({ id: receipt.id });
  if (claimed.length === 0) {
    const [first] = await tx.select().from(receipt).where(mine);
    if (!first || first.route !== route || first.bodyHash !== bodyHash) {
      throw new Refusal(409, 'id-used', say`That id was already used for a different record.`);
    }
    return first.answer as T;
  }
  const answer = await work();
  await tx.update(receipt).set({ answer }).where(mine);
  return answer;
}

/**
 * As {@link answerOnce}, for a table that is read as it arrives: what it holds is known only once it has been read.
 * @param work reads and stores it
 * @param read only reads it, for a retry: it must hold what the first did
 * @throws Refusal 409 when the id was used for another table
 */
export async function answerTableOnce<T>(
  { tx, nurseryId, id, route, bodyHash }: Write,
  work: () => Promise<{ answer: T; digest: string }>,
  read: () => Promise<string>,
): Promise<T> {
  const mine = and(eq(receipt.nurseryId, nurseryId), eq(receipt.id, id));
  const [first] = await tx
    .insert(receipt)
    .values({ nurseryId, id, route, bodyHash })
    .onConflictDoNothing()
    .returning({ id: receipt.id });
  if (first) {
    const { answer, digest } = await work();
    await tx
      .update(receipt)
      .set({ answer, bodyHash: `${bodyHash} ${digest}` })
      .where(mine);
    return answer;
  }
  const digest = await read();
  const [before] = await tx.select().from(receipt).where(mine);
  if (before?.route !== route || before.bodyHash !== `${bodyHash} ${digest}`)
    throw new Refusal(409, 'id-used', say`That id was already used for a different table.`);
  return before.answer as T;
}
