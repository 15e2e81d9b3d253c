import { addYears, dayOf, mondayOf, type EpochDay } from '../calendar/day';
import type { PlannedSowing, RaisingRoute } from '../contract';
import { feltWeather } from '../forecast/underCover';
import { formOf } from '../plan/orderLine';
import {
  pointOf,
  sowRoute,
  worthSowing,
  type RouteLot,
  type RoutePoint,
  type TreesWanted,
} from '../plan/routeSowing';
import { weeksOfSowing } from '../plan/sowingWindow';
import type { RoomTaken, SeasonProblem, SeasonWay, WorkTaken } from '../plan/season';
import { planSowing, staysOf, type Stay } from './board';
import type { Lookup } from './factsFrom';
import { freeOfKind, kindOfPlace, placeKinds, roomOfStage, type PlaceKind } from './placeKinds';
import { isThere, routeLot, routesOf, seedSleeps } from './routeLot';
import { seasonLimits, type SeasonLimits } from './seasonLimits';
import { SEASON_YEARS, staysPut, type SeasonLine, type SeasonNursery } from './seasonNursery';
import { seasonStands } from './seasonStands';
import { costTerms, sowingCost } from './sowingCost';

/** Why no new lot can serve a line. */
type NoWay = 'no route' | 'no week';

/** A season as a problem, and what its parts stand for. */
export interface BuiltSeason {
  problem: SeasonProblem;
  kinds: PlaceKind[];
  /** Trees of each line that what is kept of the plan will give. */
  keptTrees: number[];
  noWay: (NoWay | null)[];
  /** Best chance of each line in any week by any route that was weighed. */
  best: number[];
  ways: BuiltWay[];
  limits: SeasonLimits;
  /** Lots, as the problem's stocks list them. */
  stocks: string[];
  /** All that stands, and is planned and stays so. */
  stays: Stay[];
  kept: PlannedSowing[];
  /** Lots whose forecast failed. */
  failed: string[];
}

/** What a way is: the sowing as it would be planned, before it has its places. */
interface BuiltWay {
  sowing: PlannedSowing;
  lot: RouteLot;
  wanted: TreesWanted;
  point: RoutePoint;
}

/** Weeks of a route that are weighed against each other, and parts of a line that one lot may serve. */
const WEEKS_EACH = 6;
const SHARES = [1, 0.5, 0.25];
/** Of a line larger than its room, more finely: what others leave is then filled. */
const ROOM_SHARES = [1, 0.9, 0.8, 0.7, 0.6, 0.5, 0.4, 0.3, 0.2, 0.1];
/** Serving a part of a line that has no room to be whole saves so much less: rather one met whole than another a little less short. */
const PART_LOSS = 0.15;
/** More weeks than these are looked at every other one. */
const MANY_WEEKS = 60;
/** Lines of fewer trees are not parted. */
const PARTED_FROM = 80;
/** Every lot more costs so much work, whatever its size, hours; a rule of thumb. */
const LOT_HOURS = 0.5;
/** A sowing planned already is kept where another saves no more than this work, hours. */
const KEEP_HOURS = 2;
/** What is missing of the chance wanted costs so much more than what is lost by it: one would rather be sure. */
const UNSURE = 0.25;

/**
 * Reads a nursery into a season to be served: weeks of sowing by every route of each line, what stands, what is free. Yields how
 * far it is, 0–1.
 */
