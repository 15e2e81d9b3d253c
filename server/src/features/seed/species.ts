import { mustRun, say } from '@kauri/core';
import type { BodyOf, Species } from '@kauri/core/contract';
import { and, eq } from 'drizzle-orm';
import { note } from '../../db/journal';
import { species } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { mustBeFresh } from './room';

type Row = typeof species.$inferSelect;

export function toSpecies({ id, code, common, latin, values, version }: Row): Species {
  return { id, code, common, latin, values, version };
}

function mustBeStartable({ values }: Pick<Species, 'values'>): void {
  for (const { phases } of values.start?.protocols ?? []) mustRun(phases);
}

/** Takes species into the list, all or none. @throws Refusal for a code the list has already */
export async function addSpecies(work: Work, body: BodyOf<'addSpecies'>): Promise<Species[]> {
  const taken = await work.tx
    .select({ code: species.code })
    .from(species)
    .where(eq(species.nurseryId, work.nurseryId));
  const codes = new Set(taken.map((row) => row.code));
  const rows: Species[] = [];
  for (const one of body.species) {
    mustBeStartable(one);
    if (codes.has(one.code))
      throw new Refusal(
        422,
        'code-used',
        say`The list has a species with the code ${one.code} already; ${one.common} needs another. Nothing was taken.`,
      );
    codes.add(one.code);
    const [row] = await work.tx
      .insert(species)
      .values({ nurseryId: work.nurseryId, ...one })
      .returning();
    await note(work, 'add species', one.id, null, one);
    rows.push(toSpecies(row));
  }
  return rows;
}

export async function editSpecies(work: Work, id: string, body: BodyOf<'editSpecies'>): Promise<Species> {
  const here = and(eq(species.nurseryId, work.nurseryId), eq(species.id, id));
  const [before] = await work.tx.select().from(species).where(here).for('update');
  if (!before) throw new Refusal(404, 'no-such-species', say`There is no such species in this nursery.`);
  const { version, ...values } = body;
  mustBeFresh(toSpecies(before), version);
  mustBeStartable(body);
  const [row] = await work.tx
    .update(species)
    .set({ ...values, version: version + 1 })
    .where(here)
    .returning();
  await note(work, 'change species', id, toSpecies(before), body);
  return toSpecies(row);
}
