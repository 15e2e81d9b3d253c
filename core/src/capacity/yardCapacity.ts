import { say } from '../speech/say';
import { bedGeometry } from '../bed/geometry';
import { treesHeld } from '../bed/treesHeld';
import { traysOnBench, type Rectangle } from '../container/traysOnBench';
import type { PlaceSize } from '../site/footprint';
import { sum, type Worked } from '../working/working';

/** What a whole yard can carry at once. */
export interface YardCapacity {
  beds: number;
  bedM2: number;
  bedTrees: number;
  benches: number;
  benchM2: number;
  trays: number;
  cells: number;
}

/**
 * Adds up what every place could hold when empty: trees in beds at a density, whole trays of one kind on
 * benches and standing-out ground. Heel-in bays are for lifted trees and not counted.
 */
export function yardCapacity(
  places: readonly PlaceSize[],
  densityPerM2: number,
  tray: Rectangle,
  cellsPerTray: number,
): Worked<YardCapacity> {
  const value: YardCapacity = { beds: 0, bedM2: 0, bedTrees: 0, benches: 0, benchM2: 0, trays: 0, cells: 0 };
  for (const place of places) {
    if (place.kind === 'bed') {
      const { insideAreaM2 } = bedGeometry(place.design).value;
      value.beds++;
      value.bedM2 += insideAreaM2;
      value.bedTrees += treesHeld(insideAreaM2, densityPerM2).value;
    } else if (place.kind !== 'bay') {
      value.benches++;
      value.benchM2 += (place.design.lengthMm * place.design.widthMm) / 1e6;
      value.trays += traysOnBench(place.design, tray).value;
    }
  }
  value.cells = value.trays * cellsPerTray;
  return {
    value,
    working: [
      {
        what: say`Trees in beds, each bed’s whole trees`,
        how: say`${value.beds} beds of ${value.bedM2.toFixed(2)} m² inside, at ${densityPerM2}/m².`,
        result: value.bedTrees,
      },
      {
        what: say`Cells on benches and ground`,
        expression: sum`${value.trays} × ${cellsPerTray}`,
        result: value.cells,
      },
    ],
  };
}

/** Weight of watered trays on a bench against what it is rated for. */
export function benchLoad(
  trays: readonly { count: number; wetKg: number }[],
  ratedKg: number | null,
): Worked<{ kg: number; over: boolean | null }> {
  const kg = trays.reduce((t, tray) => t + tray.count * tray.wetKg, 0);
  return {
    value: { kg, over: ratedKg === null ? null : kg > ratedKg },
    working: [
      {
        what: say`Watered trays on it`,
        expression: trays.length ? trays.map((t) => sum`${t.count} × ${t.wetKg}`).join(' + ') : '0',
        result: kg,
        unit: 'kg',
      },
    ],
  };
}