export function* buildSeason(nursery: SeasonNursery): Generator<number, BuiltSeason> {
  const { today, lookup, lines, planned, terms, weather } = nursery;
  const { kinds, kindOf } = placeKinds(lookup);
  const end = Math.min(
    addYears(today, SEASON_YEARS),
    Math.max(today + 7, ...lines.map(({ until }) => until + 1), ...planned.map(({ until }) => dayOf(until))),
  );
  const kept = planned.filter((sowing) => staysPut(sowing, today));
  const stands = seasonStands(nursery, end);
  const stays = [...stands.stays, ...kept.flatMap(staysOf)];
  const limits = seasonLimits(nursery);
  const costing = costTerms(nursery, terms.hourCost);
  // What stays takes its share of what there is only so much of.
  for (const sowing of kept) {
    if (!lookup.species.has(sowing.speciesId)) continue;
    const { paid } = sowingCost(sowing, lookup, costing).value;
    for (const { limit, amount } of limits.takes(sowing, paid)) limits.most[limit] -= amount;
  }
  const free = kinds.map((kind) => freeOfKind(kind, stays, lookup, today, end - today));
  const keptTrees = lines.map(({ id }) =>
    kept.reduce((sum, { lineId, wanted }) => sum + (lineId === id ? wanted.trees : 0), 0),
  );
  const felt = feltWeather(weather);
  const roomsFor = (sowing: PlannedSowing) => roomsOf(sowing, kindOf, kinds, lookup);
  /** Share of a sowing that has room beside what stands and stays. */
  const shareWithRoom = (rooms: readonly RoomTaken[]): number =>
    Math.min(
      ...rooms.map(({ kind, from, until, m2 }) => {
        const days = free[kind].subarray(Math.max(0, from - today), Math.max(0, until - today));
        return days.reduce((least, left) => Math.min(least, left), Infinity) / m2;
      }),
    );
  const ways: BuiltSeason['ways'] = [];
  const columns: SeasonWay[] = [];
  const noWay: BuiltSeason['noWay'] = [];
  const best = lines.map(() => 0);
  const keptWork = workByWeek(kept.flatMap(workOf));
  for (const [at, line] of lines.entries()) {
    const trees = Math.max(0, line.trees - keptTrees[at]);
    const wanted: TreesWanted = { ...line, chance: terms.chance };
    let hasRoute = false;
    const before = ways.length;
    for (const { route, lot, also } of routesFor(line, nursery, kinds)) {
      hasRoute = true;
      if (trees === 0) continue;
      const standsAs = planned.filter(
        (sowing) => !kept.includes(sowing) && sowing.lineId === line.id && sowing.route === route.name,
      );
      const run = ({ route: { id }, lot: of }: AbleRoute, on: EpochDay) => {
        const key = `${line.id} ${id} ${on}`;
        const sowing = nursery.runs?.get(key) ?? sowRoute(of, on, wanted, felt);
        nursery.runs?.set(key, sowing);
        return pointOf(sowing, wanted);
      };
      const species = lookup.species.get(line.speciesId)!;
      const from = route.start === 'treated seed' ? limits.readyFrom(species) : today;
      const points = weeksToTry(from, line.until, standsAs).map((on) => run({ route, lot }, on));
      const weighed = worthWeighing(points, route, terms.chance, standsAs, {
        sleeps: seedSleeps(species),
        latitudeDeg: weather.outlook.site.latitudeDeg,
      });
      const all = [{ route, lot, points: weighed }];
      for (const other of also)
        all.push({
          ...other,
          points: weighed.map(({ on }) => run(other, on)).filter(({ chance }) => chance > 0),
        });
      for (const { route, lot, point } of all.flatMap((of) => of.points.map((point) => ({ ...of, point })))) {
        best[at] = Math.max(best[at], point.chance);
        const planned = (of: number) => {
          const aim = { lineId: line.id, wanted, trees: of };
          return planSowing(
            `${at} ${route.id} ${point.on} ${of}`,
            route,
            point,
            aim,
            lookup.containers,
            today,
          );
        };
        const whole = planned(trees);
        const fits = shareWithRoom(roomsFor(whole));
        const partial = fits >= 1 ? 0 : PART_LOSS;
        for (const of of partsOf(trees, Math.min(fits, limits.shareOf(whole)))) {
          const sowing = planned(of);
          const rooms = roomsFor(sowing);
          if (rooms.some(({ m2 }) => !Number.isFinite(m2))) continue;
          const { value: cost } = sowingCost(sowing, lookup, costing);
          const same = standsAs.some(
            ({ stages, wanted: { trees: as } }) =>
              stages[0].from === sowing.stages[0].from &&
              as === of &&
              kindOf.get(stages.at(-1)!.placeId) === kindOf.get(sowing.stages.at(-1)!.placeId),
          );
          const late = 1 - point.chance + UNSURE * Math.max(0, terms.chance - point.chance);
          columns.push({
            line: at,
            trees: of,
            cost:
              Math.max(0, cost.total + (LOT_HOURS - (same ? KEEP_HOURS : 0)) * terms.hourCost) +
              (late + partial) * of * line.worth * line.weight,
            rooms,
            work: workOf(sowing),
            takes: limits.takes(sowing, cost.paid),
          });
          ways.push({ sowing, lot, wanted, point });
        }
      }
    }
    noWay.push(trees === 0 || ways.length > before ? null : hasRoute ? 'no week' : 'no route');
    yield (at + 1) / lines.length;
  }
  const problem: SeasonProblem = {
    from: today,
    free,
    hours:
      terms.hoursAWeek === null ? null : (week) => Math.max(0, terms.hoursAWeek! - (keptWork.get(week) ?? 0)),
    lines: lines.map(({ trees, worth, weight }, at) => ({
      trees: Math.max(0, trees - keptTrees[at]),
      loss: worth * weight,
      buy: terms.buyTimes === null ? null : worth * terms.buyTimes,
    })),
    ways: columns,
    stocks: stands.stocks,
    limits: limits.most,
    money: limits.money,
  };
  const { ids: stocks, failed } = stands;
  return { problem, kinds, keptTrees, noWay, best, ways, limits, stocks, stays, kept, failed };
}

/**
 * Parts of a line that one lot may serve, trees: some shares of it; and of what there is room, seed or cuttings for, where that is
 * less than the line.
 */
function partsOf(trees: number, most: number): Set<number> {
  const isParted = trees >= PARTED_FROM;
  const parts = new Set((isParted ? SHARES : [1]).map((share) => Math.ceil(trees * share)));
  if (most < 1)
    for (const share of isParted ? ROOM_SHARES : [1]) {
      // A little less than all of it: plants come whole.
      const some = Math.floor(0.98 * trees * most * share);
      if (some >= 1) parts.add(some);
    }
  return parts;
}

