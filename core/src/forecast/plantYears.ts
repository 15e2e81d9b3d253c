import type { EpochDay } from '../calendar/day';
import { firstAtLeast } from '../chance/quantile';
import {
  grownOver,
  warmInSeason,
  type Cut,
  type GrowthCurve,
  type Stretch,
  type WarmthCourse,
} from '../growth/stretches';
import type { Home } from '../home/home';
import { growingPeriods, growsOn, seasonsOf, type PlantSeason } from '../weather/growingPeriods';
import type { Warmth } from '../weather/sums';
import { homesOf } from './lotHomes';
import type { LotFacts } from './lotFacts';

/** How a plant of a lot goes through the seasons in one weather year. */
export interface PlantYear {
  up: EpochDay;
  seasons: readonly PlantSeason[];
  warmth: WarmthCourse;
}

/** The seasons of a lot that came up on a day, in one weather year; years that share a day of coming up are kept. */
export function plantYears(
  facts: LotFacts,
  latitudeDeg: number,
  warmth: Warmth,
): (year: number, up: EpochDay) => PlantYear {
  const periods = growsOn(facts.species, warmth) ? null : growingPeriods(facts.species, latitudeDeg, warmth);
  const kept = new Map<number, PlantYear>();
  const course = coursesOf(warmth);
  return (year, up) => {
    const key = up * 64 + year;
    let known = kept.get(key);
    if (!known) {
      const until = warmth.asOf + warmth.years[year].length;
      known = {
        up,
        seasons: seasonsOf(periods && periods[year], up, until),
        warmth: course[year],
      };
      kept.set(key, known);
    }
    return known;
  };
}

const courses = new WeakMap<Warmth, readonly WarmthCourse[]>();
function coursesOf(warmth: Warmth): readonly WarmthCourse[] {
  let known = courses.get(warmth);
  if (!known) courses.set(warmth, (known = warmth.years.map((_, year) => warmthCourse(warmth, year))));
  return known;
}

/** Warmth of one weather year from the start of the outlook's past. */
function warmthCourse({ sums, asOf, pastStart }: Warmth, year: number): WarmthCourse {
  const ahead = sums.years[year];
  const { past } = sums;
  const pastEnd = past[past.length - 1];
  return {
    by: (day) =>
      day <= asOf
        ? past[Math.max(0, day - pastStart + 1)]
        : pastEnd + ahead[Math.min(ahead.length - 1, day - asOf)],
    dayOf: (sum) =>
      sum <= pastEnd ? pastStart + firstAtLeast(past, sum) - 1 : asOf + firstAtLeast(ahead, sum - pastEnd),
  };
}

/**
 * The stretches a plant grows through, season by season and home by home.
 * @param scaleIn factor of a home on what a season adds
 * @param cuts height lost, ascending by day
 * @param fillOn root fill of an ordinary run on a day, where roots stand in cells: past full it slows shoots
 */
export function stretchesOf(
  { up, seasons, warmth }: PlantYear,
  facts: Pick<LotFacts, 'sownOn' | 'home' | 'homes'>,
  scaleIn: (home: Home) => number,
  cuts: readonly { day: EpochDay; cut: Cut }[] = [],
  fillOn: ((day: EpochDay) => number) | null = null,
): Stretch[] {
  const spells = homesOf(facts);
  const stretches: Stretch[] = [];
  for (let s = 0; s < seasons.length; s++) {
    const { season, from, to } = seasons[s];
    const origin = warmth.by(from - 1);
    const breaks = new Map<EpochDay, Cut | undefined>([[from, undefined]]);
    for (const spell of spells) if (spell.from > from && spell.from <= to) breaks.set(spell.from, undefined);
    // What is lost in winter is lost when growth begins again; after the last season there is no more growth to lose it in.
    const restUntil = seasons[s + 1]?.from ?? Infinity;
    for (const { day, cut } of cuts) if (day >= from && day <= to) breaks.set(day, cut);
    const days = [...breaks.keys()].sort((a, b) => a - b);
    days.forEach((day, i) => {
      const last = i + 1 < days.length ? days[i + 1] - 1 : to;
      const home = spells.findLast((spell) => spell.from <= day) ?? spells[0];
      stretches.push({
        season,
        from: day,
        to: last,
        warmFrom: warmth.by(day - 1) - origin,
        warmTo: warmth.by(last) - origin,
        scale:
          scaleIn(home.home) *
          (season > 0 && fillOn !== null && home.home.kind === 'container' ? slowedBy(fillOn(day - 1)) : 1),
        ...(breaks.get(day) && { cut: breaks.get(day) }),
      });
    });
    for (const { day, cut } of cuts)
      if (day > to && day < restUntil) {
        const warm = warmth.by(to) - origin;
        stretches.push({ season, from: day, to: day, warmFrom: warm, warmTo: warm, scale: 0, cut });
      }
  }
  return stretches.length ? stretches : [idle(up)];
}

