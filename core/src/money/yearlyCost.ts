import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { put, sum, type Worked } from '../working/working';

/**
 * What a thing bought once costs each year it lasts: the even payment that comes to its price, less what it then fetches
 * (equivalent annual cost).
 * @param price paid at the start, in the nursery’s money
 * @param salvage fetched at the end
 * @param years it lasts, above 0
 * @param interestPct a year, 0 or more
 * @throws Unfit for years that are not above 0, or a rate below 0
 */
export function yearlyCost({
  price,
  salvage,
  years,
  interestPct,
}: {
  price: number;
  salvage: number;
  years: number;
  interestPct: number;
}): Worked<number> {
  if (!(years > 0 && Number.isFinite(years)))
    throw new Unfit(say`It lasts longer than no time at all.`, 'years');
  if (!(interestPct >= 0)) throw new Unfit(say`A rate of interest is 0 or more.`, 'interestPct');
  if (!(Number.isFinite(price) && Number.isFinite(salvage)))
    throw new Unfit(say`A price is a number.`, 'price');
  const rate = interestPct / 100;
  const value =
    rate === 0
      ? (price - salvage) / years
      : ((price - salvage / (1 + rate) ** years) * rate) / (1 - (1 + rate) ** -years);
  return {
    value,
    working: [
      {
        what: say`Cost a year`,
        expression:
          rate === 0
            ? sum`(${price} − ${salvage}) ÷ ${years}`
            : `(${put(price)} − ${put(salvage)} ÷ (1 + ${put(rate)}) ^ ${put(years)}) × ${put(rate)} ÷ (1 − 1 ÷ (1 + ${put(rate)}) ^ ${put(years)})`,
        result: value,
        source: 'Equivalent annual cost',
      },
    ],
  };
}
