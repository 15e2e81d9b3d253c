import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import type { Spread } from '../chance/spread';
import { partsOf, type EpochDay } from '../calendar/day';
import type { CuttingKind } from '../species/startValues';
import { normalQuantile } from '../chance/normal';
import { bandOf, type Band } from '../chance/quantile';
import { shareStep, type PooledShare } from '../chance/pooledShare';
import { seedsToSow } from '../sowing/seedsToSow';
import { dailyOn, type Warmth } from '../weather/sums';
import { sum, type Worked } from '../working/working';

/** How a cutting is made. At least one node in the medium and one out of it. */
export interface CuttingCut {
  nodes: number;
  internodeMm: number;
}

/**
 * Length of a cutting and of what goes into the medium, mm.
 * @throws Unfit with a sentence for fewer than two nodes
 */
export function cuttingLength({ nodes, internodeMm }: CuttingCut): { lengthMm: number; inMediumMm: number } {
  if (!(Number.isInteger(nodes) && nodes >= 2))
    throw new Unfit(say`A cutting needs two nodes at least: one in the medium and one out of it.`);
  if (!(internodeMm > 0)) throw new Unfit(say`The distance between nodes is above 0 mm.`);
  const nodesIn = Math.max(1, Math.floor(nodes / 2));
  // A finger's breadth below the lowest node and above the highest.
  return { lengthMm: (nodes - 1) * internodeMm + 20, inMediumMm: 10 + (nodesIn - 0.5) * internodeMm };
}

export interface StockPlants {
  plants: number;
  /** Seasons since planting at the cut. */
  ageSeasons: number;
  /** Cuttings a full-grown plant gives at one cut. */
  yieldPerPlant: number;
  /** Seasons in a row it has been cut already. */
  cutsInARow: number;
  /** Share of plants left uncut this year, to rest. */
  restShare: number;
}

/** What is asked about before cuttings are written down; nothing is refused. */
export type CuttingDoubt =
  { why: 'more than it gives'; gives: number } | { why: 'out of season'; kind: CuttingKind };

/** Months of the north in which each kind of cutting is usually taken; half a year on in the south. Usual practice. */
const cuttingMonths: Readonly<Record<CuttingKind, readonly number[]>> = {
  hard: [11, 12, 1, 2, 3],
  'semi-ripe': [7, 8, 9, 10],
  soft: [4, 5, 6, 7],
  root: [11, 12, 1, 2, 3],
};

/**
 * Whether so many cuttings of a kind are unusual for a stock bed and a day. Where there is no winter to part the year
 * (within 23.5° of the equator) no season is asked about.
 * @param left cuttings the bed has yet to give since the last autumn
 */
export function cuttingDoubts(
  kind: CuttingKind,
  cuttings: number,
  left: number,
  on: EpochDay,
  latitudeDeg: number,
): CuttingDoubt[] {
  const doubts: CuttingDoubt[] = [];
  if (cuttings > left) doubts.push({ why: 'more than it gives', gives: Math.max(0, left) });
  const month = partsOf(on).month;
  const northern = latitudeDeg >= 0 ? month : ((month + 5) % 12) + 1;
  if (Math.abs(latitudeDeg) > 23.5 && !cuttingMonths[kind].includes(northern))
    doubts.push({ why: 'out of season', kind });
  return doubts;
}

/** Seasons until a stock plant gives its full yield. */
const FULL_AGE = 4;
/** Yield lost with each season cut without a rest, down to half. */
const TIRED = 0.08;

/**
 * Cuttings a stock bed gives at one cut: grows to full yield over four seasons, tires by a twelfth with each
 * season cut without rest, and rests a share of its plants. Rules of thumb.
 * @throws Unfit with a sentence for counts or shares that make no sense
 */
