import { say, inWords } from '../speech/say';
import { Unfit } from '../working/unfit';
import { put, sum, type Worked } from '../working/working';
import { USUAL_HELD_BY_MM, USUAL_HELD_SHARE, type MediumPart, type MediumValues } from './medium';

/** A material that media are mixed from. */
export interface Material {
  name: string;
  wetKgPerM3: number;
  dryKgPerM3: number;
  airShare: number;
  heldShare: number;
  settling: number;
  heldByMm: number;
  costPerM3: number;
  phLow: number;
  phHigh: number;
  caution: string;
}

/** Materials in their ordinary ranges; a nursery weighs its own. */
// One a line: a table to read across.
// prettier-ignore
export const materials: readonly Material[] = inWords([
  { name: 'chips', wetKgPerM3: 520, dryKgPerM3: 240, airShare: 0.38, heldShare: 0.16, settling: 0.22, heldByMm: 19, costPerM3: 15, phLow: 5.5, phHigh: 6.5, caution: 'Dust and moulds: damp before turning.' },
  { name: 'compost', wetKgPerM3: 880, dryKgPerM3: 420, airShare: 0.12, heldShare: 0.34, settling: 0.22, heldByMm: 8, costPerM3: 45, phLow: 6.5, phHigh: 7.8, caution: 'Legionella and moulds: mask, damp it, wash hands.' },
  { name: 'castings', wetKgPerM3: 900, dryKgPerM3: 480, airShare: 0.1, heldShare: 0.36, settling: 0.15, heldByMm: 4, costPerM3: 190, phLow: 6.5, phHigh: 7.2, caution: 'Wash hands.' },
  { name: 'leaf mould', wetKgPerM3: 680, dryKgPerM3: 250, airShare: 0.18, heldShare: 0.32, settling: 0.25, heldByMm: 6, costPerM3: 20, phLow: 5.5, phHigh: 6.5, caution: 'Moulds: damp before turning.' },
  { name: 'coarse sand', wetKgPerM3: 1750, dryKgPerM3: 1500, airShare: 0.14, heldShare: 0.1, settling: 0.02, heldByMm: 2, costPerM3: 38, phLow: 6.0, phHigh: 7.5, caution: 'Heavy: small loads. Dry sand: mask.' },
  { name: 'topsoil', wetKgPerM3: 1550, dryKgPerM3: 1150, airShare: 0.08, heldShare: 0.24, settling: 0.08, heldByMm: 4, costPerM3: 32, phLow: 6.0, phHigh: 7.5, caution: 'May carry weeds and disease.' },
  { name: 'bark fines', wetKgPerM3: 560, dryKgPerM3: 220, airShare: 0.3, heldShare: 0.22, settling: 0.12, heldByMm: 10, costPerM3: 55, phLow: 4.5, phHigh: 6.0, caution: 'Dust: damp before mixing.' },
  { name: 'coir', wetKgPerM3: 760, dryKgPerM3: 90, airShare: 0.18, heldShare: 0.42, settling: 0.1, heldByMm: 4, costPerM3: 110, phLow: 5.5, phHigh: 6.5, caution: '' },
  { name: 'perlite', wetKgPerM3: 320, dryKgPerM3: 100, airShare: 0.42, heldShare: 0.14, settling: 0.04, heldByMm: 4, costPerM3: 120, phLow: 6.5, phHigh: 7.5, caution: 'Dust: mask, wet it first.' },
  { name: 'grit', wetKgPerM3: 1600, dryKgPerM3: 1450, airShare: 0.28, heldShare: 0.06, settling: 0.01, heldByMm: 4, costPerM3: 48, phLow: 6.5, phHigh: 8.0, caution: 'Heavy: small loads.' },
  { name: 'spent medium', wetKgPerM3: 820, dryKgPerM3: 400, airShare: 0.14, heldShare: 0.3, settling: 0.1, heldByMm: 6, costPerM3: 0, phLow: 6.0, phHigh: 7.2, caution: 'Only from lots without root disease.' },
], 'caution');

/** Materials by their names. */
export const materialWords: Readonly<Record<string, string>> = inWords({
  chips: 'chips',
  compost: 'compost',
  castings: 'castings',
  'leaf mould': 'leaf mould',
  'coarse sand': 'coarse sand',
  topsoil: 'topsoil',
  'bark fines': 'bark fines',
  coir: 'coir',
  perlite: 'perlite',
  grit: 'grit',
  'spent medium': 'spent medium',
});

/** Volume lost when fine material fills the room between coarse, share; ordinary for potting mixes. */
export const MIXING_LOSS = 0.1;

/**
 * A medium's values from its recipe: means of its materials by volume.
 * @throws Unfit with a sentence for no parts, parts not above 0, or an unknown material
 */
