import type { EpochDay } from '../calendar/day';
import type { Beta } from '../chance/beta';
import type { Band } from '../chance/quantile';
import type { Phase } from '../species/protocol';
import type { KnownWaking, Waking } from '../species/waking';
import {
  aliveAxis,
  depthAxis,
  firstRadicles,
  gainAt,
  heatAxis,
  logOfLook,
  shareOf,
  soonAfter,
  wakeTables,
  type Spell,
  type WakeTable,
} from './waking';

/** Ready: this share of the living would come up soon after sowing. */
export const READY_SHARE = 0.8;
/** Radicles that may be out before sowing harms: fewer where they are long and brittle. */
export const OUT_MOST = { tap: 0.05, other: 0.15 } as const;

/** What of a batch its waking depends on. */
export interface WakingFacts {
  phases: readonly Phase[];
  startedOn: EpochDay;
  waking: KnownWaking;
  alive: Beta;
  /** Cool moist days it had before it began. */
  before: readonly Spell[];
}

/** Points over what lots of a kind are like: depth, warmth, share alive. */
const GRID = { depth: 7, heat: 11, alive: 5 };
/** Depths of seeds at which courses are run, and seeds of one lot. */
const COURSES = 17;
/** Steps of dormancy at which a ready seed's growth is worked out, and a weight too slight to move a band. */
const SOON_STEPS = 64;
const SLIGHT = 5e-4;
/** A weight too faint to be seen in any chance. */
const FAINT = 1e-5;
const SEED_Z = [-2.4, -1.6, -0.8, 0, 0.8, 1.6, 2.4];
const SEED_WEIGHT = (() => {
  const raw = SEED_Z.map((z) => Math.exp(-0.5 * z * z));
  const total = raw.reduce((t, w) => t + w, 0);
  return raw.map((w) => w / total);
})();

/** A batch's lot over all it may be like, and every weather year. */
export class WakingLot {
  private readonly w: Waking;
  private readonly depths: { at: number; log: number }[];
  private readonly heats: { at: number; log: number }[];
  private readonly lives: { at: number; log: number }[];
  private readonly courseAt: Float64Array;
  private readonly tables: WakeTable[];
  private readonly offset: number;
  private readonly soon: { days: number; meanC: number };
  /** Growth of a day after sowing, by even steps of dormancy. */
  private readonly soonGain: Float64Array;
  /** Weight of each (depth, warmth), and of each share alive beside it; sum 1. */
  private cells: { x: number; y: number; weight: number; alive: number[] }[] = [];

  constructor(
    private readonly facts: WakingFacts,
    means: readonly Float64Array[],
    swingC: number,
  ) {
    const scarified = facts.phases.some((p) => p.kind === 'scarify' || p.kind === 'hot-water');
    this.w = scarified ? { ...facts.waking.waking, warmDays: 0 } : facts.waking.waking;
    this.depths = depthAxis(this.w, GRID.depth);
    this.heats = heatAxis(this.w, GRID.heat);
    this.lives = aliveAxis(facts.alive, GRID.alive);
    this.soon = soonAfter(this.w);
    const reach = 4 * this.w.lotSdDepth + 2.4 * this.w.seedSdDepth;
    this.courseAt = Float64Array.from({ length: COURSES }, (_, i) => (i / (COURSES - 1) - 0.5) * 2 * reach);
    const before = facts.before.flatMap(([days, meanC]) => new Array<number>(days).fill(meanC));
    this.offset = before.length;
    this.tables = wakeTables(
      means.map((mean) => Float64Array.of(...before, ...mean)),
      swingC,
      this.w,
      this.courseAt,
      Math.exp(6 * this.w.lotSdHeat + 3 * this.w.seedSdHeat),
    );
    this.soonGain = Float64Array.from({ length: SOON_STEPS + 1 }, (_, i) =>
      gainAt(this.soon.meanC, i / SOON_STEPS, this.w),
    );
    this.weigh(() => 0);
  }

  /** Row of a day in the tables; the last for days beyond. */
  private rowOf(day: EpochDay): number {
    const rows = this.tables[0].heat[0].length;
    return Math.min(rows - 1, this.offset + day - this.facts.startedOn);
  }

