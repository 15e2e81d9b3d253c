import type { EpochDay } from '../calendar/day';
import { cellMlOf, type Home, type HomeSpell, type LotFacts } from './lotFacts';

/** A lot's homes in turn, from sowing. */
export function homesOf(facts: Pick<LotFacts, 'sownOn' | 'home' | 'homes'>): HomeSpell[] {
  return facts.homes?.length ? facts.homes : [{ from: facts.sownOn, home: facts.home }];
}

/** The home a lot stands in on a day; before it was sown, its first. */
export function homeAt(spells: readonly HomeSpell[], day: EpochDay): Home {
  return (spells.findLast((spell) => spell.from <= day) ?? spells[0]).home;
}

/** Medium a plant's roots have to themselves on a day, mL. */
export function cellMlAt(spells: readonly HomeSpell[], day: EpochDay): number {
  return cellMlOf(homeAt(spells, day));
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
