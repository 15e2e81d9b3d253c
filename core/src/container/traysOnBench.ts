import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import type { Worked } from '../working/working';

export interface Rectangle {
  lengthMm: number;
  widthMm: number;
}

/**
 * Whole trays a bench takes, in rows: some rows lengthwise, the rest turned, whichever split holds
 * most. Trays do not overhang.
 * @throws Unfit when a size is not above 0
 */
export function traysOnBench(bench: Rectangle, tray: Rectangle): Worked<number> {
  for (const mm of [bench.lengthMm, bench.widthMm, tray.lengthMm, tray.widthMm]) {
    if (!(mm > 0)) throw new Unfit(say`Bench and tray need a length and a width above 0.`);
  }
  let best = { count: 0, along: 0, turned: 0, split: 'rows' };
  const consider = (span: number, cross: number, split: string) => {
    const along = Math.floor(span / tray.lengthMm);
    const turned = Math.floor(span / tray.widthMm);
    for (let rows = 0; rows * tray.widthMm <= cross; rows++) {
      const turnedRows = Math.floor((cross - rows * tray.widthMm) / tray.lengthMm);
      const count = rows * along + turnedRows * turned;
      if (count > best.count) best = { count, along: rows * along, turned: turnedRows * turned, split };
    }
  };
  consider(bench.lengthMm, bench.widthMm, say`rows along the bench`);
  consider(bench.widthMm, bench.lengthMm, say`rows across the bench`);
  return {
    value: best.count,
    working: [
      {
        what: say`Whole trays, ${best.split}`,
        expression: `${best.along} + ${best.turned}`,
        result: best.count,
        inputs: [
          { name: say`laid lengthwise`, value: best.along, origin: 'choice' },
          { name: 'turned', value: best.turned, origin: 'choice' },
        ],
      },
    ],
  };
}
