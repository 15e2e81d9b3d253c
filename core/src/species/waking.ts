import type { Protocol } from './protocol';

/*
 * How seed of a kind wakes: cold takes dormancy away, warmth makes the radicle grow, and how much warmth it takes, and
 * from which temperature on, falls as dormancy goes. Starting values, within ordinary ranges of seed manuals, to be
 * sharpened by looks.
 */

/** Four temperatures, °C, between which a day's count rises from 0 to 1, holds, and falls to 0 again. */
export type Weights = readonly [zeroLow: number, low: number, high: number, zeroHigh: number];

export interface Waking {
  /** Softness of the base temperature, °C; 0 for a sharp one. */
  blurC: number;
  /** Warm days needed before cold or growth counts. */
  warmDays: number;
  warmWeights: Weights;
  /** Cold days until the middle seed has no dormancy left; 0 for seed without any. */
  chillDays: number;
  chillWeights: Weights;
  /** ln of the times more warmth that fully dormant seed needs, and how much higher its base is, °C. */
  dormantLog: number;
  dormantRiseC: number;
  /** Chill days undone by each °C·d above a temperature. */
  undoneAboveC: number;
  undonePerDd: number;
  bestC: number;
  ceilingC: number;
  /** Spread of ln warmth and ln depth between lots, and between seeds of a lot. */
  lotSdHeat: number;
  lotSdDepth: number;
  seedSdDepth: number;
  seedSdHeat: number;
  /** °C, and °C·d to the middle seed's radicle, once no dormancy is left. */
  baseC: number;
  heatDd: number;
  /** Probits of life lost by each °C·d of a night colder than this. */
  harmBelowC: number;
  harmPerDd: number;
}

const usual = {
  blurC: 0.7,
  warmDays: 0,
  warmWeights: [10, 15, 25, 30],
  chillDays: 0,
  chillWeights: [-1, 1, 6, 12],
  dormantLog: 0,
  dormantRiseC: 0,
  undoneAboveC: 99,
  undonePerDd: 0,
  bestC: 22,
  ceilingC: 35,
  lotSdHeat: 0.35,
  lotSdDepth: 0.3,
  seedSdDepth: 0.3,
  seedSdHeat: 0.4,
  baseC: 4,
  heatDd: 60,
  harmBelowC: -15,
  harmPerDd: 0.05,
} as const satisfies Waking;
/** Deeply dormant kinds are chilled in a narrower range, and warm days undo some of it. */
const narrow = { chillWeights: [-1, 1, 5, 10] as Weights };
const undone = { undoneAboveC: 18, undonePerDd: 1 };
const hardy = { harmBelowC: -12, harmPerDd: 0.05 };
const slowWarm = { warmWeights: [8, 14, 24, 30] as Weights };

