import { say } from '@kauri/core';
import { createHash } from 'node:crypto';
import type { KeptPhoto } from '@kauri/core/contract';
import { and, eq } from 'drizzle-orm';
import type { Request } from 'express';
import sharp from 'sharp';
import { photo } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';

/** A browser sends far less; this is what any other client may. */
const MOST_BYTES = 15 * 1024 * 1024;
const MOST_PIXELS = 64e6;
/** Longest side kept, px: enough to see a root tip across a screen. */
const KEPT_SIDE = 1600;

/**
 * Keeps a photo by what it is, not by what it is called: read, turned upright, made small and written anew, so that
 * nothing of where or with what it was taken is left in it. Sent again, it is the same photo.
 * @throws Refusal when it is no picture, too large, or its id belongs to another photo
 */
export async function keepPhoto(work: Work, id: string, req: Request): Promise<KeptPhoto> {
  const sent = await bytesOf(req);
  const sentSha256 = createHash('sha256').update(sent).digest('hex');
  const here = and(eq(photo.nurseryId, work.nurseryId), eq(photo.id, id));
  const before = (await work.tx.select().from(photo).where(here))[0];
  if (before) {
    if (before.sentSha256 !== sentSha256)
      throw new Refusal(409, 'id-used', say`That id was already used for a different photo.`);
    return { id, widthPx: before.widthPx, heightPx: before.heightPx, bytes: before.jpeg.length };
  }
  const { data, info } = await rewritten(sent);
  await work.tx.insert(photo).values({
    nurseryId: work.nurseryId,
    id,
    widthPx: info.width,
    heightPx: info.height,
    sentSha256,
    jpeg: data,
    personId: work.personId,
  });
  return { id, widthPx: info.width, heightPx: info.height, bytes: data.length };
}

async function bytesOf(req: Request): Promise<Buffer> {
  const tooLarge = () =>
    new Refusal(
      413,
      'too-large',
      say`That photo is larger than 15 MB. Make it smaller, or take it again at a lower setting.`,
    );
  if (Number(req.headers['content-length'] ?? 0) > MOST_BYTES) throw tooLarge();
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of req) {
    size += (part as Buffer).length;
    if (size > MOST_BYTES) throw tooLarge();
    parts.push(part as Buffer);
  }
  return Buffer.concat(parts);
}

async function rewritten(sent: Buffer) {
  try {
    const picture = sharp(sent, { limitInputPixels: MOST_PIXELS, failOn: 'error' });
    const { format } = await picture.metadata();
    if (!['jpeg', 'png', 'webp'].includes(format ?? '')) throw new Error(`a ${format} file`);
    return await picture
      .rotate()
      .resize(KEPT_SIDE, KEPT_SIDE, { fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 82 })
      .toBuffer({ resolveWithObject: true });
  } catch (cause) {
    const large = /pixel limit/i.test(String(cause));
    throw new Refusal(
      422,
      'no-photo',
      large
        ? say`That picture has more than 64 million points. Take it again at a lower setting.`
        : say`That file is not a photo Kauri can read, whatever it is called. Send a JPEG, PNG or WebP.`,
      {},
      { cause },
    );
  }
}

export async function photoOf(
  { tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>,
  id: string,
): Promise<Buffer> {
  const [row] = await tx
    .select({ jpeg: photo.jpeg })
    .from(photo)
    .where(and(eq(photo.nurseryId, nurseryId), eq(photo.id, id)));
  if (!row) throw new Refusal(404, 'no-such-photo', say`There is no such photo in this nursery.`);
  return row.jpeg;
}
