import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { sum, type Worked } from '../working/working';

export interface DryPlant {
  totalDryG: number;
  shootDryG: number;
  rootDryG: number;
  heightCm: number;
  diameterMm: number;
}

/**
 * Quality index of a seedling: total dry mass over sturdiness plus shoot-to-root ratio. Higher is stockier and
 * better rooted; compare plants of one kind and age only.
 * @throws Unfit when a measure is not above 0
 * @see Dickson, Leaf & Hosner 1960, Forestry Chronicle 36:10–13
 */
export function dicksonQualityIndex(plant: DryPlant): Worked<number> {
  const { totalDryG, shootDryG, rootDryG, heightCm, diameterMm } = plant;
  if (![totalDryG, shootDryG, rootDryG, heightCm, diameterMm].every((x) => x > 0 && Number.isFinite(x)))
    throw new Unfit(say`The quality index needs height, collar and dry masses, all above 0.`);
  const value = totalDryG / (heightCm / diameterMm + shootDryG / rootDryG);
  return {
    value,
    working: [
      {
        what: say`Quality index`,
        expression: sum`${totalDryG} ÷ (${heightCm} ÷ ${diameterMm} + ${shootDryG} ÷ ${rootDryG})`,
        result: value,
        inputs: [
          { name: say`dry mass`, value: totalDryG, unit: 'g', origin: 'record' },
          { name: 'height', value: heightCm, unit: 'cm', origin: 'record' },
          { name: 'collar', value: diameterMm, unit: 'mm', origin: 'record' },
        ],
        source: 'Dickson, Leaf & Hosner 1960',
      },
    ],
  };
}
