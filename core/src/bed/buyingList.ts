import { Unfit } from '../working/unfit';
import { cutStock, type CutPlan, type StockLength, type WantedPiece } from '../stock/cutStock';
import type { BuildSheet } from './buildSheet';
import type { TimberClass } from './design';
import { boardPrice, type PriceList } from './prices';

/** Boards to buy of one section and timber. */
export interface BoardBuying {
  board: string;
  plan: CutPlan;
}

/** Stock of a section: every length sold, at the price list's cubic-metre price. */
export function stockOf(board: string, timber: TimberClass, prices: PriceList): StockLength[] {
  return prices.boardLengthsMm.map((lengthMm) => ({
    lengthMm,
    price: boardPrice(board, lengthMm, prices.timberPerM3[timber]),
  }));
}

/**
 * The cheapest boards for a build sheet, section by section.
 * @param stock what is sold of a section; the price list's where left out
 */
export async function buyingList(
  sheet: Pick<BuildSheet, 'timber'>,
  kerfMm: number,
  stock: (board: string) => readonly StockLength[],
): Promise<BoardBuying[]> {
  const byBoard = new Map<string, WantedPiece[]>();
  for (const { board, lengthMm, count, name } of sheet.timber)
    byBoard.set(board, [...(byBoard.get(board) ?? []), { lengthMm, count, label: name }]);
  const lists: BoardBuying[] = [];
  for (const [board, pieces] of byBoard) {
    try {
      lists.push({ board, plan: await cutStock({ pieces, stock: stock(board), kerfMm }) });
    } catch (error) {
      if (error instanceof Unfit) throw new Unfit(`${board}: ${error.message}`, undefined, { cause: error });
      throw error;
    }
  }
  return lists;
}
