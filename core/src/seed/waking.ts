import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { betaMean, type Beta } from '../chance/beta';
import { normalCdfFast } from '../chance/normal';
import type { Waking, Weights } from '../species/waking';

/** Days at a mean temperature: [days, mean °C]. */
export type Spell = readonly [days: number, meanC: number];

/** Seed on its way: warm and cold days that counted, dormancy left (1 to 0), warmth of the need (1 is the need), harm in probits. */
export interface Woken {
  warm: number;
  chill: number;
  dormancy: number;
  heat: number;
  harm: number;
}

/** A day's temperature goes through a cosine; these are where its four quarters stand. */
const QUARTERS = [0, 1, 2, 3].map((k) => Math.cos(((2 * k + 1) * Math.PI) / 8));

function trapezoid(x: number, [zeroLow, low, high, zeroHigh]: Weights): number {
  if (x >= low && x <= high) return 1;
  return Math.max(0, x < low ? (x - zeroLow) / (low - zeroLow) : (zeroHigh - x) / (zeroHigh - high));
}

/** Growth of a radicle at a temperature, °C above a base that blurs, falling from the best to nothing at the ceiling. */
function growth(t: number, base: number, { blurC, bestC, ceilingC }: Waking): number {
  if (t <= 0 || base >= bestC || t >= ceilingC) return 0;
  const above = (x: number) => {
    if (blurC === 0) return Math.max(0, x - base);
    const u = (x - base) / blurC;
    return u > 30 ? x - base : blurC * Math.log1p(Math.exp(u));
  };
  return t <= bestC ? above(t) : (above(bestC) * (ceilingC - t)) / (ceilingC - bestC);
}

const dormancyAt = (warm: number, chill: number, f: number, w: Waking): number => {
  if (w.chillDays === 0) return 0;
  if (warm < f * w.warmDays) return 1;
  return Math.max(0, Math.min(1, 1 - chill / (f * w.chillDays)));
};

/** Growth toward the need on a day, in parts of the need, at a dormancy. */
function gainAt(t: number, dormancy: number, w: Waking): number {
  const base = w.baseC + w.dormantRiseC * dormancy;
  const g = growth(t, base, w);
  return g === 0 ? 0 : g / (w.heatDd * Math.exp(w.dormantLog * dormancy));
}

/** Growth toward the need on a day, by its mean and the seed's dormancy. */
type Gain = (meanC: number, dormancy: number) => number;

/** What a day does to any seed: warm and cold days that count, harm, and growth with no dormancy left. */
interface DayOf {
  meanC: number;
  warm: number;
  chill: number;
  harm: number;
  awake: number;
}

/** Mean over the quarters of a day. */
function overDay(meanC: number, swingC: number, of: (t: number) => number): number {
  if (swingC === 0) return of(meanC);
  let total = 0;
  for (const quarter of QUARTERS) total += of(meanC + swingC * quarter);
  return total / QUARTERS.length;
}

const gainExact =
  (swingC: number, w: Waking): Gain =>
  (meanC, dormancy) =>
    overDay(meanC, swingC, (t) => gainAt(t, dormancy, w));

const dayOf = (meanC: number, swingC: number, w: Waking, gain: Gain): DayOf => ({
  meanC,
  warm: w.warmDays === 0 ? 0 : overDay(meanC, swingC, (t) => trapezoid(t, w.warmWeights)),
  chill: overDay(
    meanC,
    swingC,
    (t) => trapezoid(t, w.chillWeights) - w.undonePerDd * Math.max(0, t - w.undoneAboveC),
  ),
  harm: w.harmPerDd * Math.max(0, w.harmBelowC - (meanC - swingC)),
  awake: gain(meanC, 0),
});

/** Steps one day of a seed of depth factor f, in place. */
function step(seed: Woken, day: DayOf, f: number, w: Waking, gain: Gain): void {
  const warmed = seed.warm >= f * w.warmDays;
  if (warmed) {
    seed.heat += seed.dormancy === 0 ? day.awake : gain(day.meanC, seed.dormancy);
    seed.chill = Math.max(0, seed.chill + day.chill);
  } else seed.warm += day.warm;
  seed.harm += day.harm;
  seed.dormancy =
    w.warmDays > 0 && seed.warm < f * w.warmDays
      ? w.chillDays === 0
        ? 0
        : 1
      : dormancyAt(seed.warm, seed.chill, f, w);
}

const asleep = (w: Waking): Woken => ({
  warm: 0,
  chill: 0,
  dormancy: w.chillDays === 0 ? 0 : 1,
  heat: 0,
  harm: 0,
});

