import { say } from '../speech/say';
import { Unfit } from '../working/unfit';

/** A timber section as it measures, mm. On edge, `widthMm` is the height it adds to a bed. */
export interface DressedSize {
  thicknessMm: number;
  widthMm: number;
  /** What the name would make it measure, mm. */
  nominalThicknessMm: number;
  nominalWidthMm: number;
}

/** North American dressed sizes, dry softwood, mm by nominal inch (PS 20-20, tables 2–4). */
const NORTH_AMERICAN_THICKNESS: Record<number, number> = { 1: 19, 2: 38, 3: 64, 4: 89 };
const NORTH_AMERICAN_WIDTH: Record<number, number> = {
  2: 38,
  3: 64,
  4: 89,
  6: 140,
  8: 184,
  10: 235,
  12: 286,
};

/** Board names offered in forms. */
export const boardNames = {
  us: ['2x4', '2x6', '2x8', '2x10', '2x12', '1x6', '1x8', '1x12'],
  metric: ['50x100', '50x150', '50x200', '50x225', '25x150', '25x200', '38x200'],
} as const;

/**
 * Nominal → actual timber section. Names in inches («2x8») follow the North American dressed sizes;
 * names in millimetres («50x150») are planed all round: 3 mm off up to 100 mm, 5 mm off above
 * (EN 336 / EN 1315 processing reductions).
 * @throws Unfit with a sentence for a name that is no known size
 */
export function dressedSize(nominal: string): DressedSize {
  const match = /^\s*(\d+)\s*[x×]\s*(\d+)\s*$/i.exec(nominal);
  if (!match) throw new Unfit(say`“${nominal}” is not a board name such as 2x8 or 50x150.`);
  const [thick, wide] = [Number(match[1]), Number(match[2])];
  if (thick <= 4) {
    const thicknessMm = NORTH_AMERICAN_THICKNESS[thick];
    const widthMm = NORTH_AMERICAN_WIDTH[wide];
    if (!thicknessMm || !widthMm)
      throw new Unfit(say`There is no dressed size known for a ${thick} by ${wide}.`);
    return { thicknessMm, widthMm, nominalThicknessMm: thick * 25.4, nominalWidthMm: wide * 25.4 };
  }
  if (thick < 16 || thick > 100 || wide < 38 || wide > 300) {
    throw new Unfit(say`A board of ${thick} × ${wide} mm is outside 16–100 × 38–300 mm.`);
  }
  const planed = (mm: number) => mm - (mm <= 100 ? 3 : 5);
  return {
    thicknessMm: planed(thick),
    widthMm: planed(wide),
    nominalThicknessMm: thick,
    nominalWidthMm: wide,
  };
}
