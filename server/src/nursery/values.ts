import { emptySite, startingPrices, usualRootRules, type PriceList, type SitePlan } from '@kauri/core';
import type {
  Climate,
  Grading,
  LabelWords,
  LearntValues,
  LiftingPlan,
  Papers,
  Programme,
  RaisingRoutes,
  RootRules,
  SeasonPlan,
  TodayRules,
  WaterPlan,
} from '@kauri/core/contract';
import { and, eq } from 'drizzle-orm';
import { note } from '../db/journal';
import { nurseryValue } from '../db/schema/index';
import type { Tx } from '../db/tenant';
import type { Work } from '../http/context';
import { staleEdit } from '../http/problems';

/** The values a nursery has one of. */
export interface NurseryValues {
  site: SitePlan;
  water: WaterPlan;
  programme: Programme;
  prices: PriceList;
  roots: RootRules;
  today: TodayRules;
  climate: Climate;
  learnt: LearntValues;
  routes: RaisingRoutes;
  plan: SeasonPlan;
  papers: Papers;
  grading: Grading;
  labels: LabelWords;
  lifting: LiftingPlan;
}
type Kind = keyof NurseryValues;

/** Where nothing was ever kept, version 0 of an ordinary value; a programme there is none of. */
const usual: Omit<NurseryValues, 'programme'> & { programme: null } = {
  site: emptySite,
  prices: startingPrices,
  programme: null,
  roots: usualRootRules,
  today: { schema: 1, rules: {} },
  climate: { schema: 1, covers: [], places: [] },
  learnt: { schema: 1, values: [] },
  routes: { schema: 1, routes: [] },
  plan: { schema: 1, sowings: [] },
  papers: { schema: 1, fields: [] },
  grading: { schema: 1, schemes: [] },
  labels: { schema: 1, address: '' },
  lifting: { schema: 1, hands: { people: 2, hoursADay: 6, weekdays: [0, 1, 2, 3, 4] }, moved: [] },
  water: {
    schema: 1,
    bucketLitres: 10,
    bucketSeconds: 40,
    pressureM: 10,
    dryDown: 0.5,
    drips: [],
    zones: [],
  },
};

export async function readValue<K extends Kind>(
  { tx, nurseryId }: { tx: Tx; nurseryId: string },
  kind: K,
): Promise<{ version: number; value: NurseryValues[K] | (typeof usual)[K] }> {
  const [row] = await tx
    .select()
    .from(nurseryValue)
    .where(and(eq(nurseryValue.nurseryId, nurseryId), eq(nurseryValue.kind, kind)));
  return row
    ? { version: row.version, value: row.value as NurseryValues[K] }
    : { version: 0, value: usual[kind] };
}

/**
 * Keeps a value as the next version.
 * @param version the one it was changed from; null takes whatever stands
 * @throws Refusal 409 with the value as it stands when it was changed meanwhile
 */
export async function keepValue<K extends Kind>(
  work: Work,
  kind: K,
  version: number | null,
  value: NurseryValues[K],
): Promise<{ version: number; value: NurseryValues[K] }> {
  const { tx, nurseryId } = work;
  // The first keeping has no row to lock: the empty row is made first, and whoever waits sees its version.
  await tx
    .insert(nurseryValue)
    .values({ nurseryId, kind, value: usual[kind] ?? value, version: 0 })
    .onConflictDoNothing();
  const here = and(eq(nurseryValue.nurseryId, nurseryId), eq(nurseryValue.kind, kind));
  const [before] = await tx.select().from(nurseryValue).where(here).for('update');
  if (version !== null && before.version !== version)
    throw staleEdit('this', { version: before.version, value: before.value });
  const next = before.version + 1;
  await tx.update(nurseryValue).set({ value, version: next }).where(here);
  await note(work, `change ${kind}`, nurseryId, before.value, value);
  return { version: next, value };
}
