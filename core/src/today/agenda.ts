import type { EpochDay } from '../calendar/day';
import { ruleTerms, type RuleTerms, type TodayRule } from './rules';
import { whenFor, type When } from '../calendar/when';
import { minutesFor, type LearntRate, type WorkKind } from './work';

/** Something to do, from whichever part of the nursery it comes. */
export interface AgendaItem {
  rule: TodayRule;
  /** The lot, batch, bag or layer it is about; null where it is about several. */
  subjectId: string | null;
  when: When;
  by: EpochDay | null;
  figures: Record<string, number>;
  /** Trees, or seeds, at stake. */
  trees: number;
}

/** What somebody did about an act. */
export interface ActMark {
  id: string;
  rule: TodayRule;
  subjectId: string | null;
  mark: 'done' | 'skipped' | 'assigned';
  on: EpochDay;
  /** First day on which it may be asked for again. */
  until: EpochDay;
  reason: string;
  minutes: number | null;
  trees: number;
  assignedTo: string | null;
}

/** How a nursery wants a rule: not at all, or earlier. */
export interface RuleTuning {
  muted: boolean;
  /** Days earlier than usual. */
  leadDays: number;
}
export type Tuning = Partial<Record<TodayRule, RuleTuning>>;

export interface AgendaLine<I extends AgendaItem = AgendaItem> {
  item: I;
  when: When;
  work: WorkKind;
  /** Trees that waiting four weeks past its day is reckoned to cost. */
  loss: number;
  minutes: number;
  lossPerHour: number;
  /** Who it was given to. */
  assigned: Pick<ActMark, 'assignedTo'> | null;
}

export interface Agenda<I extends AgendaItem = AgendaItem> {
  lines: AgendaLine<I>[];
  /** Done or skipped for now, with the mark that hides each. */
  hidden: { item: I; mark: ActMark }[];
  muted: number;
}

const order: Record<When, number> = { now: 0, week: 1, weeks: 2, watch: 3 };

/**
 * Puts what is to be done in order on a day: muted rules left out, what was done or skipped hidden until its day, each
 * as early as the nursery wants it, the soonest first and then by trees saved an hour of work.
 */
export function agendaOf<I extends AgendaItem>(
  items: readonly I[],
  marks: readonly ActMark[],
  tuning: Tuning,
  rates: Readonly<Record<WorkKind, LearntRate>>,
  day: EpochDay,
): Agenda<I> {
  const agenda: Agenda<I> = { lines: [], hidden: [], muted: 0 };
  const known = marksByAct(marks, day);
  for (const item of items) {
    if (tuning[item.rule]?.muted) {
      agenda.muted++;
      continue;
    }
    const { closed, assigned } = known.get(keyOf(item)) ?? { closed: null, assigned: null };
    if (closed) {
      agenda.hidden.push({ item, mark: closed });
      continue;
    }
    const terms: RuleTerms = ruleTerms[item.rule];
    const loss = terms.loss(item.figures) * item.trees;
    const minutes = minutesFor(rates[terms.work], item.trees);
    agenda.lines.push({
      item,
      when: earlier(item, tuning[item.rule]?.leadDays ?? 0, day),
      work: terms.work,
      loss,
      minutes,
      lossPerHour: (loss / minutes) * 60,
      assigned,
    });
  }
  agenda.lines.sort(
    (a, b) =>
      order[a.when] - order[b.when] ||
      b.lossPerHour - a.lossPerHour ||
      (a.item.by ?? -Infinity) - (b.item.by ?? -Infinity),
  );
  return agenda;
}

/** Last day, before it may be asked again, of an act marked done on a day. */
export function restUntil(rule: TodayRule, on: EpochDay): EpochDay {
  return on + ruleTerms[rule].rest;
}

/** An act with a last day comes up so much sooner; one without is asked for as it is. */
function earlier({ when, by }: AgendaItem, leadDays: number, day: EpochDay): When {
  if (leadDays === 0 || by === null) return when;
  const sooner = whenFor(by - leadDays, day);
  return order[sooner] < order[when] ? sooner : when;
}

const keyOf = ({ rule, subjectId }: Pick<AgendaItem, 'rule' | 'subjectId'>) => `${rule} ${subjectId ?? ''}`;

interface KnownMarks {
  closed: ActMark | null;
  assigned: ActMark | null;
}

/** The last mark that closes an act on a day, and whom it was last given to since. */
function marksByAct(marks: readonly ActMark[], day: EpochDay): Map<string, KnownMarks> {
  const known = new Map<string, KnownMarks>();
  for (const mark of [...marks].sort((a, b) => a.on - b.on || a.id.localeCompare(b.id))) {
    if (mark.on > day) continue;
    const key = keyOf(mark);
    const here = known.get(key) ?? { closed: null, assigned: null };
    // Once done or skipped it is nobody’s any more.
    if (mark.mark === 'assigned') here.assigned = day < mark.until ? mark : null;
    else Object.assign(here, { closed: day < mark.until ? mark : null, assigned: null });
    known.set(key, here);
  }
  return known;
}
