import type { PlannedSowing } from '../contract';
import type { SeasonChoice } from '../plan/season';
import { staysOf } from './board';
import type { Lookup } from './factsFrom';
import { roomFound } from './findPlaces';
import type { BuiltSeason } from './planSeason';

/** A choice put into places. */
export interface PlacedSeason {
  /** Sowings with their places, each with the way it is, or is a part of. */
  sowings: { sowing: PlannedSowing; way: number }[];
  /** Shares of ways that found no place, though their kind had room. */
  left: { way: number; share: number }[];
}

/** Puts the ways of a choice into places, the roomiest first. What finds no place is told, and never put where it would over-fill. */
export function placeSeason(
  built: BuiltSeason,
  choice: SeasonChoice,
  lookup: Lookup,
  newId: () => string,
): PlacedSeason {
  const { problem, ways, stays } = built;
  const most = (way: number) =>
    Math.max(...problem.ways[way].rooms.map(({ m2, from, until }) => m2 * (until - from)));
  const order = [...choice.ways].sort((a, b) => most(b) - most(a));
  const standing = [...stays];
  const placed: PlacedSeason = { sowings: [], left: [] };
  for (const way of order) {
    const { sowing } = ways[way];
    const { found, left } = roomFound(sowing, standing, lookup);
    for (const part of found) {
      const named = { ...part, id: newId() };
      placed.sowings.push({ sowing: named, way });
      standing.push(...staysOf(named));
    }
    if (left > 0) placed.left.push({ way, share: left / sowing.stages[0].plants });
  }
  return placed;
}

/** The same season with less room, where ways found no place though their kind had room for them. */
export function cutSeason(built: BuiltSeason, left: PlacedSeason['left']): BuiltSeason {
  const { problem } = built;
  const free = problem.free.map((days) => Float64Array.from(days));
  for (const { way, share } of left)
    for (const { kind, from, until, m2 } of problem.ways[way].rooms)
      for (
        let day = Math.max(from, problem.from);
        day < until && day - problem.from < free[kind].length;
        day++
      )
        free[kind][day - problem.from] = Math.max(0, free[kind][day - problem.from] - share * m2);
  return { ...built, problem: { ...problem, free } };
}
