/**
 * Size by a Gompertz curve in thermal time: A·exp(−ln(A/h₀)·e^(−kτ)).
 * @param asymptote A, > h₀ > 0, in the unit wanted back
 * @param initial h₀, size at emergence
 * @param ratePerDd k, per °C·d
 * @param thermalTime τ since emergence, °C·d, ≥ 0
 * @see Gompertz 1825, Phil. Trans. 115:513
 */
export function gompertz(asymptote: number, initial: number, ratePerDd: number, thermalTime: number): number {
  return asymptote * Math.exp(-Math.log(asymptote / initial) * Math.exp(-ratePerDd * thermalTime));
}

/**
 * Thermal time at which the curve reaches a size; Infinity for a size it never reaches.
 * Inverse of {@link gompertz}.
 */
export function gompertzTime(asymptote: number, initial: number, ratePerDd: number, size: number): number {
  if (size <= initial) return 0;
  if (size >= asymptote) return Infinity;
  return -Math.log(Math.log(asymptote / size) / Math.log(asymptote / initial)) / ratePerDd;
}
