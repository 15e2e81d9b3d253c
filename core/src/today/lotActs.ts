import { autumnStart } from '../calendar/season';
import type { EpochDay } from '../calendar/day';
import { plantsToMeasure, type LotForecast } from '../forecast/forecast';
import { homesOf } from '../forecast/lotHomes';
import { INOCULATE_FROM_DAYS, INOCULATE_UNTIL_DAYS } from '../growing/care';
import type { LotFacts } from '../forecast/lotFacts';
import type { Standing } from '../forecast/standing';
import { whenFor, type When } from '../calendar/when';

/** One thing to do about one lot, with what it rests on. */
export interface Act {
  lotId: string;
  rule: RuleName;
  when: When;
  by: EpochDay | null;
  /** The figures the reason is written from. */
  figures: Record<string, number>;
  /** Trees at stake. */
  trees: number;
}

interface Situation {
  facts: LotFacts;
  forecast: LotForecast;
  standing: Standing;
  latitudeDeg: number;
}

type Finding = Pick<Act, 'when' | 'by' | 'figures'> | null;

/** A window that was missed is told of for so long after it closed, days. */
const MISSED_TOLD_DAYS = 75;

/** What follows sowing is asked for so long after it; a seedbed is looked at for moisture this often. */
const SETTLED_AFTER_DAYS = 7;
const KEEP_MOIST_EVERY_DAYS = 3;
/** Before the earliest of coming up, seed has taken up water and may no longer dry, days. */
const WAKING_DAYS = 28;

const inBed = ({ home }: LotFacts): number => (home.kind === 'bed' ? 1 : 0);

const wateredSince = ({ care }: LotFacts, since: EpochDay, asOf: EpochDay): boolean =>
  !!care?.some(({ day, done }) => done.what === 'water' && day >= since && day <= asOf);

/** A lot that is coming up is counted about this often. */
const COUNT_EVERY_DAYS = 10;

