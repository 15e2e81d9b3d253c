import { say } from '../speech/say';
import type { EpochDay } from '../calendar/day';
import { whenFor, type When } from '../calendar/when';
import { agendaOf, type ActMark, type Agenda, type AgendaItem, type Tuning } from './agenda';
import {
  actWords,
  planActWords,
  treatActWords,
  rootActWords,
  seedActWords,
  togetherRules,
  togetherWords,
  type ActWords,
  type TogetherRule,
} from './actWords';
import type { Act } from './lotActs';
import type { PlanAsk } from './planAsk';
import { holdActWords, type HoldAsk } from './holdAsk';
import { storeActWords, type StoreAsk } from './storeAsk';
import { plantingActWords, type PlantingAsk } from './plantingAsk';
import { rootActs, type RootCall } from './rootActs';
import type { SeedAct } from './seedActs';
import { several } from '../words/numbers';
import { workRates, type WorkDone } from './work';

/** What one lot asks for on a day, from its forecast, its coming up and its roots. */
export interface LotAsks {
  lotId: string;
  code: string;
  /** Trees standing, and seeds still in the ground. */
  standing: number;
  sown: number;
  acts: Act[];
  /** Whether it lags behind in coming up. */
  late: SeedAct[];
  roots: RootCall;
  /** Whether it leaves where it stands within weeks. */
  leavesSoon: boolean;
}

/** What one thing of the seed room asks for, what it is called, and the seeds or plants it holds. */
export interface SeedAsk {
  act: SeedAct;
  name: string;
  seeds: number;
}

/** Seeds, or cuttings, that one sowing of a nursery uses at most: a rule of thumb, to put acts in order. */
const ONE_SOWING = 2000;

/** What an act may be about: a lot, several, a bag in the store, a batch on its clock, air layers, a lot coming up, a planned sowing, a planting, what was lifted and lies there. */
export const actSubjects = [
  'lot',
  'lots',
  'store',
  'clock',
  'layers',
  'up',
  'plan',
  'planting',
  'lying',
] as const;
/** The part of the nursery an act is of. */
export const actParts = ['lot', 'seed', 'roots', 'plan', 'planted', 'lifted'] as const;
type ActSubject = (typeof actSubjects)[number];

/** One thing to do, with its words. */
export interface TodayItem extends AgendaItem {
  part: (typeof actParts)[number];
  /** What its subject is, by which a screen finds where it leads. */
  of: ActSubject;
  /** What its subject is called. */
  about: string;
  words: ActWords;
}

/** What asks for something besides lots and the seed room. */
export interface OtherAsks {
  planned: readonly PlanAsk[];
  plantings: readonly PlantingAsk[];
  holds: readonly HoldAsk[];
  lying: readonly StoreAsk[];
}

/**
 * Everything that asks for something on a day, each with its words: the lots' own acts, those late in coming up, the seed
 * room's, what roots ask for, the plan's sowings, the plantings, what is held in humid air, and what was lifted and lies there.
 */
