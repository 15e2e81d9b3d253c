import { dayOf, isoOf } from '../calendar/day';
import { bandOf } from '../chance/quantile';
import { seedFrom } from '../chance/random';
import type { PlannedSowing, ProposedLine, SeasonResult } from '../contract';
import { feltWeather } from '../forecast/underCover';
import { replaySeasons, type ReplayedSowing } from '../plan/replay';
import { sowRoute, type RouteLot, type TreesWanted } from '../plan/routeSowing';
import { roomBeside, type SeasonChoice } from '../plan/season';
import type { RoomWorth } from '../plan/seasonSolver';
import { type PlacedSeason } from './placeSeason';
import type { BuiltSeason } from './planSeason';
import { costTerms, sowingCost } from './sowingCost';
import type { SeasonNursery } from './seasonNursery';
import { isThere, routeLot } from './routeLot';

/** Simulated seasons that a plan is tried in. */
const SEASONS = 300;

/** What is known of how good a choice is. */
export interface ChoiceBound {
  bound: number | null;
  dear: readonly RoomWorth[];
}

/** A season told: how each line is served, why, with what risk, and what would free what is not. */
export function seasonReport(
  nursery: SeasonNursery,
  built: BuiltSeason,
  choice: SeasonChoice,
  placed: PlacedSeason,
  { bound, dear }: ChoiceBound,
): SeasonResult {
  const { lines, terms, lookup } = nursery;
  const { problem, kinds, stocks } = built;
  // Room that is left beside what found its places; what did not is as if it was not taken.
  const ways = [...new Set(placed.sowings.map(({ way }) => way))];
  const room = roomBeside(problem, ways);
  const sownFor = lines.map((_, line) =>
    placed.sowings.reduce(
      (sum, { sowing, way }) => sum + (problem.ways[way].line === line ? sowing.wanted.trees : 0),
      0,
    ),
  );
  const told = lines.map((line, at): Omit<ProposedLine, 'met'> => {
    const standing = choice.stock.flatMap((of, stock) => {
      const trees = of.get(at) ?? 0;
      return trees > 0 ? [{ lotId: stocks[stock], trees }] : [];
    });
    const stood = standing.reduce((sum, { trees }) => sum + trees, 0);
    const bought = choice.bought[at];
    const short = Math.max(0, line.trees - built.keptTrees[at] - stood - sownFor[at] - bought);
    const frees = short > 0 ? whatFrees(at, short, built, room) : null;
    const lacks = frees !== null && (frees.rooms.length || frees.hours.length || frees.things.length) > 0;
    const why = short === 0 ? null : (built.noWay[at] ?? (frees ? 'no room' : 'not worth it'));
    return {
      lineId: line.id,
      trees: line.trees,
      kept: built.keptTrees[at],
      standing,
      sown: sownFor[at],
      bought,
      short,
      best: built.best[at],
      why,
      frees: lacks ? frees : null,
    };
  });
  const replay = replayed(nursery, built, placed, told);
  // Parts of a sowing that found no place are not paid for.
  const costing = costTerms(nursery, terms.hourCost);
  // What is kept and for none of the lines earns nothing of theirs, and costs them nothing.
  const ours = new Set(lines.map(({ id }) => id));
  const kept = built.kept.filter(({ lineId }) => lineId !== null && ours.has(lineId));
  const costs = [...placed.sowings.map(({ sowing }) => sowing), ...kept].map(
    (sowing) => sowingCost(sowing, lookup, costing).value,
  );
  const buying = choice.bought.reduce((sum, trees, at) => sum + trees * (problem.lines[at].buy ?? 0), 0);
  const spent = costs.reduce((sum, { total }) => sum + total, buying);
  const returns = Float64Array.from({ length: SEASONS }, (_, season) =>
    lines.reduce(
      (sum, { trees, worth }, at) => sum + Math.min(trees, replay.had[at][season]) * worth,
      -spent,
    ),
  );
  return {
    lines: told.map((line, at) => ({ ...line, met: replay.met[at] })),
    sowings: placed.sowings.map(({ sowing, way }) => ({ sowing, next: nextBest(way, built, choice) })),
    cost: choice.cost,
    bound,
    dear: dear.map(({ kind, perM2, from, until }) => ({
      placeId: kinds[kind].places[0].id,
      perM2,
      from: isoOf(from),
      until: isoOf(until),
    })),
    returns: bandOf(returns),
    spent,
    paid: costs.reduce((sum, of) => sum + of.paid, buying),
    failed: built.failed,
    seasons: SEASONS,
    kept: built.kept.map(({ id }) => id),
  };
}

/**
 * The way of serving a line, of those worth it, that lacks least: how much more room, how many more hours and what else it would
 * take beside the rest; null where none is worth it.
 */
