import { say } from '@kauri/core';
import type { BodyOf, OrderLine } from '@kauri/core/contract';
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import { note } from '../../db/journal';
import { parcel, parcelAside } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { lockLots } from '../lots/locked';
import { knownParcels } from './knownParcels';
import { lockedLine } from './orderLines';

type Part = { parcelId: string; count: number };
type Of = Pick<Work, 'tx' | 'nurseryId'>;

const isOf = (nurseryId: string, parcelId: string, lineId: string) =>
  and(
    eq(parcelAside.nurseryId, nurseryId),
    eq(parcelAside.parcelId, parcelId),
    eq(parcelAside.lineId, lineId),
  );

/** Lots that trees are set aside from for an order, or for one line of it. */
export async function asideLots({ tx, nurseryId }: Of, orderId: string, lineId?: string): Promise<string[]> {
  const rows = await tx
    .selectDistinct({ lotId: parcel.lotId })
    .from(parcelAside)
    .innerJoin(parcel, and(eq(parcel.nurseryId, nurseryId), eq(parcel.id, parcelAside.parcelId)))
    .where(
      and(
        eq(parcelAside.nurseryId, nurseryId),
        eq(parcelAside.orderId, orderId),
        lineId === undefined ? undefined : eq(parcelAside.lineId, lineId),
      ),
    );
  return rows.map(({ lotId }) => lotId);
}

/** Locks the lots that trees are set aside from for an order, before the order itself. */
export async function lockAsides(work: Work, orderId: string): Promise<void> {
  const lots = await asideLots(work, orderId);
  if (lots.length) await lockLots(work, lots);
}

/** Trees of a parcel that are set aside for nobody. */
async function freeIn({ tx, nurseryId }: Of, parcelId: string): Promise<number> {
  const { rows } = await tx.$client.query<{ free: number }>(
    'select (held - aside)::int as free from parcel_held where nursery_id = $1 and parcel_id = $2',
    [nurseryId, parcelId],
  );
  return rows[0]?.free ?? 0;
}

/** Sets fewer of a parcel aside for a line. */
async function lower({ tx, nurseryId }: Of, lineId: string, { parcelId, count }: Part): Promise<void> {
  const at = isOf(nurseryId, parcelId, lineId);
  // Never written as none: what holds nothing is no row.
  const { rowCount } = await tx.delete(parcelAside).where(and(at, sql`${parcelAside.count} <= ${count}`));
  if (!rowCount)
    await tx
      .update(parcelAside)
      .set({ count: sql`${parcelAside.count} - ${count}` })
      .where(at);
}

/**
 * What is set aside for a line is lowered to what it may hold still, last set first. The lots concerned are locked before.
 * @returns what is set aside no more
 */
export async function fitAsides(of: Of, lineId: string, most: number): Promise<Part[]> {
  const rows = await of.tx
    .select({ parcelId: parcelAside.parcelId, count: parcelAside.count })
    .from(parcelAside)
    .where(and(eq(parcelAside.nurseryId, of.nurseryId), eq(parcelAside.lineId, lineId)))
    .orderBy(asc(parcelAside.setAt), asc(parcelAside.parcelId));
  let left = most;
  const over: Part[] = [];
  for (const { parcelId, count } of rows) {
    const kept = Math.min(count, Math.max(0, left));
    left -= kept;
    if (kept < count) over.push({ parcelId, count: count - kept });
  }
  for (const part of over) await lower(of, lineId, part);
  return over;
}

/** Trees that go for a line are set aside for it no more: those sent out of their parcels, and whatever is then too many. */
export async function releaseSent(
  of: Of,
  lineId: string,
  parts: readonly Part[],
  stillWanted: number,
): Promise<Part[]> {
  const sent = new Map(parts.map(({ parcelId, count }) => [parcelId, count]));
  const rows = await of.tx
    .select({ parcelId: parcelAside.parcelId, count: parcelAside.count })
    .from(parcelAside)
    .where(
      and(
        eq(parcelAside.nurseryId, of.nurseryId),
        eq(parcelAside.lineId, lineId),
        inArray(parcelAside.parcelId, [...sent.keys()]),
      ),
    );
  const gone = rows.map(({ parcelId, count }) => ({ parcelId, count: Math.min(count, sent.get(parcelId)!) }));
  for (const part of gone) await lower(of, lineId, part);
  return [...gone, ...(await fitAsides(of, lineId, stillWanted))];
}

