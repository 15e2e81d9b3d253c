import { dayOf, staysPut, say } from '@kauri/core';
import type { BodyOf, KeptPlan, Proposal } from '@kauri/core/contract';
import { and, asc, eq } from 'drizzle-orm';
import { note } from '../../db/journal';
import { seasonProposal } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { keepValue, readValue } from '../../nursery/values';
import { changedOf, mustBeHere } from './raising';

/** Proposals kept at once. */
const MOST = 8;

type Row = typeof seasonProposal.$inferSelect;

const toProposal = ({
  id,
  name,
  state,
  asked,
  step,
  share,
  madeOn,
  fault,
  result,
  chosen,
}: Row): Proposal => ({
  id,
  name,
  state,
  asked,
  step,
  share,
  madeOn,
  fault,
  result,
  chosen,
});

export async function proposalsOf({ tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>): Promise<Proposal[]> {
  const rows = await tx
    .select()
    .from(seasonProposal)
    .where(eq(seasonProposal.nurseryId, nurseryId))
    .orderBy(asc(seasonProposal.madeAt), asc(seasonProposal.id));
  return rows.map(toProposal);
}

/** @throws Refusal where one is being planned already, or too many are kept */
export async function propose(work: Work, { id, name, asked }: BodyOf<'propose'>): Promise<void> {
  const { tx, nurseryId, today } = work;
  const before = await proposalsOf(work);
  const busy = before.find(({ state }) => state === 'working');
  if (busy)
    throw new Refusal(409, 'busy', say`“${busy.name}” is being planned: wait for it, or stop it first.`);
  if (before.length >= MOST)
    throw new Refusal(422, 'invalid', say`${MOST} plans are kept already: throw one away first.`);
  const row = {
    nurseryId,
    id,
    name: name || say`Plan ${before.length + 1}`,
    state: 'working',
    asked,
    madeOn: today,
  } as const;
  await tx.insert(seasonProposal).values({ ...row, step: 'waiting' });
  await note(work, 'plan season', id, null, { name: row.name, asked });
}

async function lockedProposal({ tx, nurseryId }: Work, id: string): Promise<Row> {
  const [row] = await tx.select().from(seasonProposal).where(atProposal(nurseryId, id)).for('update');
  if (!row) throw new Refusal(404, 'no-such-proposal', say`There is no such plan in this nursery any more.`);
  return row;
}

const atProposal = (nurseryId: string, id: string) =>
  and(eq(seasonProposal.nurseryId, nurseryId), eq(seasonProposal.id, id));

export async function nameProposal(work: Work, id: string, name: string): Promise<void> {
  await lockedProposal(work, id);
  await work.tx.update(seasonProposal).set({ name }).where(atProposal(work.nurseryId, id));
}

/** Whoever works on it sees that it is no longer wanted. */
export async function stopProposal(work: Work, id: string): Promise<void> {
  const row = await lockedProposal(work, id);
  if (row.state !== 'working') return;
  await work.tx.update(seasonProposal).set({ state: 'stopped' }).where(atProposal(work.nurseryId, id));
}

export async function removeProposal(work: Work, id: string): Promise<void> {
  const before = await lockedProposal(work, id);
  await work.tx.delete(seasonProposal).where(atProposal(work.nurseryId, id));
  await note(work, 'throw season away', id, { name: before.name, asked: before.asked }, null);
}

/**
 * Makes a proposed season the plan: what is pinned or begun stays, the rest gives way to it.
 * @throws Refusal where it has nothing yet, was planned beside other sowings than are pinned now, or names what is gone; 409
 *   with the plan as it stands when it was changed meanwhile
 */
export async function chooseProposal(work: Work, id: string, version: number): Promise<KeptPlan> {
  const { tx, nurseryId, today } = work;
  const { result, name } = await lockedProposal(work, id);
  if (!result) throw new Refusal(422, 'invalid', say`“${name}” has nothing to choose yet.`);
  const { value: before } = await readValue(work, 'plan');
  const known = new Set(result.kept);
  const stay = before.sowings.filter((sowing) => staysPut(sowing, dayOf(today)) || known.has(sowing.id));
  const sowings = result.sowings.map(({ sowing }) => sowing);
  const own = new Set(sowings.map((sowing) => sowing.id));
  const beside = stay.filter((sowing) => !own.has(sowing.id));
  if (beside.some((sowing) => !known.has(sowing.id)))
    throw new Refusal(
      422,
      'invalid',
      say`Since “${name}” was planned a sowing was pinned or begun that it does not know of: plan the season anew.`,
    );
  // Pinned or begun since, one of its own is as it stands now.
  const now = new Map(stay.map((sowing) => [sowing.id, sowing]));
  const after = [...beside, ...sowings.map((sowing) => now.get(sowing.id) ?? sowing)];
  await mustBeHere(
    work,
    changedOf(after, before.sowings).map((sowing) => ({ ...sowing, name: sowing.route })),
  );
  const kept = await keepValue(work, 'plan', version, { schema: 1, sowings: after });
  await tx.update(seasonProposal).set({ chosen: false }).where(eq(seasonProposal.nurseryId, nurseryId));
  await tx.update(seasonProposal).set({ chosen: true }).where(atProposal(nurseryId, id));
  return { version: kept.version, plan: kept.value };
}