export function mixOf(
  name: string,
  parts: readonly MediumPart[],
  known: readonly Material[] = materials,
): Worked<MediumValues> {
  if (!parts.length) throw new Unfit(say`A recipe needs at least one material.`);
  const total = parts.reduce((t, p) => t + p.parts, 0);
  const used = parts.map((part) => {
    const material = known.find((m) => m.name === part.material);
    if (!material) throw new Unfit(say`Nothing is known of “${part.material}”.`);
    if (!(part.parts > 0)) throw new Unfit(say`Parts of ${part.material} must be above 0.`);
    return { material, share: part.parts / total };
  });
  const mean = (of: (m: Material) => number) => used.reduce((t, u) => t + u.share * of(u.material), 0);
  const value: MediumValues = {
    name,
    wetKgPerM3: mean((m) => m.wetKgPerM3),
    dryKgPerM3: mean((m) => m.dryKgPerM3),
    airShare: mean((m) => m.airShare),
    settling: mean((m) => m.settling),
    heldShare: mean((m) => m.heldShare),
    heldByMm: Math.min(...used.filter((u) => u.share >= 0.15).map((u) => u.material.heldByMm)),
    costPerM3: mean((m) => m.costPerM3),
    ph: `${mean((m) => m.phLow).toFixed(1)}–${mean((m) => m.phHigh).toFixed(1)}`,
    parts,
    note: [...new Set(used.map((u) => u.material.caution).filter(Boolean))].join(' '),
  };
  const step = (what: string, unit: string, of: (m: Material) => number) => ({
    what,
    expression: used.map((u) => sum`${u.share} × ${of(u.material)}`).join(' + '),
    result: mean(of),
    unit,
    inputs: used.map((u) => ({
      name: u.material.name,
      value: of(u.material),
      unit,
      origin: 'starting' as const,
    })),
  });
  return {
    value,
    working: [
      step(say`Weight at container capacity`, 'kg/m³', (m) => m.wetKgPerM3),
      step(say`Air-filled porosity`, '', (m) => m.airShare),
      step(say`Water held`, '', (m) => m.heldShare),
      step(say`Cost`, say`per m³`, (m) => m.costPerM3),
    ],
  };
}

export interface Batch {
  parts: { material: string; litres: number; bags: number; barrows: number }[];
  /** Loose material before mixing. */
  looseL: number;
  feedG: number;
  inoculumMl: number;
  cost: number;
}

/**
 * What to measure out for a batch: volumes with the loss of mixing, bags, barrows, feed and inoculum.
 * @throws Unfit when a volume is not above 0 or a rate is below 0
 */
export function batchFor(choice: {
  litres: number;
  parts: readonly MediumPart[];
  bagL: number;
  barrowL: number;
  feedGPerL: number;
  inoculumMlPerL: number;
}): Worked<Batch> {
  const { litres, parts, bagL, barrowL, feedGPerL, inoculumMlPerL } = choice;
  if (!(litres > 0 && bagL > 0 && barrowL > 0))
    throw new Unfit(say`Batch, bag and barrow must hold litres above 0.`);
  if (!(feedGPerL >= 0 && inoculumMlPerL >= 0)) throw new Unfit(say`Feed and inoculum cannot be below 0.`);
  const { value: mix } = mixOf('batch', parts);
  const looseL = litres / (1 - MIXING_LOSS);
  const total = parts.reduce((t, p) => t + p.parts, 0);
  const lines = parts.map((p) => {
    const part = (looseL * p.parts) / total;
    return {
      material: p.material,
      litres: part,
      bags: Math.ceil(part / bagL - 1e-9),
      barrows: part / barrowL,
    };
  });
  const feedG = litres * feedGPerL;
  return {
    value: {
      parts: lines,
      looseL,
      feedG,
      inoculumMl: litres * inoculumMlPerL,
      cost: (looseL / 1000) * (mix.costPerM3 ?? 0),
    },
    working: [
      {
        what: say`Loose material to measure out`,
        expression: sum`${litres} ÷ (1 − ${MIXING_LOSS})`,
        result: looseL,
        unit: 'L',
        inputs: [{ name: say`loss of mixing`, value: MIXING_LOSS, origin: 'starting' }],
      },
      ...parts.map((p, i) => ({
        what: p.material,
        expression: `${put(looseL)} × ${put(p.parts)} ÷ ${put(total)}`,
        result: lines[i].litres,
        unit: 'L',
      })),
      { what: say`Feed`, expression: sum`${litres} × ${feedGPerL}`, result: feedG, unit: 'g' },
    ],
  };
}

/** A medium's water and grain, with what is usual where it was never said. */
export function heldShareOf(medium: Pick<MediumValues, 'heldShare'>): number {
  return medium.heldShare ?? USUAL_HELD_SHARE;
}
export function heldByOf(medium: Pick<MediumValues, 'heldByMm'>): number {
  return medium.heldByMm ?? USUAL_HELD_BY_MM;
}
