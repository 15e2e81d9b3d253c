import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import type { Highs } from './solver';
import { loadSolver } from './solver';

/** Pieces wanted of one length. */
export interface WantedPiece {
  lengthMm: number;
  count: number;
  /** What the pieces are, for the cutting diagram. */
  label?: string;
}

/** A length that can be bought. */
export interface StockLength {
  lengthMm: number;
  price: number;
}

export interface CutProblem {
  pieces: readonly WantedPiece[];
  stock: readonly StockLength[];
  kerfMm: number;
}

/** Boards of one stock length cut the same way. */
export interface CutBoard {
  stockMm: number;
  /** How many boards are cut so. */
  count: number;
  /** Lengths cut from one board, longest first. */
  cutsMm: number[];
  wasteMm: number;
}

export interface CutPlan {
  boards: CutBoard[];
  cost: number;
  /** No plan can cost less than this. */
  bound: number;
  /** Whether the plan is proven to be the cheapest. */
  optimal: boolean;
  wasteMm: number;
  boughtMm: number;
  /** Boards to buy, by stock length. */
  buy: { lengthMm: number; count: number; price: number }[];
}

/** Pieces of one length, merged. */
interface Wanted {
  lengthMm: number;
  count: number;
}

interface Pattern {
  stock: StockLength;
  counts: number[];
}

const MOST_PATTERNS = 6000;
/** A grower's patience with one section's boards, s. The best plan by then is taken, with its bound. */
const SOLVE_SECONDS = 0.7;

/**
 * One-dimensional cutting stock over stock lengths and prices at least cost. Where all ways of cutting a
 * board can be listed, a mixed-integer programme over them is exact; otherwise column generation gives the
 * patterns (Gilmore & Gomory 1961). The bound is that of the linear relaxation, raised to the solver's dual
 * bound when every pattern was listed.
 * @throws Unfit with a sentence when there is nothing to cut, or a piece is longer than every board
 */
export async function cutStock({ pieces, stock, kerfMm }: CutProblem): Promise<CutPlan> {
  const wanted = merge(pieces);
  const boards = usable(stock);
  if (!wanted.length) throw new Unfit(say`There is nothing to cut.`);
  if (!boards.length) throw new Unfit(say`Say which lengths can be bought, and their prices.`);
  if (!(kerfMm >= 0 && kerfMm <= 20)) throw new Unfit(say`A saw cut is between 0 and 20 mm wide.`);
  const longest = boards[boards.length - 1].lengthMm;
  const tooLong = wanted.find((w) => w.lengthMm > longest);
  if (tooLong)
    throw new Unfit(
      say`A piece of ${Math.round(tooLong.lengthMm)} mm is longer than the longest board, ${Math.round(longest)} mm. Choose longer boards or a shorter side.`,
    );
  const solver = await loadSolver();
  const listed = listPatterns(wanted, boards, kerfMm);
  const { patterns, relaxedCost } = listed
    ? { patterns: listed, relaxedCost: solveMaster(solver, listed, wanted, false)?.cost ?? 0 }
    : generate(solver, wanted, boards, kerfMm);
  const greedy = firstFit(wanted, boards, kerfMm);
  const whole = solveMaster(solver, patterns, wanted, true);
  let best = greedy;
  if (whole && costOf(whole.used) < costOf(greedy) - 1e-9) best = whole.used;
  const cost = costOf(best);
  let bound = Math.min(cost, relaxedCost);
  bound = Math.min(cost, raised(bound, boards));
  // Only with every pattern listed does the integer programme's own bound hold for the whole problem.
  if (listed && whole?.optimal) bound = Math.max(bound, Math.min(cost, whole.cost));
  return toPlan(best, wanted, kerfMm, cost, bound);
}

function merge(pieces: readonly WantedPiece[]): Wanted[] {
  const counts = new Map<number, number>();
  for (const { lengthMm, count } of pieces) {
    if (!(lengthMm > 0 && Number.isInteger(count) && count >= 0))
      throw new Unfit(say`A piece has a length above 0 and a whole count.`);
    const key = Math.round(lengthMm * 10) / 10;
    if (count > 0) counts.set(key, (counts.get(key) ?? 0) + count);
  }
  return [...counts]
    .map(([lengthMm, count]) => ({ lengthMm, count }))
    .sort((a, b) => b.lengthMm - a.lengthMm);
}

/** Stock from short to long, without lengths that cost as much as a longer one. */
function usable(stock: readonly StockLength[]): StockLength[] {
  for (const s of stock)
    if (!(s.lengthMm > 0 && s.price > 0)) throw new Unfit(say`A board has a length and a price above 0.`);
  const sorted = [...stock].sort((a, b) => a.lengthMm - b.lengthMm);
  return sorted.filter((s, i) => !sorted.some((other, j) => j > i && other.price <= s.price));
}

/** Pieces of one pattern need Σ(length + kerf) ≤ board + kerf: the last cut may run off the end. */
function room(board: StockLength, kerfMm: number): number {
  return board.lengthMm + kerfMm + 1e-6;
}

