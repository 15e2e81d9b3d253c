import { autumnStart, growthStop, nextWinter } from '../calendar/season';
import type { EpochDay } from '../calendar/day';
import { betaMean } from '../chance/beta';
import { betaQuantile, jeffreys } from '../chance/betaCdf';
import { SURVIVAL_LEVEL } from './survivalGroups';

/** Trees of a planting that live, as its last walk lets it be known. */
export interface LivingNow {
  /** Trees planted that the walk was about, and those of them it looked at. */
  trees: number;
  seen: number;
  seenAlive: number;
  /** Living trees: counted where every one was looked at, else the middle and where it lies nine times in ten. */
  alive: number;
  lower: number;
  upper: number;
}

/** Living trees of so many, by what a walk found of those it looked at; null where it looked at none. */
export function livingNow(trees: number, { alive, dead }: { alive: number; dead: number }): LivingNow | null {
  const seen = alive + dead;
  if (seen === 0) return null;
  const unseen = Math.max(0, trees - seen);
  const share = jeffreys(alive, seen);
  const of = (p: number) => Math.round(alive + unseen * betaQuantile(p, share));
  return {
    trees: Math.max(trees, seen),
    seen,
    seenAlive: alive,
    alive: Math.round(alive + unseen * betaMean(share)),
    lower: unseen ? of((1 - SURVIVAL_LEVEL) / 2) : alive,
    upper: unseen ? of((1 + SURVIVAL_LEVEL) / 2) : alive,
  };
}

/** Trees are planted for so long from the start of autumn on, days; and replacing is still arranged so late in it. */
const PLANTING_DAYS = 150;
const ARRANGED_DAYS = 100;

/** When dead trees can be replaced: in the planting season under way while there is time, else in the next one. */
export function nextPlanting(latitudeDeg: number, day: EpochDay): { on: EpochDay; until: EpochDay } {
  const begun = autumnStart(latitudeDeg, day);
  if (day - begun <= ARRANGED_DAYS) return { on: day, until: begun + PLANTING_DAYS };
  const next = nextWinter(latitudeDeg, day);
  return { on: next, until: next + PLANTING_DAYS };
}

/** Autumns in which a planting is walked: a rule of thumb. Afterwards a tree that stands mostly goes on. */
const AUTUMNS = 3;
/** Trees planted so shortly before growth stops have not lived through a summer, days. */
const SUMMER_DAYS = 60;
/** A walk so long before it is due will do, days. */
const EARLY_DAYS = 45;

/**
 * When a planting is to be walked next: in each of its first three autumns, when what died in summer shows and leaves still hang.
 * @param walkedOn days of its walks, in any order
 * @returns null once it was walked in its third autumn, or that is long past
 */
export function walkDue(
  plantedOn: EpochDay,
  walkedOn: readonly EpochDay[],
  latitudeDeg: number,
  day: EpochDay,
): { due: EpochDay; autumn: number } | null {
  const first = growthStop(latitudeDeg, plantedOn + SUMMER_DAYS + 366);
  for (let autumn = 1; autumn <= AUTUMNS; autumn++) {
    const due = growthStop(latitudeDeg, first + (autumn - 1) * 366 + 10);
    const next = growthStop(latitudeDeg, due + 380);
    const isWalked = walkedOn.some((on) => on >= due - EARLY_DAYS && on < next - EARLY_DAYS);
    // An autumn gone by is past mending; the next one counts.
    if (!isWalked && day < next - EARLY_DAYS) return { due, autumn };
  }
  return null;
}
