import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { sum, type Worked } from '../working/working';

/**
 * Whole trees an area holds at a density.
 * @param areaM2 inside area, > 0
 * @param densityPerM2 plants per m², > 0
 */
export function treesHeld(areaM2: number, densityPerM2: number): Worked<number> {
  if (!(areaM2 > 0 && densityPerM2 > 0)) throw new Unfit(say`Area and density must both be above 0.`);
  const value = Math.floor(areaM2 * densityPerM2 + 1e-9);
  return {
    value,
    working: [
      { what: say`Trees held`, expression: `floor(${sum`${areaM2} × ${densityPerM2}`})`, result: value },
    ],
  };
}
