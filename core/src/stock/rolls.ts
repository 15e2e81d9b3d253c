import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { sum, type Worked } from '../working/working';

/** A sheet to be cut from rolls, possibly of several strips. */
export interface RollCut {
  rollWidthMm: number;
  /** Strips side by side, and the length of each. */
  strips: number;
  stripMm: number;
  /** Whether strips run along the sheet's length. */
  along: boolean;
  boughtM2: number;
  wasteM2: number;
  /** Overlapping joints that need lacing. */
  joints: number;
}

/**
 * The roll width and direction that waste least for a sheet; strips overlap where one is not wide enough.
 * @throws Unfit when a size is not above 0 or no roll is offered
 */
export function cutFromRolls(
  lengthMm: number,
  widthMm: number,
  rollWidthsMm: readonly number[],
  overlapMm = 50,
): Worked<RollCut> {
  if (!(lengthMm > 0 && widthMm > 0)) throw new Unfit(say`A sheet needs a length and a width above 0.`);
  const widths = rollWidthsMm.filter((w) => w > overlapMm);
  if (!widths.length) throw new Unfit(say`Say which roll widths can be bought.`);
  const need = (lengthMm * widthMm) / 1e6;
  let best: RollCut | null = null;
  for (const rollWidthMm of widths)
    for (const along of [true, false]) {
      const [run, across] = along ? [lengthMm, widthMm] : [widthMm, lengthMm];
      const strips =
        across <= rollWidthMm + 0.5 ? 1 : Math.ceil((across - overlapMm) / (rollWidthMm - overlapMm) - 1e-9);
      const boughtM2 = (strips * run * rollWidthMm) / 1e6;
      const cut: RollCut = {
        rollWidthMm,
        strips,
        stripMm: run,
        along,
        boughtM2,
        wasteM2: boughtM2 - need,
        joints: strips - 1,
      };
      // A joint costs lacing and belly: it has to save a twentieth of the sheet.
      const worth = (c: RollCut) => c.boughtM2 + 0.05 * need * c.joints;
      if (!best || worth(cut) < worth(best) - 1e-9) best = cut;
    }
  const value = best!;
  return {
    value,
    working: [
      {
        what: say`Bought from the roll`,
        expression: sum`${value.strips} × ${value.stripMm} × ${value.rollWidthMm} ÷ 1000000`,
        result: value.boughtM2,
        unit: 'm²',
        inputs: [{ name: say`roll width`, value: value.rollWidthMm, unit: 'mm', origin: 'choice' }],
      },
      {
        what: say`Waste`,
        expression: sum`${value.boughtM2} − ${lengthMm} × ${widthMm} ÷ 1000000`,
        result: value.wasteM2,
        unit: 'm²',
      },
    ],
  };
}
