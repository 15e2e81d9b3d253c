import { drawWalk, everyTree, seedFrom, treeStates, type TreeState, type WalkTrees, say } from '@kauri/core';
import type { BodyOf, WalkSheet } from '@kauri/core/contract';
import { and, eq, isNull, sql } from 'drizzle-orm';
import { note } from '../../db/journal';
import { person, walk, walkTree } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { lockedPlanting, mustBeWalkable, plantingAt, plantingsOf } from './plantings';

type Row = typeof walk.$inferSelect;

async function walkRow({ tx, nurseryId }: Work, id: string, lock = false): Promise<Row> {
  const query = tx
    .select()
    .from(walk)
    .where(and(eq(walk.nurseryId, nurseryId), eq(walk.id, id), isNull(walk.struckAt)));
  const [row] = await (lock ? query.for('no key update') : query);
  if (!row) throw new Refusal(404, 'no-such-walk', say`There is no such walk: it was taken back.`);
  return row;
}

type Parts = Awaited<ReturnType<typeof plantingAt>>['parts'];
const plantedBefore = (parts: Parts, on: string) => parts.filter(({ onDate }) => onDate < on);

/** The trees a walk looks at, of those planted before its day. */
const treesOf = (row: Row, parts: Parts): WalkTrees[] =>
  row.kind === 'every' ? everyTree(plantedBefore(parts, row.onDate)) : row.trees;

/** Whether a tree is among those a walk looks at; of every tree none is listed. */
const isOn = (row: Row, parts: Parts, { partId, number }: { partId: string; number: number }): boolean =>
  row.kind === 'every'
    ? plantedBefore(parts, row.onDate).some(({ id, count }) => id === partId && number <= count)
    : row.trees.some((part) => part.partId === partId && part.numbers.includes(number));

/**
 * Begins a walk through a planting.
 * @throws Refusal where one is under way (409, with whose it is), for no trees, a day to come, or a walk to repeat that is none
 */
export async function beginWalk(work: Work, plantingId: string, body: BodyOf<'beginWalk'>): Promise<void> {
  const { tx, nurseryId, personId } = work;
  const { row, parts, trees } = await lockedPlanting(work, plantingId);
  mustBeWalkable(work, row.name, parts, body.on);
  const [open] = await tx
    .select({ by: person.name, on: walk.onDate })
    .from(walk)
    .innerJoin(person, eq(person.id, walk.personId))
    .where(
      and(
        eq(walk.nurseryId, nurseryId),
        eq(walk.plantingId, plantingId),
        isNull(walk.endedAt),
        isNull(walk.struckAt),
      ),
    );
  if (open)
    throw new Refusal(
      409,
      'walk-under-way',
      say`${open.by} is walking ${row.name}, begun on ${open.on}: go along on that walk, or end it first.`,
    );
  const standing = plantedBefore(parts, body.on);
  let drawn: WalkTrees[] = [];
  if (body.kind === 'sample') {
    if (body.again === null) drawn = drawWalk(standing, body.trees ?? trees, seedFrom(body.id));
    else {
      const before = await walkRow(work, body.again);
      if (before.plantingId !== plantingId || before.kind !== 'sample')
        throw new Refusal(422, 'invalid', say`The trees to look at again are not a sample of this planting.`);
      drawn = before.trees;
    }
  }
  await tx.insert(walk).values({
    nurseryId,
    id: body.id,
    plantingId,
    onDate: body.on,
    kind: body.kind,
    trees: drawn,
    again: body.again,
    note: '',
    personId,
  });
  await note(work, 'begin walk', body.id, null, body);
}

/** How the walk before found the trees of this one: in rows a number is a tree, elsewhere only where the same were looked at. */
const BEFORE = `
  select distinct on (m.part_id, m.number) m.part_id as "partId", m.number, m.state
  from walk_tree m join walk w on w.nursery_id = m.nursery_id and w.id = m.walk_id
  where w.nursery_id = $1 and w.planting_id = $2 and w.id <> $3 and w.struck_at is null and w.ended_at is not null
    and w.on_date <= $4 and ($5 or w.id = $6 or w.again = $6)
    and ($7::uuid[] is null or (m.part_id, m.number) in (select * from unnest($7::uuid[], $8::int[])))
  order by m.part_id, m.number, w.on_date desc, w.ended_at desc`;

async function foundBefore(
  { tx, nurseryId }: Work,
  row: Row,
  inRows: boolean,
  only: readonly { partId: string; number: number }[] | null = null,
): Promise<WalkSheet['before']> {
  if (!inRows && row.again === null) return [];
  const { rows } = await tx.$client.query<WalkSheet['before'][number]>(BEFORE, [
    nurseryId,
    row.plantingId,
    row.id,
    row.onDate,
    inRows,
    row.again,
    only && only.map(({ partId }) => partId),
    only && only.map(({ number }) => number),
  ]);
  return rows;
}

