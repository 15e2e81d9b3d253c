import { say } from '@kauri/core';
import type { AnswerOf, ImportReport, TableTaken } from '@kauri/core/contract';
import { and, eq, inArray, isNull } from 'drizzle-orm';
import { note, noteAll } from '../../db/journal';
import { observation, tableTaken } from '../../db/schema/index';
import type { DayValues } from '../../db/schema/records';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';

/** As many as one looks back over. */
const SHOWN = 20;

/** Writes down what a table wrote, so that it can be taken back. */
export async function keepTaken(
  { tx, nurseryId, personId }: Work,
  id: string,
  kind: TableTaken['kind'],
  { good, first, last }: ImportReport,
  took: typeof tableTaken.$inferInsert.took,
): Promise<void> {
  // A table that brought nothing new leaves nothing to take back.
  if (good === 0) return;
  await tx
    .insert(tableTaken)
    .values({ nurseryId, id, personId, kind, good, firstOn: first, lastOn: last, took });
}

/** What is kept of some days, before a table is taken in over them. */
export async function daysBefore(
  { tx, nurseryId }: Work,
  days: readonly { date: string }[],
): Promise<ReadonlyMap<string, DayValues>> {
  const { rows } = await tx.$client.query<{ day: string; values: DayValues }>(
    `select day::text, json_build_array(t_min_c, t_max_c, rain_mm) as values
     from weather_day where nursery_id = $1 and day = any($2::date[])`,
    [nurseryId, days.map(({ date }) => date)],
  );
  return new Map(rows.map(({ day, values }) => [day, values]));
}

export async function tablesTaken({
  tx,
  nurseryId,
}: Pick<Work, 'tx' | 'nurseryId'>): Promise<AnswerOf<'tablesTaken'>> {
  const { rows } = await tx.$client.query<TableTaken & { made: Date }>(
    `select t.id, t.made_at as made, p.name as by, t.kind, t.good, t.first_on::text as first, t.last_on::text as last
     from table_taken t join person p on p.id = t.person_id
     where t.nursery_id = $1 and t.taken_back_at is null order by t.made_at desc, t.id desc limit $2`,
    [nurseryId, SHOWN],
  );
  return { tables: rows.map(({ made, ...table }) => ({ ...table, at: made.toISOString() })) };
}

/** Days that still hold what the table wrote go back to what was there before, or go; others were written anew since. */
const DAYS_BACK = `
  with taken as (
    select (d ->> 0)::date as day, d -> 1 as before, d -> 2 as after
    from jsonb_array_elements($2::jsonb) d
  ), still as (
    select w.day, t.before from weather_day w join taken t on t.day = w.day
    where w.nursery_id = $1
      and jsonb_build_array(w.t_min_c, w.t_max_c, w.rain_mm) = t.after
    for update of w
  ), gone as (
    delete from weather_day w using still s
    where w.nursery_id = $1 and w.day = s.day and jsonb_typeof(s.before) = 'null' and w.station_id is null returning 1
  ), back as (
    update weather_day w set t_min_c = (s.before ->> 0)::float8, t_max_c = (s.before ->> 1)::float8, rain_mm = (s.before ->> 2)::float8
    from still s where w.nursery_id = $1 and w.day = s.day and jsonb_typeof(s.before) = 'array' returning 1
  )
  select (select count(*) from gone)::int + (select count(*) from back)::int as back`;

/**
 * Takes a table back as one act: its samples are struck, its days of weather as they were before it.
 * @returns how much went back, and how much stays because it was written anew since
 * @throws Refusal for a table that is not there, or was taken back already
 */
export async function takeTableBack(work: Work, id: string): Promise<{ back: number; left: number }> {
  const { tx, nurseryId } = work;
  const [table] = await tx
    .update(tableTaken)
    .set({ takenBackAt: new Date() })
    .where(and(eq(tableTaken.nurseryId, nurseryId), eq(tableTaken.id, id), isNull(tableTaken.takenBackAt)))
    .returning();
  if (!table)
    throw new Refusal(
      404,
      'no-such-table',
      say`There is no such table to take back, or it was taken back already.`,
    );
  const { took } = table;
  let back: number;
  let all: number;
  if ('days' in took) {
    all = took.days.length;
    const { rows } = await tx.$client.query<{ back: number }>(DAYS_BACK, [
      nurseryId,
      JSON.stringify(took.days),
    ]);
    ({ back } = rows[0]);
  } else {
    all = took.samples.length;
    const struck = await tx
      .update(observation)
      .set({ struckAt: new Date() })
      .where(
        and(
          eq(observation.nurseryId, nurseryId),
          inArray(observation.id, took.samples),
          isNull(observation.struckAt),
        ),
      )
      .returning({ id: observation.id, lotId: observation.lotId });
    back = struck.length;
    await noteAll(
      work,
      struck.map(({ id: entry, lotId }) => ({
        act: 'take back',
        subjectId: lotId,
        before: { entry },
        after: null,
      })),
    );
  }
  await note(work, 'take table back', id, { good: table.good }, { back });
  return { back, left: all - back };
}