/** Kinds that wake alike. */
export const wakingGroups = {
  'white oaks': { ...usual, baseC: 1, heatDd: 140, harmBelowC: -3, harmPerDd: 0.15 },
  'sessile and pedunculate oaks': {
    ...usual,
    chillDays: 45,
    dormantLog: 1.2,
    dormantRiseC: 3,
    baseC: 2,
    heatDd: 200,
    harmBelowC: -4,
    harmPerDd: 0.15,
  },
  chestnuts: {
    ...usual,
    chillDays: 45,
    dormantLog: 1.6,
    dormantRiseC: 5,
    baseC: 1.5,
    heatDd: 170,
    harmBelowC: -3,
    harmPerDd: 0.15,
    seedSdHeat: 0.35,
  },
  'red oaks': {
    ...usual,
    chillDays: 50,
    dormantLog: 2,
    dormantRiseC: 5,
    baseC: 2,
    heatDd: 180,
    harmBelowC: -4,
    harmPerDd: 0.15,
  },
  hazels: {
    ...usual,
    ...narrow,
    ...undone,
    chillDays: 70,
    dormantLog: 4,
    dormantRiseC: 8,
    baseC: 2,
    heatDd: 160,
    harmBelowC: -6,
    harmPerDd: 0.1,
  },
  'walnuts and hickories': {
    ...usual,
    ...narrow,
    chillDays: 80,
    dormantLog: 4.5,
    dormantRiseC: 8,
    baseC: 2,
    heatDd: 250,
    bestC: 25,
    harmBelowC: -8,
    harmPerDd: 0.08,
  },
  rowans: {
    ...usual,
    ...narrow,
    ...undone,
    ...hardy,
    chillDays: 100,
    dormantLog: 5,
    dormantRiseC: 8,
    baseC: 0,
    heatDd: 80,
    bestC: 18,
    ceilingC: 28,
    seedSdDepth: 0.22,
  },
  'cherries and plums': {
    ...usual,
    ...narrow,
    ...undone,
    ...hardy,
    warmDays: 10,
    chillDays: 100,
    dormantLog: 5,
    dormantRiseC: 8,
    baseC: 0.5,
    heatDd: 90,
    bestC: 18,
    ceilingC: 28,
    seedSdDepth: 0.22,
  },
  hawthorns: {
    ...usual,
    ...narrow,
    ...undone,
    ...hardy,
    warmDays: 60,
    chillDays: 85,
    dormantLog: 5.5,
    dormantRiseC: 8,
    baseC: 0,
    heatDd: 80,
    bestC: 16,
    ceilingC: 28,
    seedSdDepth: 0.35,
  },
  ashes: {
    ...usual,
    ...narrow,
    ...hardy,
    warmDays: 75,
    warmWeights: [5, 13, 20, 27],
    chillDays: 85,
    dormantLog: 5.5,
    dormantRiseC: 8,
    undoneAboveC: 18,
    undonePerDd: 1.5,
    baseC: 0.5,
    heatDd: 90,
    bestC: 16,
    ceilingC: 26,
  },
  limes: {
    ...usual,
    ...narrow,
    ...undone,
    ...hardy,
    warmDays: 75,
    chillDays: 85,
    dormantLog: 5.5,
    dormantRiseC: 8,
    baseC: 1,
    heatDd: 90,
    bestC: 18,
    ceilingC: 28,
    seedSdDepth: 0.45,
  },
  hollies: {
    ...usual,
    ...narrow,
    ...undone,
    ...hardy,
    ...slowWarm,
    warmDays: 170,
    chillDays: 100,
    dormantLog: 5,
    dormantRiseC: 6,
    baseC: 2,
    heatDd: 140,
    bestC: 18,
    ceilingC: 28,
    seedSdDepth: 0.4,
    seedSdHeat: 0.45,
  },
  hornbeams: {
    ...usual,
    ...narrow,
    ...hardy,
    ...slowWarm,
    warmDays: 20,
    chillDays: 75,
    dormantLog: 4.5,
    dormantRiseC: 8,
    undoneAboveC: 20,
    undonePerDd: 1,
    baseC: 1,
    heatDd: 100,
    bestC: 18,
    ceilingC: 28,
  },
  'birches, alders and pines': {
    ...usual,
    chillDays: 15,
    dormantLog: 1.3,
    dormantRiseC: 6,
    baseC: 4,
    heatDd: 60,
    seedSdDepth: 0.4,
  },
  'hard-coated legumes': {
    ...usual,
    warmDays: 200,
    warmWeights: [5, 15, 35, 45],
    baseC: 8,
    heatDd: 50,
    harmBelowC: -20,
    harmPerDd: 0.02,
    seedSdDepth: 0.9,
    seedSdHeat: 0.35,
    bestC: 28,
    ceilingC: 42,
  },
  'tropical recalcitrant seed': {
    ...usual,
    baseC: 13,
    heatDd: 180,
    bestC: 30,
    ceilingC: 42,
    harmBelowC: 12,
    harmPerDd: 0.05,
  },
  'seed that needs nothing': { ...usual },
} as const satisfies Record<string, Waking>;
export type WakingGroup = keyof typeof wakingGroups;

