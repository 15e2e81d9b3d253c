import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { put, sum, type Worked } from '../working/working';

export interface RadialBalance {
  /** 0 where roots pull evenly all round, 1 where all point one way. */
  meanResultantLength: number;
  /** Chance of so one-sided a set by luck, were roots spread evenly. */
  rayleighP: number;
  /** The widest stretch without a root, degrees. */
  largestGapDeg: number;
}

/**
 * How evenly laterals stand round the collar. Two opposite roots are not one-sided but leave gaps of 180°, so
 * both measures are given.
 * @param azimuthsDeg direction of each lateral, degrees, any turn
 * @returns with no lateral: resultant 0, p 1, gap 360; with one: gap 360
 * @throws Unfit for a direction that is not a number
 * @see Zar 1999, Biostatistical Analysis, ch. 26–27 (mean vector, Rayleigh’s test)
 */
export function radialBalance(azimuthsDeg: readonly number[]): Worked<RadialBalance> {
  if (azimuthsDeg.some((a) => !Number.isFinite(a)))
    throw new Unfit(say`Each lateral needs a direction in degrees.`);
  const n = azimuthsDeg.length;
  const radians = azimuthsDeg.map((a) => (a * Math.PI) / 180);
  const east = radians.reduce((t, a) => t + Math.cos(a), 0);
  const north = radians.reduce((t, a) => t + Math.sin(a), 0);
  const length = n ? Math.min(1, Math.hypot(east, north) / n) : 0;
  const R = n * length;
  const p = n ? Math.min(1, Math.exp(Math.sqrt(1 + 4 * n + 4 * (n * n - R * R)) - (1 + 2 * n))) : 1;
  const turned = azimuthsDeg.map((a) => ((a % 360) + 360) % 360).sort((a, b) => a - b);
  const gap = n
    ? Math.max(...turned.map((a, i) => (i + 1 < n ? turned[i + 1] - a : turned[0] + 360 - a)))
    : 360;
  return {
    value: { meanResultantLength: length, rayleighP: p, largestGapDeg: gap },
    working: [
      {
        what: say`One-sidedness: length of the mean of all directions`,
        ...(n
          ? { expression: sum`sqrt(${east}^2 + ${north}^2) ÷ ${n}` }
          : { how: say`No lateral was seen.` }),
        result: length,
        inputs: [{ name: 'laterals', value: n, origin: 'record' }],
        source: 'Zar 1999',
      },
      {
        what: say`Chance of so one-sided a set by luck (Rayleigh)`,
        ...(n
          ? {
              expression: sum`min(1, exp(sqrt(1 + 4 × ${n} + 4 × (${n}^2 − ${R}^2)) − (1 + 2 × ${n})))`,
            }
          : { how: say`Nothing to test.` }),
        result: p,
      },
      {
        what: say`Widest stretch without a root`,
        how: n
          ? say`Directions in order: ${turned.map(put).join('°, ')}°.`
          : say`No lateral: the whole round.`,
        result: gap,
        unit: '°',
      },
    ],
  };
}