/** Every maximal way of cutting each board, or null when there are too many. */
function listPatterns(
  wanted: readonly Wanted[],
  boards: readonly StockLength[],
  kerfMm: number,
): Pattern[] | null {
  const patterns: Pattern[] = [];
  const shortest = wanted[wanted.length - 1].lengthMm + kerfMm;
  for (const board of boards) {
    const counts = new Array<number>(wanted.length).fill(0);
    const fill = (i: number, left: number): boolean => {
      if (i === wanted.length) {
        const full = wanted.every((w, k) => counts[k] === w.count || w.lengthMm + kerfMm > left);
        if (full || left < shortest) patterns.push({ stock: board, counts: [...counts] });
        return patterns.length <= MOST_PATTERNS;
      }
      const each = wanted[i].lengthMm + kerfMm;
      for (let n = Math.min(wanted[i].count, Math.floor(left / each)); n >= 0; n--) {
        counts[i] = n;
        if (!fill(i + 1, left - n * each)) return false;
      }
      counts[i] = 0;
      return true;
    };
    if (!fill(0, room(board, kerfMm))) return null;
  }
  return patterns.filter((p) => p.counts.some((n) => n > 0));
}

/**
 * Column generation: patterns that the linear relaxation asks for, priced by a bounded knapsack in whole
 * millimetres. Patterns count pieces rounded up, so that they fit; the bound counts them rounded down, so that it
 * holds (Farley 1990: prices scaled until no pattern is worth more than its board).
 */
function generate(
  solver: Highs,
  wanted: readonly Wanted[],
  boards: readonly StockLength[],
  kerfMm: number,
): { patterns: Pattern[]; relaxedCost: number } {
  const patterns: Pattern[] = firstFit(wanted, boards, kerfMm).map((u) => u.pattern);
  wanted.forEach((w, i) => {
    for (const board of boards) {
      const n = Math.min(w.count, Math.floor(room(board, kerfMm) / (w.lengthMm + kerfMm)));
      if (n > 0) patterns.push({ stock: board, counts: wanted.map((_, k) => (k === i ? n : 0)) });
    }
  });
  const sizes = (round: (mm: number) => number) => wanted.map((w) => round(w.lengthMm + kerfMm));
  const up = sizes((mm) => Math.ceil(mm - 1e-9));
  const down = sizes((mm) => Math.floor(mm + 1e-9));
  let relaxed = solveMaster(solver, patterns, wanted, false)!;
  for (let round = 0; round < 200; round++) {
    let added = 0;
    for (const board of boards) {
      const { counts, value } = knapsack(wanted, up, relaxed.duals, Math.floor(room(board, kerfMm)));
      if (value > board.price + 1e-7) {
        patterns.push({ stock: board, counts });
        added++;
      }
    }
    if (!added) break;
    relaxed = solveMaster(solver, patterns, wanted, false)!;
  }
  const worth = boards.map(
    (b) => knapsack(wanted, down, relaxed.duals, Math.ceil(room(b, kerfMm))).value / b.price,
  );
  const dualCost = wanted.reduce((t, w, i) => t + w.count * relaxed.duals[i], 0);
  return { patterns, relaxedCost: dualCost / Math.max(1, ...worth) };
}

/** Most valuable pieces that fit a length, none taken more often than it is wanted. */
function knapsack(
  wanted: readonly Wanted[],
  sizes: readonly number[],
  values: readonly number[],
  capacity: number,
) {
  const best = new Float64Array(capacity + 1);
  const taken = wanted.map(() => new Uint16Array(capacity + 1));
  wanted.forEach((w, i) => {
    if (!(values[i] > 0)) return;
    const before = Float64Array.from(best);
    const size = sizes[i];
    for (let c = size; c <= capacity; c++)
      for (let n = 1; n <= w.count && n * size <= c; n++) {
        const v = before[c - n * size] + n * values[i];
        if (v > best[c] + 1e-12) {
          best[c] = v;
          taken[i][c] = n;
        }
      }
  });
  const counts = new Array<number>(wanted.length).fill(0);
  let c = capacity;
  for (let i = wanted.length - 1; i >= 0; i--) {
    counts[i] = taken[i][c];
    c -= counts[i] * sizes[i];
  }
  return { counts, value: best[capacity] };
}

interface Used {
  pattern: Pattern;
  times: number;
}

