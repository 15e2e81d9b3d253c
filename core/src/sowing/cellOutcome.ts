import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { sum, type Worked } from '../working/working';

export interface CellSowing {
  /** Share of seeds that come up, 0 … 1. */
  emergence: number;
  seedsPerCell: number;
  cells: number;
}

/** Cells by what comes up in them, and the work that follows. */
export interface CellOutcome {
  empty: number;
  single: number;
  multiple: number;
  /** Seedlings beyond one a cell: thinned out, or pricked into the empty cells. */
  extra: number;
}

/**
 * Cells expected empty, with one seedling and with several, each seed coming up by itself (binomial).
 * @throws Unfit with a sentence for a share outside 0 … 1, or counts that are not whole and above 0
 */
export function cellOutcome({ emergence, seedsPerCell, cells }: CellSowing): Worked<CellOutcome> {
  if (!(emergence >= 0 && emergence <= 1))
    throw new Unfit(say`The share that comes up lies between 0 and 100 %.`);
  if (!(Number.isInteger(seedsPerCell) && seedsPerCell >= 1 && seedsPerCell <= 100))
    throw new Unfit(say`Seeds a cell: a whole number from 1 to 100.`);
  if (!(Number.isInteger(cells) && cells >= 1)) throw new Unfit(say`Cells: a whole number from 1 up.`);
  const none = (1 - emergence) ** seedsPerCell;
  const one = seedsPerCell * emergence * (1 - emergence) ** (seedsPerCell - 1);
  const value = {
    empty: cells * none,
    single: cells * one,
    multiple: cells * Math.max(0, 1 - none - one),
    extra: cells * (seedsPerCell * emergence - (1 - none)),
  };
  return {
    value,
    working: [
      {
        what: say`Empty cells`,
        expression: sum`${cells} × ${1 - emergence} ^ ${seedsPerCell}`,
        result: value.empty,
      },
      {
        what: say`Cells with one seedling`,
        expression: sum`${cells} × ${seedsPerCell} × ${emergence} × ${1 - emergence} ^ ${seedsPerCell - 1}`,
        result: value.single,
      },
      {
        what: say`Seedlings to thin or prick out`,
        expression: sum`${cells} × (${seedsPerCell} × ${emergence} − (1 − ${1 - emergence} ^ ${seedsPerCell}))`,
        result: value.extra,
      },
    ],
  };
}

/** What a seed, a cell (tray, medium and bench for its stay) and a minute of work cost. */
export interface CellCosts {
  seed: number;
  cell: number;
  minute: number;
  /** Seconds to thin one seedling, or to move one into an empty cell. */
  thinSeconds: number;
  transplantSeconds: number;
}

export interface SeedsPerCellRow {
  seedsPerCell: number;
  outcome: CellOutcome;
  /** Cells filled in the end, with extras moved into empty ones if asked. */
  filled: number;
  cost: number;
  costPerPlant: number;
}

/**
 * What each number of seeds a cell costs per cell that ends up with a plant, fewest seeds first.
 * @param transplant whether extras are pricked into empty cells rather than thrown away
 */
export function seedsPerCellTable(
  emergence: number,
  cells: number,
  costs: CellCosts,
  transplant: boolean,
  most = 6,
): SeedsPerCellRow[] {
  return Array.from({ length: most }, (_, i) => {
    const seedsPerCell = i + 1;
    const outcome = cellOutcome({ emergence, seedsPerCell, cells }).value;
    const moved = transplant ? Math.min(outcome.extra, outcome.empty) : 0;
    const filled = cells - outcome.empty + moved;
    const minutes = ((outcome.extra - moved) * costs.thinSeconds + moved * costs.transplantSeconds) / 60;
    const cost = cells * seedsPerCell * costs.seed + cells * costs.cell + minutes * costs.minute;
    return { seedsPerCell, outcome, filled, cost, costPerPlant: filled > 0 ? cost / filled : Infinity };
  });
}

/** The row that costs least per plant. */
export function bestSeedsPerCell(rows: readonly SeedsPerCellRow[]): SeedsPerCellRow {
  return rows.reduce((best, row) => (row.costPerPlant < best.costPerPlant ? row : best));
}
