import { sum, type Worked } from '../working/working';

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

/** One day's growth of root volume, mL: r·θ·DD · R/(1 + R/R_L) · max(0, 1 − F/1.3). */
export function rootStep(rootMl: number, rateDd: number, linearAtMl: number, cellMl: number): number {
  const room = 1 - rootMl / (FULLEST_FILL * cellMl);
  return room > 0 ? (rateDd * rootMl * linearAtMl * room) / (linearAtMl + rootMl) : 0;
}

/**
 * Root fill of a cell day by day in thermal time.
 * @param dailyDd warmth of each day above 5 °C, °C·d
 * @throws RangeError when a parameter is not above 0
 */
export function rootFill(p: RootParameters, dailyDd: ArrayLike<number>): Worked<RootFill> {
  for (const value of [p.initialMl, p.cellMl, p.ratePerDd, p.linearAtMl, p.vigour]) {
    if (!(value > 0 && Number.isFinite(value)))
      throw new RangeError('Root volume, cell, rate and vigour must all be above 0.');
  }
  const fill = new Float64Array(dailyDd.length);
  let rootMl = p.initialMl;
  let before = rootMl;
  let daysToReady: number | null = null;
  let daysToBound: number | null = null;
  for (let day = 0; day < dailyDd.length; day++) {
    before = rootMl;
    rootMl += rootStep(rootMl, p.ratePerDd * p.vigour * dailyDd[day], p.linearAtMl, p.cellMl);
    const f = (fill[day] = rootMl / p.cellMl);
    if (daysToReady === null && f >= READY_FILL) daysToReady = day + 1;
    if (daysToBound === null && f >= BOUND_FILL) daysToBound = day + 1;
  }
  const last = fill.length ? fill[fill.length - 1] : p.initialMl / p.cellMl;
  const lastDd = dailyDd.length ? dailyDd[dailyDd.length - 1] : 0;
  return {
    value: { fill, last, daysToReady, daysToBound },
    working: [
      {
        what: 'Roots’ share of the medium at the start',
        expression: sum`${p.initialMl} ÷ ${p.cellMl}`,
        result: p.initialMl / p.cellMl,
      },
      {
        what: 'Root volume after the last day',
        expression: sum`${before} + ${p.ratePerDd} × ${p.vigour} × ${lastDd} × ${before} ÷ (1 + ${before} ÷ ${p.linearAtMl}) × max(0, 1 − ${before} ÷ ${p.cellMl} ÷ 1.3)`,
        result: rootMl,
        unit: 'mL',
        inputs: [
          { name: 'rate', value: p.ratePerDd, unit: 'per °C·d', origin: 'starting' },
          { name: 'vigour of the lot', value: p.vigour, origin: 'record' },
          { name: 'warmth of the last day', value: lastDd, unit: '°C·d', origin: 'record' },
        ],
        source: 'Logistic–linear root fill in thermal time, day by day',
      },
      { what: 'Root fill', expression: sum`${rootMl} ÷ ${p.cellMl}`, result: last },
    ],
  };
}
