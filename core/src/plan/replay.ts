import { seededRandom } from '../chance/random';
import type { RouteSowing } from './routeSowing';

/** A sowing of a plan, replayed: what it yields if sown in its week, and a week late. */
export interface ReplayedSowing {
  line: number;
  /** Trees its shares let expect at the end. */
  trees: number;
  inTime: Pick<RouteSowing, 'yields' | 'draws'>;
  late: Pick<RouteSowing, 'yields' | 'draws'>;
}

/** What came of a plan over simulated seasons. */
export interface Replay {
  /** Share of seasons in which each line had all its trees; 1 for one that what stands serves. */
  met: number[];
  /** Trees each line had, in each season. */
  had: Float64Array[];
}

/** Chance that people come to a sowing a week late; a rule of thumb. */
const LATE = 0.2;

/**
 * A plan through simulated seasons: the weather of one year for all its lots, each lot's own draws, losses, and weeks in
 * which people are late.
 * @param lines trees wanted of each line, those that standing lots give it, and those bought in
 */
export function replaySeasons(
  lines: readonly { trees: number; standing: number; bought?: number }[],
  sowings: readonly ReplayedSowing[],
  seasons: number,
  seed: number,
): Replay {
  const random = seededRandom(seed);
  // What stands was counted so that it is there nine times in ten.
  const had = lines.map(({ standing, bought = 0 }) =>
    Float64Array.from(
      { length: seasons },
      () => bought + (standing > 0 && random() < 0.1 ? Math.floor(0.9 * standing) : standing),
    ),
  );
  for (let season = 0; season < seasons; season++) {
    const year = random();
    for (const { line, trees, inTime, late } of sowings) {
      const { yields, draws } = random() < LATE ? late : inTime;
      const years = Math.max(1, Math.floor(yields.length / draws));
      const run = Math.floor(year * years) * draws + Math.floor(random() * draws);
      had[line][season] += Math.floor(trees * (yields[run] ?? 0));
    }
  }
  const met = lines.map(
    ({ trees }, line) => had[line].reduce((n, count) => n + (count >= trees ? 1 : 0), 0) / seasons,
  );
  return { met, had };
}