export function itemsOf(
  lots: readonly LotAsks[],
  room: readonly SeedAsk[],
  day: EpochDay,
  { planned = [], plantings = [], holds = [], lying = [] }: Partial<OtherAsks> = {},
): TodayItem[] {
  const byId = new Map(lots.map((lot) => [lot.lotId, lot]));
  const seedItem = ({ act, name, seeds }: SeedAsk): TodayItem => ({
    rule: act.rule,
    subjectId: act.subjectId,
    when: act.when,
    by: act.by,
    figures: act.figures,
    // A bag may hold seed for years: no more is at stake than one sowing would use.
    trees: Math.round(Math.min(seeds, ONE_SOWING)),
    part: 'seed',
    of: act.part,
    about: name,
    words: seedActWords(act, name, day),
  });
  const judged = lots.map(({ lotId, standing, leavesSoon, roots }) => ({
    lotId,
    trees: standing,
    leavesSoon,
    verdict: roots,
  }));
  const together = askedTogether(lots.map(({ acts }) => acts));
  return [
    ...[...together].map((rule) =>
      togetherItem(
        rule,
        lots.flatMap(({ code, acts }) =>
          acts.filter((act) => act.rule === rule).map((act) => ({ code, act })),
        ),
        day,
      ),
    ),
    ...lots.flatMap((lot) => lotItems(lot, together, day)),
    ...room.map(seedItem),
    ...lots.flatMap(({ code, sown, late }) => late.map((act) => seedItem({ act, name: code, seeds: sown }))),
    ...planItems(planned, day),
    ...plantings.map((ask) => plantingItem(ask, day)),
    ...holds.map((ask) => holdItem(ask, day)),
    ...lying.map((ask) => lyingItem(ask, day)),
    ...rootActs(judged).map((act): TodayItem => {
      const only = act.rule === 'roots-rejected' ? byId.get(act.lotIds[0])! : null;
      return {
        rule: act.rule,
        subjectId: only?.lotId ?? null,
        when: act.when,
        by: act.by,
        figures: act.figures,
        trees: act.lotIds.reduce((total, id) => total + byId.get(id)!.standing, 0),
        part: 'roots',
        of: only ? 'lot' : 'lots',
        about: only?.code ?? several(act.lotIds.length, 'lot'),
        words: rootActWords(act, only?.code ?? ''),
      };
    }),
  ];
}

/** Rules by which more than one lot asks for something on a day: those lots are gone round in one act. */
export function askedTogether(acts: Iterable<readonly Act[]>): Set<TogetherRule> {
  const times = new Map<string, number>();
  for (const of of acts) for (const { rule } of of) times.set(rule, (times.get(rule) ?? 0) + 1);
  return new Set(togetherRules.filter((rule) => (times.get(rule) ?? 0) > 1));
}

type NamedActs = Pick<LotAsks, 'lotId' | 'code' | 'acts'>;

/** What a lot asks for by its own name. */
const lotItems = ({ code, acts }: NamedActs, together: ReadonlySet<string>, day: EpochDay): TodayItem[] =>
  acts
    .filter(({ rule }) => !together.has(rule))
    .map(({ lotId, rule, when, by, figures, trees }) => ({
      rule,
      subjectId: lotId,
      when,
      by,
      figures,
      trees,
      part: 'lot',
      of: 'lot',
      about: code,
      words: actWords({ lotId, rule, when, by, figures, trees }, code, day),
    }));

/**
 * Of everything that asks for something on a day ({@link itemsOf}) what asks it of one lot as a lot: by its forecast and by its
 * hold in humid air. What it lacks is what several lots ask for together, and what seed and roots ask for.
 * @param together what {@link askedTogether} says of all lots
 * @param holds of this lot
 */
export function itemsOfLot(
  lot: NamedActs,
  together: ReadonlySet<TogetherRule>,
  holds: readonly HoldAsk[],
  day: EpochDay,
): TodayItem[] {
  return [...lotItems(lot, together, day), ...holds.map((ask) => holdItem(ask, day))];
}

/** Planned sowings are asked for so long before their week, days. */
const LEAD_DAYS = 28;

/** What the plan asks for on a day: treatments and sowings whose day is near, has come, or has gone by. */
function planItems(asks: readonly PlanAsk[], day: EpochDay): TodayItem[] {
  return asks.flatMap((ask): TodayItem[] => {
    const { sowingId, name, from, treat, plants, trees, chance } = ask;
    const of = { subjectId: sowingId, trees, part: 'plan', of: 'plan', about: name } as const;
    const items: TodayItem[] = [];
    // Once it should be sown, that is what is asked for.
    if (treat && treat.on - day <= LEAD_DAYS && day < from)
      items.push({
        ...of,
        rule: 'treat-planned',
        when: whenFor(treat.on, day),
        by: treat.on,
        figures: { from: treat.on, days: treat.days, plants: treat.plants },
        words: treatActWords(ask, treat, day),
      });
    if (from - day <= LEAD_DAYS)
      items.push({
        ...of,
        rule: 'sow-planned',
        when: whenFor(from, day),
        by: from + 6,
        figures: { from, plants, chance },
        words: planActWords(ask, day),
      });
    return items;
  });
}