export async function walkSheet(work: Work, id: string): Promise<WalkSheet> {
  const { tx, nurseryId } = work;
  const row = await walkRow(work, id);
  const { row: at, parts } = await plantingAt(work, row.plantingId);
  const marks = await tx
    .select({
      partId: walkTree.partId,
      number: walkTree.number,
      state: walkTree.state,
      cause: walkTree.cause,
      note: walkTree.note,
    })
    .from(walkTree)
    .where(and(eq(walkTree.nurseryId, nurseryId), eq(walkTree.walkId, id)));
  const { walks } = await plantingsOf(tx, nurseryId);
  return {
    walk: walks.find((one) => one.id === id)!,
    trees: treesOf(row, parts),
    marks,
    before: await foundBefore(work, row, at.layout.kind === 'rows'),
  };
}

const key = ({ partId, number }: { partId: string; number: number }) => `${partId} ${number}`;
const lives = (state: TreeState) => treeStates[state].lives;

/**
 * Marks trees on a walk; one marked before is marked anew, one with no state is as if nobody had looked.
 * @throws Refusal for a walk that was ended, a tree that is not on it, or one found dead before that lives again without a word
 */
export async function markTrees(work: Work, id: string, { marks }: BodyOf<'markTrees'>): Promise<void> {
  const { tx, nurseryId, personId } = work;
  const row = await walkRow(work, id, true);
  if (row.endedAt) throw new Refusal(422, 'invalid', say`This walk was ended: begin another.`);
  const { row: at, parts } = await plantingAt(work, row.plantingId);
  const stranger = marks.find((mark) => !isOn(row, parts, mark));
  if (stranger) throw new Refusal(422, 'invalid', say`Tree ${stranger.number} is not on this walk.`);
  const before = new Map(
    (await foundBefore(work, row, at.layout.kind === 'rows', marks)).map((one) => [key(one), one.state]),
  );
  const risen = marks.find(
    (mark) => mark.state && lives(mark.state) && before.get(key(mark)) === 'dead' && !mark.livesAgain,
  );
  if (risen)
    throw new Refusal(
      422,
      'lives-again',
      say`Tree ${risen.number} was found dead on the walk before. If it lives after all, say so.`,
    );
  const gone = marks.filter(({ state }) => state === null);
  for (const { partId, number } of gone)
    await tx
      .delete(walkTree)
      .where(
        and(
          eq(walkTree.nurseryId, nurseryId),
          eq(walkTree.walkId, id),
          eq(walkTree.partId, partId),
          eq(walkTree.number, number),
        ),
      );
  const kept = marks.flatMap(({ state, ...mark }) =>
    state === null ? [] : [{ nurseryId, walkId: id, personId, state, ...mark }],
  );
  if (kept.length)
    await tx
      .insert(walkTree)
      .values(kept)
      .onConflictDoUpdate({
        target: [walkTree.nurseryId, walkTree.walkId, walkTree.partId, walkTree.number],
        set: {
          state: sql`excluded.state`,
          cause: sql`excluded.cause`,
          note: sql`excluded.note`,
          livesAgain: sql`excluded.lives_again`,
          personId: sql`excluded.person_id`,
        },
      });
}

/** @throws Refusal for a walk on which no tree was looked at */
export async function endWalk(work: Work, id: string, { note: words }: BodyOf<'endWalk'>): Promise<void> {
  const { tx, nurseryId } = work;
  const row = await walkRow(work, id, true);
  if (row.endedAt) return;
  const [any] = await tx
    .select({ number: walkTree.number })
    .from(walkTree)
    .where(and(eq(walkTree.nurseryId, nurseryId), eq(walkTree.walkId, id)))
    .limit(1);
  if (!any)
    throw new Refusal(422, 'invalid', say`No tree was looked at yet: mark one, or take the walk back.`);
  await tx
    .update(walk)
    .set({ endedAt: new Date(), note: words })
    .where(and(eq(walk.nurseryId, nurseryId), eq(walk.id, id)));
  await note(work, 'end walk', id, null, { note: words });
}

export async function takeBackWalk(work: Work, id: string): Promise<void> {
  const { tx, nurseryId } = work;
  const row = await walkRow(work, id, true);
  await tx
    .update(walk)
    .set({ struckAt: new Date() })
    .where(and(eq(walk.nurseryId, nurseryId), eq(walk.id, id)));
  await note(work, 'take walk back', id, row, null);
}
