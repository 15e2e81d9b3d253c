import type { EpochDay } from '../calendar/day';
import { serveInTurn } from './serving';

/** Room of a kind of place that something takes, from a day until the day before another, m². */
export interface RoomTaken {
  kind: number;
  from: EpochDay;
  until: EpochDay;
  m2: number;
}

/** Work that falls into the week of a Monday, hours. */
export interface WorkTaken {
  week: EpochDay;
  hours: number;
}

/** What something takes of a limit that holds over the whole season: money to spend, plants that the seed in store gives. */
export interface LimitTaken {
  limit: number;
  amount: number;
}

/** A new lot that would serve a line, or a part of it: by one route, sown in one week. It is sown whole or not at all. */
export interface SeasonWay {
  line: number;
  /** Trees of the line it would serve. */
  trees: number;
  /** What it costs, with what is lost where it is not in time, money. */
  cost: number;
  rooms: readonly RoomTaken[];
  work: readonly WorkTaken[];
  /** What it takes of the season's limits. */
  takes: readonly LimitTaken[];
}

/** Trees that stand, and the lines they could serve. */
export interface SeasonStock {
  trees: number;
  lines: readonly number[];
}

/** What is wanted of a season, and what there is to serve it with. */
export interface SeasonProblem {
  /** First day looked at. */
  from: EpochDay;
  /** Room free of each kind of place, day by day from the first, m². */
  free: readonly Float64Array[];
  /** Hours free in each week, by its Monday; null where people's hours set no bound. */
  hours: ((week: EpochDay) => number) | null;
  /** Trees wanted, and what one that is not had loses, money. */
  lines: readonly SeasonDemand[];
  ways: readonly SeasonWay[];
  stocks: readonly SeasonStock[];
  /** The most that may be taken of each thing there is only so much of. */
  limits: readonly number[];
  /** The limit that bought trees take their price of; null where money sets no bound. */
  money: number | null;
}

/** Trees wanted. */
export interface SeasonDemand {
  trees: number;
  /** What one that is not had loses, money. */
  loss: number;
  /** What one costs that is bought in; null where none can be. */
  buy: number | null;
}

/** How a season is served. */
export interface SeasonChoice {
  /** Ways that are taken, by their place in the list. */
  ways: number[];
  /** Trees of each stock that go to lines, by the line's place. */
  stock: Map<number, number>[];
  /** Trees of each line that are bought in. */
  bought: number[];
  /** Trees of each line that are not served. */
  short: number[];
  /** All that it costs and loses, money: the less the better. */
  cost: number;
}

/** What a tree that a line lacks costs at the least: bought in where that is cheaper than going without. */
export const dearness = ({ loss, buy }: SeasonDemand): number => (buy === null ? loss : Math.min(loss, buy));

/**
 * What some ways come to: what they leave open is served from what stands, dearest lines first; then bought in where that is
 * cheaper than going without, as far as the money goes, what saves most for it first; and the rest is short. Where money runs
 * out, another sharing of what stands could be a little better.
 */
export function choiceOf(problem: SeasonProblem, ways: readonly number[]): SeasonChoice {
  const { lines, stocks } = problem;
  const open = lines.map(({ trees }) => trees);
  let cost = 0;
  for (const way of ways) {
    open[problem.ways[way].line] -= problem.ways[way].trees;
    cost += problem.ways[way].cost;
  }
  const order = lines.map((_, i) => i).sort((a, b) => dearness(lines[b]) - dearness(lines[a]));
  const demands = order.map((line) => ({ line, count: Math.max(0, open[line]) }));
  const serves = stocks.map((stock) => new Set(stock.lines));
  const { short, from } = serveInTurn(
    stocks.map(({ trees }) => trees),
    demands,
    (stock, { line }: { line: number }) => serves[stock].has(line),
  );
  const shortOf: number[] = lines.map(() => 0);
  const stock: Map<number, number>[] = stocks.map(() => new Map());
  demands.forEach(({ line }, i) => {
    shortOf[line] = short[i];
    for (const [of, count] of from[i]) if (count > 0) stock[of].set(line, count);
  });
  const bought = boughtIn(problem, ways, shortOf);
  lines.forEach(({ loss, buy }, line) => {
    shortOf[line] -= bought[line];
    cost += shortOf[line] * loss + bought[line] * (buy ?? 0);
  });
  return { ways: [...ways].sort((a, b) => a - b), stock, bought, short: shortOf, cost };
}

