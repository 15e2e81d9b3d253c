import { Unfit, say } from '@kauri/core';
import { containerVolume, type ContainerValues, type MediumValues } from '@kauri/core';
import type { BodyOf, ContainerType, Medium, StockRow } from '@kauri/core/contract';
import { and, asc, eq } from 'drizzle-orm';
import { note } from '../../db/journal';
import { containerType, medium, mediumStock } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal, staleEdit } from '../../http/problems';

/** Adds a container type or a medium. */
async function add<V>(
  work: Work,
  table: typeof containerType | typeof medium,
  what: string,
  id: string,
  values: V,
) {
  await work.tx.insert(table).values({ nurseryId: work.nurseryId, id, values: values as never });
  await note(work, `add ${what}`, id, null, values);
  return { id, version: 1, values };
}

/** @throws Refusal 409 with it as it stands when it was changed meanwhile */
async function edit<V>(
  work: Work,
  table: typeof containerType | typeof medium,
  what: string,
  id: string,
  version: number,
  values: V,
) {
  const here = and(eq(table.nurseryId, work.nurseryId), eq(table.id, id));
  const [before] = await work.tx.select().from(table).where(here).for('update');
  if (!before) throw new Refusal(404, 'no-such-kind', say`There is no such ${what} in this nursery.`);
  if (before.version !== version)
    throw staleEdit('this', { id, version: before.version, values: before.values });
  await work.tx
    .update(table)
    .set({ values: values as never, version: version + 1 })
    .where(here);
  await note(work, `change ${what}`, id, before.values, values);
  return { id, version: version + 1, values };
}

export const addContainer = (work: Work, { id, values }: BodyOf<'addContainer'>): Promise<ContainerType> => {
  containerVolume(values);
  return add<ContainerValues>(work, containerType, 'container', id, values);
};
export const editContainer = (work: Work, id: string, { version, values }: BodyOf<'editContainer'>) => {
  containerVolume(values);
  return edit<ContainerType['values']>(work, containerType, 'container', id, version, values);
};
export const addMedium = (work: Work, { id, values }: BodyOf<'addMedium'>): Promise<Medium> => {
  mustBeLighterDry(values);
  return add<Medium['values']>(work, medium, 'medium', id, values);
};
export const editMedium = (work: Work, id: string, { version, values }: BodyOf<'editMedium'>) => {
  mustBeLighterDry(values);
  return edit<Medium['values']>(work, medium, 'medium', id, version, values);
};

function mustBeLighterDry({
  name,
  dryKgPerM3,
  wetKgPerM3,
}: Pick<MediumValues, 'name' | 'dryKgPerM3' | 'wetKgPerM3'>) {
  if (dryKgPerM3 > wetKgPerM3)
    throw new Unfit(say`${name} cannot weigh more dry than wet: check the two weights.`);
}

/** Takes medium into or out of a heap. @throws Refusal when more is taken than lies there */
export async function moveStock(work: Work, mediumId: string, body: BodyOf<'moveStock'>): Promise<StockRow> {
  const { tx, nurseryId } = work;
  const [kind] = await tx
    .select({ values: medium.values })
    .from(medium)
    .where(and(eq(medium.nurseryId, nurseryId), eq(medium.id, mediumId)))
    .for('update');
  if (!kind) throw new Refusal(404, 'no-such-kind', say`There is no such medium in this nursery.`);
  const rows = await stockOf(work, mediumId);
  const lies = rows.reduce((total, row) => total + row.litres, 0);
  if (lies + body.litres < -1e-6)
    throw new Refusal(
      422,
      'below-zero',
      say`Only ${Math.round(lies)} L of ${kind.values.name} lie there. Count the heap first, or take less.`,
    );
  await tx.insert(mediumStock).values({ nurseryId, mediumId, ...body });
  await note(work, 'move stock', mediumId, { litres: lies }, body);
  return { ...body, mediumId };
}

export async function stockOf(
  { tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>,
  mediumId?: string,
): Promise<StockRow[]> {
  const mine = eq(mediumStock.nurseryId, nurseryId);
  const rows = await tx
    .select()
    .from(mediumStock)
    .where(mediumId ? and(mine, eq(mediumStock.mediumId, mediumId)) : mine)
    .orderBy(asc(mediumStock.day), asc(mediumStock.id));
  return rows.map(({ id, mediumId: of, day, litres, why, note: words }) => ({
    id,
    mediumId: of,
    day,
    litres,
    why,
    note: words,
  }));
}
