import { jeffreys, type GradeOutlook, type Worked } from '@kauri/core';
import type { GradeScheme } from '@kauri/core/contract';
import { computed, shallowRef, watch } from 'vue';
import type { ShownLot } from '../../parts/useLots';
import { useForecasts } from '../../stores/forecasts';
import { useRoots } from '../../stores/roots';
import { useSeason } from '../../stores/season';

/** What a lot would give by the grades of a scheme on the date looked at; null until it is known. */
export function useGradesAhead(lot: () => ShownLot, scheme: () => GradeScheme | null) {
  const forecasts = useForecasts();
  const season = useSeason();
  const roots = useRoots();
  /** Roots looked at, and those that fail. */
  const looked = computed(() => {
    const { failing, pulled } = roots.verdictOf(lot().row.id)?.value.sequential ?? { failing: 0, pulled: 0 };
    return { failing, pulled };
  });
  const outlook = shallowRef<{ of: GradeScheme; found: Worked<GradeOutlook> } | null>(null);
  let asking = 0;
  watch(
    [
      () => lot().facts,
      () => lot().row.held.standing,
      scheme,
      () => season.view,
      looked,
      () => forecasts.viewsOf,
    ],
    async () => {
      const mine = ++asking;
      const of = scheme();
      const { facts, row } = lot();
      if (!of || row.held.standing === 0 || forecasts.viewsOf === null) {
        outlook.value = null;
        return;
      }
      const { failing, pulled } = looked.value;
      const found = await forecasts.grades(facts.id, {
        classes: of.grades.map(({ fromCm, toCm, collarMm }) => ({ fromCm, toCm, collarMm })),
        trees: row.held.standing,
        bad: pulled ? jeffreys(failing, pulled) : null,
      });
      if (mine === asking) outlook.value = found && { of, found };
    },
    { immediate: true },
  );
  return { outlook, looked };
}
