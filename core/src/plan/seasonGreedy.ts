import {
  choiceOf,
  dearness,
  SeasonRoom,
  type SeasonChoice,
  type SeasonDemand,
  type SeasonProblem,
} from './season';

/**
 * A season served at once: what stands goes where it saves most, then line after line takes the ways that save most and
 * still fit. Tried in several orders of the lines; then each line in turn gives up what it has and chooses anew, as long as
 * that helps.
 */
export function greedySeason(problem: SeasonProblem): SeasonChoice {
  const dear = problem.lines.map((line) => lackOf(problem, line));
  const byLine: number[][] = problem.lines.map(() => []);
  problem.ways.forEach(({ line }, i) => byLine[line].push(i));
  const { lines } = problem;
  const cheapest = dear.map((lack, line) =>
    Math.min(lack, ...byLine[line].map((way) => problem.ways[way].cost / problem.ways[way].trees)),
  );
  const all = lines.map((_, i) => i);
  const by = (value: (line: number) => number) => [...all].sort((a, b) => value(b) - value(a));
  const orders = [
    by((line) => dear[line] - cheapest[line]),
    by((line) => (dear[line] - cheapest[line]) * lines[line].trees),
    by((line) => -byLine[line].length),
  ];
  let best: SeasonChoice | null = null;
  for (const order of orders) {
    const choice = inOrder(problem, byLine, dear, cheapest, order);
    if (best === null || choice.cost < best.cost) best = choice;
  }
  return best!;
}

/** What a tree that is lacking costs. Where money sets a bound, buying in is not counted on. */
const lackOf = ({ money }: SeasonProblem, line: SeasonDemand): number =>
  money === null ? dearness(line) : line.loss;

/** Turns each line takes to choose anew. */
const TURNS = 3;

function inOrder(
  problem: SeasonProblem,
  byLine: readonly number[][],
  lacks: readonly number[],
  cheapest: readonly number[],
  order: readonly number[],
): SeasonChoice {
  const { lines, stocks, ways } = problem;
  const room = new SeasonRoom(problem);
  const taken = lines.map((): number[] => []);
  // What stands goes first to lines that would pay most to be served otherwise.
  const open = lines.map(({ trees }) => trees);
  const dear = [...order].sort((a, b) => cheapest[b] - cheapest[a]);
  const left = stocks.map(({ trees }) => trees);
  for (const line of dear)
    stocks.forEach((stock, i) => {
      if (!stock.lines.includes(line)) return;
      const count = Math.min(left[i], open[line]);
      left[i] -= count;
      open[line] -= count;
    });
  const serve = (line: number) => {
    let wanted = open[line];
    while (wanted > 0) {
      let best = -1;
      let most = 1e-9;
      for (const way of byLine[line]) {
        const { cost, trees } = ways[way];
        const saves = lacks[line] * Math.min(trees, wanted) - cost;
        if (saves > most && !taken[line].includes(way) && room.fits(ways[way])) [best, most] = [way, saves];
      }
      if (best < 0) return;
      taken[line].push(best);
      room.take(ways[best]);
      wanted -= ways[best].trees;
    }
  };
  const release = (line: number) => {
    for (const way of taken[line]) room.give(ways[way]);
    taken[line] = [];
  };
  for (const line of order) serve(line);
  let best = choiceOf(problem, taken.flat());
  for (let turn = 0; turn < TURNS; turn++) {
    const before = best.cost;
    for (const line of order) {
      const had = taken[line];
      release(line);
      serve(line);
      const choice = choiceOf(problem, taken.flat());
      if (choice.cost < best.cost - 1e-9) best = choice;
      else {
        release(line);
        taken[line] = had;
        for (const way of had) room.take(ways[way]);
      }
    }
    if (best.cost >= before - 1e-9) break;
  }
  return best;
}
