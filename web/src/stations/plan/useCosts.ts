import {
  costPerTree,
  costTerms,
  formOfRoute,
  planSowing,
  sowingCost,
  type EvaporationAhead,
  type SowingCost,
  type Worked,
} from '@kauri/core';
import { computed, onMounted, shallowRef, watch, type Ref } from 'vue';
import { sentenceOf } from '../../api/problem';
import { useForecasts } from '../../stores/forecasts';
import { useNursery } from '../../stores/nursery';
import { useSeason } from '../../stores/season';
import { useSeed } from '../../stores/seed';
import type { JudgedRoute, useWhen } from './useWhen';

/** Cheapest first, then those that are not in time so surely, then those that are in time in no week. */
const rank = (of: { each: { mustFetch: number }; isSure: boolean } | null): number =>
  of === null ? Infinity : of.each.mustFetch + (of.isSure ? 0 : 1e9);

/** What trees wanted cost by each route, sown in its best week. */
export function useCosts(
  { ask, judged }: Pick<ReturnType<typeof useWhen>, 'ask' | 'judged'>,
  fault: Ref<string | null>,
) {
  const nursery = useNursery();
  const season = useSeason();
  const seed = useSeed();
  const forecasts = useForecasts();
  const evaporation = shallowRef<EvaporationAhead | null>(null);
  const told = (error: unknown) => void (fault.value = sentenceOf(error));
  onMounted(() => seed.load().catch(told));
  watch(
    () => nursery.weatherVersion,
    () => forecasts.evaporation().then((ahead) => (evaporation.value = ahead), told),
    { immediate: true },
  );
  const terms = computed(() =>
    costTerms(
      { prices: nursery.catalogue!.prices.list, room: seed.room, lookup: nursery.lookup },
      nursery.catalogue!.prices.list.hour,
      evaporation.value,
    ),
  );
  const costOf = (run: JudgedRoute) => {
    const of = ask.value.value;
    const point = run.isWhole ? run.weeks.best : null;
    if (!of || !point || !run.lot) return null;
    const aim = { lineId: null, wanted: of.wanted, trees: of.trees };
    const { containers } = nursery.lookup;
    const sowing = planSowing(run.route.id, run.route, point, aim, containers, season.today);
    const cost: Worked<SowingCost> = sowingCost(sowing, nursery.lookup, terms.value);
    const isSure = point.chance >= of.wanted.chance - 1e-9;
    return { sowing, point, cost, each: costPerTree(cost.value, sowing, point), isSure };
  };
  const rows = computed(() =>
    judged.value
      .map((run) => ({
        run,
        form: run.lot && formOfRoute(run.lot.stages.map(({ home }) => home)),
        of: seed.loaded === nursery.nurseryId ? costOf(run) : null,
      }))
      .sort((a, b) => rank(a.of) - rank(b.of)),
  );
  return { rows };
}
export type CostRow = ReturnType<typeof useCosts>['rows']['value'][number];
