import { bedGeometry, type BedDesign, say } from '@kauri/core';
import type { AnswerOf, KeptDesign } from '@kauri/core/contract';
import { and, asc, eq } from 'drizzle-orm';
import { note } from '../../db/journal';
import { bedDesign, bedDesignVersion } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal, staleEdit } from '../../http/problems';

type Row = typeof bedDesign.$inferSelect;
type Named = Pick<KeptDesign, 'name' | 'design'>;

export function toDesign({ id, name, version, design }: Row): KeptDesign {
  return { id, name, version, design } as KeptDesign;
}

async function keepVersion(work: Work, designId: string, version: number, { name, design }: Named) {
  await work.tx.insert(bedDesignVersion).values({
    nurseryId: work.nurseryId,
    designId,
    version,
    name,
    design: design as BedDesign,
    personId: work.personId,
  });
}

export async function addDesign(work: Work, id: string, body: Named): Promise<KeptDesign> {
  bedGeometry(body.design);
  const { name, design } = body;
  const [row] = await work.tx
    .insert(bedDesign)
    .values({ nurseryId: work.nurseryId, id, name, design: design as BedDesign })
    .returning();
  await keepVersion(work, id, 1, body);
  await note(work, 'keep design', id, null, body);
  return toDesign(row);
}

/** @throws Refusal 409 with the design as it stands when it was changed meanwhile */
export async function editDesign(work: Work, id: string, version: number, body: Named): Promise<KeptDesign> {
  bedGeometry(body.design);
  const here = and(eq(bedDesign.nurseryId, work.nurseryId), eq(bedDesign.id, id));
  const [before] = await work.tx.select().from(bedDesign).where(here).for('update');
  if (!before) throw new Refusal(404, 'no-such-design', say`There is no such design in this nursery.`);
  if (before.version !== version) throw staleEdit(say`this design`, toDesign(before));
  const next = version + 1;
  const [row] = await work.tx
    .update(bedDesign)
    .set({ name: body.name, design: body.design as BedDesign, version: next })
    .where(here)
    .returning();
  await keepVersion(work, id, next, body);
  await note(work, 'save design', id, toDesign(before), toDesign(row));
  return toDesign(row);
}

export async function designVersions(work: Work, id: string): Promise<AnswerOf<'designVersions'>> {
  const rows = await work.tx
    .select()
    .from(bedDesignVersion)
    .where(and(eq(bedDesignVersion.nurseryId, work.nurseryId), eq(bedDesignVersion.designId, id)))
    .orderBy(asc(bedDesignVersion.version));
  if (!rows.length) throw new Refusal(404, 'no-such-design', say`There is no such design in this nursery.`);
  return {
    versions: rows.map(({ version, name, savedAt, design }) => ({
      version,
      name,
      savedAt: savedAt.toISOString(),
      design: design as KeptDesign['design'],
    })),
  };
}
