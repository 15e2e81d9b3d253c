import { say } from '@kauri/core';
import type { LineState } from '@kauri/core';
import type { OrderLine } from '@kauri/core/contract';
import { and, desc, eq, isNotNull } from 'drizzle-orm';
import { sending, treeOrder } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';

/** An order and one of its lines, locked against other writers. */
export async function lockedLine({ tx, nurseryId }: Work, { id, lineId }: { id: string; lineId: string }) {
  const [order] = await tx
    .select()
    .from(treeOrder)
    .where(and(eq(treeOrder.nurseryId, nurseryId), eq(treeOrder.id, id)))
    .for('update');
  const line = order?.lines.find((one) => one.id === lineId);
  if (!line) throw new Refusal(404, 'no-such-order', say`There is no such line of an order any more.`);
  return { order, line };
}

type Locked = Awaited<ReturnType<typeof lockedLine>>;

/** The same; null where the order or its line was taken out since: trees come back all the same. */
export const lineIfThere = (work: Work, of: { id: string; lineId: string }): Promise<Locked | null> =>
  lockedLine(work, of).catch((error: unknown) => {
    if (error instanceof Refusal) return null;
    throw error;
  });

/**
 * Writes how many of a line were sent; its state follows, unless it fell through.
 * @param before how far it had come when nothing was sent for it
 * @param count how many it wants from now on
 */
export async function writeSent(
  { tx, nurseryId }: Work,
  { order, line }: Locked,
  sent: number,
  before: LineState,
  count = line.count,
): Promise<void> {
  const state = sent >= count ? 'sent' : sent > 0 ? 'part sent' : before;
  const fell = line.state === 'fell through';
  const lines = order.lines.map((one): OrderLine =>
    one.id === line.id ? { ...one, count, sent, state: fell ? line.state : state } : one,
  );
  await tx
    .update(treeOrder)
    .set({ lines, version: order.version + 1 })
    .where(and(eq(treeOrder.nurseryId, nurseryId), eq(treeOrder.id, order.id)));
}

/** How far a line had come when nothing was sent for it, as its sendings found it. */
export async function stateUnsent({ tx, nurseryId }: Work, { order, line }: Locked): Promise<LineState> {
  const [found] = await tx
    .select({ state: sending.lineState })
    .from(sending)
    .where(
      and(
        eq(sending.nurseryId, nurseryId),
        eq(sending.orderId, order.id),
        eq(sending.lineId, line.id),
        isNotNull(sending.lineState),
      ),
    )
    .orderBy(desc(sending.sentAt))
    .limit(1);
  return found?.state ?? 'promised';
}
