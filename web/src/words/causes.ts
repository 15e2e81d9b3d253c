import { inWords } from '@kauri/core';
import type { Account, OutCause } from '@kauri/core';

const words: Record<OutCause, string> = inWords({
  'not-emerged': 'did not come up',
  died: 'died, cause not known',
  drought: 'drought',
  heat: 'heat',
  rot: 'rot',
  browsed: 'browsed',
  rodents: 'eaten by rodents',
  frost: 'frost',
  broken: 'broken',
  culled: 'culled',
  sampled: 'pulled to look at roots',
  given: 'given away',
  sold: 'sold',
  lost: 'lost or stolen',
  'pricked-out': 'pricked out into cells',
  split: 'set apart as a lot of its own',
});

/** How a seed or tree went out, in a grower's words. */
export function causeWords(cause: OutCause): string {
  return words[cause];
}

type Inside = Exclude<Account, `out:${OutCause}`>;
const insideWords: Record<Inside, string> = inWords({
  supply: 'from outside',
  seed: 'seed in hand',
  sown: 'in the ground',
  standing: 'standing',
  lifted: 'lifted',
  sent: 'sent out',
  planted: 'planted',
});

/** An account of the ledger in words. */
export function accountWords(account: Account): string {
  if (account.startsWith('out:')) return causeWords(account.slice(4) as OutCause);
  return insideWords[account as Inside];
}
