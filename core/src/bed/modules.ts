import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { sum, type Step } from '../working/working';

/** A module size and how many of it stand on a piece of ground with paths. */
export interface ModuleFit {
  lengthMm: number;
  widthMm: number;
  /** Rows of beds, and beds end to end in a row. */
  rows: number;
  perRow: number;
  count: number;
  /** Share of the ground that is bed. */
  bedShare: number;
  working: Step[];
  /** Smaller sizes that tile the same footprint, and so share its lid, feet and roll. */
  tiles: { lengthMm: number; widthMm: number; per: number }[];
}

/** Deepest reach over a bed from its path, mm: wider beds cannot be weeded from both sides. */
export const WIDEST_REACH_MM = 1250;

/**
 * Proposes bed sizes for a piece of ground: as wide as a mesh roll, as long as a board or its half, in rows with
 * a path between, four modules in line at most before a cross path. Each comes with the halves and quarters
 * that tile its footprint.
 * @param groundLengthM along the rows
 * @param pathM between rows, at least 0.6
 * @throws Unfit when the ground holds nothing or the path is too narrow
 */
export function proposeModules(
  groundLengthM: number,
  groundWidthM: number,
  pathM: number,
  rollWidthsMm: readonly number[],
  boardLengthsMm: readonly number[],
): ModuleFit[] {
  if (!(pathM >= 0.6)) throw new Unfit(say`A barrow needs a path of at least 0.6 m (2 ft).`);
  if (!(groundLengthM > 0 && groundWidthM > 0)) throw new Unfit(say`The ground needs a length and a width.`);
  const lengths = [...new Set(boardLengthsMm.flatMap((l) => [l, l / 2]))].filter((l) => l >= 1000);
  const fits: ModuleFit[] = [];
  for (const widthMm of rollWidthsMm.filter((w) => w <= WIDEST_REACH_MM))
    for (const lengthMm of lengths) {
      const rows = Math.floor((groundWidthM * 1000 + pathM * 1000) / (widthMm + pathM * 1000) + 1e-9);
      const perRow = inLine(groundLengthM * 1000, lengthMm, pathM * 1000);
      const count = rows * perRow;
      if (count === 0) continue;
      const tiles = [
        { lengthMm: lengthMm / 2, widthMm, per: 2 },
        { lengthMm: lengthMm / 2, widthMm: widthMm / 2, per: 4 },
      ].filter((t) => t.lengthMm >= 500 && t.widthMm >= 300);
      fits.push({
        lengthMm,
        widthMm,
        rows,
        perRow,
        count,
        bedShare: (count * lengthMm * widthMm) / (groundLengthM * groundWidthM * 1e6),
        tiles,
        working: [
          {
            what: say`Rows of beds ${lengthMm} × ${widthMm} mm`,
            expression: sum`floor((${groundWidthM} × 1000 + ${pathM} × 1000) ÷ (${widthMm} + ${pathM} × 1000))`,
            result: rows,
          },
          { what: say`Beds`, expression: sum`${rows} × ${perRow}`, result: count },
        ],
      });
    }
  return fits.sort((a, b) => b.bedShare - a.bedShare || b.lengthMm - a.lengthMm);
}

/** Modules end to end on a length, a cross path after every four metres of bed or so. */
function inLine(lengthMm: number, moduleMm: number, pathMm: number): number {
  const block = Math.max(1, Math.floor(4800 / moduleMm));
  let at = 0;
  let count = 0;
  for (;;) {
    if (count > 0 && count % block === 0) at += pathMm;
    if (at + moduleMm > lengthMm + 1e-6) return count;
    at += moduleMm;
    count++;
  }
}
