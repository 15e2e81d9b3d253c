import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { put, sum, type Worked } from '../working/working';

/** The plug holds from here. */
export const READY_FILL = 0.65;
/** Roots fill the cell; beyond it the plant is root-bound. */
export const BOUND_FILL = 1;
/** Growth into the medium ceases at this fill. */
export const FULLEST_FILL = 1.3;

export interface RootParameters {
  /** Medium held by roots at the start, mL. */
  initialMl: number;
  cellMl: number;
  /** Species rate, per °C·d. */
  ratePerDd: number;
  /** Root volume where growth turns from exponential to linear, mL. */
  linearAtMl: number;
  /** The lot's own vigour, 1 for an ordinary lot. */
  vigour: number;
}

export interface RootFill {
  /** Fill after each day, R/V. */
  fill: Float64Array;
  last: number;
  /** Days until fill reaches 0.65 (plug holds) and 1.0 (root-bound); null if not within the days given. */
  daysToReady: number | null;
  daysToBound: number | null;
}

/**
 * Roots in one cell by the warmth they have had, in closed form: with K = 1.3·V the equation
 * dR/dτ = r·θ · R/(1 + R/R_L) · (1 − R/K) integrates to r·θ·τ = G(R) − G(R₀), G(R) = ln R − (1 + K/R_L)·ln(1 − R/K).
 */
export interface RootClock {
  cellMl: number;
  /** G at the fills that a plug holds and is root-bound from. */
  ready: number;
  bound: number;
  /** G(R) of a root volume, mL; Infinity for one that no warmth brings. */
  at: (rootMl: number) => number;
  /** Root volume, mL, at a value of G. */
  rootsAt: (g: number) => number;
}

/** In a large pot a plant is larger before its roots turn from exponential to linear: of the cell's volume, and at most, mL. */
const LINEAR_OF_CELL = 0.45;
const LINEAR_MOST_ML = 1500;

/**
 * Root volume where growth turns from exponential to linear in a cell, mL: the species' own, or a share of the cell's
 * volume where that is more, so that a pot is filled within about a season of a shift (a rule of thumb).
 */
export const linearIn = (linearAtMl: number, cellMl: number): number =>
  Math.max(linearAtMl, Math.min(LINEAR_MOST_ML, LINEAR_OF_CELL * cellMl));

/** Newton's steps towards R: each about squares the error, and a dozen reach the last digit from anywhere. */
const NEWTON_STEPS = 30;
const NEAR_ENOUGH = 1e-13;

/**
 * The clock of a cell.
 * @param cellMl volume of the cell, mL, above 0
 * @param linearAtMl R_L, root volume where growth turns from exponential to linear, mL, above 0
 */
export function rootClock(cellMl: number, linearAtMl: number): RootClock {
  const fullest = FULLEST_FILL * cellMl;
  const c = 1 + fullest / linearAtMl;
  const ln = Math.log(fullest);
  // In shares x = R/K: s(x) = ln x − c·ln(1 − x).
  const rootsAt = (g: number) => {
    if (g === Infinity) return fullest;
    const s = g - ln;
    if (s < 0) {
      // y = ln x: s = y − c·ln(1 − e^y) rises ever steeper, so from above Newton never oversteps.
      let y = s;
      for (let step = 0; step < NEWTON_STEPS; step++) {
        const x = Math.exp(y);
        const off = (y - c * Math.log1p(-x) - s) / (1 + (c * x) / (1 - x));
        y -= off;
        if (Math.abs(off) < NEAR_ENOUGH) break;
      }
      return fullest * Math.exp(y);
    }
    // z = −ln(1 − x): s = ln(1 − e^−z) + c·z flattens, so from below Newton never oversteps.
    let z = s / c;
    if (z === 0) z = 1e-9;
    for (let step = 0; step < NEWTON_STEPS; step++) {
      const left = Math.exp(-z);
      const off = (Math.log1p(-left) + c * z - s) / (left / (1 - left) + c);
      z -= off;
      if (Math.abs(off) < NEAR_ENOUGH * Math.max(1, z)) break;
    }
    return fullest * -Math.expm1(-z);
  };
  const at = (rootMl: number) =>
    rootMl >= fullest ? Infinity : Math.log(rootMl) - c * Math.log1p(-rootMl / fullest);
  return { cellMl, at, rootsAt, ready: at(READY_FILL * cellMl), bound: at(BOUND_FILL * cellMl) };
}

/** Root volume after some warmth at a rate (r·θ·τ), from a volume at its start, mL. A volume past the fullest stays. */
export function rootsAfter(clock: RootClock, fromMl: number, rateTimesDd: number): number {
  if (rateTimesDd <= 0) return fromMl;
  const g = clock.at(fromMl);
  return g === Infinity ? fromMl : clock.rootsAt(g + rateTimesDd);
}

/**
 * Root fill of a cell in thermal time; exact, whatever the days bring.
 * @param dailyDd warmth of each day above 5 °C, °C·d
 * @throws Unfit when a parameter is not above 0
 */
export function rootFill(p: RootParameters, dailyDd: ArrayLike<number>): Worked<RootFill> {
  for (const value of [p.initialMl, p.cellMl, p.ratePerDd, p.linearAtMl, p.vigour]) {
    if (!(value > 0 && Number.isFinite(value)))
      throw new Unfit(say`Root volume, cell, rate and vigour must all be above 0.`);
  }
  const clock = rootClock(p.cellMl, p.linearAtMl);
  const rate = p.ratePerDd * p.vigour;
  const fill = new Float64Array(dailyDd.length);
  let warmth = 0;
  let daysToReady: number | null = null;
  let daysToBound: number | null = null;
  for (let day = 0; day < dailyDd.length; day++) {
    warmth += dailyDd[day];
    const f = (fill[day] = rootsAfter(clock, p.initialMl, rate * warmth) / p.cellMl);
    if (daysToReady === null && f >= READY_FILL) daysToReady = day + 1;
    if (daysToBound === null && f >= BOUND_FILL) daysToBound = day + 1;
  }
  const last = fill.length ? fill[fill.length - 1] : p.initialMl / p.cellMl;
  const fullest = FULLEST_FILL * p.cellMl;
  const rootMl = last * p.cellMl;
  return {
    value: { fill, last, daysToReady, daysToBound },
    working: [
      {
        what: say`Roots’ share of the medium at the start`,
        expression: sum`${p.initialMl} ÷ ${p.cellMl}`,
        result: p.initialMl / p.cellMl,
      },
      {
        what: say`Growth that the warmth is worth`,
        expression: sum`${p.ratePerDd} × ${p.vigour} × ${warmth}`,
        result: rate * warmth,
        inputs: [
          { name: 'rate', value: p.ratePerDd, unit: 'per °C·d', origin: 'starting' },
          { name: say`vigour of the lot`, value: p.vigour, origin: 'record' },
          { name: 'warmth', value: warmth, unit: '°C·d', origin: 'record' },
        ],
      },
      {
        what: say`Roots in the end`,
        how: say`The volume R at which ln(R ÷ R₀) − (1 + K ÷ R_L) × ln((1 − R ÷ K) ÷ (1 − R₀ ÷ K)) comes to that; K = ${put(fullest)} mL is the most the cell takes, R_L = ${put(p.linearAtMl)} mL where growth turns from exponential to linear.`,
        result: rootMl,
        unit: 'mL',
        source: 'Logistic–linear root growth in thermal time, in closed form',
      },
      { what: say`Root fill`, expression: sum`${rootMl} ÷ ${p.cellMl}`, result: last },
    ],
  };
}