/** Trees of each line that are bought in, of those it lacks. */
function boughtIn(
  { lines, ways: all, limits, money }: SeasonProblem,
  ways: readonly number[],
  lacks: readonly number[],
): number[] {
  const bought = lines.map(() => 0);
  const saved = ({ loss, buy }: SeasonDemand) => (buy === null ? 0 : loss - buy);
  let left =
    money === null
      ? Infinity
      : limits[money] - ways.reduce((sum, way) => sum + takenOf(all[way].takes, money), 0);
  const order = lines
    .map((_, i) => i)
    .filter((line) => lacks[line] > 0 && saved(lines[line]) > 0)
    .sort((a, b) => saved(lines[b]) / lines[b].buy! - saved(lines[a]) / lines[a].buy!);
  for (const line of order) {
    const price = lines[line].buy!;
    // Trees come whole.
    const may = price > 0 ? Math.max(0, Math.floor(left / price + SLACK)) : Infinity;
    bought[line] = Math.min(lacks[line], may);
    left -= bought[line] * price;
  }
  return bought;
}

const takenOf = (takes: readonly LimitTaken[], limit: number): number =>
  takes.reduce((sum, of) => sum + (of.limit === limit ? of.amount : 0), 0);

/** What a way takes. */
type Takes = Pick<SeasonWay, 'rooms' | 'work' | 'takes'>;

/** What is free while ways are taken and given back. */
export class SeasonRoom {
  private readonly free: Float64Array[];
  private readonly worked = new Map<EpochDay, number>();
  private readonly limits: number[];

  constructor(private readonly problem: SeasonProblem) {
    this.free = problem.free.map((days) => Float64Array.from(days));
    this.limits = [...problem.limits];
  }

  /** Most room of a kind that something may take on all of some days, m². */
  least({ kind, from, until }: Omit<RoomTaken, 'm2'>): number {
    const days = this.free[kind];
    let least = Infinity;
    for (
      let at = Math.max(0, from - this.problem.from);
      at < until - this.problem.from && at < days.length;
      at++
    )
      if (days[at] < least) least = days[at];
    return least;
  }

  /** Hours still free in a week. */
  hoursLeft(week: EpochDay): number {
    return this.problem.hours ? this.problem.hours(week) - (this.worked.get(week) ?? 0) : Infinity;
  }

  /** What is left of a limit. */
  leftOf(limit: number): number {
    return this.limits[limit];
  }

  fits({ rooms, work, takes }: Takes): boolean {
    return (
      rooms.every((room) => this.least(room) >= room.m2 - SLACK) &&
      work.every(({ week, hours }) => this.hoursLeft(week) >= hours - SLACK) &&
      takes.every(({ limit, amount }) => this.limits[limit] >= amount - SLACK)
    );
  }

  take(way: Takes): void {
    this.add(way, 1);
  }

  give(way: Takes): void {
    this.add(way, -1);
  }

  private add({ rooms, work, takes }: Takes, sign: number): void {
    for (const { kind, from, until, m2 } of rooms) {
      const days = this.free[kind];
      const first = Math.max(0, from - this.problem.from);
      for (let at = first; at < until - this.problem.from && at < days.length; at++) days[at] -= sign * m2;
    }
    for (const { week, hours } of work) this.worked.set(week, (this.worked.get(week) ?? 0) + sign * hours);
    for (const { limit, amount } of takes) this.limits[limit] -= sign * amount;
  }
}

/** Room and hours are figures with rounding in them, m² and hours. */
const SLACK = 1e-6;

/** Room with some ways taken. */
export function roomBeside(problem: SeasonProblem, ways: readonly number[]): SeasonRoom {
  const room = new SeasonRoom(problem);
  for (const way of ways) room.take(problem.ways[way]);
  return room;
}

/** Whether some ways can be taken together. */
export function isPossible(problem: SeasonProblem, ways: readonly number[]): boolean {
  const room = new SeasonRoom(problem);
  return ways.every((way) => {
    const of = problem.ways[way];
    if (!room.fits(of)) return false;
    room.take(of);
    return true;
  });
}
