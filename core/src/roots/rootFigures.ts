import { dicksonQualityIndex } from './qualityIndex';
import { radialBalance } from './radialBalance';
import {
  depthBands,
  turnedPaths,
  type QuickLook,
  type PlugSeen,
  type RootPath,
  type RootPlant,
} from './rootPlant';

/** What a scorecard can ask of a plant. Shares 0–1; null where it was not seen. */
export interface RootFigures {
  laterals: number | null;
  largestGapDeg: number | null;
  /** Mean resultant length, 0 all round – 1 one-sided. */
  oneSided: number | null;
  /** Straight laterals over all. */
  straight: number | null;
  /** Straight laterals in the top third, a count. */
  straightTop: number | null;
  /** Laterals a wall has turned over all. */
  turned: number | null;
  steep: number | null;
  /** 1 for a straight or stopped taproot, 0 for one bent; null for none. */
  tapSound: number | null;
  tapStraight: number | null;
  /** Mean grade of fibre over the thirds, 0–3, and that of the lowest third. */
  fibre: number | null;
  fibreLow: number | null;
  surface: number | null;
  /** White 1, some 0.5, brown 0. */
  tips: number | null;
  plug: number | null;
  nodules: number | null;
  /** Height (cm) over collar (mm). */
  sturdiness: number | null;
  shootRoot: number | null;
  qualityIndex: number | null;
}
export type RootFigure = keyof RootFigures;

/** How a glance is read, where a drawing would have been measured. Rules of thumb. */
const glance = {
  round: {
    'all round': { oneSided: 0.2, largestGapDeg: 90 },
    gaps: { oneSided: 0.4, largestGapDeg: 150 },
    'one-sided': { oneSided: 0.8, largestGapDeg: 240 },
  },
  runs: {
    straight: { straight: 0.85, turned: 0.05 },
    'some turned': { straight: 0.5, turned: 0.3 },
    'mostly turned': { straight: 0.15, turned: 0.7 },
  },
  surface: { clean: 0, some: 1.5, matted: 3 },
  tips: { white: 1, some: 0.5, brown: 0 },
} satisfies { [K in 'round' | 'runs' | 'surface' | 'tips']: Record<QuickLook[K], unknown> };

const noduleGrade = { none: 0, few: 1, many: 2 };

/** Share of a plant’s laterals that run in each way. */
export function pathShares(plant: RootPlant): Record<RootPath, number> | null {
  if (plant.kind !== 'drawn' || plant.laterals.length === 0) return null;
  const shares = { straight: 0, steep: 0, wall: 0, circling: 0, kinked: 0, ascending: 0, j: 0 };
  for (const { path } of plant.laterals) shares[path] += 1 / plant.laterals.length;
  return shares;
}

/** All that can be said of a plant in numbers. */
export function rootFigures(plant: RootPlant): RootFigures {
  const { heightCm, diameterMm, shootDryG, rootDryG } = plant;
  const dry = shootDryG !== null && rootDryG !== null && shootDryG > 0 && rootDryG > 0;
  const sized = heightCm !== null && diameterMm !== null && heightCm > 0 && diameterMm > 0;
  const sizes = {
    sturdiness: sized ? heightCm / diameterMm : null,
    shootRoot: dry ? shootDryG / rootDryG : null,
    qualityIndex:
      dry && sized
        ? dicksonQualityIndex({
            totalDryG: shootDryG + rootDryG,
            shootDryG,
            rootDryG,
            heightCm,
            diameterMm,
          }).value
        : null,
  };
  if (plant.kind === 'quick') {
    const { look } = plant;
    return {
      laterals: null,
      straightTop: null,
      steep: null,
      tapSound: null,
      tapStraight: null,
      fibre: null,
      fibreLow: null,
      nodules: null,
      ...glance.round[look.round],
      ...glance.runs[look.runs],
      surface: glance.surface[look.surface],
      tips: glance.tips[look.tips],
      plug: look.score,
      ...sizes,
    };
  }
  const { laterals, tap, plug } = plant;
  const n = laterals.length;
  const share = (paths: readonly RootPath[]) =>
    n ? laterals.filter((l) => paths.includes(l.path)).length / n : null;
  const balance = radialBalance(laterals.map((l) => l.azimuthDeg)).value;
  return {
    laterals: n,
    largestGapDeg: balance.largestGapDeg,
    oneSided: n ? balance.meanResultantLength : null,
    straight: share(['straight']),
    straightTop: laterals.filter((l) => l.path === 'straight' && l.band === 'top').length,
    turned: share(turnedPaths),
    steep: share(['steep']),
    tapSound: tap === 'none' ? null : tap === 'bent' ? 0 : 1,
    tapStraight: tap === 'straight' ? 1 : 0,
    fibre: depthBands.reduce((t, band) => t + plug.fibre[band], 0) / depthBands.length,
    fibreLow: plug.fibre.low,
    surface: plug.surface,
    tips: plug.tips === null ? null : glance.tips[plug.tips],
    plug: plug.score,
    nodules: plug.nodules === null ? null : noduleGrade[plug.nodules],
    ...sizes,
  };
}

/** The plug’s score, where one was given. */
export function plugScoreOf(plant: RootPlant): PlugSeen['score'] {
  return plant.kind === 'drawn' ? plant.plug.score : plant.look.score;
}
