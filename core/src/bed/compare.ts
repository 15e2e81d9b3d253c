import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { cellsPerM2, containerVolume, type ContainerValues } from '../container/container';
import { sum, type Worked } from '../working/working';
import type { MediumValues } from '../medium/medium';
import type { BedDesign } from './design';
import { bedCost } from './cost';
import { bedGeometry } from './geometry';
import type { PriceList } from './prices';

/** What a number of trees asks for in one way of raising them, for one season. */
export interface Asked {
  groundM2: number;
  mediumL: number;
  waterL: number;
  cost: number;
  hours: number;
}

/** Hours of care: starting values, for a nursery to replace by its own. */
const hours = {
  fillBedPerM3: 0.8,
  fillCellsPerM3: 2.5,
  bedPerM2Week: 2 / 60,
  cellsPerM2Week: 6 / 60,
  washPer100: 0.25,
  weeks: 28,
};

/** A season of water for leaves over an area, L; pots lose a third more from their sides and by what runs past. */
function water(areaM2: number, seasonEtMm: number, extra: number): number {
  return areaM2 * seasonEtMm * extra;
}

/** The same trees in a bed and in a container: ground, medium, water, money, hours. */
export function bedAgainstContainer(
  design: BedDesign,
  bedMedium: MediumValues,
  densityPerM2: number,
  container: ContainerValues,
  potMedium: MediumValues,
  prices: PriceList,
  seasonEtMm: number,
): Worked<{ trees: number; bed: Asked; container: Asked }> {
  const g = bedGeometry(design, bedMedium.settling).value;
  const trees = Math.floor(g.insideAreaM2 * densityPerM2 + 1e-9);
  if (!(trees > 0)) throw new Unfit(say`At this density the bed holds no tree to compare.`);
  const potM2 = trees / cellsPerM2(container);
  const potL = (trees * containerVolume(container).value) / 1000;
  const footprint = (g.outsideLengthMm * g.outsideWidthMm) / 1e6;
  const waterBed = water(g.insideAreaM2, seasonEtMm, 0.7);
  const waterPot = water(potM2, seasonEtMm, 1.35);
  const bed: Asked = {
    groundM2: footprint,
    mediumL: g.mediumL,
    waterL: waterBed,
    cost: bedCost(design, bedMedium, prices, trees).value.perSeason + (waterBed / 1000) * prices.waterPerM3,
    hours: (g.mediumL / 1000) * hours.fillBedPerM3 + g.insideAreaM2 * hours.bedPerM2Week * hours.weeks,
  };
  const uses = container.uses ?? 1;
  const trays = trees / container.cellsPerTray;
  const pots = (trays * (container.trayPrice ?? 0)) / uses;
  const potMix = (potL / 1000) * (potMedium.costPerM3 ?? 0);
  const asked: Asked = {
    groundM2: potM2,
    mediumL: potL,
    waterL: waterPot,
    cost: pots + potMix + (waterPot / 1000) * prices.waterPerM3,
    hours:
      (potL / 1000) * hours.fillCellsPerM3 +
      potM2 * hours.cellsPerM2Week * hours.weeks +
      (uses > 1 ? (trees / 100) * hours.washPer100 : 0),
  };
  return {
    value: { trees, bed, container: asked },
    working: [
      { what: say`Trees`, expression: `floor(${sum`${g.insideAreaM2} × ${densityPerM2}`})`, result: trees },
      {
        what: say`Ground in containers`,
        expression: sum`${trees} ÷ ${cellsPerM2(container)}`,
        result: potM2,
        unit: 'm²',
      },
      {
        what: say`Medium in containers`,
        expression: sum`${trees} × ${containerVolume(container).value} ÷ 1000`,
        result: potL,
        unit: 'L',
      },
      {
        what: say`Water over the season in the bed`,
        expression: sum`${g.insideAreaM2} × ${seasonEtMm} × 0.7`,
        result: waterBed,
        unit: 'L',
        inputs: [
          { name: say`evapotranspiration of a season`, value: seasonEtMm, unit: 'mm', origin: 'record' },
        ],
      },
      {
        what: say`Water over the season in containers`,
        expression: sum`${potM2} × ${seasonEtMm} × 1.35`,
        result: waterPot,
        unit: 'L',
      },
      {
        what: say`Containers and medium a season`,
        expression: sum`${pots} + ${potMix}`,
        result: pots + potMix,
        unit: prices.currency,
      },
    ],
  };
}
