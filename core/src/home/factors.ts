/** Share of the asymptote that a settled depth of medium allows: 1 − exp(−depth/75 mm). */
export function depthFactor(settledDepthMm: number): number {
  return 1 - Math.exp(-settledDepthMm / 75);
}

/** Share of the diameter asymptote left at a density: (1 + ρ/ρ½)^−0.4 (Shinozaki & Kira 1956). */
export function densityFactor(densityPerM2: number, halfDensityPerM2: number): number {
  return (1 + densityPerM2 / halfDensityPerM2) ** -0.4;
}
