import {
  addYears,
  dayOf,
  formOfRoute,
  isoOf,
  mondayOf,
  routeLot,
  seedSleeps,
  weeksOfSowing,
  worthSowing,
  type EpochDay,
  type RouteLot,
  type RoutePoint,
  type TreesWanted,
  say,
} from '@kauri/core';
import type { RaisingRoute } from '@kauri/core/contract';
import { watchDebounced } from '@vueuse/core';
import { computed, ref, shallowRef } from 'vue';
import { sentenceOf } from '../../api/problem';
import { typedNumber } from '../../parts/typed';
import { useForecasts } from '../../stores/forecasts';
import { useNursery } from '../../stores/nursery';
import { useRoutes } from '../../stores/routes';
import { useSeason } from '../../stores/season';
import { useTreesAsked } from './useTreesAsked';

/** A route of the species, as far as it was run ahead. */
export interface RouteRun {
  route: RaisingRoute;
  lot: RouteLot | null;
  /** Why it cannot be run: what it names is gone. */
  fault: string | null;
  points: readonly RoutePoint[];
}

/**
 * When to sow for trees wanted: every week to come, by every route of the species that gives their form.
 * @param anyForm whether routes to every form are run
 */
export function useWhen(anyForm = false) {
  const nursery = useNursery();
  const season = useSeason();
  const routes = useRoutes();
  const forecasts = useForecasts();
  const { asked, query, sizes } = useTreesAsked('when', {
    form: 'plug',
    on: '',
    until: '',
    count: '500',
    chance: 0.9,
    routeId: '',
  });
  if (query('species')) {
    asked.value.until = query('until') || query('on');
    asked.value.count = query('count') || asked.value.count;
  }
  if (!asked.value.on) asked.value.on = isoOf(addYears(season.today, 1));

  const isDay = (iso: string) => /^\d{4}-\d{2}-\d{2}$/.test(iso);
  const ask = computed(() => {
    const { on, until, count } = asked.value;
    const { fault, fromCm, toCm } = sizes.value;
    if (fault !== null) return { fault };
    if (!isDay(on)) return { fault: say`Say for which day.` };
    const [first, last] = [dayOf(on), isDay(until) ? dayOf(until) : dayOf(on)];
    if (last < first) return { fault: say`The last day that will do lies before the day they are wanted.` };
    if (last <= season.today) return { fault: say`That day has gone by: ask for a later one.` };
    if (first > addYears(season.today, 3)) return { fault: say`Kauri looks three years ahead at most.` };
    const trees = typedNumber(count);
    if (!(Number.isInteger(trees) && trees >= 1)) return { fault: say`Say how many trees: a whole number.` };
    const wanted: TreesWanted = { on: first, until: last, fromCm, toCm, chance: asked.value.chance };
    return { fault: null, value: { wanted, trees } };
  });
  /** The Mondays on which it may be sown: from this week until the trees are wanted. */
  const days = computed<EpochDay[]>(() => {
    const of = ask.value.value;
    if (!of) return [];
    const list: EpochDay[] = [];
    for (let day = mondayOf(season.today + 6); day <= of.wanted.until; day += 7) list.push(day);
    return list;
  });

  const runs = shallowRef<readonly RouteRun[]>([]);
  const fault = ref<string | null>(null);
  const done = ref(false);
  const ofSpecies = computed(() => routes.of(asked.value.speciesId));
  /** Routes whose trees leave in the form asked for; those that name what is gone say so. */
  const begun = (): RouteRun[] =>
    ofSpecies.value.routes.flatMap((route): RouteRun[] => {
      try {
        const lot = routeLot(route, nursery.lookup, routes.learnt);
        const form = formOfRoute(lot.stages.map(({ home }) => home));
        return anyForm || form === asked.value.form ? [{ route, lot, fault: null, points: [] }] : [];
      } catch (error) {
        return [{ route, lot: null, fault: sentenceOf(error), points: [] }];
      }
    });
  let asking = 0;
  watchDebounced(
    [ask, ofSpecies, () => asked.value.form, () => nursery.weatherVersion, () => nursery.learnt],
    async () => {
      const mine = ++asking;
      fault.value = null;
      done.value = false;
      const list = begun();
      runs.value = list;
      const of = ask.value.value;
      const able = list.filter((run) => run.lot !== null);
      if (of && able.length)
        try {
          await forecasts.sowings(
            able.map((run) => run.lot!),
            days.value,
            of.wanted,
            (i, points) => {
              if (mine !== asking) return false;
              const { id } = able[i].route;
              runs.value = runs.value.map((run) =>
                run.route.id === id ? { ...run, points: [...run.points, ...points] } : run,
              );
              return true;
            },
          );
        } catch (error) {
          if (mine === asking) fault.value = sentenceOf(error);
        }
      if (mine === asking) done.value = true;
    },
    { debounce: 200, immediate: true },
  );
  const kind = computed(() => ({
    sleeps: seedSleeps(nursery.lookup.species.get(asked.value.speciesId)!),
    latitudeDeg: nursery.catalogue!.nursery.latitudeDeg,
  }));
  const judged = computed(() =>
    runs.value.map((run) => ({
      ...run,
      isWhole: run.points.length === days.value.length,
      weeks: weeksOfSowing(worthSowing(run.points, run.route.start, kind.value), asked.value.chance),
    })),
  );
  /** The route chosen, or the one with the best chance of those run to the end. */
  const chosen = computed(() => {
    const able = judged.value.filter((run) => run.lot !== null);
    const whole = able.filter((run) => run.isWhole);
    const best = [...(whole.length ? whole : able)].sort(
      (a, b) => (b.weeks.best?.chance ?? 0) - (a.weeks.best?.chance ?? 0),
    )[0];
    return able.find((run) => run.route.id === asked.value.routeId) ?? best ?? null;
  });
  return { asked, ask, days, judged, chosen, fault, done, ofSpecies };
}
export type JudgedRoute = ReturnType<typeof useWhen>['judged']['value'][number];
