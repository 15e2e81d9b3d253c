import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import type { Spread } from '../chance/spread';
import type { Beta } from '../chance/beta';
import type { Band } from '../chance/quantile';

/** Up in all by a count, with the warmth since sowing (or since winter's end) by then, °C·d. */
export interface EmergenceCount {
  warmth: number;
  up: number;
}

/** The nursery's knowledge of a species before the first count. */
export interface EmergencePrior {
  /** Share of the seeds sown that comes up in the end. */
  final: Beta;
  /** Warmth to half up. */
  half: Spread;
}

export interface EmergenceFit {
  /** Share of seeds up in the end. */
  final: Band;
  /** Warmth to half of those, °C·d. */
  half: Band;
  /** Warmth between a tenth and nine tenths of those up: how even it comes, °C·d. */
  spread: Band;
  /** Warmth by which 98 % of those that come have come: count last then. */
  last: Band;
  /** The middle of the posterior, to draw. */
  middle: WeibullCurve;
}

/** Share up at a warmth τ: final · (1 − exp(−ln 2 · (τ ÷ half)^shape)). */
export interface WeibullCurve {
  final: number;
  half: number;
  shape: number;
}

export function emergedShare({ final, half, shape }: WeibullCurve, warmth: number): number {
  return warmth <= 0 ? 0 : final * (1 - 2 ** -((warmth / half) ** shape));
}

/** Warmth at which a share of those that come have come. */
export function warmthToShare({ half, shape }: WeibullCurve, share: number): number {
  return half * (-Math.log2(1 - share)) ** (1 / shape);
}

const FINALS = 40;
const HALVES = 31;
const SHAPES = [1.5, 2, 2.6, 3.4, 4.5, 6, 8];
/** Seedlings of one bed come in patches: a count tells as much as this many independent seeds at most. */
const MOST_SEEDS = 120;

/**
 * Emergence as a Weibull curve in thermal time, by its posterior on a grid of final share, warmth to half and
 * shape: the counts between two visits are a multinomial, the rest of the seed not (yet) up.
 * @param counts in order of warmth; `up` is all ever up by then and may not fall
 * @throws Unfit with a sentence for counts above what was sown
 * @see Weibull emergence curves: Brown & Mayer 1988, Ann. Bot. 61:127
 */
export function fitEmergence(
  counts: readonly EmergenceCount[],
  sown: number,
  prior: EmergencePrior,
): EmergenceFit {
  if (!(sown >= 1)) throw new Unfit(say`Nothing was sown, so nothing can be forecast.`);
  const steps: { low: number; high: number; came: number }[] = [];
  let before = { warmth: 0, up: 0 };
  for (const count of counts) {
    if (count.up > sown) throw new Unfit(say`${count.up} up of ${sown} sown: check the count.`);
    const up = Math.max(before.up, count.up);
    const warmth = Math.max(before.warmth, count.warmth);
    steps.push({ low: before.warmth, high: warmth, came: up - before.up });
    before = { warmth, up };
  }
  const scale = Math.min(1, MOST_SEEDS / sown);
  const cells: { curve: WeibullCurve; weight: number }[] = [];
  let most = -Infinity;
  for (let f = 0; f < FINALS; f++) {
    const final = (f + 0.5) / FINALS;
    const logFinal = (prior.final.alpha - 1) * Math.log(final) + (prior.final.beta - 1) * Math.log(1 - final);
    for (let h = 0; h < HALVES; h++) {
      const z = (h / (HALVES - 1) - 0.5) * 6;
      const half = prior.half.median * Math.exp(z * prior.half.sdLog * 1.2);
      for (const shape of SHAPES) {
        const curve = { final, half, shape };
        let log = logFinal - 0.5 * z * z;
        for (const { low, high, came } of steps)
          if (came > 0)
            log +=
              scale * came * Math.log(Math.max(1e-12, emergedShare(curve, high) - emergedShare(curve, low)));
        log += scale * (sown - before.up) * Math.log(Math.max(1e-12, 1 - emergedShare(curve, before.warmth)));
        cells.push({ curve, weight: log });
        most = Math.max(most, log);
      }
    }
  }
  let total = 0;
  for (const cell of cells) total += cell.weight = Math.exp(cell.weight - most);
  const kept = cells.filter((cell) => cell.weight > total * 1e-7);
  const band = (figure: (curve: WeibullCurve) => number) => weightedBand(kept, figure);
  const final = band((c) => c.final);
  const half = band((c) => c.half);
  const shape = band((c) => c.shape);
  return {
    final: { ...final, p50: Math.max(final.p50, before.up / sown) },
    half,
    spread: band((c) => warmthToShare(c, 0.9) - warmthToShare(c, 0.1)),
    last: band((c) => warmthToShare(c, 0.98)),
    middle: { final: Math.max(final.p50, before.up / sown), half: half.p50, shape: shape.p50 },
  };
}

function weightedBand(
  cells: readonly { curve: WeibullCurve; weight: number }[],
  figure: (curve: WeibullCurve) => number,
): Band {
  const rows = cells.map(({ curve, weight }) => ({ x: figure(curve), weight })).sort((a, b) => a.x - b.x);
  const total = rows.reduce((t, r) => t + r.weight, 0);
  const at = (share: number) => {
    let sofar = 0;
    for (const { x, weight } of rows) if ((sofar += weight) >= share * total) return x;
    return rows[rows.length - 1].x;
  };
  return { p10: at(0.1), p50: at(0.5), p90: at(0.9) };
}

/**
 * Whether a lot is late: nothing up by a warmth at which nine in ten lots of its kind have begun, or fewer than
 * the tenth-worst of what was to be expected by now.
 */
export function isLate(
  { warmth, up }: EmergenceCount,
  sown: number,
  { final, half }: EmergencePrior,
): { late: boolean; expected: number } {
  const mean = final.alpha / (final.alpha + final.beta);
  const sd = Math.sqrt((mean * (1 - mean)) / (final.alpha + final.beta + 1));
  // The slow tenth of lots, of the poor tenth of seed.
  const slow = {
    final: Math.max(0.02, mean - 1.28 * sd),
    half: half.median * Math.exp(1.28 * half.sdLog),
    shape: 2.6,
  };
  const expected = sown * emergedShare({ final: mean, half: half.median, shape: 2.6 }, warmth);
  const slowUp = emergedShare(slow, warmth);
  return { late: slowUp >= slow.final * 0.1 && up < sown * slowUp * 0.8, expected };
}
