import { percent, say } from '@kauri/core';

export { count, odds, percent, several } from '@kauri/core';

/** A chance that is never said to be whole. */
export function surely(chance: number): string {
  return chance > 0.995 ? say`over 99\u00a0%` : chance < 0.005 ? say`under 1\u00a0%` : percent(chance);
}
