import { dayOf, type EpochDay, type Keeps, type StoreSign, say, inWords } from '@kauri/core';
import { several } from '../../words/numbers';

/** How long ago a day was: “today”, “1 day”, “12 days”. */
export function daysBetweenWords(since: string, today: EpochDay): string {
  const days = today - dayOf(since);
  return days <= 0 ? say`today` : say`${several(days, 'day')} ago`;
}

/** What is seen where lifted trees lie, as a grower says it. */
export const signWords: Record<StoreSign, string> = inWords({
  'buds moving': 'Buds moving',
  mould: 'Mould',
  'dry roots': 'Dry roots',
  frozen: 'Frozen',
  warm: 'Warm to the hand',
});

/** What ends the keeping of lifted trees. */
export const keepsWords: Record<Keeps['by'], string> = inWords({
  buds: 'nine years in ten, by buds',
  store: 'longest in a store; a rule of thumb',
  packed: 'packed; a rule of thumb',
});
