import { homeAt, type Cover, type HomeSpell } from '../home/home';
import type { EpochDay } from '../calendar/day';
import { normalsKnown, weatherOutlook, type Outlook, type Site } from '../weather/ensemble';
import type { KnownWeather } from '../weather/known';
import type { Normals } from '../weather/normals';
import type { WeatherSeries } from '../weather/series';
import { warmthOf } from '../weather/sums';
import { homesOf } from './lotHomes';
import type { LotFacts } from './lotFacts';

const noCover: Cover = { lowC: 0, highC: 0 };

/** Weather as known on a day: in the open, and as a lot feels it where it has stood, stands, or would stand after a move. */
export interface FeltWeather {
  open: KnownWeather;
  felt: (facts: Pick<LotFacts, 'sownOn' | 'home' | 'homes'>, move?: HomeSpell | null) => KnownWeather;
}

/** Weather as lots feel it; worked out once for all lots under the same covers. */
export function feltWeather(open: KnownWeather): FeltWeather {
  const kept = new Map([['', open]]);
  return {
    open,
    felt: (facts, move = null) => {
      const key = coverKey(facts, move);
      let under = kept.get(key);
      if (!under) {
        const outlook = outlookUnderCover(open.outlook, facts, move);
        kept.set(key, (under = { outlook, warmth: warmthOf(outlook) }));
      }
      return under;
    },
  };
}

/** Weather ahead that a past forecast is laid out for, days: to the end of its season. */
const PAST_HORIZON_DAYS = 240;
/** What weather is usual changes so little that it is looked at anew only so often, days. */
const NORMALS_DAYS = 56;

/** Weather as it was known on days of the past, each worked out once; the usual weather is some weeks older. */
export function pastWeather(series: WeatherSeries, site: Site): (asOf: EpochDay) => FeltWeather {
  const usual = new Map<EpochDay, Normals>();
  const kept = new Map<EpochDay, FeltWeather>();
  return (asOf) => {
    let weather = kept.get(asOf);
    if (!weather) {
      const on = asOf - (asOf % NORMALS_DAYS);
      const normals = usual.get(on) ?? normalsKnown(series, site, on);
      usual.set(on, normals);
      const outlook = weatherOutlook(series, site, asOf, { horizonDays: PAST_HORIZON_DAYS, normals });
      kept.set(asOf, (weather = feltWeather({ outlook, warmth: warmthOf(outlook) })));
    }
    return weather;
  };
}

/** The covers a lot has stood and will stand under, in a word: lots of one word share their weather. */
function coverKey(facts: Pick<LotFacts, 'sownOn' | 'home' | 'homes'>, move: HomeSpell | null): string {
  const spells = withMove(facts, move);
  if (spells.every(({ home }) => !home.cover)) return '';
  const coverOf = ({ home }: HomeSpell) => `${home.cover?.lowC ?? 0}:${home.cover?.highC ?? 0}`;
  return spells
    .filter((spell, i) => i === 0 || coverOf(spell) !== coverOf(spells[i - 1]))
    .map((spell, i) => `${i ? spell.from : ''}:${coverOf(spell)}`)
    .join('|');
}

/** The weather a lot feels: that of the open, with what its cover adds on the days it stands under it. */
function outlookUnderCover(
  outlook: Outlook,
  facts: Pick<LotFacts, 'sownOn' | 'home' | 'homes'>,
  move: HomeSpell | null,
): Outlook {
  const spells = withMove(facts, move);
  if (spells.every(({ home }) => !home.cover)) return outlook;
  const coverOn = (day: EpochDay) => homeAt(spells, day).cover ?? noCover;
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
    years: outlook.years.map(({ label, tMinC, tMaxC, rainMm }) => ({
      label,
      rainMm,
      ...under(tMinC, tMaxC, outlook.asOf + 1),
    })),
  };
}

function withMove(facts: Pick<LotFacts, 'sownOn' | 'home' | 'homes'>, move: HomeSpell | null): HomeSpell[] {
  return move ? [...homesOf(facts), move] : homesOf(facts);
}
