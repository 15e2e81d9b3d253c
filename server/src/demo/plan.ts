import {
  dayOf,
  feltWeather,
  findPlaces,
  formOfRoute,
  mondayOf,
  planSowing,
  pointOf,
  routeLot,
  routesOf,
  seedSleeps,
  sowRoute,
  staysOf,
  weeksOfSowing,
  worthSowing,
  type KnownWeather,
  type Lookup,
  type RoutePoint,
} from '@kauri/core';
import type { OrderLine, PlannedSowing, RaisingRoute } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { ordersOf } from '../features/plan/orders';
import type { Work } from '../http/context';
import { keepValue } from '../nursery/values';

/** Lines wanted this far ahead are sown for, days; so many of them are planned already. */
const SOWN_FOR_DAYS = 300;
const PLANNED_LINES = 3;
/** Sowings looked at lie so far apart, days. */
const STEP_DAYS = 14;
const CHANCE = 0.8;

/** Plans sowings for some of the lines wanted a season on, as its grower would: by the best route and week. */
export async function planAhead(work: Work, lookup: Lookup, weather: KnownWeather): Promise<void> {
  const today = dayOf(work.today);
  const lines = (await ordersOf(work))
    .flatMap((order) => order.lines)
    .filter((line) => dayOf(line.on) > today + SOWN_FOR_DAYS && line.state !== 'fell through')
    .slice(0, PLANNED_LINES);
  const sowings: PlannedSowing[] = [];
  for (const line of lines) {
    const best = bestFor(line, lookup, weather, today);
    if (!best) continue;
    const aim = { lineId: line.id, wanted: wantedOf(line), trees: line.count };
    const planned = planSowing(newId(), best.route, best.point, aim, lookup.containers, today);
    sowings.push(...findPlaces(planned, sowings.flatMap(staysOf), lookup, newId));
  }
  if (sowings.length) await keepValue(work, 'plan', null, { schema: 1, sowings });
}

const wantedOf = ({ on, until, fromCm, toCm }: OrderLine) => ({
  on: dayOf(on),
  until: dayOf(until),
  fromCm,
  toCm,
  chance: CHANCE,
});

function bestFor(
  line: OrderLine,
  lookup: Lookup,
  weather: KnownWeather,
  today: number,
): { route: RaisingRoute; point: RoutePoint } | null {
  const wanted = wantedOf(line);
  const felt = feltWeather(weather);
  let found: { route: RaisingRoute; point: RoutePoint } | null = null;
  const species = lookup.species.get(line.speciesId)!;
  const kind = { sleeps: seedSleeps(species), latitudeDeg: weather.outlook.site.latitudeDeg };
  for (const route of routesOf(species, [], [...lookup.places.values()], [...lookup.containers.values()])
    .routes) {
    const lot = routeLot(route, lookup);
    if (formOfRoute(lot.stages.map(({ home }) => home)) !== line.form) continue;
    const points: RoutePoint[] = [];
    for (let on = mondayOf(today + 6); on < wanted.on; on += STEP_DAYS)
      points.push(pointOf(sowRoute(lot, on, wanted, felt), wanted));
    const { best } = weeksOfSowing(worthSowing(points, route.start, kind), CHANCE);
    if (best && best.chance > (found?.point.chance ?? 0)) found = { route, point: best };
  }
  return found;
}
