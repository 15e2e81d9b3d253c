import type { EpochDay } from '../calendar/day';
import { homeAt, type HomeSpell } from '../home/home';
import type { LotFacts } from './lotFacts';

/** A lot's homes in turn, from sowing. */
export function homesOf(facts: Pick<LotFacts, 'sownOn' | 'home' | 'homes'>): HomeSpell[] {
  return facts.homes?.length ? facts.homes : [{ from: facts.sownOn, home: facts.home }];
}

/**
 * A lot as it was known on a day: moves after it are not, save one that is only supposed.
 * @param move a shift that might be made; made the day after at the earliest
 */
export function factsAt(facts: LotFacts, day: EpochDay, move: HomeSpell | null = null): LotFacts {
  const known = homesOf(facts).filter((spell, i) => i === 0 || spell.from <= day);
  const homes = move ? [...known, { ...move, from: Math.max(move.from, day + 1) }] : known;
  return { ...facts, homes, home: homeAt(known, day) };
}
