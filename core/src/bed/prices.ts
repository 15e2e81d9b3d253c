import type { FootKind, TimberClass } from './design';

/** What things cost a nursery, in its own money; edited by the nursery. */
export interface PriceList {
  schema: 1;
  /** A sign such as £, € or $. */
  currency: string;
  timberPerM3: Record<TimberClass, number>;
  /** Lengths boards are sold in, mm. */
  boardLengthsMm: number[];
  kerfMm: number;
  /** Widths that mesh and cloth rolls come in, mm. */
  rollWidthsMm: number[];
  meshPerM2: number;
  gridPerM2: number;
  clothPerM2: number;
  bracket: number;
  screw: number;
  staple: number;
  foot: Record<FootKind, number>;
  waterPerM3: number;
  hour: number;
  /** What trees fetch by height, and what a season costs and risks; what Kauri starts with where left out. */
  trees?: TreePrices;
}

/** Prices of trees, and of keeping them. */
export interface TreePrices {
  ladder: { fromCm: number; price: number }[];
  /** A square metre of bed or bench for a season: what it costs, or what else could stand there. */
  placePerM2: number;
  /** Water, feed and hands a tree and season. */
  carePerTree: number;
  /** Moving a tree up once: hands, pot and medium. */
  moveOnce: number;
  /** Trees lost in a season, of a hundred. */
  lossPct: number;
}

/** Starting values, to be replaced by the nursery's own. */
export const startingTreePrices: TreePrices = {
  ladder: [
    { fromCm: 20, price: 0.8 },
    { fromCm: 40, price: 1.3 },
    { fromCm: 60, price: 2.1 },
    { fromCm: 90, price: 3.6 },
    { fromCm: 125, price: 6 },
  ],
  placePerM2: 9,
  carePerTree: 0.12,
  moveOnce: 0.55,
  lossPct: 5,
};

export const startingPrices: PriceList = {
  schema: 1,
  currency: '£',
  timberPerM3: { treated: 620, durable: 880, scrap: 60 },
  boardLengthsMm: [2400, 3000, 3600, 4200, 4800],
  kerfMm: 3,
  rollWidthsMm: [600, 900, 1200],
  meshPerM2: 4.2,
  gridPerM2: 5.5,
  clothPerM2: 0.9,
  bracket: 1.1,
  screw: 0.06,
  staple: 0.01,
  foot: { bricks: 0.9, blocks: 2.6, legs: 4.5, pallet: 6 },
  waterPerM3: 2,
  hour: 14,
};

/** What a nursery that works in feet begins with: its money, and boards and rolls by the foot. */
export const usPrices: PriceList = {
  ...startingPrices,
  currency: '$',
  boardLengthsMm: [8, 10, 12, 14, 16].map((feet) => Math.round(feet * 304.8)),
  rollWidthsMm: [2, 3, 4].map((feet) => Math.round(feet * 304.8)),
  kerfMm: 3.2,
};

/** Price of one board by its nominal section, from a price per cubic metre, to the hundredth. */
export function boardPrice(nominal: string, lengthMm: number, perM3: number): number {
  const [a, b] = nominal.split(/[x×]/i).map(Number);
  const inch = a <= 4 ? 25.4 : 1;
  return Math.max(0.01, Math.round(((a * inch * b * inch * lengthMm) / 1e9) * perM3 * 100) / 100);
}
