import { say } from '@kauri/core';
import type { ShareComparison } from '@kauri/core';
import { several, surely } from '../../../words/numbers';

/** The verdict on two treatments in plain words. A is the one with the higher share so far. */
export function armVerdict(
  a: string,
  b: string,
  { chanceABetter, difference, verdict, moreTrays }: ShareComparison,
  trays = 1,
): { headline: string; detail: string } {
  const points = (share: number) => Math.round(share * 100);
  const band = say`The difference lies between ${points(difference.p5)} and ${points(difference.p95)} of a hundred seeds, nine times in ten.`;
  const sown = trays <= 1 ? say`One tray or patch of each: ` : '';
  const more =
    moreTrays === null
      ? say`No number of trays in reach would settle it.`
      : moreTrays > 0
        ? say`${sown}${several(moreTrays, 'tray')} more of each would likely settle it, more seed in the same tray far less.`
        : '';
  const chance = say`The chance that “${a}” is the better: ${surely(chanceABetter)}.`;
  switch (verdict) {
    case 'A':
      return {
        headline: say`“${a}” does better than “${b}”: ${points(difference.mean)} more of a hundred come up`,
        detail: `${chance} ${band}`,
      };
    case 'B':
      return {
        headline: say`“${b}” does better than “${a}”: ${points(-difference.mean)} more of a hundred come up`,
        detail: `${chance} ${band}`,
      };
    case 'no real difference':
      return { headline: say`“${a}” and “${b}” do alike`, detail: band };
    case 'leans to A':
    case 'leans to B':
      return {
        headline: say`“${verdict === 'leans to A' ? a : b}” looks better than “${verdict === 'leans to A' ? b : a}”, but it may be luck`,
        detail: `${chance} ${band} ${more}`,
      };
    case 'no telling yet':
      return { headline: say`No telling yet between “${a}” and “${b}”`, detail: `${chance} ${band} ${more}` };
  }
}
