import {
  dayOf,
  learntShares,
  stageKindOf,
  stageWorks,
  todayKnown,
  workRates,
  type Account,
  type RaisedLot,
  type RaisingLearnt,
} from '@kauri/core';
import type { TodayRules } from '@kauri/core/contract';
import { eq } from 'drizzle-orm';
import { containerType } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { readValue } from '../../nursery/values';
import { marksOf } from '../today/book';

type Stood = [lotId: string, speciesId: string, containerTypeId: string | null, from: string];
const STOOD = `
  select s.lot_id, l.species_id, s.container_type_id, s.started_on::text
  from stage s join lot l on l.nursery_id = s.nursery_id and l.id = s.lot_id
  where s.nursery_id = $1 and l.taken_back_at is null order by s.lot_id, s.started_on, s.id`;
type Moved = [lotId: string, on: string, from: Account, to: Account, count: number];
const MOVED = `
  select lot_id, on_date::text, from_account, to_account, sum(count)::int
  from movement where nursery_id = $1 and (from_account = 'standing' or to_account = 'standing')
  group by lot_id, on_date, from_account, to_account`;

/** What all the lots of a nursery, and the hours written beside work, say of stages of routes: two queries over all lots. */
export async function raisingLearnt(
  { tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>,
  today: string,
): Promise<RaisingLearnt> {
  const containers = await tx
    .select({ id: containerType.id, values: containerType.values })
    .from(containerType)
    .where(eq(containerType.nurseryId, nurseryId));
  const kinds = new Map(containers.map(({ id, values }) => [id, stageKindOf(values)]));
  const rows = async <R>(text: string) =>
    (await tx.$client.query({ text, values: [nurseryId], rowMode: 'array' })).rows as R[];
  const lots = new Map<
    string,
    { speciesId: string; spells: RaisedLot['spells'][number][]; movements: Movements }
  >();
  for (const [lotId, speciesId, containerTypeId, from] of await rows<Stood>(STOOD)) {
    if (!lots.has(lotId)) lots.set(lotId, { speciesId, spells: [], movements: [] });
    const kind = containerTypeId === null ? 'bed' : kinds.get(containerTypeId)!;
    lots.get(lotId)!.spells.push({ kind, from: dayOf(from) });
  }
  for (const [lotId, on, from, to, count] of await rows<Moved>(MOVED))
    lots.get(lotId)?.movements.push({ day: dayOf(on), from, to, count });
  const { value: rules } = await readValue({ tx, nurseryId }, 'today');
  const rates = workRates(todayKnown(await marksOf({ tx, nurseryId }, today), rules as TodayRules).work);
  const pace = (work: (typeof stageWorks)[number]) => ({
    factor: rates[work].factor,
    times: rates[work].times,
  });
  return {
    shares: learntShares([...lots.values()]),
    paces: { sow: pace('sow'), prick: pace('prick'), move: pace('move') },
  };
}

type Movements = { day: number; from: Account; to: Account; count: number }[];
