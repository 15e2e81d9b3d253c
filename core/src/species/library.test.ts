import { describe, expect, it } from 'vitest';
import { betaMean } from '../chance/beta';
import { mustRun } from './protocol';
import { speciesLibrary } from './speciesLibrary';
import { startingSpecies } from './startingSpecies';
import { startOf } from './startOf';

describe('the species library', () => {
  it('holds the starting species and at least sixty more, each once', () => {
    expect(speciesLibrary.length).toBeGreaterThanOrEqual(startingSpecies.length + 60);
    for (const key of ['code', 'common', 'latin'] as const)
      expect(new Set(speciesLibrary.map((s) => s[key])).size).toBe(speciesLibrary.length);
  });

  it.each(speciesLibrary.map((s) => [s.latin, s] as const))('%s has values that can be', (_, { values }) => {
    const start = values.start!;
    expect(values.seedsPerKg).toBeGreaterThanOrEqual(20);
    expect(values.seedsPerKg).toBeLessThanOrEqual(1e7);
    for (const share of [values.viability, values.emergence, values.establishment, values.grade]) {
      expect(betaMean(share)).toBeGreaterThan(0.2);
      expect(betaMean(share)).toBeLessThan(0.98);
    }
    for (const { phases } of start.protocols) mustRun(phases);
    expect(start.protocols.length).toBeGreaterThan(0);
    // A seed weighs what its size says, within an order of magnitude of a ball of wood.
    const grams = 1000 / values.seedsPerKg;
    const ball = (Math.PI / 6) * (start.thicknessMm / 10) ** 3;
    expect(grams / ball).toBeGreaterThan(0.03);
    expect(grams / ball).toBeLessThan(12);
    // What keeps badly keeps weeks or months; what keeps well keeps years.
    if (start.storage === 'recalcitrant') expect(start.sigmaDays.median).toBeLessThanOrEqual(160);
    expect(start.leafWords).not.toBe('');
    // Winters lain in the ground are the sown protocol's stretches of cold, where there is one.
    const sown = start.protocols.find((p) => p.school === 'sown');
    if (sown && values.winters > 0) expect(sown.phases.some((p) => p.kind === 'cold')).toBe(true);
  });

  it('is what a species kept before its start was known falls back on', () => {
    const older = { ...startingSpecies[0].values, start: undefined };
    expect(startOf({ code: 'BPE', values: older })).toEqual(startingSpecies[0].values.start);
    expect(startOf({ code: 'ZZZ', values: {} }).storage).toBe('orthodox');
  });
});
