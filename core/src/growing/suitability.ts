import { say } from '../speech/say';
import { linearIn, rootFill } from '../roots/rootFill';
import type { SpeciesValues } from '../species/species';
import { put, type Worked } from '../working/working';
import {
  cellsPerM2,
  cellsPerM2Spaced,
  containerAirShare,
  containerVolume,
  type ContainerValues,
} from '../container/container';

export const plantingSites = ['ordinary', 'dry', 'rocky', 'weedy', 'browsed'] as const;
export type PlantingSite = (typeof plantingSites)[number];

/** One reason for or against a container. */
export interface Reason {
  for: boolean;
  words: string;
}

export interface Suitability {
  /** −1 unfit, 0 with care, 1 fit. */
  grade: -1 | 0 | 1;
  reasons: Reason[];
}

/** A seed heavier than this drives a taproot at once: fewer seeds to the kilogram. */
const LARGE_SEEDS_PER_KG = 1000;

/** Whether a container suits a species and the site it is planted on, with the reasons. */
export function containerSuitability(
  c: ContainerValues,
  species: SpeciesValues,
  site: PlantingSite,
): Suitability {
  const reasons: Reason[] = [];
  let against = 0;
  const mark = (good: boolean, words: string, weight = 1) => {
    reasons.push({ for: good, words });
    if (!good) against += weight;
  };
  const ml = containerVolume(c).value;
  const air = containerAirShare(c).value;
  if (c.kind === 'flat') mark(false, say`For germination: prick out at the first true leaves`, 1);
  if (c.wall === 'fabric') mark(true, say`Fabric traps root tips all round`);
  else if (air >= 0.15) mark(true, say`Air on ${Math.round(air * 100)} % of wall and base`);
  else
    mark(
      false,
      say`Air on only ${Math.round(air * 100)} % of wall and base: branches mostly at the bottom`,
      1,
    );
  if (c.wall === 'solid' && c.section === 'round') mark(false, say`Smooth round wall lets roots circle`, 2);
  if (species.seedsPerKg < LARGE_SEEDS_PER_KG) {
    if (c.depthMm >= 140) mark(true, say`Deep enough for a taproot`);
    else mark(false, say`Shallow for a strong taproot`, 2);
  }
  if (site === 'dry') {
    if (c.depthMm >= 200) mark(true, say`Long plug reaches moisture on a dry site`);
    else mark(false, say`Short plug for a dry site: 200 mm or more is wanted`, 2);
  }
  if (site === 'rocky') {
    if (c.topMm <= 60) mark(true, say`Slim plug goes in between stones`);
    else mark(false, say`No hole this wide can be dug in rock or shallow soil`, 2);
  }
  if (site === 'weedy' || site === 'browsed') {
    const why = site === 'weedy' ? say`tall weeds` : 'browsing';
    if (ml >= 350) mark(true, say`Carries a plant big enough for ${why}`);
    else mark(false, say`Small plant against ${why}`, site === 'weedy' ? 1 : 2);
  }
  return { grade: against >= 2 ? -1 : against === 1 ? 0 : 1, reasons };
}

/** Warmth a lot needs in a cell until its plug holds, and until it is root-bound. */
export interface HoldingWarmth {
  readyDd: number;
  boundDd: number;
}

/**
 * Degree-days from emergence to a plug that holds (F 0.65) and to root-bound (F 1), at the species' median
 * vigour.
 */
export function holdingWarmth(cellMl: number, species: SpeciesValues): Worked<HoldingWarmth> {
  const step = 10;
  const dd = new Array<number>(1500).fill(step);
  const fill = rootFill(
    {
      initialMl: species.rootInitialMl,
      cellMl,
      ratePerDd: species.rootRatePerDd,
      linearAtMl: linearIn(species.rootLinearAtMl, cellMl),
      vigour: 1,
    },
    dd,
  );
  const at = (limit: number) => {
    const i = fill.value.fill.findIndex((f) => f >= limit);
    return i < 0 ? Infinity : (i + 1) * step;
  };
  const value = { readyDd: at(0.65), boundDd: at(1) };
  return {
    value,
    working: [
      {
        what: say`Warmth until the plug holds`,
        how: say`Root fill of ${put(cellMl)} mL day by day to 0.65.`,
        result: value.readyDd,
        unit: '°C·d',
        inputs: [
          { name: say`root rate`, value: species.rootRatePerDd, unit: 'per °C·d', origin: 'starting' },
        ],
      },
      {
        what: say`Warmth until it is root-bound`,
        how: say`The same to 1.0.`,
        result: value.boundDd,
        unit: '°C·d',
      },
    ],
  };
}

/** A container in figures, for a table beside others. */
export interface ContainerFigures {
  volumeMl: number;
  airShare: number;
  perM2: number;
  perM2Spaced: number | null;
  /** Medium for a thousand cells, L. */
  mediumPer1000L: number;
  /** A filled, watered tray, kg. */
  trayWetKg: number;
  /** Of a cell in one use: its share of the tray's price. */
  pricePerUse: number | null;
}

/** Weight of the empty tray and its cells against that of its medium; plastic is light. */
const TRAY_EMPTY_KG = 1.2;

export function containerFigures(c: ContainerValues, wetKgPerM3: number): ContainerFigures {
  const volumeMl = containerVolume(c).value;
  return {
    volumeMl,
    airShare: containerAirShare(c).value,
    perM2: cellsPerM2(c),
    perM2Spaced: cellsPerM2Spaced(c),
    mediumPer1000L: volumeMl,
    trayWetKg: (volumeMl * c.cellsPerTray * wetKgPerM3) / 1e6 + TRAY_EMPTY_KG,
    pricePerUse: c.trayPrice === undefined ? null : c.trayPrice / c.cellsPerTray / (c.uses ?? 1),
  };
}
