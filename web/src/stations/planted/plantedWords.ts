import { dayOf, heatLimitsC, type LivingNow, type PlantingSeen, say } from '@kauri/core';
import { shortDate, yearOf } from '../../words/dates';
import { count, percent, several } from '../../words/numbers';

/** How many trees live: counted where every one was looked at, else with where it lies nine times in ten. */
export function livingWords({ trees, seen, alive, lower, upper }: LivingNow): string {
  if (seen >= trees) return say`${count(alive)} of ${several(trees, 'tree')} alive, each looked at`;
  return say`${count(lower)} to ${count(upper)} of ${several(trees, 'tree')} alive, nine times in ten`;
}

/** The share that lives, short. */
export function shareWords({ trees, seen, alive, lower, upper }: LivingNow): string {
  if (seen >= trees) return percent(alive / trees);
  return say`${percent(lower / trees)} to ${percent(upper / trees)}`;
}

/** What a planting asks for first, as its tag says it. */
export function decisionOf(
  { trees, underWay, heat, due, living, gone, planting }: PlantingSeen,
  today: number,
  showTemperature: (celsius: number) => string,
): { headline: string; detail: string; urgent: boolean } {
  const date = (day: number) => shortDate(day, yearOf(today));
  if (heat)
    return {
      headline: say`Raise, vent or take off its guards`,
      detail: say`In the ${heat.guard}s it came to about ${showTemperature(heat.highestC)} on ${date(heat.on)}, ${showTemperature(heat.airC)} outside${heat.hours[1] ? say`; ${several(heat.hours[1], 'hour')} above ${showTemperature(heatLimitsC[1])}` : ''}. ${heat.risk === 'scorch' ? say`Leaders scorch there` : say`A little hotter and leaders scorch`}: reckoned with full sun and still air, a rule of thumb.`,
      urgent: true,
    };
  if (underWay)
    return {
      headline: say`A walk is under way`,
      detail: say`${underWay.by} began it on ${date(dayOf(underWay.on))}: go along, or end it.`,
      urgent: false,
    };
  if (!trees)
    return {
      headline: say`Nothing is planted here yet`,
      detail: say`Say which lifted trees went in, from which parcel: from then on every tree can be found.`,
      urgent: false,
    };
  if (due && due.due <= today)
    return {
      headline: say`Walk it: which trees live?`,
      detail: say`Due since ${date(due.due)}, in its ${['first', 'second', 'third'][due.autumn - 1]} autumn, while leaves still tell the living (a rule of thumb).`,
      urgent: true,
    };
  if (living && gone)
    return {
      headline: say`${count(gone)} found dead or missing`,
      detail: say`Of ${several(living.seen, 'tree')} looked at. What is to be replaced stands below.`,
      urgent: false,
    };
  return {
    headline: living ? say`All that were looked at live` : say`Planted; not walked yet`,
    detail: due
      ? say`The next walk is due from ${date(due.due)}.`
      : say`${planting.name} was walked through its first autumns.`,
    urgent: false,
  };
}