  /** Share of the living that are out, for one lot in one year by a day. */
  out(x: number, y: number, year: number, day: EpochDay): number {
    return this.share(x, y, year, day, false);
  }

  /** Share of the living that would come up soon, sown on a day, for one lot in one year. */
  ready(x: number, y: number, year: number, day: EpochDay): number {
    return this.share(x, y, year, day, true);
  }

  private share(x: number, y: number, year: number, day: EpochDay, sown: boolean): number {
    const row = this.rowOf(day);
    if (row < 0) return 0;
    const { heat, dormancy } = this.tables[year];
    const reach = this.courseAt[COURSES - 1];
    const { seedSdDepth, seedSdHeat } = this.w;
    const soonDays = Math.exp(y) * this.soon.days;
    let share = 0;
    for (let i = 0; i < SEED_Z.length; i++) {
      const depth = x + seedSdDepth * SEED_Z[i];
      const at = Math.max(0, Math.min(COURSES - 1.000001, ((depth / reach + 1) / 2) * (COURSES - 1) || 0));
      const low = Math.floor(at);
      const part = at - low;
      const high = Math.min(COURSES - 1, low + 1);
      let h = heat[low][row] * (1 - part) + heat[high][row] * part;
      if (sown) h += soonDays * this.soonAt(dormancy[low][row] * (1 - part) + dormancy[high][row] * part);
      share += SEED_WEIGHT[i] * shareOf(h, y, seedSdHeat);
    }
    return share;
  }

  private soonAt(dormancy: number): number {
    const at = Math.min(SOON_STEPS - 1e-9, dormancy * SOON_STEPS);
    const low = Math.floor(at);
    return this.soonGain[low] + (at - low) * (this.soonGain[low + 1] - this.soonGain[low]);
  }

  private weigh(logOf: (x: number, y: number, alive: number) => number): void {
    const raw = this.depths.flatMap((depth) =>
      this.heats.map((heat) => ({
        x: depth.at,
        y: heat.at,
        logs: this.lives.map((life) => depth.log + heat.log + life.log + logOf(depth.at, heat.at, life.at)),
      })),
    );
    const most = Math.max(...raw.flatMap(({ logs }) => logs));
    let total = 0;
    this.cells = raw.map(({ x, y, logs }) => {
      const alive = logs.map((log) => Math.exp(log - most));
      const weight = alive.reduce((t, w) => t + w, 0);
      total += weight;
      return { x, y, weight, alive: alive.map((w) => (weight > 0 ? w / weight : 0)) };
    });
    for (const cell of this.cells) cell.weight /= total;
  }

  /** Takes looks in; whether the last of them is one that hardly any lot in this weather would show. */
  learn(checks: readonly { day: EpochDay; n: number; radicles: number }[]): boolean {
    let surprising = false;
    const shares = new Map<string, number>();
    const outOn = (x: number, y: number, day: EpochDay) => {
      const key = `${x} ${y} ${day}`;
      let share = shares.get(key);
      if (share === undefined) shares.set(key, (share = this.out(x, y, 0, day)));
      return share;
    };
    for (let k = 1; k <= checks.length; k++) {
      const { day, n, radicles } = checks[k - 1];
      // What was to be expected of it before: mean and spread over lots, and the look's own.
      let mean = 0;
      let square = 0;
      for (const { x, y, weight, alive } of this.cells)
        alive.forEach((part, i) => {
          const p = 0.005 + 0.99 * this.lives[i].at * outOn(x, y, day);
          mean += weight * part * p;
          square += weight * part * p * p;
        });
      const worth = n / (1 + (n - 1) * 0.05);
      const sd = Math.sqrt(square - mean ** 2 + (mean * (1 - mean)) / worth);
      surprising = Math.abs(radicles / n - mean) > 3 * sd + 1 / n;
      const known = checks.slice(0, k);
      this.weigh((x, y, alive) =>
        known.reduce((t, c) => t + logOfLook(alive * outOn(x, y, c.day), c.n, c.radicles), 0),
      );
    }
    return surprising;
  }