/** Fill from which shoots slow, and where they are slowest; how much is left of their growth there. Rules of thumb. */
const SLOW = { from: 0.9, to: 1.2, left: 0.35 } as const;

/** Share of a season's growth left to a plant whose roots have filled their cell when it begins. */
function slowedBy(fill: number): number {
  const part = Math.max(0, Math.min(1, (fill - SLOW.from) / (SLOW.to - SLOW.from)));
  return 1 - part * (1 - SLOW.left);
}

const idle = (up: EpochDay): Stretch => ({ season: 0, from: up, to: up, warmFrom: 0, warmTo: 0, scale: 1 });

/** Where a plant stands on a day: growing days it has had, and how far each later season's luck is in its size. */
export interface Standpoint {
  grown: number;
  luck: readonly number[];
}

/** {@link Standpoint} of the middle curve on a day. */
export function standpointOn(
  stretches: readonly Stretch[],
  middle: GrowthCurve,
  day: EpochDay,
  warmthBy: (day: EpochDay) => number,
): Standpoint {
  let grown = 0;
  let size = middle.initial;
  const gained: number[] = [];
  for (const stretch of stretches) {
    if (stretch.from > day) break;
    const whole = day >= stretch.to;
    const before = size;
    size = grownOver(stretch, middle, size, whole ? undefined : warmInSeason(stretch, warmthBy, day));
    if (stretch.warmTo > stretch.warmFrom || !whole) grown += Math.min(day, stretch.to) - stretch.from + 1;
    if (stretch.season > 0)
      gained[stretch.season - 1] = (gained[stretch.season - 1] ?? 0) + Math.max(0, size - before);
  }
  return { grown, luck: gained.length ? Array.from(gained, (g) => (g ?? 0) / size) : [] };
}

/** A day along a plant's way. */
export interface WayMark extends Standpoint {
  day: EpochDay;
  /** The stretch that holds it, and the warmth of its season by the end of the day. */
  stretch: number;
  warm: number;
}

/**
 * Marks along a plant's days: the first day asked about, some days of growth apart, the end of each stretch.
 * @param everyDays growing days to the first mark between
 * @param widening how many times further each next one lies
 */
export function marksAlong(
  stretches: readonly Stretch[],
  middle: GrowthCurve,
  warmthBy: (day: EpochDay) => number,
  from: EpochDay,
  to: EpochDay,
  everyDays: number,
  widening = 1,
): WayMark[] {
  const marks: WayMark[] = [];
  let before = middle.initial;
  let grownBefore = 0;
  let apart = everyDays;
  const gained: number[] = [];
  for (let i = 0; i < stretches.length; i++) {
    const stretch = stretches[i];
    if (stretch.from > to) break;
    const grows = stretch.warmTo > stretch.warmFrom;
    const mark = (day: EpochDay) => {
      const warm = day < stretch.to ? warmInSeason(stretch, warmthBy, day) : stretch.warmTo;
      const size = grownOver(stretch, middle, before, warm);
      const luck = gained.map((g) => (g ?? 0) / size);
      if (stretch.season > 0) {
        const s = stretch.season - 1;
        while (luck.length <= s) luck.push(0);
        luck[s] += Math.max(0, size - before) / size;
      }
      const grown = grownBefore + (grows ? Math.min(day, stretch.to) - stretch.from + 1 : 0);
      marks.push({ day, stretch: i, warm, grown, luck });
    };
    const last = Math.min(stretch.to, to);
    if (last >= from) {
      let day = Math.max(from, stretch.from);
      if (marks.length === 0 || day > marks[marks.length - 1].day) mark(day);
      for (day += apart; grows && day < last; day += apart) {
        mark(day);
        apart *= widening;
      }
      if (last > marks[marks.length - 1].day) mark(last);
    }
    const after = grownOver(stretch, middle, before);
    if (stretch.season > 0) {
      while (gained.length < stretch.season) gained.push(0);
      gained[stretch.season - 1] += Math.max(0, after - before);
    }
    if (grows) grownBefore += stretch.to - stretch.from + 1;
    before = after;
  }
  // A winter asked about lies after the stretch before it.
  if (marks.length === 0 && stretches.length) {
    const end = stretches.findLastIndex((stretch) => stretch.from <= from);
    if (end >= 0)
      marks.push({
        day: from,
        stretch: end,
        warm: stretches[end].warmTo,
        grown: grownBefore,
        luck: gained.map((g) => g / before),
      });
  }
  return marks;
}
