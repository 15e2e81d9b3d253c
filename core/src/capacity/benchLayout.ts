import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import type { Rectangle } from '../container/traysOnBench';
import { put, type Worked } from '../working/working';

/** Trays of one lot, wanted on a bench. */
export interface BenchLoad {
  lotId: string;
  trays: number;
  tray: Rectangle;
}

/** Trays of a lot as they lie: mm along the bench from its end, and across it from its side. */
export interface LaidTray {
  lotId: string;
  alongMm: number;
  acrossMm: number;
  lengthMm: number;
  widthMm: number;
}

export interface BenchLayout {
  laid: LaidTray[];
  usedLengthMm: number;
  /** What is left at the far end; below 0 when more stands than the bench takes. */
  freeLengthMm: number;
}

/**
 * Lays lots' trays on a bench one lot after another, each in full ranks across it, turned whichever way
 * takes less of its length. Every tray is a whole tray; none overhangs the side.
 * @throws Unfit when a size is not above 0, or a tray is wider than the bench both ways round
 */
export function benchLayout(bench: Rectangle, loads: readonly BenchLoad[]): Worked<BenchLayout> {
  if (!(bench.lengthMm > 0 && bench.widthMm > 0))
    throw new Unfit(say`A bench needs a length and a width above 0.`);
  const laid: LaidTray[] = [];
  let along = 0;
  const parts: string[] = [];
  for (const { lotId, trays, tray } of loads) {
    const rank = rankFor(bench.widthMm, trays, tray);
    for (let i = 0; i < trays; i++) {
      laid.push({
        lotId,
        alongMm: along + Math.floor(i / rank.across) * rank.lengthMm,
        acrossMm: (i % rank.across) * rank.widthMm,
        lengthMm: rank.lengthMm,
        widthMm: rank.widthMm,
      });
    }
    along += rank.ranks * rank.lengthMm;
    parts.push(`${rank.ranks} × ${put(rank.lengthMm)}`);
  }
  return {
    value: { laid, usedLengthMm: along, freeLengthMm: bench.lengthMm - along },
    working: [
      {
        what: say`Length of bench taken, rank by rank of each lot`,
        expression: parts.length ? parts.join(' + ') : '0',
        result: along,
        unit: 'mm',
      },
      {
        what: say`Length left`,
        expression: `${put(bench.lengthMm)} − ${put(along)}`,
        result: bench.lengthMm - along,
        unit: 'mm',
      },
    ],
  };
}

/** Ranks a number of trays makes across a bench, turned the way that takes less length. */
function rankFor(benchWidthMm: number, trays: number, tray: Rectangle) {
  const ways = [
    { lengthMm: tray.lengthMm, widthMm: tray.widthMm },
    { lengthMm: tray.widthMm, widthMm: tray.lengthMm },
  ].map((way) => {
    const across = Math.floor(benchWidthMm / way.widthMm);
    return { ...way, across, ranks: across > 0 ? Math.ceil(trays / across) : Infinity };
  });
  const [a, b] = ways;
  const best = a.ranks * a.lengthMm <= b.ranks * b.lengthMm ? a : b;
  if (!(best.across > 0 && best.lengthMm > 0)) throw new Unfit(say`This tray is wider than the bench.`);
  return best;
}
