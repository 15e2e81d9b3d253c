import { growthStop, isSeedOfAutumn, nextWinter } from '../calendar/season';
import type { EpochDay } from '../calendar/day';
import { bandOf, quantileSorted, type Band } from '../chance/quantile';
import { gammaDraw, seededRandom, seedFrom, type Random } from '../chance/random';
import {
  daysAfterUp,
  daysOfHeights,
  plantCv,
  runAhead,
  sharesWithin,
  TRUE_LEAVES_DD,
} from '../forecast/lotAhead';
import type { LotFacts } from '../forecast/lotFacts';
import type { FeltWeather } from '../forecast/underCover';
import type { Home, HomeSpell } from '../home/home';
import { liftingWindow } from '../lifting/liftingWindow';
import { STILL_FIRST_DAYS } from '../weather/growingPeriods';
import { formOf, type SizeWanted } from './orderLine';
import type { StageShare } from './raisingLearnt';
import type { RouteStart, StageEnd } from './route';
import { shareBy, type SowingPoint, type SowingRuns } from './sowingWindow';

/** A route as a lot would follow it: what is sown or stuck, and the homes it goes through. */
export interface RouteLot {
  /** The lot as it would be, but for its day and homes. */
  facts: Omit<LotFacts, 'sownOn' | 'home' | 'homes'>;
  stages: readonly ({ home: Home; ends: StageEnd | null } & Pick<StageShare, 'goesOn' | 'counted'>)[];
}

/** Trees wanted of a size, from a day until another. */
export interface TreesWanted extends SizeWanted {
  on: EpochDay;
  until: EpochDay;
  /** Chance wanted of there being so many. */
  chance: number;
}

/** What a sowing on a day comes to. */
export interface RouteSowing extends SowingRuns, Omit<RoutePoint, 'ready' | 'past' | 'serves' | 'kept'> {
  /** Trees to size for each that its shares let expect at the end, run by run; 0 where a run is not in time. */
  yields: Float64Array;
  /** Runs of one weather year: they follow one another. */
  draws: number;
}

/** The same in a few figures. */
export interface RoutePoint extends SowingPoint {
  up: Band;
  /** Day each stage begins; the first on the day of sowing. */
  begins: EpochDay[];
  /** When bare-root trees are lifted, where the days wanted lie outside; null where they do not, or nothing rests. */
  outsideLifting: { from: EpochDay; until: EpochDay } | null;
  /**
   * Trees within the size for each that its shares let expect at the end, kept with the chance wanted: losses, size and being
   * in time together. Where it is not in time so often, kept nine times in ten of those in which it is; 0 where never.
   */
  serves: number;
  /** Trees within the size for each that its shares let expect at the end, over all runs: 0 in those that are not in time. */
  kept: Band;
}

/** Draws for each weather year: enough to tell nine chances in ten within a few. */
const DRAWS_EACH = 12;
const DRAWS_OF_MOVES = 6;

/**
 * A sowing on a day, run ahead through its homes, every weather year times draws. It is ready in a run once its plug holds (in
 * a bed: once it rests, or, where nothing rests, once it is tall enough) and half of its plants have the least size; it is
 * past once its plug is bound, or half of them have the greatest size. Moves are made on the middle day that ends a stage.
 */
export function sowRoute(
  { facts, stages }: RouteLot,
  on: EpochDay,
  wanted: TreesWanted,
  weather: FeltWeather,
): RouteSowing {
  const homes: HomeSpell[] = [{ from: on, home: stages[0].home }];
  const lot = (): LotFacts => ({
    ...facts,
    sownOn: on,
    home: homes[homes.length - 1].home,
    homes: [...homes],
  });
  for (const [i, { ends }] of stages.slice(0, -1).entries()) {
    const ended = endOf(lot(), ends!, homes[i].from, weather);
    // Never in time for anything: what comes after is not reached.
    if (!Number.isFinite(ended)) return never(on, homes);
    homes.push({ from: Math.max(homes[i].from + 1, ended), home: stages[i + 1].home });
  }
  const seen = lot();
  const { outlook, warmth } = weather.felt(seen);
  const view = Math.min(outlook.asOf + outlook.horizonDays, Math.max(outlook.asOf, wanted.until));
  const ahead = runAhead(seen, outlook, warmth, view, { draws: DRAWS_EACH, planned: true });
  const { runs, emergence, viewAt, heights } = ahead;
  const { latitudeDeg } = outlook.site;
  const [tall, over] = daysOfHeights(ahead, outlook, [wanted.fromCm, wanted.toCm]);
  const inBed = formOf(seen.home) === 'bare-root';
  const { from, until } = liftingWindow(seen.species, latitudeDeg, warmth, view).value;
  const rests = inBed && from < Infinity;
  const outsideLifting = rests && (wanted.until < from || wanted.on > until) ? { from, until } : null;
  const count = emergence.days.length;
  const last = homes[homes.length - 1].from;
  const ready = Float64Array.from({ length: count }, (_, run) => {
    const up = Math.max(last, emergence.days[run]);
    if (!Number.isFinite(up) || outsideLifting) return Infinity;
    const rooted = !inBed ? runs.ready[run] : rests ? restsAfter(latitudeDeg, up) : up;
    return Math.max(rooted, tall?.[run] ?? 0);
  });
  const bound = Float64Array.from({ length: count }, (_, run) =>
    Math.min(inBed ? Infinity : runs.bound[run], over?.[run] ?? Infinity),
  );
  const shares = sharesWithin(wanted, heights[viewAt], plantCv(seen));
  const random = seededRandom(seedFrom(`${facts.id} ${on}`));
  const yields = Float64Array.from({ length: count }, (_, run) => {
    const losses = lossesOf(stages, random);
    const isInTime = ready[run] <= wanted.until && bound[run] > wanted.on && ready[run] < bound[run];
    return isInTime ? losses * (shares.length === count ? shares[run] : shares[run % shares.length]) : 0;
  });
  return {
    on,
    up: ahead.upBand,
    begins: homes.map(({ from }) => from),
    outsideLifting,
    ready,
    bound,
    yields,
    draws: DRAWS_EACH,
    chance: count ? yields.filter((share) => share > 0).length / count : 0,
  };
}