/** The rules of Today, each data: a name and a question put to one lot. */
const rules = {
  'write-off': ({ standing }: Situation): Finding =>
    standing.decision.kind === 'write-off'
      ? { when: 'now', by: null, figures: { since: standing.decision.since } }
      : null,

  'root-bound': ({ standing, forecast }: Situation): Finding =>
    standing.decision.kind === 'move-now'
      ? {
          when: 'now',
          by: null,
          figures: {
            chance: forecast.state.chanceBound,
            fill: forecast.state.fill.p50,
            since: standing.decision.boundSince,
          },
        }
      : null,

  'hold-ends': ({ standing, forecast }: Situation): Finding => {
    if (standing.decision.kind !== 'move-by' || !Number.isFinite(standing.decision.by)) return null;
    const { by, half } = standing.decision;
    return { when: whenFor(by, forecast.state.day), by, figures: { half, fill: forecast.state.fill.p50 } };
  },

  'lid-reached': ({ facts, forecast, standing }: Situation): Finding => {
    if (!forecast.lid || standing.status !== 'growing' || !Number.isFinite(forecast.lid.p10)) return null;
    const when = whenFor(forecast.lid.p10, forecast.state.day);
    if (when === 'watch' || facts.home.kind !== 'bed' || forecast.lid.p50 < forecast.state.day - 200)
      return null;
    return {
      when,
      by: forecast.lid.p10,
      figures: { half: forecast.lid.p50, headroomCm: facts.home.headroomCm ?? 0 },
    };
  },

  lift: ({ standing, forecast }: Situation): Finding => {
    if (standing.decision.kind !== 'lift') return null;
    const { from, bestBefore, until } = standing.decision;
    const when = whenFor(bestBefore - 14, forecast.state.day);
    return { when: when === 'watch' ? 'weeks' : when, by: bestBefore, figures: { from, until } };
  },

  'prick-out': ({ standing, forecast }: Situation): Finding => {
    const { decision } = standing;
    const { day } = forecast.state;
    if (decision.kind === 'await-leaves')
      return decision.from - day <= 14
        ? { when: 'weeks', by: decision.by, figures: { from: decision.from } }
        : null;
    if (decision.kind !== 'prick-out') return null;
    return {
      when: decision.by - day <= 7 ? 'now' : 'week',
      by: decision.by,
      figures: { from: decision.from },
    };
  },

  'missed-lift': ({ standing, forecast }: Situation): Finding => {
    const { missedLift, state } = forecast;
    if (missedLift === null || standing.decision.kind !== 'grow-on') return null;
    // Told while something can still be decided of its season.
    if (state.day - missedLift > MISSED_TOLD_DAYS) return null;
    const { liftFrom } = standing.decision;
    return { when: 'weeks', by: null, figures: { missed: missedLift, next: liftFrom } };
  },

  'root-frost': ({ facts, standing, forecast }: Situation): Finding => {
    const { rootStress } = forecast;
    if (rootStress?.kind !== 'frost' || standing.tally.standing === 0) return null;
    const { risk, mediumC, limitC, airC, frozen } = rootStress;
    return {
      when: risk === 'watch' ? 'week' : 'now',
      by: null,
      figures: { harm: risk === 'harm' ? 1 : 0, mediumC, limitC, airC, frozen, bed: inBed(facts) },
    };
  },

  'root-heat': ({ standing, forecast }: Situation): Finding => {
    const { rootStress } = forecast;
    if (rootStress?.kind !== 'heat' || standing.tally.standing === 0) return null;
    const { risk, mediumC, limitC, airC } = rootStress;
    return {
      when: risk === 'watch' ? 'week' : 'now',
      by: null,
      figures: { harm: risk === 'harm' ? 1 : 0, mediumC, limitC, airC },
    };
  },

  remeasure: ({ standing, forecast }: Situation): Finding => {
    const { lostHeight, state } = forecast;
    if (lostHeight === null || standing.tally.standing === 0 || lostHeight.share < 0.1) return null;
    return {
      when: lostHeight.share > 0.3 || state.day - lostHeight.day > 28 ? 'week' : 'weeks',
      by: null,
      figures: { on: lostHeight.day, share: lostHeight.share },
    };
  },

  'second-season': ({ facts, forecast, standing, latitudeDeg }: Situation): Finding => {
    const up = forecast.emergence.seen;
    // A lot already to be moved now is not asked for twice.
    if (up === null || facts.home.kind !== 'container' || standing.decision.kind === 'move-now') return null;
    const winter = autumnStart(latitudeDeg, forecast.state.day);
    // In a new home the seasons are counted anew.
    const moved = homesOf(facts).findLast((spell) => spell.from <= forecast.state.day)?.from ?? up;
    const since = Math.max(up, moved);
    const seasons = winter <= since ? 0 : 1 + Math.floor((winter - since) / 366);
    if (seasons === 0) return null;
    return { when: seasons > 1 ? 'now' : 'watch', by: null, figures: { seasons } };
  },

  spread: ({ facts, forecast, standing }: Situation): Finding => {
    const { leavesMeet, apart, state } = forecast;
    if (facts.home.kind !== 'container' || !facts.home.spaceable || apart > 1 || leavesMeet === null)
      return null;
    if (!isUp(forecast) || standing.tally.standing < 2 || !Number.isFinite(leavesMeet.p10)) return null;
    // One that is moved on anyway is not spread first, and once growth is over crowding does no more harm.
    if (standing.decision.kind === 'move-now' || !forecast.growing) return null;
    const when = whenFor(leavesMeet.p10, state.day);
    if (when === 'watch') return null;
    return { when, by: leavesMeet.p10, figures: { half: leavesMeet.p50, heightCm: state.heightCm.p50 } };
  },

  inoculate: ({ facts, forecast }: Situation): Finding => {
    const { seen } = forecast.emergence;
    if (!facts.nodules || seen === null) return null;
    if (facts.care?.some(({ done, day }) => done.what === 'inoculum' && day <= forecast.asOf)) return null;
    const day = forecast.state.day;
    const [from, by] = [seen + INOCULATE_FROM_DAYS, seen + INOCULATE_UNTIL_DAYS];
    // Months later the roots have met what they will meet.
    if (day < from - 14 || day > by + 28) return null;
    return { when: day > by ? 'now' : day >= from ? 'week' : 'weeks', by, figures: { seen, from } };
  },

  'feed-out': ({ forecast, standing }: Situation): Finding => {
    const { feedOut, state } = forecast;
    if (feedOut === null || standing.tally.standing === 0 || !forecast.growing) return null;
    if (!Number.isFinite(feedOut.p10)) return null;
    const when = whenFor(feedOut.p10, state.day);
    return when === 'watch'
      ? null
      : { when: when === 'now' ? 'week' : when, by: feedOut.p10, figures: { half: feedOut.p50 } };
  },

  measure: ({ facts, forecast, standing }: Situation): Finding => {
    const { day } = forecast.state;
    const up = forecast.emergence.seen;
    if (up === null || standing.tally.standing === 0 || !forecast.growing) return null;
    const last = Math.max(
      up,
      ...facts.sizes.filter((s) => s.what === 'height' && s.day <= forecast.asOf).map((s) => s.day),
    );
    if (day - last < MEASURE_EVERY_DAYS) return null;
    const fromStart = forecast.heightStartingShare;
    const plants = plantsToMeasure(facts, standing.tally.standing);
    return { when: fromStart > 0.5 ? 'weeks' : 'watch', by: null, figures: { last, fromStart, plants } };
  },

  'after-sowing': ({ facts, forecast, standing }: Situation): Finding => {
    const { day } = forecast.state;
    if (standing.decision.kind !== 'await-emergence' || day - facts.sownOn > SETTLED_AFTER_DAYS) return null;
    if (wateredSince(facts, facts.sownOn, forecast.asOf)) return null;
    return {
      when: 'now',
      by: facts.sownOn + 1,
      figures: { sown: facts.sownOn, bed: inBed(facts), cuttings: facts.cuttings ? 1 : 0 },
    };
  },

  'keep-moist': ({ facts, forecast, standing }: Situation): Finding => {
    const { day } = forecast.state;
    const { band } = forecast.emergence;
    if (standing.decision.kind !== 'await-emergence' || day - facts.sownOn <= KEEP_MOIST_EVERY_DAYS)
      return null;
    // Seed wakes and roots in the weeks before it shows; earlier, autumn and winter keep it moist enough.
    if (!Number.isFinite(band.p50) || day < band.p10 - WAKING_DAYS) return null;
    if (wateredSince(facts, day - KEEP_MOIST_EVERY_DAYS, forecast.asOf)) return null;
    return {
      when: 'week',
      by: null,
      figures: { from: band.p10, half: band.p50, cuttings: facts.cuttings ? 1 : 0 },
    };
  },

  'count-up': ({ facts, forecast, standing }: Situation): Finding => {
    const day = forecast.state.day;
    if (standing.decision.kind !== 'await-emergence') {
      const last = facts.counts.filter((c) => c.day <= forecast.asOf).at(-1);
      const young = forecast.emergence.seen !== null && day - forecast.emergence.seen <= 45;
      return young && last && day - last.day >= COUNT_EVERY_DAYS
        ? { when: 'week', by: last.day + 14, figures: { lastCount: last.day } }
        : null;
    }
    const { around } = standing.decision;
    if (!Number.isFinite(around) || around > day + 28) return null;
    // Looked for not long ago, and none was up yet.
    const looked = Math.max(-Infinity, ...facts.counts.map((c) => c.day).filter((d) => d <= forecast.asOf));
    if (day - looked < COUNT_EVERY_DAYS) return null;
    return { when: around <= day ? 'now' : whenFor(around, day), by: around, figures: { around } };
  },

  'pull-plug': ({ facts, forecast }: Situation): Finding => {
    if (facts.home.kind !== 'container') return null;
    const { chanceReady, chanceBound, day } = forecast.state;
    const last = Math.max(-Infinity, ...facts.pulls.filter((p) => p.day <= forecast.asOf).map((p) => p.day));
    const unsure = (chanceReady > 0.15 && chanceReady < 0.85) || (chanceBound > 0.1 && chanceBound < 0.6);
    if (!unsure || day - last < 28) return null;
    return {
      when: 'week',
      by: null,
      figures: { chanceReady, chanceBound, vigourFromStart: forecast.vigour.startingShare },
    };
  },
} satisfies Record<string, (situation: Situation) => Finding>;

export type RuleName = keyof typeof rules;
export const ruleNames = Object.keys(rules) as RuleName[];

/** A lot in growth is measured about this often. */
export const MEASURE_EVERY_DAYS = 56;

const isUp = ({ emergence }: LotForecast) => emergence.seen !== null;

/** What one lot asks for on the date its forecast looks at. */
export function actsFor(
  facts: LotFacts,
  forecast: LotForecast,
  standing: Standing,
  latitudeDeg: number,
): Act[] {
  // Seed not up yet is at stake only while nothing stands.
  const trees = standing.tally.standing || standing.tally.sown;
  if (trees === 0) return [];
  const acts: Act[] = [];
  for (const rule of ruleNames) {
    const finding = rules[rule]({ facts, forecast, standing, latitudeDeg });
    if (finding) acts.push({ lotId: facts.id, rule, trees, ...finding });
  }
  return acts;
}