/** Sets trees aside for a line once more, beside what is. */
async function addAsides(
  { tx, nurseryId }: Of,
  { id: orderId, lineId }: { id: string; lineId: string },
  parts: readonly Part[],
): Promise<void> {
  for (const { parcelId, count } of parts)
    await tx
      .insert(parcelAside)
      .values({ nurseryId, parcelId, lineId, orderId, count })
      .onConflictDoUpdate({
        target: [parcelAside.nurseryId, parcelAside.parcelId, parcelAside.lineId],
        set: { count: sql`${parcelAside.count} + excluded.count` },
      });
}

/** Sets aside again what a sending released, once it is taken back: as far as the line may have it, and it lies free still. */
export async function restoreReleased(
  of: Of,
  line: { id: string; lineId: string },
  released: readonly Part[],
  most: number,
): Promise<void> {
  const { rows } = await of.tx.$client.query<{ aside: number }>(
    'select coalesce(sum(count), 0)::int as aside from parcel_aside where nursery_id = $1 and line_id = $2',
    [of.nurseryId, line.lineId],
  );
  let left = most - rows[0].aside;
  for (const { parcelId, count } of released) {
    const again = Math.min(count, left, await freeIn(of, parcelId));
    if (again <= 0) continue;
    await addAsides(of, line, [{ parcelId, count: again }]);
    left -= again;
  }
}

/** Trees of a parcel that are gone are set aside for nobody: those set aside last give way. */
export async function giveWay({ tx, nurseryId }: Of, parcelId: string, gone: number): Promise<void> {
  let over = gone - (await freeIn({ tx, nurseryId }, parcelId));
  if (over <= 0) return;
  const asides = await tx
    .select({ lineId: parcelAside.lineId, count: parcelAside.count })
    .from(parcelAside)
    .where(and(eq(parcelAside.nurseryId, nurseryId), eq(parcelAside.parcelId, parcelId)))
    .orderBy(sql`${parcelAside.setAt} desc`, asc(parcelAside.lineId));
  for (const { lineId, count } of asides) {
    if (over <= 0) return;
    await lower({ tx, nurseryId }, lineId, { parcelId, count: Math.min(count, over) });
    over -= count;
  }
}

/** What a line may have set aside for it: nothing once it is closed, else what it still wants. */
export const mayHaveAside = ({ state, count, sent }: Pick<OrderLine, 'state' | 'count' | 'sent'>): number =>
  state === 'fell through' || state === 'sent' ? 0 : Math.max(0, count - sent);

/**
 * Sets lifted trees aside for a line of an order, in place of what was set aside for it before: all or none.
 * @throws Refusal for trees of another species than the line's, more than it still wants, a line that is closed, or a parcel
 *   that is not there; 409 for more than lie free in one
 */
export async function setAside(work: Work, { order, parts }: BodyOf<'setAside'>): Promise<void> {
  const known = [
    ...(
      await knownParcels(
        work,
        parts.map(({ parcelId }) => parcelId),
      )
    ).values(),
  ];
  const before = await asideLots(work, order.id, order.lineId);
  const lots = await lockLots(work, [...new Set([...known.map(({ lotId }) => lotId), ...before])]);
  const { line } = await lockedLine(work, order);
  const trees = parts.reduce((sum, { count }) => sum + count, 0);
  const most = mayHaveAside(line);
  if (trees > most)
    throw new Refusal(
      422,
      'invalid',
      most === 0
        ? say`That line is closed: nothing is set aside for it.`
        : say`${trees} to set aside, but the line still wants ${most}.`,
    );
  const other = known.map(({ lotId }) => lots.get(lotId)!).find((row) => row.speciesId !== line.speciesId);
  if (other)
    throw new Refusal(
      422,
      'invalid',
      say`${other.code} is of another species than the line it is set aside for.`,
    );
  const was = await fitAsides(work, order.lineId, 0);
  await addAsides(work, order, parts);
  await note(work, 'set aside', order.lineId, { parts: was }, { parts });
}