/** The next step of a hold on a day. */
function holdItem(ask: HoldAsk, day: EpochDay): TodayItem {
  const { lotId, code, trees, state } = ask;
  return {
    rule: 'humidity-hold',
    subjectId: lotId,
    when: 'now',
    by: null,
    figures: { from: state.next.on, opened: state.opened, light: state.light, flushes: state.flushes },
    trees,
    part: 'lot',
    of: 'lot',
    about: code,
    words: holdActWords(ask, day),
  };
}

/** What lifted trees ask for on a day. */
function lyingItem(ask: StoreAsk, day: EpochDay): TodayItem {
  const { parcelId, place, trees } = ask;
  const of = {
    subjectId: parcelId,
    trees,
    part: 'lifted',
    of: 'lying',
    about: place || say`no place said`,
    words: storeActWords(ask, day),
  } as const;
  switch (ask.kind) {
    case 'look':
      return { ...of, rule: 'look-lying', when: whenFor(ask.due, day), by: null, figures: { due: ask.due } };
    case 'leave': {
      const { until } = ask.keeps;
      return { ...of, rule: 'leave-lying', when: whenFor(until, day), by: until, figures: { until } };
    }
    case 'frost':
      return { ...of, rule: 'lying-frost', when: 'now', by: null, figures: { on: ask.on } };
  }
}

/** What a planting asks for on a day. */
function plantingItem(ask: PlantingAsk, day: EpochDay): TodayItem {
  const { plantingId, name, trees } = ask;
  const walk = ask.kind === 'walk';
  return {
    rule: walk ? 'walk-planting' : 'planting-heat',
    subjectId: plantingId,
    when: walk ? whenFor(ask.due, day) : 'now',
    by: null,
    figures: walk
      ? { due: ask.due, autumn: ask.autumn }
      : { on: ask.on, insideC: ask.insideC, airC: ask.airC, scorch: ask.scorch ? 1 : 0 },
    trees,
    part: 'planted',
    of: 'planting',
    about: name,
    words: plantingActWords(ask, day),
  };
}

/** How pressing acts are, the most first. */
const pressing: readonly When[] = ['now', 'week', 'weeks', 'watch'];

/** Several lots gone round in one act: as pressing as the worst of them, told first. */
function togetherItem(
  rule: TogetherRule,
  lots: readonly { code: string; act: Act }[],
  day: EpochDay,
): TodayItem {
  const risk = ({ act }: { act: Act }) => 4 * (act.figures.harm ?? 0) - pressing.indexOf(act.when);
  const sorted = [...lots].sort(
    (a, b) =>
      risk(b) - risk(a) || (a.act.figures.bed ?? 0) - (b.act.figures.bed ?? 0) || b.act.trees - a.act.trees,
  );
  const trees = lots.reduce((total, { act }) => total + act.trees, 0);
  const worst = sorted[0].act;
  const earliest = Math.min(...lots.map(({ act }) => act.figures.from ?? Infinity));
  const figures = {
    ...worst.figures,
    lots: lots.length,
    ...(Number.isFinite(earliest) && { from: earliest }),
  };
  return {
    rule,
    subjectId: null,
    when: worst.when,
    by: null,
    figures,
    trees,
    part: 'lot',
    of: 'lots',
    about: several(lots.length, 'lot'),
    words: togetherWords(
      rule,
      sorted.map(({ code }) => code),
      figures,
      trees,
      day,
    ),
  };
}

/** What is known of a day besides the forecasts: what was done about acts, and how the nursery wants them. */
export interface TodayKnown {
  marks: readonly ActMark[];
  rules: Tuning;
  /** Times written beside work that was done. */
  work: readonly WorkDone[];
}

/**
 * What is to be done on a day: the one list that screens, calendars, paper and the server say.
 * @param items what asks for something, from {@link itemsOf}
 */
export function todayOf(
  items: readonly TodayItem[],
  { marks, rules, work }: TodayKnown,
  day: EpochDay,
): Agenda<TodayItem> {
  return agendaOf(items, marks, rules, workRates(work), day);
}
