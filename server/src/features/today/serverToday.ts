import { dayOf, isoOf, LastFew, todayKnown, todayOf, type TodayItem } from '@kauri/core';
import type { AnswerOf, TodayRules } from '@kauri/core/contract';
import { eq } from 'drizzle-orm';
import { lastChange } from '../../db/journal';
import { nurseryToday } from '../../db/schema/index';
import type { Tx } from '../../db/tenant';
import { fromKept } from '../../jobs/kept';
import { readValue } from '../../nursery/values';
import { marksOf } from './book';

export type ServerToday = AnswerOf<'today'>;
type Laid = Omit<ServerToday, 'working'>;

/** What was last answered, whole and as text: a hundred people who ask are sent the same. */
const answered = new LastFew<string, { laid: Laid; text: string }>(30);

/**
 * Today of a nursery as it was last worked out, with what was done about its acts since. Says when that was, and whether
 * something newer is still to come; nothing is forecast here.
 * @param each at most so many acts of each kind of urgency
 */
export async function serverToday(
  tx: Tx,
  nurseryId: string,
  today: string,
  each = Infinity,
): Promise<{ today: ServerToday; text: string }> {
  const { rows } = await tx.$client.query<{ worked: string; known: string | null; marks: string }>(
    `select worked_at::text as worked, known,
       (select concat_ws('.', count(*), count(struck_at), max(id::text)) from act_mark where nursery_id = $1) as marks
     from nursery_today where nursery_id = $1 and as_of = $2`,
    [nurseryId, today],
  );
  const kept = rows[0];
  if (!kept) {
    const none: ServerToday = {
      on: today,
      acts: [],
      counts: { now: 0, week: 0, weeks: 0, watch: 0 },
      faults: [],
      forecast: 0,
      workedAt: null,
      working: true,
    };
    return { today: none, text: JSON.stringify(none) };
  }
  const working = kept.known !== (await lastChange(tx, nurseryId));
  const { version } = await readValue({ tx, nurseryId }, 'today');
  const key = [nurseryId, today, kept.worked, kept.marks, version, each].join(' ');
  let answer = answered.get(key);
  if (!answer) {
    const laid = await layOut(tx, nurseryId, today, each);
    answer = answered.set(key, { laid, text: JSON.stringify(laid).slice(1) });
  }
  return { today: { ...answer.laid, working }, text: `{"working":${working},${answer.text}` };
}

async function layOut(tx: Tx, nurseryId: string, today: string, each: number): Promise<Laid> {
  const [kept] = await tx.select().from(nurseryToday).where(eq(nurseryToday.nurseryId, nurseryId));
  const marks = await marksOf({ tx, nurseryId }, today);
  const { value: rules } = await readValue({ tx, nurseryId }, 'today');
  const agenda = todayOf(
    fromKept<TodayItem[]>(kept.items),
    todayKnown(marks, rules as TodayRules),
    dayOf(today),
  );
  const counts = { now: 0, week: 0, weeks: 0, watch: 0 };
  const shown = agenda.lines.filter(({ when }) => ++counts[when] <= each);
  return {
    on: today,
    counts,
    forecast: kept.forecast,
    faults: kept.faults,
    workedAt: kept.workedAt.toISOString(),
    acts: shown.map(({ item, when, loss, minutes, lossPerHour, assigned }) => ({
      rule: item.rule,
      part: item.part,
      of: item.of,
      subjectId: item.subjectId,
      about: item.about,
      when,
      by: item.by === null || !Number.isFinite(item.by) ? null : isoOf(Math.round(item.by)),
      trees: item.trees,
      loss,
      minutes,
      lossPerHour,
      title: item.words.title,
      reason: item.words.reason,
      waiting: item.words.waiting ?? '',
      assignedTo: assigned?.assignedTo ?? null,
    })),
  };
}
