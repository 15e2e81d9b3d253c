import { dayOf } from '../calendar/day';
import type { KeptMark, TodayRules } from '../contract';
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