  private overYears(work: (cell: WakingLot['cells'][number], year: number) => number): number {
    let total = 0;
    const years = this.tables.length;
    for (const cell of this.cells) {
      if (cell.weight < FAINT) continue;
      for (let year = 0; year < years; year++) total += (cell.weight / years) * work(cell, year);
    }
    return total;
  }

  /** Share of all seeds out by a day, and share of the living ready. */
  mean(day: EpochDay): { out: number; ready: number } {
    const alive = ({ alive: parts }: WakingLot['cells'][number]) =>
      parts.reduce((t, part, i) => t + part * this.lives[i].at, 0);
    return {
      out: this.overYears((cell, year) => alive(cell) * this.out(cell.x, cell.y, year, day)),
      ready: this.overYears((cell, year) => this.ready(cell.x, cell.y, year, day)),
    };
  }

  /** Chances that a first radicle shows among the batch's seeds between a day and each of some later ones. */
  chancesOfFirst(from: EpochDay, untils: readonly EpochDay[], seeds: number): number[] {
    const chances = untils.map(() => 0);
    const years = this.tables.length;
    for (const cell of this.cells) {
      if (cell.weight < FAINT) continue;
      for (let year = 0; year < years; year++) {
        const now = this.out(cell.x, cell.y, year, from);
        let none = now;
        let chance = 0;
        untils.forEach((until, i) => {
          const then = this.out(cell.x, cell.y, year, until);
          if (then > none) chance = this.firstOf(cell, now, then, seeds);
          none = then;
          chances[i] += (cell.weight / years) * chance;
        });
      }
    }
    return chances;
  }

  private firstOf({ alive }: WakingLot['cells'][number], now: number, then: number, seeds: number): number {
    let chance = 0;
    for (let i = 0; i < alive.length; i++) {
      const living = this.lives[i].at;
      const among = { shareNow: now * living, shareThen: then * living, seeds: Math.max(1, seeds) };
      chance += alive[i] * firstRadicles(among);
    }
    return chance;
  }

  /** Chance, over lots and years, that so large a share is out, or ready, by a day. */
  chanceOf(what: 'out' | 'ready', day: EpochDay, share: number): number {
    return this.overYears((cell, year) => (this[what](cell.x, cell.y, year, day) >= share ? 1 : 0));
  }

  /** Band of the first day by which so large a share is out, or ready. */
  bandOfDay(what: 'out' | 'ready', share: number): Band {
    const days: { day: EpochDay; weight: number }[] = [];
    const first = this.facts.startedOn;
    const last = first + this.tables[0].heat[0].length - this.offset - 1;
    const years = this.tables.length;
    for (let year = 0; year < years; year++) {
      let low = first;
      let depth = NaN;
      // Cells of one depth stand in order of the warmth they need: what needs more is no sooner there.
      for (const { x, y, weight } of this.cells) {
        if (x !== depth) [low, depth] = [first, x];
        if (weight < SLIGHT) continue;
        let day = Infinity;
        if (this[what](x, y, year, last) >= share) {
          let high = last;
          while (low < high) {
            const middle = Math.floor((low + high) / 2);
            if (this[what](x, y, year, middle) >= share) high = middle;
            else low = middle + 1;
          }
          day = low;
        } else low = last;
        days.push({ day, weight: weight / years });
      }
    }
    days.sort((a, b) => a.day - b.day);
    const total = days.reduce((t, d) => t + d.weight, 0);
    const at = (part: number) => {
      let sofar = 0;
      for (const { day, weight } of days) if ((sofar += weight) >= part * total) return day;
      return Infinity;
    };
    return { p10: at(0.1), p50: at(0.5), p90: at(0.9) };
  }

  /** Cold that the middle seed of an ordinary lot has had by a day. */
  chilledBy(day: EpochDay): { days: number; of: number; dormancy: number } {
    const row = this.rowOf(day);
    const middle = (COURSES - 1) / 2;
    const dormancy = row < 0 ? 1 : this.tables[0].dormancy[middle][row];
    const of = this.w.chillDays;
    return { days: of * (1 - dormancy), of, dormancy };
  }
}