/** Trees that go through all stages, for each that the shares let expect. */
function lossesOf(stages: RouteLot['stages'], random: Random): number {
  let left = 1;
  for (const { goesOn, counted } of stages) {
    if (goesOn >= 1) continue;
    const kept = gammaDraw(random, counted * goesOn, 1);
    left *= kept / (kept + gammaDraw(random, counted * (1 - goesOn), 1)) / goesOn;
  }
  return left;
}

/** What of its trees a sowing keeps with a chance. */
function keptWith(yields: Float64Array, chance: number): number {
  const sorted = Float64Array.from(yields).sort();
  const kept = sorted.length ? quantileSorted(sorted, 1 - chance) : 0;
  if (kept > 0) return kept;
  const inTime = sorted.filter((share) => share > 0);
  return inTime.length ? quantileSorted(inTime, 0.1) : 0;
}

/** A sowing in a few figures. */
export function pointOf(
  { on, up, begins, outsideLifting, chance, yields, ready, bound }: RouteSowing,
  wanted: TreesWanted,
): RoutePoint {
  return {
    on,
    up,
    begins,
    outsideLifting,
    chance,
    serves: keptWith(yields, wanted.chance),
    kept: bandOf(Float64Array.from(yields)),
    ready: shareBy(ready, wanted.until),
    past: shareBy(bound, wanted.on),
  };
}

/** Seed that is ready to grow and would lie longer than this before it comes up is better kept, days; a rule of thumb. */
const LIES_DAYS = 56;

/**
 * Sowings worth considering: seed that is ready, and cuttings, are not put out to lie in the cold. Where all would lie, all
 * are; fresh seed is sown to lie, and where it sleeps only while it is fresh and has a winter before it.
 */
export function worthSowing<P extends RoutePoint>(
  points: readonly P[],
  start: RouteStart,
  { sleeps, latitudeDeg }: { sleeps: boolean; latitudeDeg: number },
): readonly P[] {
  if (start === 'fresh seed')
    return sleeps ? points.filter(({ on }) => isSeedOfAutumn(latitudeDeg, on)) : points;
  const worth = points.filter(({ on, up }) => up.p50 - on <= LIES_DAYS);
  return worth.length ? worth : points;
}

/** A sowing that comes to nothing within the horizon. */
function never(on: EpochDay, homes: readonly HomeSpell[]): RouteSowing {
  const ready = new Float64Array([Infinity]);
  return {
    on,
    up: bandOf(ready),
    begins: homes.map(({ from }) => from),
    outsideLifting: null,
    ready,
    bound: ready,
    yields: new Float64Array(1),
    draws: 1,
    chance: 0,
  };
}

/**
 * The day a plant that came up on a day rests after its first season. Up shortly before growth stops it goes on with that
 * season in the next year, and is a year older when it is done.
 */
function restsAfter(latitudeDeg: number, up: EpochDay): EpochDay {
  const winter = nextWinter(latitudeDeg, up);
  return up + STILL_FIRST_DAYS <= growthStop(latitudeDeg, winter)
    ? winter
    : nextWinter(latitudeDeg, winter + 1);
}

/** The middle day on which a stage ends; Infinity for never within the horizon. */
function endOf(lot: LotFacts, ends: StageEnd, from: EpochDay, weather: FeltWeather): EpochDay {
  const { outlook, warmth } = weather.felt(lot);
  const ahead = runAhead(lot, outlook, warmth, outlook.asOf, { draws: DRAWS_OF_MOVES, planned: true });
  if (ends === 'plug holds') return Math.ceil(bandOf(ahead.runs.ready).p50);
  if (ends === 'true leaves') return Math.ceil(daysAfterUp(ahead, TRUE_LEAVES_DD).p50);
  const up = Math.max(from, ahead.upBand.p50);
  return Number.isFinite(up) ? restsAfter(outlook.site.latitudeDeg, up) : Infinity;
}
