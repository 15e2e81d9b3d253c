import {
  holdOrMove,
  Unfit,
  type Home,
  type HoldOrMove,
  type LotForecast,
  type TreePrices,
  type Worked,
} from '@kauri/core';

/** A lot over its seasons ahead, as it stays and as it would be moved up. */
export interface SeasonsAhead {
  stays: LotForecast;
  moves: LotForecast | null;
}

/** Square metres a tree stands on. */
function areaOf(home: Home): number {
  if (home.kind === 'bed') return 1 / home.densityPerM2;
  return (home.pitchMm ?? 60) ** 2 / 1e6;
}

/** Hold, move or let go, by the nursery's prices; or the sentence that says why it cannot be told. */
export function holdAnswer(
  { stays, moves }: SeasonsAhead,
  home: Home,
  moved: Home | null,
  prices: TreePrices,
): { said: Worked<HoldOrMove> | null; fault: string | null } {
  const ahead = stays.seasonEnds;
  if (!ahead) return { said: null, fault: null };
  const heights = (of: typeof ahead) => ({ now: of.now, ends: of.ends.map((end) => end.heights) });
  try {
    return {
      said: holdOrMove(heights(ahead), moves?.seasonEnds ? heights(moves.seasonEnds) : null, ahead.cv, {
        ladder: prices.ladder,
        holdCost: prices.carePerTree + prices.placePerM2 * areaOf(home),
        moveCost: prices.carePerTree + prices.placePerM2 * areaOf(moved ?? home),
        moveOnce: prices.moveOnce,
        lossShare: prices.lossPct / 100,
      }),
      fault: null,
    };
  } catch (error) {
    if (error instanceof Unfit) return { said: null, fault: error.message };
    throw error;
  }
}