/** A route that can be followed in this yard. */
interface AbleRoute {
  route: RaisingRoute;
  lot: RouteLot;
}

/**
 * Routes of a line's species whose trees leave in its form; those that name what is gone are left out. A route that the nursery
 * did not write itself may end in other kinds of places too.
 */
function routesFor(
  line: SeasonLine,
  { lookup, routes: written, learnt }: SeasonNursery,
  kinds: readonly PlaceKind[],
): (AbleRoute & { also: AbleRoute[] })[] {
  const species = lookup.species.get(line.speciesId);
  if (!species) return [];
  const { routes, own } = routesOf(species, written, lookup, learnt);
  return routes.flatMap((route) => {
    if (!isThere(route.stages, lookup)) return [];
    const lot = routeLot(route, lookup, learnt);
    if (formOf(lot.stages[lot.stages.length - 1].home) !== line.form) return [];
    const also = own ? [] : elsewhere(route, kinds, lookup);
    return [
      { route, lot, also: also.map((other) => ({ route: other, lot: routeLot(other, lookup, learnt) })) },
    ];
  });
}

/** A suggested route that ends in each other kind of place that takes it: beds for beds, benches and standing ground for trays. */
function elsewhere(route: RaisingRoute, kinds: readonly PlaceKind[], lookup: Lookup): RaisingRoute[] {
  const last = route.stages[route.stages.length - 1];
  const inBed = last.containerTypeId === null;
  const like = kindOfPlace(lookup.places.get(last.placeId)!, lookup);
  return kinds.flatMap(({ places: [place] }): RaisingRoute[] => {
    const { kind } = place.place;
    const takes = inBed ? kind === 'bed' : kind === 'bench' || kind === 'ground';
    if (!takes || kindOfPlace(place, lookup) === like) return [];
    const stages = [...route.stages.slice(0, -1), { ...last, placeId: place.id }];
    return [{ ...route, id: `${route.id} ${place.id}`, stages }];
  });
}

/** Mondays from a day on which it may be sown, and those of what is planned: every second one where there are very many. */
function weeksToTry(from: EpochDay, until: EpochDay, standsAs: readonly PlannedSowing[]): EpochDay[] {
  const first = mondayOf(from + 6);
  const step = until - first > 7 * MANY_WEEKS ? 14 : 7;
  const days = new Set(standsAs.map(({ stages }) => dayOf(stages[0].from)).filter((on) => on >= from));
  for (let on = first; on <= until; on += step) days.add(on);
  return [...days].sort((a, b) => a - b);
}

/**
 * Weeks that are weighed against each other: some over the weeks that are sure enough, with the best; where none is, the best
 * alone. A week that is planned already is always weighed.
 */
function worthWeighing(
  points: readonly RoutePoint[],
  route: RaisingRoute,
  chance: number,
  standsAs: readonly PlannedSowing[],
  kind: { sleeps: boolean; latitudeDeg: number },
): RoutePoint[] {
  // Sown too late for its last stage to begin in time, it serves nobody.
  const whole = points.filter(({ begins }) => begins.length === route.stages.length);
  const worth = worthSowing(whole, route.start, kind);
  const { best } = weeksOfSowing(worth, chance);
  if (!best) return [];
  const sure = worth.filter((point) => point.chance >= chance - 1e-9);
  const some = new Set([best]);
  if (sure.length)
    for (let i = 0; i < WEEKS_EACH; i++)
      some.add(sure[Math.round((i * (sure.length - 1)) / (WEEKS_EACH - 1))]);
  for (const { stages } of standsAs) {
    const planned = whole.find(({ on }) => on === dayOf(stages[0].from));
    if (planned) some.add(planned);
  }
  return [...some].sort((a, b) => a.on - b.on);
}

const roomsOf = (
  sowing: PlannedSowing,
  kindOf: ReadonlyMap<string, number>,
  kinds: readonly PlaceKind[],
  lookup: Lookup,
) =>
  staysOf(sowing).map(({ from, until }, i) => {
    const kind = kindOf.get(sowing.stages[i].placeId)!;
    return { kind, from, until, m2: roomOfStage(sowing.stages[i], kinds[kind], lookup) };
  });

/** Work of a planned sowing, in the week each stage begins. */
export const workOf = ({ stages }: PlannedSowing): WorkTaken[] =>
  stages.map(({ from, plants, hoursPer100 }) => ({
    week: mondayOf(dayOf(from)),
    hours: (plants * hoursPer100) / 100,
  }));

function workByWeek(work: readonly WorkTaken[]): ReadonlyMap<EpochDay, number> {
  const weeks = new Map<EpochDay, number>();
  for (const { week, hours } of work) weeks.set(week, (weeks.get(week) ?? 0) + hours);
  return weeks;
}
