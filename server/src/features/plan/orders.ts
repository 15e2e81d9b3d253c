import { Unfit, say } from '@kauri/core';
import type { BodyOf, KeptOrder, OrderLine } from '@kauri/core/contract';
import { and, asc, desc, eq, inArray } from 'drizzle-orm';
import { note } from '../../db/journal';
import { journal, lot, species, treeOrder } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal, staleEdit } from '../../http/problems';
import { fitAsides, lockAsides, mayHaveAside } from '../parcels/setAside';

/** What the journal calls an order taken out. */
const REMOVED = 'remove order';

type Row = typeof treeOrder.$inferSelect;

const toOrder = ({ id, version, buyer, reach, note: words, lines }: Row): KeptOrder => ({
  id,
  version,
  buyer,
  reach,
  note: words,
  lines,
});

export async function ordersOf({ tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>): Promise<KeptOrder[]> {
  const rows = await tx
    .select()
    .from(treeOrder)
    .where(eq(treeOrder.nurseryId, nurseryId))
    .orderBy(asc(treeOrder.takenAt), asc(treeOrder.id));
  return rows.map(toOrder);
}

/** @throws Refusal for a species the nursery does not have; Unfit for a new line that is wanted on a day gone by */
async function mustBeTakeable(
  { tx, nurseryId, today }: Work,
  lines: readonly OrderLine[],
  before: readonly OrderLine[],
): Promise<void> {
  const ids = [...new Set(lines.map((line) => line.speciesId))];
  const known = await tx
    .select({ id: species.id })
    .from(species)
    .where(and(eq(species.nurseryId, nurseryId), inArray(species.id, ids)));
  if (known.length < ids.length)
    throw new Refusal(
      422,
      'invalid',
      say`A line names a species that is not in this nursery’s list: add it first.`,
    );
  const set = [...new Set(lines.flatMap((line) => line.lots))];
  const lots = set.length
    ? await tx
        .select({ id: lot.id, speciesId: lot.speciesId })
        .from(lot)
        .where(and(eq(lot.nurseryId, nurseryId), inArray(lot.id, set)))
    : [];
  const speciesOf = new Map(lots.map(({ id, speciesId }) => [id, speciesId]));
  for (const { lots: against, speciesId } of lines)
    if (against.some((id) => speciesOf.get(id) !== speciesId))
      throw new Refusal(
        422,
        'invalid',
        say`A lot set against a line is of another species, or not in this nursery.`,
      );
  const old = new Set(before.map((line) => line.id));
  for (const line of lines)
    if (!old.has(line.id) && line.until < today && (line.state === 'asked' || line.state === 'promised'))
      throw new Unfit(
        say`A line is wanted by ${line.until}, which has gone by: check the date, or write it as sent.`,
      );
}

/** Lines of an order as it was when it was taken out: it comes back as it was, days gone by and all. */
async function takenOut({ tx, nurseryId }: Work, id: string): Promise<readonly OrderLine[]> {
  const [last] = await tx
    .select({ before: journal.before })
    .from(journal)
    .where(and(eq(journal.nurseryId, nurseryId), eq(journal.subjectId, id), eq(journal.act, REMOVED)))
    .orderBy(desc(journal.at))
    .limit(1);
  return (last?.before as KeptOrder | undefined)?.lines ?? [];
}

export async function addOrders(work: Work, { orders }: BodyOf<'addOrders'>): Promise<void> {
  for (const [i, { id, buyer, reach, note: words, lines }] of orders.entries()) {
    try {
      await mustBeTakeable(work, lines, await takenOut(work, id));
      await work.tx
        .insert(treeOrder)
        .values({ nurseryId: work.nurseryId, id, buyer, reach, note: words, lines });
      await note(work, 'take order', id, null, orders[i]);
    } catch (error) {
      // With several at once the one is named; those before it are rolled back with it.
      if (orders.length > 1 && (error instanceof Unfit || error instanceof Refusal))
        throw new Refusal(422, 'invalid', say`Order ${i + 1}${buyer ? `, ${buyer}` : ''}: ${error.message}`);
      throw error;
    }
  }
}

async function lockedOrder({ tx, nurseryId }: Work, id: string, version: number): Promise<Row> {
  const [before] = await tx
    .select()
    .from(treeOrder)
    .where(and(eq(treeOrder.nurseryId, nurseryId), eq(treeOrder.id, id)))
    .for('update');
  if (!before) throw new Refusal(404, 'no-such-order', say`There is no such order in this nursery.`);
  if (before.version !== version) throw staleEdit(say`this order`, toOrder(before));
  return before;
}

/** @throws Refusal 409 with the order as it stands when it was changed meanwhile */
export async function editOrder(
  work: Work,
  id: string,
  { version, buyer, reach, note: words, lines }: BodyOf<'editOrder'>,
): Promise<KeptOrder> {
  await lockAsides(work, id);
  const before = await lockedOrder(work, id, version);
  await mustBeTakeable(work, lines, before.lines);
  for (const old of before.lines) {
    const now = lines.find((line) => line.id === old.id && line.speciesId === old.speciesId);
    await fitAsides(work, old.id, now ? mayHaveAside(now) : 0);
  }
  const [row] = await work.tx
    .update(treeOrder)
    .set({ buyer, reach, note: words, lines, version: version + 1 })
    .where(and(eq(treeOrder.nurseryId, work.nurseryId), eq(treeOrder.id, id)))
    .returning();
  await note(work, 'change order', id, toOrder(before), toOrder(row));
  return toOrder(row);
}

export async function removeOrder(work: Work, id: string, version: number): Promise<void> {
  await lockAsides(work, id);
  const before = await lockedOrder(work, id, version);
  for (const line of before.lines) await fitAsides(work, line.id, 0);
  await work.tx.delete(treeOrder).where(and(eq(treeOrder.nurseryId, work.nurseryId), eq(treeOrder.id, id)));
  await note(work, REMOVED, id, toOrder(before), null);
}
