import { causeOfEvent } from '@kauri/core';
import type { BodyOf } from '@kauri/core/contract';
import { and, eq, inArray } from 'drizzle-orm';
import { note } from '../../db/journal';
import { observation, photo } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { move } from '../lots/ledger';
import { lockLot, mustBeRecordable } from '../lots/records';

/** The lots of a record over several, each once, in an order all writers keep to: nobody waits on another in a ring. */
export function inOrder<L extends { lotId: string }>(lots: readonly L[]): L[] {
  const sorted = [...lots].sort((a, b) => a.lotId.localeCompare(b.lotId));
  if (sorted.some((lot, i) => i > 0 && sorted[i - 1].lotId === lot.lotId))
    throw new Refusal(422, 'invalid', 'A lot is named twice.');
  return sorted;
}

/** Records what befell some lots, all or none: how many were hit, and the dead out of the ledger by their cause. */
export async function recordEvent(work: Work, body: BodyOf<'recordEvent'>): Promise<void> {
  await mustHavePhotos(work, body.photos);
  const { on, what, patch, photos, note: words } = body;
  const cause = causeOfEvent[what];
  for (const { id, lotId, hit, dead } of inOrder(body.lots)) {
    const row = await lockLot(work, lotId);
    mustBeRecordable(work, row, on);
    if (dead > 0 && cause === null)
      throw new Refusal(422, 'invalid', 'What recovers does not die; record the deaths as what they were.');
    if (hit > row.held.standing)
      throw new Refusal(
        409,
        'not-enough',
        `${hit} hit, but ${row.held.standing} of ${row.code} stand. Nothing was recorded.`,
      );
    await work.tx.insert(observation).values({
      nurseryId: work.nurseryId,
      id,
      lotId,
      kind: 'event',
      onDate: on,
      values: { kind: 'event', what, hit, dead, patch, photos },
      note: words,
    });
    if (cause !== null)
      await move(work, lotId, id, on, [{ from: 'standing', to: `out:${cause}`, count: dead }], words);
    await note(
      work,
      'record what happened',
      lotId,
      { standing: row.held.standing },
      { ...body, lots: [{ id, lotId, hit, dead }] },
    );
  }
}

async function mustHavePhotos({ tx, nurseryId }: Work, photos: readonly string[]): Promise<void> {
  if (photos.length === 0) return;
  const known = await tx
    .select({ id: photo.id })
    .from(photo)
    .where(and(eq(photo.nurseryId, nurseryId), inArray(photo.id, [...photos])));
  if (known.length < new Set(photos).size)
    throw new Refusal(
      422,
      'missing',
      'A photo did not arrive. Add it again; the rest is kept on the screen.',
    );
}
