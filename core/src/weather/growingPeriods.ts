import { addYears, type EpochDay } from '../calendar/day';
import { autumnStart, growthStop, heatStart } from '../calendar/season';
import type { SpeciesValues } from '../species/species';
import { budburstThermalTime } from './budburst';
import { dailyOn, type Warmth } from './sums';

/** A stretch of days in which shoots grow; the last day counts. */
export interface GrowingPeriod {
  from: EpochDay;
  to: EpochDay;
}

/** Growth ends where the mean of two weeks after midsummer falls below this, °C, however long the days still are. */
const TOO_COLD_C = 8;
const TWO_WEEKS = 14;
/** A climate whose coldest weeks are no colder than this has no winter that stops growth, °C. */
const NO_WINTER_C = 15;
/** Of trees of warm countries, which rest only where it is colder than this, °C. */
const WARM_TREES_REST_C = 11;

type Grower = Pick<SpeciesValues, 'budburst' | 'growthBaseC'>;

/** Whether a species goes on growing through the year at a place: its season is then the year since it came up. */
export function growsOn({ growthBaseC = 5 }: Pick<SpeciesValues, 'growthBaseC'>, warmth: Warmth): boolean {
  return warmth.coldestC >= (growthBaseC > 5 ? WARM_TREES_REST_C : NO_WINTER_C);
}

const known = new WeakMap<Warmth, Map<string, readonly (readonly GrowingPeriod[])[]>>();

/**
 * When a species grows at a place with winters, one list a weather year: from budburst to the day on which nights are
 * long (1 October north, 1 April south) or two weeks are colder than 8 °C, whichever comes first. Covers the past of the
 * outlook and its horizon.
 */
export function growingPeriods(
  species: Grower,
  latitudeDeg: number,
  warmth: Warmth,
): readonly (readonly GrowingPeriod[])[] {
  const { a, b, k } = species.budburst;
  const key = [latitudeDeg, a, b, k].join(' ');
  let kept = known.get(warmth);
  if (!kept) known.set(warmth, (kept = new Map()));
  let periods = kept.get(key);
  if (!periods) {
    periods = warmth.years.map((_, year) => periodsOf(species, latitudeDeg, warmth, year));
    kept.set(key, periods);
  }
  return periods;
}

function periodsOf(species: Grower, latitudeDeg: number, warmth: Warmth, year: number): GrowingPeriod[] {
  const end = warmth.asOf + warmth.years[year].length;
  const periods: GrowingPeriod[] = [];
  for (
    let autumn = addYears(autumnStart(latitudeDeg, warmth.pastStart), -1);
    autumn <= end;
    autumn = addYears(autumn, 1)
  ) {
    const from = budburstOf(species, latitudeDeg, warmth, year, autumn, end);
    const to = stopOf(latitudeDeg, warmth, year, autumn, end);
    if (from <= to) periods.push({ from, to });
  }
  return periods;
}

function budburstOf(
  species: Grower,
  latitudeDeg: number,
  warmth: Warmth,
  year: number,
  autumn: EpochDay,
  end: EpochDay,
): EpochDay {
  const heatFrom = heatStart(latitudeDeg, autumn);
  let chillDays = 0;
  let heat = 0;
  for (let day = autumn; day <= end; day++) {
    if (dailyOn(warmth.meanC, warmth, year, day) <= 5) chillDays++;
    if (day < heatFrom) continue;
    heat += dailyOn(warmth.above5, warmth, year, day);
    if (heat >= budburstThermalTime(species.budburst, chillDays)) return day;
  }
  return Infinity;
}

/** Last day of growth in the season after an autumn: long nights, or cold weeks after midsummer, stop it. */
function stopOf(
  latitudeDeg: number,
  warmth: Warmth,
  year: number,
  autumn: EpochDay,
  end: EpochDay,
): EpochDay {
  const byNight = growthStop(latitudeDeg, addYears(autumn, 1)) - 1;
  const midsummer = byNight - 100;
  let sum = 0;
  for (let day = midsummer - TWO_WEEKS; day <= Math.min(byNight, end); day++) {
    sum += dailyOn(warmth.meanC, warmth, year, day);
    if (day < midsummer) continue;
    sum -= dailyOn(warmth.meanC, warmth, year, day - TWO_WEEKS);
    if (sum / TWO_WEEKS < TOO_COLD_C) return day;
  }
  return byNight;
}

/** A season of one plant, counted from the one it came up in. */
export interface PlantSeason extends GrowingPeriod {
  /** 0 for the first. */
  season: number;
}

/** Growth that was stopped sooner than this after coming up goes on next spring as the same first season, days. */
export const STILL_FIRST_DAYS = 45;

/**
 * The seasons of a plant that came up on a day, ascending. The first runs from then to the end of growth; seed that comes
 * up shortly before it rests through the winter and goes on with its first season, as one more stretch of it, through the
 * next summer; what comes up in winter, under cover, grows from then.
 * @param until last day asked about
 */
export function seasonsOf(
  periods: readonly GrowingPeriod[] | null,
  up: EpochDay,
  until: EpochDay,
): PlantSeason[] {
  if (periods === null) {
    const seasons: PlantSeason[] = [];
    for (let season = 0, from = up; from <= until; season++) {
      const next = addYears(up, season + 1);
      seasons.push({ season, from, to: next - 1 });
      from = next;
    }
    return seasons;
  }
  const first = periods.findIndex((period) => period.to >= up + STILL_FIRST_DAYS);
  if (first < 0) return [{ season: 0, from: up, to: Infinity }];
  const before = periods[first - 1];
  const begun = first > 0 && before.to >= up ? [{ season: 0, from: up, to: before.to }] : [];
  return [
    ...begun,
    ...periods.slice(first).map(({ from, to }, season) => ({
      season,
      from: season === 0 && begun.length === 0 ? up : from,
      to,
    })),
  ];
}