/** The covering programme over patterns, relaxed or in whole boards. */
function solveMaster(
  solver: Highs,
  patterns: readonly Pattern[],
  wanted: readonly { count: number }[],
  whole: boolean,
) {
  const lines = [
    'Minimize',
    ` obj: ${patterns.map((p, j) => `${p.stock.price} x${j}`).join(' + ')}`,
    'Subject To',
  ];
  wanted.forEach((w, i) => {
    const terms = patterns.flatMap((p, j) => (p.counts[i] ? [`${p.counts[i]} x${j}`] : []));
    lines.push(` c${i}: ${terms.join(' + ')} >= ${w.count}`);
  });
  if (whole) lines.push('General', ` ${patterns.map((_, j) => `x${j}`).join(' ')}`);
  lines.push('End');
  const answer = solver.solve(lines.join('\n'), {
    output_flag: false,
    ...(whole ? { mip_rel_gap: 1e-7, time_limit: SOLVE_SECONDS } : {}),
  });
  const columns = answer.Columns as Record<string, { Primal?: number }>;
  const used: Used[] = patterns.flatMap((pattern, j) => {
    const primal = columns[`x${j}`]?.Primal ?? 0;
    const times = whole ? Math.round(primal) : primal;
    return times > 1e-9 ? [{ pattern, times }] : [];
  });
  const covers = wanted.every(
    (w, i) => used.reduce((t, u) => t + u.times * u.pattern.counts[i], 0) >= w.count - 1e-6,
  );
  if (!covers) return null;
  const duals = wanted.map((_, i) => {
    const row = (answer.Rows as { Name: string; Dual?: number }[]).find((r) => r.Name === `c${i}`);
    return row?.Dual ?? 0;
  });
  return { used, duals, cost: answer.ObjectiveValue, optimal: answer.Status === 'Optimal' };
}

/** First-fit decreasing on the board that is cheapest by length, each then cut down to the cheapest that holds it. */
function firstFit(wanted: readonly Wanted[], boards: readonly StockLength[], kerfMm: number): Used[] {
  const longest = boards[boards.length - 1];
  const open: { counts: number[]; left: number }[] = [];
  wanted.forEach((w, i) => {
    for (let n = 0; n < w.count; n++) {
      const each = w.lengthMm + kerfMm;
      let bin = open.find((b) => b.left >= each);
      if (!bin) open.push((bin = { counts: wanted.map(() => 0), left: room(longest, kerfMm) }));
      bin.counts[i]++;
      bin.left -= each;
    }
  });
  return open.map(({ counts, left }) => {
    const need = room(longest, kerfMm) - left;
    const fits = boards.filter((b) => room(b, kerfMm) >= need - 1e-6);
    const stock = fits.reduce((a, b) => (b.price < a.price ? b : a));
    return { pattern: { stock, counts }, times: 1 };
  });
}

/** A bound raised to what prices can add up to: every cost is a multiple of their common measure, in hundredths. */
function raised(bound: number, boards: readonly StockLength[]): number {
  const hundredths = boards.map((b) => Math.round(b.price * 100));
  if (boards.some((b, i) => Math.abs(b.price * 100 - hundredths[i]) > 1e-6)) return bound;
  const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));
  const measure = hundredths.reduce(gcd) / 100;
  return Math.ceil(bound / measure - 1e-6) * measure;
}

function costOf(used: readonly Used[]): number {
  return used.reduce((t, u) => t + u.times * u.pattern.stock.price, 0);
}

/** Lays the pieces wanted into the patterns used; a pattern may hold more than is wanted, which stays on the board. */
function toPlan(
  used: readonly Used[],
  wanted: readonly Wanted[],
  kerfMm: number,
  cost: number,
  bound: number,
): CutPlan {
  const left = wanted.map((w) => w.count);
  const boards = new Map<string, CutBoard>();
  const buy = new Map<number, { lengthMm: number; count: number; price: number }>();
  for (const { pattern, times } of used)
    for (let t = 0; t < times; t++) {
      const cutsMm: number[] = [];
      pattern.counts.forEach((n, i) => {
        const take = Math.min(n, left[i]);
        left[i] -= take;
        for (let k = 0; k < take; k++) cutsMm.push(wanted[i].lengthMm);
      });
      if (!cutsMm.length) continue;
      const stockMm = pattern.stock.lengthMm;
      const key = `${stockMm}:${cutsMm.join(',')}`;
      const cut = cutsMm.reduce((a, b) => a + b + kerfMm, 0);
      const board = boards.get(key) ?? { stockMm, count: 0, cutsMm, wasteMm: Math.max(0, stockMm - cut) };
      board.count++;
      boards.set(key, board);
      const line = buy.get(stockMm) ?? { lengthMm: stockMm, count: 0, price: pattern.stock.price };
      line.count++;
      buy.set(stockMm, line);
    }
  const list = [...boards.values()].sort((a, b) => b.stockMm - a.stockMm || b.count - a.count);
  const total = [...buy.values()].reduce((t, b) => t + b.count * b.price, 0);
  return {
    boards: list,
    cost: Math.min(cost, total),
    bound,
    optimal: Math.min(cost, total) <= bound + 1e-6,
    wasteMm: list.reduce((t, b) => t + b.count * b.wasteMm, 0),
    boughtMm: list.reduce((t, b) => t + b.count * b.stockMm, 0),
    buy: [...buy.values()].sort((a, b) => b.lengthMm - a.lengthMm),
  };
}
