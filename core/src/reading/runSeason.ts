import type { SeasonResult, SeasonStep } from '../contract';
import { greedySeason } from '../plan/seasonGreedy';
import { choiceOf, type SeasonChoice } from '../plan/season';
import { solveSeason, worthOfRoom, type RoomWorth } from '../plan/seasonSolver';
import { cutSeason, placeSeason, type PlacedSeason } from './placeSeason';
import { buildSeason, type BuiltSeason } from './planSeason';
import type { SeasonNursery } from './seasonNursery';
import { seasonReport } from './seasonReport';

/** How far a season is planned. */
export interface SeasonProgress {
  step: SeasonStep;
  /** How far the step is, 0–1. */
  share: number;
  /** The best so far, where it is new. */
  result?: SeasonResult;
}

/** Times the season is chosen anew with less room, where what a kind of place can hold its places cannot. */
const CUTS = 3;
/** Of the time, so much goes into the first choosing, whose bound counts. */
const FIRST = 0.6;

/** While choosing, what is better is reported no oftener than this, seconds. */
const REPORT_SECONDS = 3;

/**
 * Plans a season: weeks of every route, a choice at once, a better one with its bound, places last.
 * @param seconds for choosing, at most
 * @param now a clock, seconds
 * @param told is told of each step and of what is reached
 */
export async function runSeason(
  nursery: SeasonNursery,
  {
    seconds,
    now,
    newId,
    told,
  }: {
    seconds: number;
    now: () => number;
    newId: () => string;
    told: (progress: SeasonProgress) => void | Promise<void>;
  },
): Promise<SeasonResult> {
  const { lookup } = nursery;
  const building = buildSeason(nursery);
  let next = building.next();
  while (!next.done) {
    await told({ step: 'weeks', share: next.value });
    next = building.next();
  }
  const whole = next.value;
  const quick = greedySeason(whole.problem);
  let bound: number | null = null;
  let best: { choice: SeasonChoice; placed: PlacedSeason } | null = null;
  /** Puts a choice into places, and keeps it where it is better than the best so far. */
  const consider = (built: BuiltSeason, chosen: SeasonChoice): PlacedSeason => {
    const placed = placeSeason(built, chosen, lookup, newId);
    const choice = settle(whole, chosen, placed);
    if (best === null || choice.cost < best.choice.cost - 1e-9) best = { choice, placed };
    return placed;
  };
  const report = (dear: readonly RoomWorth[] = []) =>
    seasonReport(nursery, whole, best!.choice, best!.placed, { bound, dear });
  consider(whole, quick);
  await told({ step: 'choosing', share: 0, result: report() });
  let built = whole;
  for (let cut = 0; cut <= CUTS; cut++) {
    const time = cut === 0 ? seconds * FIRST : (seconds * (1 - FIRST)) / CUTS;
    const begun = now();
    let reported = begun;
    let cost = Infinity;
    const solved = await solveSeason(built.problem, cut === 0 ? quick : greedySeason(built.problem), {
      seconds: time,
      told: (of) => {
        const share = Math.min(1, (now() - begun) / time);
        // Who stops it has the best so far: what is better is put into places now and then.
        const isBetter = of.choice.cost < cost - 1e-9 && now() - reported > REPORT_SECONDS;
        if (isBetter) {
          if (cut === 0 && Number.isFinite(of.bound)) bound = of.bound;
          consider(built, of.choice);
          [cost, reported] = [of.choice.cost, now()];
        }
        const result = isBetter ? { result: report() } : {};
        // Nobody can be waited for while the solver runs.
        void Promise.resolve(told({ step: 'choosing', share, ...result })).catch(() => undefined);
        return true;
      },
    });
    // Only of the first, of all the room there is, does the bound hold for every plan.
    if (cut === 0 && Number.isFinite(solved.bound)) bound = solved.bound;
    await told({ step: 'placing', share: cut / (CUTS + 1) });
    const { left } = consider(built, solved.choice);
    if (left.length === 0) break;
    built = cutSeason(built, left);
  }
  await told({ step: 'replaying', share: 0 });
  return report(await worthOfRoom(whole.problem));
}

/** What a choice comes to when what found no place is not sown: its parts that did cost their share. */
function settle({ problem }: BuiltSeason, choice: SeasonChoice, { left }: PlacedSeason): SeasonChoice {
  if (left.length === 0) return choice;
  const lost = new Map(left.map(({ way, share }) => [way, share]));
  const ways = problem.ways.map((way, at) => {
    const stays = 1 - (lost.get(at) ?? 0);
    return { ...way, trees: Math.floor(way.trees * stays), cost: way.cost * stays };
  });
  return choiceOf({ ...problem, ways }, choice.ways);
}
