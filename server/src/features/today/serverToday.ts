import { dayOf, isoOf, todayKnown, todayOf } from '@kauri/core';
import type { AnswerOf, TodayRules } from '@kauri/core/contract';
import { eq } from 'drizzle-orm';
import { nurseryToday } from '../../db/schema/index';
import type { Tx } from '../../db/tenant';
import { lastChange } from '../../jobs/refreshToday';
import { readValue } from '../../nursery/values';
import { marksOf } from './book';

export type ServerToday = AnswerOf<'today'>;

/**
 * Today of a nursery as it was last worked out, with what was done about its acts since. Says when that was, and whether
 * something newer is still to come; nothing is forecast here.
 */
export async function serverToday(tx: Tx, nurseryId: string, today: string): Promise<ServerToday> {
  const [kept] = await tx.select().from(nurseryToday).where(eq(nurseryToday.nurseryId, nurseryId));
  if (kept?.asOf !== today)
    return { on: today, acts: [], faults: [], forecast: 0, workedAt: null, working: true };
  const marks = await marksOf({ tx, nurseryId }, today);
  const { value: rules } = await readValue({ tx, nurseryId }, 'today');
  const agenda = todayOf(kept.items, todayKnown(marks, rules as TodayRules), dayOf(today));
  return {
    on: today,
    forecast: kept.forecast,
    faults: kept.faults,
    workedAt: kept.workedAt.toISOString(),
    working: kept.known !== (await lastChange(tx, nurseryId)),
    acts: agenda.lines.map(({ item, when, loss, minutes, assigned }) => ({
      rule: item.rule,
      part: item.part,
      subjectId: item.subjectId,
      about: item.about,
      when,
      by: item.by === null || !Number.isFinite(item.by) ? null : isoOf(Math.round(item.by)),
      trees: item.trees,
      loss,
      minutes,
      title: item.words.title,
      reason: item.words.reason,
      assignedTo: assigned?.assignedTo ?? null,
    })),
  };
}
