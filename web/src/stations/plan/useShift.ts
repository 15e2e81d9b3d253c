import { dayOf, planSowing, routeLot, type RoutePoint, say } from '@kauri/core';
import type { PlannedSowing } from '@kauri/core/contract';
import { ref } from 'vue';
import { sentenceOf } from '../../api/problem';
import { useForecasts } from '../../stores/forecasts';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { usePlan } from '../../stores/plan';
import { useRoutes } from '../../stores/routes';
import { useSeason } from '../../stores/season';

/** Moves a planned sowing to another week, or place: its moves, its plants and its chance are worked out anew. */
export function useShift() {
  const nursery = useNursery();
  const season = useSeason();
  const plan = usePlan();
  const routes = useRoutes();
  const forecasts = useForecasts();
  const messages = useMessages();
  const fault = ref<string | null>(null);
  const busy = ref(false);

  /** @param placed the sowing in the places it goes to, where they are others */
  async function shift(sowing: PlannedSowing, weeks: number, placed = sowing): Promise<void> {
    if (busy.value) return;
    const on = dayOf(sowing.stages[0].from) + 7 * weeks;
    if (on <= season.today) {
      fault.value = say`That week has gone by.`;
      return;
    }
    busy.value = true;
    fault.value = null;
    try {
      if (weeks === 0) {
        await plan.put({ ...placed, pinned: true });
        messages.say(say`Put in another place.`, () => plan.put(sowing));
        return;
      }
      const route = { ...placed, name: placed.route };
      const { wanted } = sowing;
      const trees = { ...wanted, on: dayOf(wanted.on), until: dayOf(wanted.until) };
      let point: RoutePoint | undefined;
      await forecasts.sowings([routeLot(route, nursery.lookup, routes.learnt)], [on], trees, (_, points) => {
        [point] = points;
        return true;
      });
      if (!point || point.begins.length < sowing.stages.length) {
        fault.value = say`Sown in that week it does not go through its stages in time: it stays where it was.`;
        return;
      }
      const aim = { lineId: sowing.lineId, wanted: trees, trees: wanted.trees };
      const moved = planSowing(sowing.id, route, point, aim, nursery.lookup.containers, season.today);
      await plan.put({ ...moved, pinned: true });
      messages.say(say`Moved to another week.`, () => plan.put(sowing));
    } catch (error) {
      fault.value = sentenceOf(error);
    } finally {
      busy.value = false;
    }
  }
  return { shift, fault, busy };
}