export function stockYield(stock: StockPlants): Worked<number> {
  const { plants, ageSeasons, yieldPerPlant, cutsInARow, restShare } = stock;
  if (!(Number.isInteger(plants) && plants >= 1)) throw new Unfit(say`A stock bed has at least one plant.`);
  if (!(yieldPerPlant > 0 && yieldPerPlant <= 500))
    throw new Unfit(say`Cuttings a plant: a number above 0, at most 500.`);
  if (!(restShare >= 0 && restShare < 1)) throw new Unfit(say`The share at rest lies from 0 to under 100 %.`);
  const age = Math.min(1, Math.max(0, ageSeasons) / FULL_AGE);
  const vigour = Math.max(0.5, 1 - TIRED * Math.max(0, cutsInARow));
  const value = Math.floor(plants * (1 - restShare) * yieldPerPlant * age * vigour);
  return {
    value,
    working: [
      {
        what: say`Share of full yield at this age`,
        expression: sum`min(1, ${Math.max(0, ageSeasons)} ÷ ${FULL_AGE})`,
        result: age,
        inputs: [{ name: say`seasons to full yield`, value: FULL_AGE, origin: 'starting' }],
      },
      {
        what: say`Left after cutting without a rest`,
        expression: sum`max(0.5, 1 − ${TIRED} × ${Math.max(0, cutsInARow)})`,
        result: vigour,
        inputs: [{ name: say`lost a season`, value: TIRED, origin: 'starting' }],
      },
      {
        what: say`Cuttings it gives`,
        expression: sum`floor(${plants} × (1 − ${restShare}) × ${yieldPerPlant} × ${age} × ${vigour})`,
        result: value,
        unit: 'cuttings',
        inputs: [{ name: say`cuttings a full-grown plant`, value: yieldPerPlant, origin: 'record' }],
      },
    ],
  };
}

export interface CuttingAsk {
  target: number;
  probability: number;
  strike: PooledShare;
  establishment: PooledShare;
  /** Cuttings the stock gives at its next cut. */
  held: number;
  /** Cuttings one plant of the stock gives, and plants a metre of stock bed. */
  perPlant: number;
  plantsPerM: number;
}

export interface CuttingPlan {
  cuttings: number;
  short: number;
  /** Stock plants and metres of stock bed that would give them. */
  stockPlants: number;
  stockM: number;
}

/** Cuttings for a target of young plants with a chance, and the stock that gives them. */
export function cuttingPlan(ask: CuttingAsk): Worked<CuttingPlan> {
  if (!(ask.perPlant > 0 && ask.plantsPerM > 0))
    throw new Unfit(say`Cuttings a plant and plants a metre are above 0.`);
  const { value: cuttings, working } = seedsToSow({
    target: ask.target,
    probability: ask.probability,
    stages: [ask.strike.next, ask.establishment.next],
    from: 'cuttings',
  });
  const stockPlants = Math.ceil(cuttings / ask.perPlant);
  return {
    value: {
      cuttings,
      short: Math.max(0, cuttings - ask.held),
      stockPlants,
      stockM: stockPlants / ask.plantsPerM,
    },
    working: [
      shareStep(say`Share that strikes`, ask.strike),
      shareStep(say`Share of those that live on`, ask.establishment),
      ...working.slice(2),
      {
        what: say`Metres of stock bed`,
        expression: sum`${stockPlants} ÷ ${ask.plantsPerM}`,
        result: stockPlants / ask.plantsPerM,
        unit: 'm',
      },
    ],
  };
}

/**
 * Day on which roots are likely out, over weather years and the species' spread, from warmth above 5 °C.
 * @param bottomHeatC added warmth at the base of cuttings kept on a warm bench, °C·d a day
 */
export function rootingForecast(madeOn: EpochDay, rootDd: Spread, warmth: Warmth, bottomHeatC = 0): Band {
  const quantiles = [0.1, 0.3, 0.5, 0.7, 0.9];
  const days: number[] = [];
  for (let year = 0; year < warmth.years.length; year++) {
    const end = warmth.asOf + warmth.years[year].length;
    for (const q of quantiles) {
      const needed = rootDd.median * Math.exp(rootDd.sdLog * normalQuantile(q));
      let sofar = 0;
      let day = madeOn;
      for (; day <= end; day++) {
        sofar += Math.max(bottomHeatC, dailyOn(warmth, warmth, year, day));
        if (sofar >= needed) break;
      }
      days.push(day > end ? Infinity : day);
    }
  }
  return bandOf(Float64Array.from(days));
}
