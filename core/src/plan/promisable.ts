import type { EpochDay } from '../calendar/day';
import type { LotForecast } from '../forecast/forecast';
import type { LotFacts } from '../forecast/lotFacts';
import { homesOf } from '../forecast/lotHomes';
import { homeAt } from '../home/home';
import type { Standing } from '../forecast/standing';
import { freeToPromise, servePromises, type StandingStock } from './freeToPromise';
import { claimOf, formOf, rivalsOf, type SizeWanted, type TreeForm, type WantedLine } from './orderLine';

/** What somebody asks for: so many of a size and form on a day. */
export interface PromiseAsk extends SizeWanted {
  speciesId: string;
  form: TreeForm;
  on: EpochDay;
  /** Last day that will do; the same day where left out. */
  until?: EpochDay;
  /** Lots that alone may serve it; none, or left out: any may. */
  lots?: readonly string[];
}

/** A lot that could serve an ask, nine chances in ten. */
export interface PromisableLot extends StandingStock {
  code: string;
  /** Trees standing in all, and those of the size asked, in the middle of the forecasts. */
  standing: number;
  likely: number;
  /** Share of forecasts in which its plugs hold, and are not bound, on the day asked about; 1 for bare-root trees. */
  holds: number;
  /** Whether its plugs hold nine times in ten within its window; if not, only in half of forecasts from its first day. */
  sure: boolean;
}

/**
 * What a lot can be promised for, nine chances in ten: its trees of the size on the day asked about, from the day on which
 * its plugs hold until one forecast in ten is root-bound; a bed lot within its lifting window. Where plugs are not known so
 * well, while it holds in half of forecasts, and marked as unsure.
 * @param forecast made for the day asked about, with the sizes asked
 * @returns null where it cannot serve the ask at all
 */
export function promisable(
  facts: LotFacts,
  forecast: LotForecast,
  standing: Standing,
  ask: PromiseAsk,
): PromisableLot | null {
  const trees = standing.tally.standing;
  if (trees < 1 || forecast.inSize === null) return null;
  const form = formOf(homeAt(homesOf(facts), ask.on));
  if (form !== ask.form) return null;
  const { ready, bound, lifting } = forecast;
  const sure = form === 'bare-root' || ready.p90 <= bound.p10;
  const [from, until] =
    form === 'bare-root'
      ? [lifting.from, lifting.bestBefore]
      : [Math.ceil(sure ? ready.p90 : ready.p50), Math.floor(sure ? bound.p10 : bound.p50)];
  const count = Math.floor(trees * forecast.inSize.p10);
  if (!(from <= until) || !Number.isFinite(from) || count < 1) return null;
  return {
    id: facts.id,
    code: facts.code,
    from,
    until,
    count,
    standing: trees,
    likely: Math.round(trees * forecast.inSize.p50),
    sure,
    holds: form === 'bare-root' ? 1 : Math.max(0, forecast.state.chanceReady - forecast.state.chanceBound),
  };
}

/** Where its plugs hold in fewer forecasts than this on the day, pulling some would hardly change it. */
const WORTH_PULLING = 0.25;

/** Whether a lot is not sure enough to be promised, but plugs pulled might make it so. */
export const mightServe = ({ sure, holds }: PromisableLot): boolean => !sure && holds >= WORTH_PULLING;

/** The answer to an ask. */
export interface PromiseAnswer {
  /** Trees that can still be promised; null where what is promised already cannot all be met. */
  free: number | null;
  /** Lots that would give them, and how many of each after all promises. */
  from: { lot: PromisableLot; count: number }[];
  /** Lots of the species that could serve on other days, or whose plugs are not known well enough to be promised. */
  others: PromisableLot[];
  /** Trees promised already that lay claim to the same lots. */
  promised: number;
  /** Trees promised that no lot can serve. */
  short: number;
}

/** How many of a size and form can still be promised on a day, and from which lots. */
export function answerAsk(
  lots: readonly PromisableLot[],
  lines: readonly WantedLine[],
  ask: PromiseAsk,
): PromiseAnswer {
  const promises = rivalsOf(lines, ask).map((line) => ({
    on: line.on,
    until: line.until,
    count: claimOf(line),
    lots: line.lots,
  }));
  const stock: readonly StandingStock[] = lots.filter((lot) => lot.sure);
  const free = freeToPromise({
    lots: stock,
    promised: promises,
    on: ask.on,
    until: ask.until,
    only: ask.lots,
  });
  const kept = servePromises(stock, promises);
  const all =
    free === null
      ? kept
      : servePromises(stock, [...promises, { on: ask.on, until: ask.until, count: free, lots: ask.lots }]);
  const last = free === null ? new Map<string, number>() : all.from[promises.length];
  const byId = new Map(lots.map((lot) => [lot.id, lot]));
  return {
    free,
    from: [...last].map(([id, count]) => ({ lot: byId.get(id)!, count })).filter(({ count }) => count > 0),
    others: lots.filter((lot) => !last.has(lot.id)),
    promised: promises.reduce((total, { count }) => total + count, 0),
    short: kept.short.reduce((total, count) => total + count, 0),
  };
}
