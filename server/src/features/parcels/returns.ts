import { say } from '@kauri/core';
import type { BodyOf } from '@kauri/core/contract';
import { and, eq, isNull } from 'drizzle-orm';
import { v7 as newId } from 'uuid';
import { note } from '../../db/journal';
import { parcel, sending, sendingReturn } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { moveAll, reverseEntries } from '../lots/ledger';
import { lockLots, mustBeRecordable } from '../lots/locked';
import { knownParcels } from './knownParcels';
import { lineIfThere, stateUnsent, writeSent } from './orderLines';
import { asideLots, fitAsides, mayHaveAside } from './setAside';

/** What a sending took out of each parcel, and what of it came back so far. */
const OUT = `
  select m.parcel_id as "parcelId", m.lot_id as "lotId", m.count::int as count,
    (select coalesce(sum(b.count), 0)::int from parcel b
      join sending_return r on r.nursery_id = b.nursery_id and r.id = b.entry_id
      where b.nursery_id = m.nursery_id and b.came_out_of = m.parcel_id and r.sending_id = m.entry_id
        and r.struck_at is null) as back
  from movement m
  where m.nursery_id = $1 and m.entry_id = $2 and m.to_account = 'sent'
  order by m.id`;
interface OutPart {
  parcelId: string;
  lotId: string;
  count: number;
  back: number;
}
const outOf = async ({ tx, nurseryId }: Work, sendingId: string): Promise<OutPart[]> =>
  (await tx.$client.query<OutPart>(OUT, [nurseryId, sendingId])).rows;

/** The sending, locked after the lots it took trees from and those that are set aside for its line. */
async function lockedSending(work: Work, id: string) {
  const { tx, nurseryId } = work;
  const at = and(eq(sending.nurseryId, nurseryId), eq(sending.id, id), isNull(sending.struckAt));
  const gone = () => new Refusal(404, 'no-such-sending', say`There is no such sending any more.`);
  const [found] = await tx.select().from(sending).where(at);
  if (!found) throw gone();
  const aside =
    found.orderId !== null && found.lineId !== null ? await asideLots(work, found.orderId, found.lineId) : [];
  const taken = (await outOf(work, id)).map(({ lotId }) => lotId);
  const lots = await lockLots(work, [...new Set([...taken, ...aside])]);
  const [row] = await tx.select().from(sending).where(at).for('update');
  if (!row) throw gone();
  const line =
    row.orderId !== null && row.lineId !== null
      ? await lineIfThere(work, { id: row.orderId, lineId: row.lineId })
      : null;
  return { row, lots, line, out: await outOf(work, id) };
}

/**
 * Writes down trees of a sending that came back: each grade lies as a parcel of its own where it was put, the dead go out of
 * it, and the line wants as many again, or so many fewer. All or none.
 * @throws Refusal for a sending or parcel that is not there, a day before they were sent or still to come; 409 for more than
 *   are still out
 */
