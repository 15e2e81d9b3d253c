import { dayOf, isoOf, markedUntil, say } from '@kauri/core';
import type { BodyOf, KeptMark, Role, TodayBook, TodayRules } from '@kauri/core/contract';
import { and, desc, eq, gt, inArray, isNotNull, isNull, or } from 'drizzle-orm';
import { noteAll } from '../../db/journal';
import { actMark, calendarToken, membership, person } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { readValue } from '../../nursery/values';

/** Marks looked back at: those still in force, and those whose time teaches the rates. */
const MOST_MARKS = 3000;

type Asked = Pick<Work, 'tx' | 'nurseryId' | 'personId'>;

/** Marks, rules and people: what Today needs beside the forecasts. */
export async function todayBook(work: Asked, today: string): Promise<TodayBook> {
  const { tx, nurseryId, personId } = work;
  const { version, value } = await readValue(work, 'today');
  const people = await tx
    .select({ id: person.id, name: person.name, role: membership.role })
    .from(membership)
    .innerJoin(person, eq(person.id, membership.personId))
    .where(eq(membership.nurseryId, nurseryId))
    .orderBy(person.name);
  const [token] = await tx
    .select({ madeAt: calendarToken.madeAt })
    .from(calendarToken)
    .where(and(eq(calendarToken.nurseryId, nurseryId), eq(calendarToken.personId, personId)));
  return {
    marks: await marksOf(work, today),
    version,
    rules: value as TodayRules,
    people: people.map((p) => ({ ...p, role: p.role as Role })),
    calendar: token !== undefined,
  };
}

export async function marksOf(
  { tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>,
  today: string,
): Promise<KeptMark[]> {
  const rows = await tx
    .select({ mark: actMark, by: person.name })
    .from(actMark)
    .innerJoin(person, eq(person.id, actMark.personId))
    .where(
      and(
        eq(actMark.nurseryId, nurseryId),
        isNull(actMark.struckAt),
        // A date looked back at wants the marks of its own time, a year's worth.
        or(gt(actMark.until, isoOf(dayOf(today) - 400)), isNotNull(actMark.minutes)),
      ),
    )
    .orderBy(desc(actMark.onDate), desc(actMark.id))
    .limit(MOST_MARKS);
  return rows.map(({ mark: m, by }) => ({
    id: m.id,
    rule: m.rule as KeptMark['rule'],
    subjectId: m.subjectId,
    mark: m.mark,
    on: m.onDate,
    until: m.until,
    reason: m.reason,
    minutes: m.minutes,
    trees: m.trees,
    assignedTo: m.assignedTo,
    by,
  }));
}

/** Writes down what was done about some acts, all or none. */
export async function markActs(work: Work, marks: readonly BodyOf<'markAct'>[]): Promise<void> {
  const late = marks.find(({ on }) => on > work.today);
  if (late)
    throw new Refusal(422, 'not-yet', say`${late.on} is still to come; today is ${work.today}.`, {
      fields: [{ path: 'on', message: say`Today is ${work.today}.` }],
    });
  const people = marks.flatMap(({ mark, assignedTo }) => (mark === 'assigned' ? [assignedTo!] : []));
  for (const personId of new Set(people)) await mustBelong(work, personId);
  await mustBeHere(work, [...new Set(marks.flatMap(({ subjectId }) => subjectId ?? []))]);
  await work.tx.insert(actMark).values(
    marks.map(({ id, rule, subjectId, mark, on, until, reason, minutes, trees, assignedTo }) => ({
      nurseryId: work.nurseryId,
      id,
      rule,
      subjectId,
      mark,
      onDate: on,
      until: markedUntil({ mark, rule, on, until }),
      reason,
      minutes: mark === 'done' ? minutes : null,
      trees,
      assignedTo: mark === 'assigned' ? assignedTo : null,
      personId: work.personId,
    })),
  );
  await noteAll(
    work,
    marks.map((mark) => ({
      act: `act ${mark.mark}`,
      subjectId: mark.subjectId ?? work.nurseryId,
      before: null,
      after: mark,
    })),
  );
}

async function mustBelong({ tx, nurseryId }: Work, personId: string): Promise<void> {
  const [row] = await tx
    .select({ role: membership.role })
    .from(membership)
    .where(and(eq(membership.nurseryId, nurseryId), eq(membership.personId, personId)));
  if (!row || row.role === 'visitor')
    throw new Refusal(422, 'missing', say`Nobody of this nursery who could do it was named.`);
}

/** @throws Refusal where something marks speak of is not of this nursery: no lot, bag, batch, layer, parcel, planting or planned sowing */
async function mustBeHere({ tx, nurseryId }: Work, ids: readonly string[]): Promise<void> {
  if (ids.length === 0) return;
  const { rows } = await tx.$client.query<{ missing: number }>(
    `select count(*)::int as missing from unnest($2::uuid[]) as asked(id) where not exists (
       select from lot where nursery_id = $1 and lot.id = asked.id union all
       select from seed_lot where nursery_id = $1 and seed_lot.id = asked.id union all
       select from treatment where nursery_id = $1 and treatment.id = asked.id union all
       select from layer where nursery_id = $1 and layer.id = asked.id union all
       select from stock_bed where nursery_id = $1 and stock_bed.id = asked.id union all
       select from parcel where nursery_id = $1 and parcel.id = asked.id union all
       select from planting where nursery_id = $1 and planting.id = asked.id union all
       select from nursery_value where nursery_id = $1 and kind = 'plan' and value::text like '%' || asked.id || '%')`,
    [nurseryId, ids],
  );
  if (rows[0].missing)
    throw new Refusal(422, 'missing', say`What this is about is not in this nursery, or is there no more.`);
}

/** Takes some marks back, all or none. */
export async function undoMarks(work: Work, ids: readonly string[]): Promise<void> {
  const struck = await work.tx
    .update(actMark)
    .set({ struckAt: new Date() })
    .where(
      and(eq(actMark.nurseryId, work.nurseryId), inArray(actMark.id, [...ids]), isNull(actMark.struckAt)),
    )
    .returning({ id: actMark.id, subjectId: actMark.subjectId });
  if (struck.length < new Set(ids).size)
    throw new Refusal(404, 'no-such-mark', say`There is no such mark, or it was taken back already.`);
  await noteAll(
    work,
    struck.map(({ id, subjectId }) => ({
      act: 'take a mark back',
      subjectId: subjectId ?? work.nurseryId,
      before: { mark: id },
      after: null,
    })),
  );
}