function mustBeSpells(spells: readonly Spell[]): void {
  for (const [days, meanC] of spells)
    if (!(Number.isInteger(days) && days >= 0 && Number.isFinite(meanC)))
      throw new Unfit(say`Days are whole and 0 or more, and a temperature is a number.`);
}

/**
 * One seed through spells of temperature.
 * @param swingC half of a day's range, °C
 * @param depthLog x + σ_D·z, ln of its depth against the kind's middle seed
 * @throws Unfit for days or temperatures that are not numbers
 */
export function wakeSeed({
  spells,
  swingC = 0,
  waking,
  depthLog = 0,
}: {
  spells: readonly Spell[];
  swingC?: number;
  waking: Waking;
  depthLog?: number;
}): Woken {
  mustBeSpells(spells);
  const f = Math.exp(depthLog);
  const seed = asleep(waking);
  const gain = gainExact(swingC, waking);
  for (const [days, meanC] of spells) {
    const day = dayOf(meanC, swingC, waking, gain);
    for (let i = 0; i < days; i++) step(seed, day, f, waking, gain);
  }
  return seed;
}

/** Seeds of one lot at even depths, z in standard deviations, with their weights. */
const SEEDS = 25;
const seedZ = Float64Array.from({ length: SEEDS }, (_, i) => (i / (SEEDS - 1) - 0.5) * 7);
const seedWeight = (() => {
  const raw = seedZ.map((z) => Math.exp(-0.5 * z * z));
  const total = raw.reduce((t, w) => t + w, 0);
  return raw.map((w) => w / total);
})();

/** Warm days after sowing within which a ready seed comes up, and at what warmth. */
export function soonAfter(w: Waking): { days: number; meanC: number } {
  const meanC = Math.max(15, w.baseC + 8);
  const g = growth(meanC, w.baseC, w);
  const days = g > 0 ? Math.ceil((w.heatDd * Math.exp(1.645 * w.seedSdHeat)) / g) : 60;
  return { days: Math.max(7, days), meanC };
}

const shareOf = (heat: number, heatLog: number, sd: number): number =>
  heat > 0 ? normalCdfFast((Math.log(heat) - heatLog) / sd) : 0;

/** Share of a lot's living seeds whose radicle is out, and that would come up soon after sowing. */
export function radicleShare({
  spells,
  swingC = 0,
  waking,
  depthLog = 0,
  heatLog = 0,
  soon = soonAfter(waking),
}: {
  spells: readonly Spell[];
  swingC?: number;
  waking: Waking;
  depthLog?: number;
  heatLog?: number;
  soon?: { days: number; meanC: number };
}): { out: number; ready: number } {
  let out = 0;
  let ready = 0;
  for (let i = 0; i < SEEDS; i++) {
    const seed = wakeSeed({ spells, swingC, waking, depthLog: depthLog + waking.seedSdDepth * seedZ[i] });
    out += seedWeight[i] * shareOf(seed.heat, heatLog, waking.seedSdHeat);
    ready +=
      seedWeight[i] *
      shareOf(
        seed.heat + Math.exp(heatLog) * soon.days * gainAt(soon.meanC, seed.dormancy, waking),
        heatLog,
        waking.seedSdHeat,
      );
  }
  return { out, ready };
}

/** Chance that at least one of some seeds shows its first radicle between two shares out: 1 − ((1 − then)/(1 − now))^seeds. */
export function firstRadicles({
  shareNow,
  shareThen,
  seeds,
}: {
  shareNow: number;
  shareThen: number;
  seeds: number;
}): number {
  if (!(shareNow >= 0 && shareThen <= 1 && seeds >= 0)) throw new Unfit(say`Shares lie between 0 and 1.`);
  if (shareThen <= shareNow) return 0;
  return 1 - ((1 - shareThen) / (1 - shareNow)) ** seeds;
}

/** A look at a batch: so many seeds looked at, so many with a radicle, after all the seed had been through by then. */
export interface Look {
  spells: readonly Spell[];
  n: number;
  radicles: number;
}

/** A stray radicle must not overturn all. */
const STRAY = 0.005;
/** Seeds of a look share its luck this much. */
const LOOK_RHO = 0.05;

/** Likelihood of a look, as a logarithm, at a share of seeds out among all. */
export function logOfLook(share: number, n: number, radicles: number, rho = LOOK_RHO): number {
  const p = STRAY + (1 - 2 * STRAY) * share;
  return (radicles * Math.log(p) + (n - radicles) * Math.log(1 - p)) / (1 + (n - 1) * rho);
}

