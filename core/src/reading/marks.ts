import { dayOf, isoOf } from '../calendar/day';
import type { KeptMark, TodayRules } from '../contract';
import { restUntil } from '../today/agenda';
import { ruleTerms } from '../today/rules';
import type { TodayKnown } from '../today/todayOf';

/** What a nursery keeps about Today, as its list is made from it. */
export function todayKnown(marks: readonly KeptMark[], { rules }: TodayRules): TodayKnown {
  return {
    marks: marks.map(({ on, until, ...mark }) => ({ ...mark, on: dayOf(on), until: dayOf(until) })),
    rules,
    work: marks.flatMap(({ rule, minutes, trees, mark }) =>
      mark === 'done' && minutes !== null ? [{ work: ruleTerms[rule].work, trees, minutes }] : [],
    ),
  };
}

/** Days that an act given to somebody is theirs. */
const ASSIGNED_DAYS = 365;

/** Last day a mark holds: as its rule says where the act was done, as whoever skipped it said. */
export function markedUntil({
  mark,
  rule,
  on,
  until,
}: Pick<KeptMark, 'mark' | 'rule' | 'on'> & { until: string | null }): string {
  if (mark === 'done') return isoOf(restUntil(rule, dayOf(on)));
  return mark === 'assigned' ? isoOf(dayOf(on) + ASSIGNED_DAYS) : until!;
}