function whatFrees(
  line: number,
  short: number,
  { problem, kinds, ways, limits }: BuiltSeason,
  room: ReturnType<typeof roomBeside>,
): ProposedLine['frees'] {
  let least: { frees: NonNullable<ProposedLine['frees']>; lack: number } | null = null;
  problem.ways.forEach((way, at) => {
    const serves = Math.min(way.trees, short);
    if (way.line !== line || way.cost >= serves * problem.lines[line].loss) return;
    const rooms = way.rooms.flatMap(({ kind, from, until, m2 }) => {
      const more = m2 - Math.max(0, room.least({ kind, from, until }));
      return more > 1e-6
        ? [{ placeId: kinds[kind].places[0].id, from: isoOf(from), until: isoOf(until), m2: more }]
        : [];
    });
    const hours = way.work.flatMap(({ week, hours: wanted }) => {
      const more = wanted - Math.max(0, room.hoursLeft(week));
      return more > 1e-6 ? [{ week: isoOf(week), hours: more }] : [];
    });
    const things = way.takes.flatMap(({ limit, amount }) => {
      const more = amount - Math.max(0, room.leftOf(limit));
      if (more <= 1e-6) return [];
      const of = limits.what[limit];
      return [{ of: of.of, more: of.of === 'money' ? more : Math.ceil(more) }];
    });
    // By the tree, as a guide to which is the smallest thing to ask: an eighth of a square metre, fifteen of money and fifty
    // plants weigh like an hour.
    const lack =
      (rooms.reduce((sum, { m2 }) => sum + 8 * m2, 0) +
        hours.reduce((sum, work) => sum + work.hours, 0) +
        things.reduce((sum, { of, more }) => sum + more / (of === 'money' ? 15 : 50), 0)) /
      serves;
    if (least && lack >= least.lack) return;
    const { sowing } = ways[at];
    least = {
      lack,
      frees: { route: sowing.route, on: sowing.stages[0].from, trees: serves, rooms, hours, things },
    };
  });
  return (least as { frees: NonNullable<ProposedLine['frees']> } | null)?.frees ?? null;
}

/** The next best way of serving as much of the line, that fits beside the rest. */
function nextBest(
  way: number,
  { problem, ways }: BuiltSeason,
  choice: SeasonChoice,
): SeasonResult['sowings'][number]['next'] {
  const room = roomBeside(
    problem,
    choice.ways.filter((other) => other !== way),
  );
  const mine = problem.ways[way];
  let best: number | null = null;
  problem.ways.forEach((other, at) => {
    if (other.line !== mine.line || other.trees < mine.trees || choice.ways.includes(at)) return;
    if ((best === null || other.cost < problem.ways[best].cost) && room.fits(other)) best = at;
  });
  if (best === null) return null;
  const { sowing } = ways[best];
  return { route: sowing.route, on: sowing.stages[0].from, more: problem.ways[best].cost - mine.cost };
}

function replayed(
  nursery: SeasonNursery,
  built: BuiltSeason,
  placed: PlacedSeason,
  told: readonly Omit<ProposedLine, 'met'>[],
) {
  const { weather, lookup, lines, learnt } = nursery;
  const felt = feltWeather(weather);
  const runs = (lot: RouteLot, sowing: PlannedSowing, wanted: TreesWanted): Omit<ReplayedSowing, 'line'> => {
    const on = dayOf(sowing.stages[0].from);
    const last = sowing.stages[sowing.stages.length - 1];
    return {
      trees: last.plants * last.goesOn,
      inTime: sowRoute(lot, on, wanted, felt),
      late: sowRoute(lot, on + 7, wanted, felt),
    };
  };
  const sowings = new Map<number, ReplayedSowing>();
  for (const { sowing, way } of placed.sowings) {
    const { lot, wanted } = built.ways[way];
    const before = sowings.get(way);
    const last = sowing.stages[sowing.stages.length - 1];
    // Parts of one lot fare alike.
    if (before) before.trees += last.plants * last.goesOn;
    else sowings.set(way, { line: built.problem.ways[way].line, ...runs(lot, sowing, wanted) });
  }
  const kept = built.kept.flatMap((sowing): ReplayedSowing[] => {
    const line = lines.findIndex(({ id }) => id === sowing.lineId);
    if (line < 0 || !isThere(sowing.stages, lookup)) return [];
    const lot = routeLot({ ...sowing, name: sowing.route }, lookup, learnt);
    const { on, until } = sowing.wanted;
    return [{ line, ...runs(lot, sowing, { ...sowing.wanted, on: dayOf(on), until: dayOf(until) }) }];
  });
  // What is bought in is there for certain, as what stands is nine times in ten.
  const wanted = told.map(({ trees, standing, bought }) => ({
    trees,
    bought,
    standing: standing.reduce((sum, of) => sum + of.trees, 0),
  }));
  return replaySeasons(wanted, [...sowings.values(), ...kept], SEASONS, seedFrom('seasons'));
}