const genera: Readonly<Record<string, WakingGroup>> = {
  Castanea: 'chestnuts',
  Corylus: 'hazels',
  Juglans: 'walnuts and hickories',
  Carya: 'walnuts and hickories',
  Sorbus: 'rowans',
  Prunus: 'cherries and plums',
  Crataegus: 'hawthorns',
  Fraxinus: 'ashes',
  Tilia: 'limes',
  Ilex: 'hollies',
  Carpinus: 'hornbeams',
  Betula: 'birches, alders and pines',
  Alnus: 'birches, alders and pines',
  Pinus: 'birches, alders and pines',
  Robinia: 'hard-coated legumes',
  Gleditsia: 'hard-coated legumes',
  Acacia: 'hard-coated legumes',
  Laburnum: 'hard-coated legumes',
  Mangifera: 'tropical recalcitrant seed',
  Litchi: 'tropical recalcitrant seed',
  Persea: 'tropical recalcitrant seed',
};
/** Kinds not told of themselves, with the nearest that are. */
const nearest: Readonly<Record<string, WakingGroup>> = {
  Aesculus: 'chestnuts',
  Fagus: 'rowans',
  Acer: 'rowans',
  Malus: 'rowans',
  Pyrus: 'rowans',
  Mespilus: 'hawthorns',
  Rosa: 'hawthorns',
  Cornus: 'hawthorns',
  Viburnum: 'hawthorns',
  Euonymus: 'hawthorns',
  Taxus: 'hollies',
  Juniperus: 'hollies',
  Ostrya: 'hornbeams',
  Picea: 'birches, alders and pines',
  Larix: 'birches, alders and pines',
  Abies: 'birches, alders and pines',
  Pseudotsuga: 'birches, alders and pines',
  Cedrus: 'birches, alders and pines',
  Nothofagus: 'birches, alders and pines',
  Macadamia: 'tropical recalcitrant seed',
  Cytisus: 'hard-coated legumes',
  Cercis: 'hard-coated legumes',
  Ceratonia: 'hard-coated legumes',
};
const littleDormancy =
  /^Quercus (alba|macrocarpa|ilex|suber|pubescens|virginiana|garryana|lobata|agrifolia)\b/;
const redOaks = /^Quercus (rubra|palustris|coccinea|velutina|falcata|nigra|phellos|shumardii|imbricaria)\b/;

/** How a kind wakes, by which group, and whether the group is only the nearest one. */
export interface KnownWaking {
  waking: Waking;
  group: WakingGroup;
  near: boolean;
}

/**
 * How seed of a species wakes. What is not told of itself takes the nearest group, with the warm and cold days of its own
 * protocols, which speak of about the ninetieth seed in a hundred.
 */
export function wakingOf(latin: string, protocols: readonly Protocol[]): KnownWaking {
  const genus = latin.trim().split(/\s+/)[0];
  if (genus === 'Quercus') {
    const group = littleDormancy.test(latin)
      ? 'white oaks'
      : redOaks.test(latin)
        ? 'red oaks'
        : 'sessile and pedunculate oaks';
    return { waking: wakingGroups[group], group, near: false };
  }
  const own = genera[genus];
  if (own) return { waking: wakingGroups[own], group: own, near: false };
  const days = daysAsked(protocols);
  const group =
    nearest[genus] ?? (days.warm >= 30 ? 'hawthorns' : days.cold > 0 ? 'rowans' : 'seed that needs nothing');
  const waking: Waking = wakingGroups[group];
  if (days.warm + days.cold === 0)
    return { waking: { ...waking, warmDays: 0, chillDays: 0 }, group, near: true };
  const median = Math.exp(-1.28 * waking.seedSdDepth);
  return {
    waking: { ...waking, warmDays: days.warm * median, chillDays: days.cold * median },
    group,
    near: true,
  };
}

/** Warm and cold days that the first protocol asks for which asks for any. */
function daysAsked(protocols: readonly Protocol[]): { warm: number; cold: number } {
  const sums = protocols.map(({ phases }) => ({
    warm: phases.reduce((t, p) => t + (p.kind === 'warm' ? p.days : 0), 0),
    cold: phases.reduce((t, p) => t + (p.kind === 'cold' ? p.days : 0), 0),
  }));
  return sums.find(({ warm, cold }) => warm + cold > 0) ?? { warm: 0, cold: 0 };
}
