import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { sum, type Worked } from '../working/working';

export interface DripChoice {
  insideLengthMm: number;
  insideWidthMm: number;
  lineSpacingMm: number;
  emitterSpacingMm: number;
  emitterFlowLph: number;
}

export interface DripGrid {
  lines: number;
  emittersPerLine: number;
  emitters: number;
  totalFlowLph: number;
  applicationMmPerH: number;
  /** Where the lines lie across the bed, mm from its inside edge. */
  lineAtMm: number[];
  /** Where emitters lie along a line, mm from the bed's inside end. */
  emitterAtMm: number[];
}

/**
 * Drip lines and emitters over a bed, the pattern centred so that it starts half a spacing in.
 * @throws Unfit when a size, spacing or flow is not above 0
 */
export function dripGrid(choice: DripChoice): Worked<DripGrid> {
  const { insideLengthMm, insideWidthMm, lineSpacingMm, emitterSpacingMm, emitterFlowLph } = choice;
  for (const value of Object.values(choice))
    if (!(value > 0)) throw new Unfit(say`Bed, spacings and emitter flow must all be above 0.`);
  const lines = Math.max(1, Math.floor(insideWidthMm / lineSpacingMm));
  const emittersPerLine = Math.max(1, Math.floor(insideLengthMm / emitterSpacingMm));
  const emitters = lines * emittersPerLine;
  const totalFlowLph = emitters * emitterFlowLph;
  const areaM2 = (insideLengthMm * insideWidthMm) / 1e6;
  const applicationMmPerH = totalFlowLph / areaM2;
  const centred = (count: number, spacing: number, length: number) =>
    Array.from({ length: count }, (_, i) => length / 2 + (i - (count - 1) / 2) * spacing);
  return {
    value: {
      lines,
      emittersPerLine,
      emitters,
      totalFlowLph,
      applicationMmPerH,
      lineAtMm: centred(lines, lineSpacingMm, insideWidthMm),
      emitterAtMm: centred(emittersPerLine, emitterSpacingMm, insideLengthMm),
    },
    working: [
      {
        what: say`Lines`,
        expression: sum`max(1, floor(${insideWidthMm} ÷ ${lineSpacingMm}))`,
        result: lines,
      },
      {
        what: say`Emitters on a line`,
        expression: sum`max(1, floor(${insideLengthMm} ÷ ${emitterSpacingMm}))`,
        result: emittersPerLine,
      },
      {
        what: say`Flow of the bed`,
        expression: sum`${lines} × ${emittersPerLine} × ${emitterFlowLph}`,
        result: totalFlowLph,
        unit: 'L/h',
        inputs: [{ name: say`flow of an emitter`, value: emitterFlowLph, unit: 'L/h', origin: 'choice' }],
      },
      {
        what: say`Application rate`,
        expression: sum`${totalFlowLph} ÷ ${areaM2}`,
        result: applicationMmPerH,
        unit: 'mm/h',
      },
    ],
  };
}
