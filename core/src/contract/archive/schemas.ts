import { z } from 'zod';
import { Id } from '../basics';
import { NewNursery } from '../people/schemas';

/** What an archive says of itself, in manifest.json: what is in it, and a digest of each file. */
export const ArchiveManifest = z.object({
  format: z.literal('Kauri archive'),
  version: z.literal(1),
  /** How many changes the tables had seen: an archive is read by a Kauri whose tables are the same. */
  schema: z.number().int().positive(),
  takenAt: z.string(),
  nursery: NewNursery,
  files: z.array(
    z.object({
      name: z.string().regex(/^[\w./-]{1,120}$/),
      sha256: z.string().regex(/^[0-9a-f]{64}$/),
      /** Of a table. */
      rows: z.number().int().min(0).nullable(),
    }),
  ),
});
export type ArchiveManifest = z.infer<typeof ArchiveManifest>;

/** What came in with an archive. */
export const BroughtIn = z.object({
  nurseryId: Id,
  nurseryName: z.string(),
  /** Rows of every table. */
  records: z.number().int(),
  photos: z.number().int(),
  /** Trees and seeds in every account, checked against the archive's own sums. */
  trees: z.number().int(),
});
export type BroughtIn = z.infer<typeof BroughtIn>;
