import type { EpochDay } from '../calendar/day';
import type { Home } from '../home/home';

/** In what form trees are handed over. */
export const treeForms = ['bare-root', 'plug', 'pot'] as const;
export type TreeForm = (typeof treeForms)[number];

/** Cells from this volume on are pots, mL. */
export const POT_FROM_ML = 1000;

/** The form in which trees leave cells of a volume, mL; null is a bed. */
export function formOfCell(cellMl: number | null): TreeForm {
  if (cellMl === null) return 'bare-root';
  return cellMl >= POT_FROM_ML ? 'pot' : 'plug';
}

/** The form in which trees leave a home. */
export const formOf = (home: Home): TreeForm => formOfCell(home.kind === 'bed' ? null : home.cellMl);

/** How far a wanted line has come. Asked and fallen through hold no tree; promised and part sent hold what is not sent. */
export const lineStates = ['asked', 'promised', 'part sent', 'sent', 'fell through'] as const;
export type LineState = (typeof lineStates)[number];

/** A size wanted, cm; either end may be left open. */
export interface SizeWanted {
  fromCm: number | null;
  toCm: number | null;
}

/** What of a line of an order a promise rests on. */
export interface WantedLine extends SizeWanted {
  speciesId: string;
  form: TreeForm;
  count: number;
  sent: number;
  /** First and last day that will do. */
  on: EpochDay;
  until: EpochDay;
  state: LineState;
  /** Lots set against it, which alone serve it; none, or left out: any lot may. */
  lots?: readonly string[];
  /** Lifted trees set aside for it, which ask for no others. */
  aside?: number;
}

/** Whether a lot may serve something that lots are set against, or none. */
export const mayServe = (lotId: string, lots: readonly string[] | undefined): boolean =>
  !lots?.length || lots.includes(lotId);

/** Trees a line still holds: promised and not sent. */
export function heldBy({ state, count, sent }: Pick<WantedLine, 'state' | 'count' | 'sent'>): number {
  return state === 'promised' || state === 'part sent' ? Math.max(0, count - sent) : 0;
}

/** Trees a line still has to be given from what stands or lies free: what it holds, less what is set aside for it. */
export const claimOf = (line: Pick<WantedLine, 'state' | 'count' | 'sent' | 'aside'>): number =>
  Math.max(0, heldBy(line) - (line.aside ?? 0));

/** Whether two sizes may be met by the same trees. */
function sizesMeet(a: SizeWanted, b: SizeWanted): boolean {
  return (a.fromCm ?? -Infinity) < (b.toCm ?? Infinity) && (b.fromCm ?? -Infinity) < (a.toCm ?? Infinity);
}

/** Lines that would take the same trees as an ask: same species and form, a size in common. */
export function rivalsOf(
  lines: readonly WantedLine[],
  ask: Pick<WantedLine, 'speciesId' | 'form' | 'fromCm' | 'toCm'>,
): WantedLine[] {
  return lines.filter(
    (line) =>
      line.speciesId === ask.speciesId && line.form === ask.form && sizesMeet(line, ask) && claimOf(line) > 0,
  );
}
