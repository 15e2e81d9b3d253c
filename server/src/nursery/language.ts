import { eq } from 'drizzle-orm';
import { note } from '../db/journal';
import { nursery } from '../db/schema/index';
import type { Tx } from '../db/tenant';
import type { Work } from '../http/context';

/** What a nursery speaks where nobody chose for themselves, BCP 47; null where there is no such nursery. */
export async function languageOf(tx: Tx, nurseryId: string): Promise<string | null> {
  const [row] = await tx
    .select({ language: nursery.language })
    .from(nursery)
    .where(eq(nursery.id, nurseryId));
  return row?.language ?? null;
}

export async function setLanguage(work: Work, language: string): Promise<void> {
  const before = await languageOf(work.tx, work.nurseryId);
  await work.tx.update(nursery).set({ language }).where(eq(nursery.id, work.nurseryId));
  await note(work, 'change the language', work.nurseryId, { language: before }, { language });
}
