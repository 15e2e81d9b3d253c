import { homeAt, type Cover, type HomeSpell } from '../home/home';
import type { EpochDay } from '../calendar/day';
import type { Outlook } from '../weather/ensemble';
import { homesOf } from './lotHomes';
import type { LotFacts } from './lotFacts';

const open: Cover = { lowC: 0, highC: 0 };

/** The covers a lot has stood and will stand under, in a word: lots of one word share their weather. */
export function coverKey(
  facts: Pick<LotFacts, 'sownOn' | 'home' | 'homes'>,
  move: HomeSpell | null = null,
): string {
  const spells = withMove(facts, move);
  if (spells.every(({ home }) => !home.cover)) return '';
  return spells
    .map(({ from, home }, i) => `${i ? from : ''}:${home.cover?.lowC ?? 0}:${home.cover?.highC ?? 0}`)
    .join('|');
}

/** The weather a lot feels: that of the open, with what its cover adds on the days it stands under it. */
export function outlookUnderCover(
  outlook: Outlook,
  facts: Pick<LotFacts, 'sownOn' | 'home' | 'homes'>,
  move: HomeSpell | null = null,
): Outlook {
  const spells = withMove(facts, move);
  if (spells.every(({ home }) => !home.cover)) return outlook;
  const coverOn = (day: EpochDay) => homeAt(spells, day).cover ?? open;
  const under = (low: Float64Array, high: Float64Array, from: EpochDay) => {
    const tMinC = low.map((value, i) => value + coverOn(from + i).lowC);
    // A cover that keeps nights warm and days cool never turns a day upside down.
    return { tMinC, tMaxC: high.map((value, i) => Math.max(tMinC[i], value + coverOn(from + i).highC)) };
  };
  const past = under(outlook.pastMinC, outlook.pastMaxC, outlook.pastStart);
  return {
    ...outlook,
    pastMinC: past.tMinC,
    pastMaxC: past.tMaxC,
    years: outlook.years.map(({ label, tMinC, tMaxC }) => ({
      label,
      ...under(tMinC, tMaxC, outlook.asOf + 1),
    })),
  };
}

function withMove(facts: Pick<LotFacts, 'sownOn' | 'home' | 'homes'>, move: HomeSpell | null): HomeSpell[] {
  return move ? [...homesOf(facts), move] : homesOf(facts);
}
