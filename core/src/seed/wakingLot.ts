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
  wakeTable,
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
    this.tables = means.map((mean) =>
      wakeTable(Float64Array.of(...before, ...mean), swingC, this.w, this.courseAt),
    );
    this.weigh(() => 0);
  }

  /** Row of a day in the tables; the last for days beyond. */
  private rowOf(day: EpochDay): number {
    const rows = this.tables[0].heat[0].length;
    return Math.min(rows - 1, this.offset + day - this.facts.startedOn);
  }

  /** Shares of the living that are out, and that would come up soon, for one lot in one year by a day. */
  share(x: number, y: number, year: number, day: EpochDay): { out: number; ready: number } {
    const row = this.rowOf(day);
    if (row < 0) return { out: 0, ready: 0 };
    const { heat, dormancy } = this.tables[year];
    const reach = this.courseAt[COURSES - 1];
    const { seedSdDepth, seedSdHeat } = this.w;
    let out = 0;
    let ready = 0;
    for (let i = 0; i < SEED_Z.length; i++) {
      const depth = x + seedSdDepth * SEED_Z[i];
      const at = Math.max(0, Math.min(COURSES - 1.000001, ((depth / reach + 1) / 2) * (COURSES - 1) || 0));
      const low = Math.floor(at);
      const part = at - low;
      const high = Math.min(COURSES - 1, low + 1);
      const h = heat[low][row] * (1 - part) + heat[high][row] * part;
      const d = dormancy[low][row] * (1 - part) + dormancy[high][row] * part;
      out += SEED_WEIGHT[i] * shareOf(h, y, seedSdHeat);
      const soon = Math.exp(y) * this.soon.days * gainAt(this.soon.meanC, d, this.w);
      ready += SEED_WEIGHT[i] * shareOf(h + soon, y, seedSdHeat);
    }
    return { out, ready };
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
      if (share === undefined) shares.set(key, (share = this.share(x, y, 0, day).out));
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
      if (cell.weight < 1e-6) continue;
      for (let year = 0; year < years; year++) total += (cell.weight / years) * work(cell, year);
    }
    return total;
  }

  /** Share of all seeds out by a day, and share of the living ready. */
  mean(day: EpochDay): { out: number; ready: number } {
    const alive = ({ alive: parts }: WakingLot['cells'][number]) =>
      parts.reduce((t, part, i) => t + part * this.lives[i].at, 0);
    return {
      out: this.overYears((cell, year) => alive(cell) * this.share(cell.x, cell.y, year, day).out),
      ready: this.overYears((cell, year) => this.share(cell.x, cell.y, year, day).ready),
    };
  }

  /** Chance that a first radicle shows among the batch's seeds between two days. */
  chanceOfFirst(from: EpochDay, to: EpochDay, seeds: number): number {
    return this.overYears((cell, year) => {
      const now = this.share(cell.x, cell.y, year, from).out;
      const then = this.share(cell.x, cell.y, year, to).out;
      return cell.alive.reduce(
        (t, part, i) =>
          t +
          part *
            firstRadicles({
              shareNow: now * this.lives[i].at,
              shareThen: then * this.lives[i].at,
              seeds: Math.max(1, seeds),
            }),
        0,
      );
    });
  }

  /** Chance, over lots and years, that something holds of the shares by a day. */
  chanceThat(day: EpochDay, holds: (share: { out: number; ready: number }) => boolean): number {
    return this.overYears((cell, year) => (holds(this.share(cell.x, cell.y, year, day)) ? 1 : 0));
  }

  /** Band of the first day on which something holds that, once true, stays so. */
  bandOfDay(holds: (x: number, y: number, year: number, day: EpochDay) => boolean): Band {
    const days: { day: EpochDay; weight: number }[] = [];
    const first = this.facts.startedOn;
    const last = first + this.tables[0].heat[0].length - this.offset - 1;
    const years = this.tables.length;
    for (const { x, y, weight } of this.cells) {
      if (weight < 1e-4) continue;
      for (let year = 0; year < years; year++) {
        let day = Infinity;
        if (holds(x, y, year, last)) {
          let [low, high] = [first, last];
          while (low < high) {
            const middle = Math.floor((low + high) / 2);
            if (holds(x, y, year, middle)) high = middle;
            else low = middle + 1;
          }
          day = low;
        }
        days.push({ day, weight: weight / years });
      }
    }
    days.sort((a, b) => a.day - b.day);
    const total = days.reduce((t, d) => t + d.weight, 0);
    const at = (share: number) => {
      let sofar = 0;
      for (const { day, weight } of days) if ((sofar += weight) >= share * total) return day;
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
