import { say } from '@kauri/core';
import type { LineState } from '@kauri/core';
import type { OrderLine } from '@kauri/core/contract';
import { and, eq } from 'drizzle-orm';
import { treeOrder } from '../../db/schema/index';
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

/**
 * Writes how many of a line were sent; its state follows, unless it fell through.
 * @param before how far it had come when nothing was sent for it
 */
export async function writeSent(
  { tx, nurseryId }: Work,
  { order, line }: Awaited<ReturnType<typeof lockedLine>>,
  sent: number,
  before: LineState,
): Promise<void> {
  const state = sent >= line.count ? 'sent' : sent > 0 ? 'part sent' : before;
  const fell = line.state === 'fell through';
  const lines = order.lines.map((one): OrderLine =>
    one.id === line.id ? { ...one, sent, state: fell ? one.state : state } : one,
  );
  await tx
    .update(treeOrder)
    .set({ lines, version: order.version + 1 })
    .where(and(eq(treeOrder.nurseryId, nurseryId), eq(treeOrder.id, order.id)));
}