export async function bringBack(
  work: Work,
  sendingId: string,
  { id, on, place, wantedAgain, cause, note: words, parts }: BodyOf<'bringBack'>,
): Promise<void> {
  const { tx, nurseryId, personId } = work;
  const { row, lots, line, out } = await lockedSending(work, sendingId);
  const outById = new Map(out.map((part) => [part.parcelId, part]));
  if (parts.some(({ parcelId }) => !outById.has(parcelId)))
    throw new Refusal(404, 'no-such-parcel', say`Nothing of that parcel was sent with these.`);
  if (on < row.onDate)
    throw new Refusal(
      422,
      'invalid',
      say`They were sent on ${row.onDate}: they cannot come back before that.`,
      {
        fields: [{ path: 'on', message: say`They were sent on ${row.onDate}.` }],
      },
    );
  for (const { parcelId, count } of parts) {
    const { lotId, count: sent, back } = outById.get(parcelId)!;
    const lot = lots.get(lotId)!;
    mustBeRecordable(work, lot, on);
    if (count > sent - back)
      throw new Refusal(
        409,
        'not-enough',
        say`${count} of ${lot.code} came back, but only ${sent - back} of them are still out. Nothing was recorded.`,
      );
  }
  const trees = parts.reduce((sum, { count }) => sum + count, 0);
  const isOpen = line !== null && line.line.state !== 'fell through';
  const lowers = isOpen && !wantedAgain;
  // A line wants one tree at least: where nothing of it is left, it fell through.
  const fell = lowers && line.line.count <= trees;
  const lowered = lowers && !fell ? trees : 0;
  await tx.insert(sendingReturn).values({
    nurseryId,
    id,
    sendingId,
    onDate: on,
    wantedAgain: line ? wantedAgain : null,
    lowered,
    fellFrom: fell ? line.line.state : null,
    note: words,
    personId,
  });
  const before = await knownParcels(
    work,
    parts.map(({ parcelId }) => parcelId),
  );
  const into = parts.map((part) => ({ ...part, lotId: outById.get(part.parcelId)!.lotId, intoId: newId() }));
  await tx.insert(parcel).values(
    into.map(({ parcelId, intoId, count }) => ({
      ...before.get(parcelId)!,
      id: intoId,
      entryId: id,
      place,
      count,
      cameOutOf: parcelId,
    })),
  );
  const moves = into.map(({ lotId, intoId }) => ({ lotId, entryId: id, parcelId: intoId }));
  await moveAll(
    work,
    [
      ...moves.map((one, i) => ({
        ...one,
        from: 'sent' as const,
        to: 'lifted' as const,
        count: parts[i].count,
      })),
      ...moves.map((one, i) => ({
        ...one,
        from: 'lifted' as const,
        to: `out:${cause}` as const,
        count: parts[i].dead,
      })),
    ],
    on,
    words,
  );
  if (line) {
    const sent = Math.max(0, line.line.sent - trees);
    const count = line.line.count - lowered;
    const fallen = {
      ...line,
      line: { ...line.line, state: fell ? ('fell through' as const) : line.line.state },
    };
    await writeSent(work, fallen, sent, await stateUnsent(work, line), count);
    if (fell) await fitAsides(work, line.line.id, 0);
  }
  await note(work, 'bring back', sendingId, null, { on, parts, wantedAgain });
}

/** @throws Refusal where trees of a sending came back: that is taken back first */
export async function mustNotHaveReturned({ tx, nurseryId }: Work, sendingId: string): Promise<void> {
  const [back] = await tx
    .select({ on: sendingReturn.onDate })
    .from(sendingReturn)
    .where(
      and(
        eq(sendingReturn.nurseryId, nurseryId),
        eq(sendingReturn.sendingId, sendingId),
        isNull(sendingReturn.struckAt),
      ),
    );
  if (back)
    throw new Refusal(
      409,
      'came-back',
      say`Trees of it came back on ${back.on}: take that back first. Nothing was changed.`,
    );
}

/**
 * Trees that did not come back after all are out again, with whoever they were sent to.
 * @throws Refusal where they left again meanwhile, or the line was sent others for them
 */
export async function takeBackReturn(
  work: Work,
  { sending: sendingId, returned }: { sending: string; returned: string },
  undoId: string,
): Promise<void> {
  const { tx, nurseryId, today } = work;
  const { line } = await lockedSending(work, sendingId);
  const at = and(
    eq(sendingReturn.nurseryId, nurseryId),
    eq(sendingReturn.id, returned),
    eq(sendingReturn.sendingId, sendingId),
    isNull(sendingReturn.struckAt),
  );
  const [before] = await tx.select().from(sendingReturn).where(at).for('update');
  if (!before) throw new Refusal(404, 'no-such-return', say`There is no such return to take back.`);
  const { rows } = await tx.$client.query<{ trees: number }>(
    'select coalesce(sum(count), 0)::int as trees from parcel where nursery_id = $1 and entry_id = $2',
    [nurseryId, returned],
  );
  await tx.update(sendingReturn).set({ struckAt: new Date() }).where(at);
  await reverseEntries(work, [returned], undoId, today);
  if (line) {
    const sent = line.line.sent + rows[0].trees;
    const count = line.line.count + before.lowered;
    if (sent > count)
      throw new Refusal(
        409,
        'sent-since',
        say`The line was sent others in place of these: take that sending back first. Nothing was changed.`,
      );
    const state =
      before.fellFrom !== null && line.line.state === 'fell through' ? before.fellFrom : line.line.state;
    await writeSent(
      work,
      { ...line, line: { ...line.line, state } },
      sent,
      await stateUnsent(work, line),
      count,
    );
    await fitAsides(work, line.line.id, mayHaveAside({ state, count, sent }));
  }
  await note(work, 'take return back', sendingId, { returned }, null);
}
