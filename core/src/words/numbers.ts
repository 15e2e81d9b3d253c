import { decimals, nounFor, say } from '../speech/say';
import { groupThousands } from '../units/units';

/** A whole number with its thousands set apart. */
export function count(value: number): string {
  return groupThousands(String(Math.round(value)));
}

export function percent(share: number, digits = 0): string {
  return `${decimals((share * 100).toFixed(digits))}\u00a0%`;
}

/** A chance that is never said to be whole. */
export function surely(chance: number): string {
  return chance > 0.995 ? say`over 99\u00a0%` : chance < 0.005 ? say`under 1\u00a0%` : percent(chance);
}

/** "1 tree", "3 trees". */
export function several(value: number, one: string, many = `${one}s`): string {
  return `${count(value)} ${nounFor(value, one, many)}`;
}

/** A chance as a grower says it, before "forecasts": "1 of 10", "9 of 10". */
export function odds(chance: number): string {
  if (chance < 0.05) return say`fewer than 1 of 20`;
  if (chance > 0.95) return say`nearly all`;
  return say`${Math.max(1, Math.round(chance * 10))} of 10`;
}
