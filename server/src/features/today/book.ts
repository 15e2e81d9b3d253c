import { dayOf, isoOf, restUntil } from '@kauri/core';
import type { BodyOf, KeptMark, Role, TodayBook, TodayRules } from '@kauri/core/contract';
import { and, desc, eq, gt, isNotNull, isNull, or } from 'drizzle-orm';
import { note } from '../../db/journal';
import { actMark, calendarToken, membership, person } from '../../db/schema/index';
import type { Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { readValue } from '../../nursery/values';

/** Marks looked back at: those still in force, and those whose time teaches the rates. */
const MOST_MARKS = 3000;
const ASSIGNED_DAYS = 365;

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

export async function markAct(work: Work, body: BodyOf<'markAct'>): Promise<void> {
  const { id, rule, subjectId, mark, on, reason, minutes, trees, assignedTo } = body;
  if (on > work.today)
    throw new Refusal(422, 'not-yet', `${on} is still to come; today is ${work.today}.`, {
      fields: [{ path: 'on', message: `Today is ${work.today}.` }],
    });
  if (mark === 'assigned') await mustBelong(work, assignedTo!);
  const day = dayOf(on);
  const until =
    mark === 'done'
      ? isoOf(restUntil(rule, day))
      : mark === 'assigned'
        ? isoOf(day + ASSIGNED_DAYS)
        : body.until!;
  await work.tx.insert(actMark).values({
    nurseryId: work.nurseryId,
    id,
    rule,
    subjectId,
    mark,
    onDate: on,
    until,
    reason,
    minutes: mark === 'done' ? minutes : null,
    trees,
    assignedTo: mark === 'assigned' ? assignedTo : null,
    personId: work.personId,
  });
  await note(work, `act ${mark}`, subjectId ?? work.nurseryId, null, body);
}

async function mustBelong({ tx, nurseryId }: Work, personId: string): Promise<void> {
  const [row] = await tx
    .select({ role: membership.role })
    .from(membership)
    .where(and(eq(membership.nurseryId, nurseryId), eq(membership.personId, personId)));
  if (!row || row.role === 'visitor')
    throw new Refusal(422, 'missing', 'Nobody of this nursery who could do it was named.');
}

export async function undoMark(work: Work, id: string): Promise<void> {
  const struck = await work.tx
    .update(actMark)
    .set({ struckAt: new Date() })
    .where(and(eq(actMark.nurseryId, work.nurseryId), eq(actMark.id, id), isNull(actMark.struckAt)))
    .returning({ subjectId: actMark.subjectId });
  if (struck.length === 0)
    throw new Refusal(404, 'no-such-mark', 'There is no such mark, or it was taken back already.');
  await note(work, 'take a mark back', struck[0].subjectId ?? work.nurseryId, { mark: id }, null);
}
