import { dayOf, minutesFor, mayServe, type Hands, type LiftingOdds, type LotToLift } from '@kauri/core';
import { watchDebounced } from '@vueuse/core';
import { computed, ref, shallowRef, type Ref } from 'vue';
import { sentenceOf } from '../../api/problem';
import { useLots, type ShownLot } from '../../parts/useLots';
import { useForecasts } from '../../stores/forecasts';
import { useLiftingPlan } from '../../stores/liftingPlan';
import { useOrders } from '../../stores/orders';
import { useSeason } from '../../stores/season';
import { isOpen } from '../plan/orderWords';
import { useLiftRate } from './useLiftRate';

/** Lots whose window opens later than this are not in the order yet, days. */
const OPENS_WITHIN_DAYS = 60;

/** A lot in the order, and what its last day rests on. */
export interface LotInOrder extends LotToLift {
  lot: ShownLot;
  /** Whether a line that it is set against wants it before buds do. */
  byOrder: boolean;
}

/** In what order bed lots are lifted with the hands there are, and whether that is in time. */
export function useLiftingOrder(hands: Ref<Hands | null>) {
  const { lots } = useLots();
  const forecasts = useForecasts();
  const orders = useOrders();
  const plan = useLiftingPlan();
  const season = useSeason();
  const rate = useLiftRate();
  /** Bed lots whose trees rest, or soon will; of those set against a line, its last day comes first. */
  const toLift = computed<LotInOrder[]>(() => {
    const { today } = season;
    const lines = orders.all
      .flatMap((order) => order.lines)
      .filter((line) => isOpen(line) && line.lots.length);
    return lots.value.flatMap((lot): LotInOrder[] => {
      const { row, facts, view } = lot;
      const trees = row.held.standing;
      if (facts.home.kind !== 'bed' || trees === 0) return [];
      const { from, until, bestBefore } = view.forecast.lifting;
      const last = Number.isFinite(bestBefore) ? bestBefore : until;
      const isSoon = Number.isFinite(from) && from <= today + OPENS_WITHIN_DAYS && last > today;
      if (!isSoon || !['lift', 'growing'].includes(view.standing.status)) return [];
      const wanted = lines
        .filter((line) => line.speciesId === row.speciesId && mayServe(row.id, line.lots))
        .map((line) => dayOf(line.until));
      const by = Math.min(last, ...wanted.filter((day) => day > today));
      const hours = minutesFor(rate.value, trees) / 60;
      const moved = plan.moved.get(row.id);
      return [{ id: row.id, lot, hours, from: Math.max(today + 1, from), by, byOrder: by < last, moved }];
    });
  });

  const odds = shallowRef<LiftingOdds | null>(null);
  const fault = ref<string | null>(null);
  let asking = 0;
  watchDebounced(
    [toLift, hands],
    async () => {
      const mine = ++asking;
      if (!hands.value || forecasts.viewsOf === null) return;
      try {
        const list = toLift.value.map(({ id, hours, from, by, moved }) => ({ id, hours, from, by, moved }));
        const found = await forecasts.lifting(list, hands.value);
        if (mine !== asking) return;
        odds.value = found;
        fault.value = null;
      } catch (error) {
        if (mine === asking) fault.value = sentenceOf(error);
      }
    },
    { debounce: 150, immediate: true },
  );
  return { toLift, odds, fault, rate };
}