const DEPTHS = 25;
const HEATS = 41;
const ALIVE = 41;

/** Grids of what lots may be like: depth normal to 4 spreads, warmth Student t (4 degrees) to 6 scales. */
function axisOf(points: number, reach: number, scale: number, log: (z: number) => number) {
  return Array.from({ length: points }, (_, i) => {
    const z = (i / (points - 1) - 0.5) * 2 * reach;
    return { at: z * scale, log: log(z) };
  });
}
export const depthAxis = (w: Waking, points = DEPTHS) =>
  axisOf(
    w.lotSdDepth > 0 && w.chillDays + w.warmDays > 0 ? points : 1,
    4,
    w.lotSdDepth,
    (z) => -0.5 * z * z,
  ).map((p, _, all) => (all.length === 1 ? { at: 0, log: 0 } : p));
export const heatAxis = (w: Waking, points = HEATS) =>
  axisOf(points, 6, w.lotSdHeat, (z) => -2.5 * Math.log1p((z * z) / 4));
export function aliveAxis({ alpha, beta }: Beta, points = ALIVE) {
  const mean = alpha / (alpha + beta);
  const sd = Math.sqrt((mean * (1 - mean)) / (alpha + beta + 1));
  const low = Math.max(0.001, mean - 5 * sd);
  const high = Math.min(0.999, mean + 5 * sd);
  return Array.from({ length: points }, (_, i) => {
    const at = points === 1 ? mean : low + ((i + 0.5) / points) * (high - low);
    return { at, log: (alpha - 1) * Math.log(at) + (beta - 1) * Math.log(1 - at) };
  });
}

/**
 * What looks at a lot teach of it: how deep its dormancy is and how much warmth it needs, against its kind, and how much
 * of it lives.
 * @param alive what is known of the share alive
 * @param rho how much the seeds of a look share its luck
 * @throws Unfit for a look of more radicles than seeds
 */
export function lotFromLooks({
  waking,
  alive,
  looks,
  swingC = 0,
  rho = LOOK_RHO,
}: {
  waking: Waking;
  alive: Beta;
  looks: readonly Look[];
  swingC?: number;
  rho?: number;
}): { depthLog: number; heatLog: number; alive: number; depthSd: number; heatSd: number } {
  for (const { n, radicles } of looks)
    if (!(n >= 1 && radicles >= 0 && radicles <= n))
      throw new Unfit(say`${radicles} radicles in ${n} seeds looked at: check the two numbers.`);
  const depths = depthAxis(waking);
  const heats = heatAxis(waking);
  const lives = aliveAxis(alive);
  // Shares out of each look by depth and warmth: the seeds' course depends on depth alone.
  const shares = looks.map(({ spells }) =>
    depths.map(({ at: x }) => {
      const courses = Array.from(seedZ, (z) =>
        wakeSeed({ spells, swingC, waking, depthLog: x + waking.seedSdDepth * z }),
      );
      return heats.map(({ at: y }) =>
        courses.reduce((t, seed, i) => t + seedWeight[i] * shareOf(seed.heat, y, waking.seedSdHeat), 0),
      );
    }),
  );
  const cells: { x: number; y: number; a: number; log: number }[] = [];
  depths.forEach((depth, i) =>
    heats.forEach((heat, j) =>
      lives.forEach((life) => {
        let log = depth.log + heat.log + life.log;
        looks.forEach(
          ({ n, radicles }, l) => (log += logOfLook(life.at * shares[l][i][j], n, radicles, rho)),
        );
        cells.push({ x: depth.at, y: heat.at, a: life.at, log });
      }),
    ),
  );
  let most = -Infinity;
  for (const { log } of cells) most = Math.max(most, log);
  let total = 0;
  const sums = { x: 0, y: 0, a: 0, xx: 0, yy: 0 };
  for (const { x, y, a, log } of cells) {
    const w = Math.exp(log - most);
    total += w;
    sums.x += w * x;
    sums.y += w * y;
    sums.a += w * a;
    sums.xx += w * x * x;
    sums.yy += w * y * y;
  }
  const [mx, my] = [sums.x / total, sums.y / total];
  return {
    depthLog: mx,
    heatLog: my,
    alive: looks.length ? sums.a / total : betaMean(alive),
    depthSd: Math.sqrt(Math.max(0, sums.xx / total - mx * mx)),
    heatSd: Math.sqrt(Math.max(0, sums.yy / total - my * my)),
  };
}

