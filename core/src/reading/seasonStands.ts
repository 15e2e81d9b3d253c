import { say } from '../speech/say';
import type { EpochDay } from '../calendar/day';
import { forecastLot } from '../forecast/forecast';
import type { LotFacts } from '../forecast/lotFacts';
import { factsAt } from '../forecast/lotHomes';
import { standingOf } from '../forecast/standing';
import { feltWeather, type FeltWeather } from '../forecast/underCover';
import { keepsUntil } from '../lifting/storeClock';
import { mayServe } from '../plan/orderLine';
import { liesIn, promisableParcel, type LyingParcel } from '../plan/parcelStock';
import { promisable } from '../plan/promisable';
import type { SeasonStock } from '../plan/season';
import type { Stay } from './board';
import type { SeasonLot, SeasonNursery } from './seasonNursery';
import { standingStay } from './standingLots';

/** What stands as a season reads it: until when, and which lines each lot could serve. */
export interface SeasonStands {
  stays: Stay[];
  stocks: SeasonStock[];
  /** The lots that are stocks, in the same order. */
  ids: string[];
  /** Lots whose forecast failed: they are thought to stay where they are, and to serve nothing. */
  failed: string[];
}

/** A lot serves lines for whose size it has this share of the trees it has for the size it fits best. */
const FITS = 0.2;

/** Forecasts what stands. A lot whose forecast fails is told, and the others go on. */
export function seasonStands(nursery: SeasonNursery, end: EpochDay): SeasonStands {
  const weather = feltWeather(nursery.weather);
  const stands: SeasonStands = { stays: [], stocks: [], ids: [], failed: [] };
  for (const lot of nursery.lots) {
    try {
      if (!lot.facts) throw new Error(say`Its records cannot be read.`);
      const stay = stayOf(lot, lot.facts, weather, nursery.today, end);
      const stock = stockOf(lot, lot.facts, weather, nursery);
      if (stay) stands.stays.push(stay);
      if (stock) {
        stands.stocks.push(stock);
        stands.ids.push(lot.row.id);
      }
    } catch {
      stands.failed.push(lot.row.id);
      stands.stays.push(staysThere(lot, nursery.today, end));
    }
  }
  for (const parcel of nursery.parcels) {
    const stock = lyingStock(parcel, weather, nursery);
    if (!stock) continue;
    stands.stocks.push(stock);
    stands.ids.push(parcel.lotId);
  }
  return stands;
}

/** Lifted trees for the lines they can serve. */
function lyingStock(
  parcel: LyingParcel,
  { open }: FeltWeather,
  { lines, today, lookup }: SeasonNursery,
): SeasonStock | null {
  const species = lookup.species.get(parcel.speciesId);
  if (!species) return null;
  const { latitudeDeg } = open.outlook.site;
  const { until } = keepsUntil(species.values, latitudeDeg, open.warmth, liesIn(parcel)).value;
  const serves = lines.flatMap((line, at) =>
    mayServe(parcel.lotId, line.lots) &&
    Math.max(today, line.on) <= until &&
    promisableParcel(parcel, line, today, until)
      ? [at]
      : [],
  );
  return serves.length ? { trees: parcel.free, lines: serves } : null;
}

const staysThere = ({ row: { id, stage } }: SeasonLot, from: EpochDay, until: EpochDay): Stay => ({
  id,
  placeId: stage.placeId,
  from,
  until,
  isPlanned: false,
  occupant: { lotId: id, stage },
  mayLeaveFrom: until,
});

/** Where a lot will stand, as forecast today. */
function stayOf(
  { row }: SeasonLot,
  facts: LotFacts,
  { felt }: FeltWeather,
  today: EpochDay,
  end: EpochDay,
): Stay | null {
  const known = factsAt(facts, today);
  const { outlook, warmth } = felt(known);
  const forecast = forecastLot(facts, outlook, warmth, { view: today });
  const standing = standingOf(known, forecast);
  return standing && standingStay({ row, facts: known, standing }, forecast, today, today, end);
}

/** A lot's trees for the lines it could serve, nine chances in ten: the fewest it has of any size asked of it. */
function stockOf(
  { row }: SeasonLot,
  facts: LotFacts,
  { felt }: FeltWeather,
  { lines, today }: SeasonNursery,
): SeasonStock | null {
  const asked = lines.flatMap((line, at) =>
    line.speciesId === row.speciesId && mayServe(row.id, line.lots) ? [{ line, at }] : [],
  );
  if (!asked.length) return null;
  const known = factsAt(facts, today);
  const { outlook, warmth } = felt(known);
  const serves = asked.flatMap(({ line, at }) => {
    const on = Math.max(today, line.on);
    const forecast = forecastLot(facts, outlook, warmth, { view: on, sizes: line });
    const standing = standingOf(known, forecast);
    const of = standing && promisable(known, forecast, standing, { ...line, on });
    return of?.sure && of.from <= line.until && on <= of.until ? [{ at, count: of.count }] : [];
  });
  const most = Math.max(0, ...serves.map(({ count }) => count));
  const fit = serves.filter(({ count }) => count >= FITS * most);
  return fit.length
    ? { trees: Math.min(...fit.map(({ count }) => count)), lines: fit.map(({ at }) => at) }
    : null;
}
