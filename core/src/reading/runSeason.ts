import type { SeasonResult, SeasonStep } from '../contract';
import { greedySeason } from '../plan/seasonGreedy';
import { choiceOf, type SeasonChoice } from '../plan/season';
import { solveSeason, worthOfRoom } from '../plan/seasonSolver';
import {
  buildSeason,
  cutSeason,
  placeSeason,
  type BuiltSeason,
  type PlacedSeason,
  type SeasonNursery,
} from './planSeason';
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
  const put = (built: BuiltSeason, choice: SeasonChoice) => placeSeason(built, choice, lookup, newId);
  const quick = greedySeason(whole.problem);
  const first = put(whole, quick);
  const settled = settle(whole, quick, first);
  await told({
    step: 'choosing',
    share: 0,
    result: seasonReport(nursery, whole, settled, first, { bound: null, dear: [] }),
  });
  let built = whole;
  let bound: number | null = null;
  let best = { choice: settled, placed: first };
  for (let cut = 0; cut <= CUTS; cut++) {
    const time = cut === 0 ? seconds * FIRST : (seconds * (1 - FIRST)) / CUTS;
    const begun = now();
    const solved = await solveSeason(built.problem, cut === 0 ? quick : greedySeason(built.problem), {
      seconds: time,
      told: () => {
        // Nobody can be waited for while the solver runs.
        void Promise.resolve(told({ step: 'choosing', share: Math.min(1, (now() - begun) / time) })).catch(
          () => undefined,
        );
        return true;
      },
    });
    // Only of the first, of all the room there is, does the bound hold for every plan.
    if (cut === 0 && Number.isFinite(solved.bound)) bound = solved.bound;
    await told({ step: 'placing', share: cut / (CUTS + 1) });
    const placed = put(built, solved.choice);
    const choice = settle(whole, solved.choice, placed);
    if (choice.cost < best.choice.cost - 1e-9) best = { choice, placed };
    if (placed.left.length === 0) break;
    built = cutSeason(built, placed.left);
  }
  await told({ step: 'replaying', share: 0 });
  const dear = await worthOfRoom(whole.problem);
  return seasonReport(nursery, whole, best.choice, best.placed, { bound, dear });
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
