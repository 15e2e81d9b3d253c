import { causeOfEvent, say } from '@kauri/core';
import type { BodyOf } from '@kauri/core/contract';
import { and, eq, inArray } from 'drizzle-orm';
import { noteAll } from '../../db/journal';
import { observation, photo } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { moveAll } from '../lots/ledger';
import { lockLots, mustBeRecordable } from '../lots/locked';

/** Records what befell some lots, all or none: how many were hit, and the dead out of the ledger by their cause. */
export async function recordEvent(work: Work, body: BodyOf<'recordEvent'>): Promise<void> {
  await mustHavePhotos(work, body.photos);
  const { on, what, patch, photos, note: words } = body;
  const cause = causeOfEvent[what];
  const rows = await lockLots(
    work,
    body.lots.map(({ lotId }) => lotId),
    body.lots.map(({ seen }) => seen),
  );
  for (const { lotId, hit, dead } of body.lots) {
    const row = rows.get(lotId)!;
    mustBeRecordable(work, row, on);
    if (dead > 0 && cause === null)
      throw new Refusal(
        422,
        'invalid',
        say`What recovers does not die; record the deaths as what they were.`,
      );
    if (hit > row.held.standing)
      throw new Refusal(
        409,
        'not-enough',
        say`${hit} hit, but ${row.held.standing} of ${row.code} stand. Nothing was recorded.`,
      );
  }
  await work.tx.insert(observation).values(
    body.lots.map(({ id, lotId, hit, dead }) => ({
      nurseryId: work.nurseryId,
      id,
      lotId,
      kind: 'event' as const,
      onDate: on,
      values: { kind: 'event' as const, what, hit, dead, patch, photos },
      note: words,
    })),
  );
  if (cause !== null)
    await moveAll(
      work,
      body.lots.map(({ id, lotId, dead }) => ({
        lotId,
        entryId: id,
        from: 'standing',
        to: `out:${cause}`,
        count: dead,
      })),
      on,
      words,
    );
  await noteAll(
    work,
    body.lots.map((part) => ({
      act: 'record what happened',
      subjectId: part.lotId,
      before: { standing: rows.get(part.lotId)!.held.standing },
      after: { ...body, lots: [part] },
    })),
  );
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
      say`A photo did not arrive. Add it again; the rest is kept on the screen.`,
    );
}