/** Grid over a day's mean (°C) and dormancy on which growth is worked out once; straight between its points. */
const GAIN = { fromC: -20, toC: 45, stepC: 0.25, dormancies: 32 } as const;
const gainsOf = new WeakMap<Waking, Map<number, Gain>>();

/** Growth by a table, for the many days of many seeds. */
function gainQuick(swingC: number, waking: Waking): Gain {
  let bySwing = gainsOf.get(waking);
  if (!bySwing) gainsOf.set(waking, (bySwing = new Map()));
  let gain = bySwing.get(swingC);
  if (!gain) bySwing.set(swingC, (gain = gainTable(swingC, waking)));
  return gain;
}

function gainTable(swingC: number, waking: Waking): Gain {
  const exact = gainExact(swingC, waking);
  const { fromC, toC, stepC, dormancies } = GAIN;
  const width = dormancies + 1;
  const rows = (toC - fromC) / stepC + 1;
  const table = Float64Array.from({ length: rows * width }, (_, i) =>
    exact(fromC + Math.floor(i / width) * stepC, (i % width) / dormancies),
  );
  return (meanC, dormancy) => {
    const row = Math.max(0, Math.min(rows - 1.000001, (meanC - fromC) / stepC));
    const column = Math.min(dormancies - 1e-6, dormancy * dormancies);
    const [r, c] = [Math.floor(row), Math.floor(column)];
    const at = r * width + c;
    const part = column - c;
    const low = table[at] * (1 - part) + table[at + 1] * part;
    const high = table[at + width] * (1 - part) + table[at + width + 1] * part;
    return low + (row - r) * (high - low);
  };
}

/** A lot's seeds at even depths, day by day: warmth of the need, and dormancy left, by seed then day. */
export interface WakeTable {
  /** Depths in standard deviations between seeds, for each of which there is a course. */
  heat: Float64Array[];
  dormancy: Float64Array[];
}

/**
 * Seeds of several depths through the daily temperatures of some years, once for all that is asked of them. Days that
 * all years share at their start, as those gone by, are gone through once.
 * @param years mean of each day, °C, as many days in each; `swingC` half of each day's range
 * @param depths ln depths of the seeds
 * @param enough warmth, in parts of the need, beyond which a seed need not be followed: every radicle is out by then
 */
export function wakeTables(
  years: readonly Float64Array[],
  swingC: number,
  waking: Waking,
  depths: ArrayLike<number>,
  enough = Infinity,
): WakeTable[] {
  const gain = gainQuick(swingC, waking);
  const shared = daysShared(years);
  const daysOf = (meanC: Float64Array) => Array.from(meanC, (mean) => dayOf(mean, swingC, waking, gain));
  const before = daysOf(years[0].subarray(0, shared));
  const after = years.map((meanC) => daysOf(meanC.subarray(shared)));
  const tables = years.map((): WakeTable => ({ heat: [], dormancy: [] }));
  for (let i = 0; i < depths.length; i++) {
    const seed = { f: Math.exp(depths[i]), waking, gain, enough };
    const there = asleep(waking);
    const past = courseOf(seed, there, before, shared);
    tables.forEach((table, year) => {
      const course = courseOf(seed, { ...there }, after[year], years[year].length, past);
      table.heat.push(course.heat);
      table.dormancy.push(course.dormancy);
    });
  }
  return tables;
}

/** Days at the start on which all years are the same. */
function daysShared([first, ...others]: readonly Float64Array[]): number {
  if (others.length === 0) return first.length;
  let shared = 0;
  while (shared < first.length && others.every((other) => other[shared] === first[shared])) shared++;
  return shared;
}

interface SeedCourse {
  heat: Float64Array;
  dormancy: Float64Array;
}

/** A seed of a depth through some days, in place, written after what it had been through before. */
function courseOf(
  { f, waking, gain, enough }: { f: number; waking: Waking; gain: Gain; enough: number },
  woken: Woken,
  days: readonly DayOf[],
  length: number,
  before?: SeedCourse,
): SeedCourse {
  const heat = new Float64Array(length);
  const dormancy = new Float64Array(length);
  if (before) {
    heat.set(before.heat);
    dormancy.set(before.dormancy);
  }
  for (let i = 0, row = length - days.length; i < days.length; i++, row++) {
    if (woken.heat < enough) step(woken, days[i], f, waking, gain);
    heat[row] = woken.heat;
    dormancy[row] = woken.dormancy;
  }
  return { heat, dormancy };
}

export { gainAt, shareOf };
