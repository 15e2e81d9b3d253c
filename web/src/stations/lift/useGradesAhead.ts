import { jeffreys, type EpochDay, type GradeOutlook, type Worked } from '@kauri/core';
import type { GradeScheme } from '@kauri/core/contract';
import { computed, shallowRef, watch } from 'vue';
import type { ShownLot } from '../../parts/useLots';
import { useForecasts } from '../../stores/forecasts';
import { latestOnly } from '../../stores/latestOnly';
import { useRoots } from '../../stores/roots';

/** What a lot would give by the grades of a scheme on the date looked at; null until it is known. */
export function useGradesAhead(lot: () => ShownLot, scheme: () => GradeScheme | null) {
  const forecasts = useForecasts();
  const roots = useRoots();
  /** Roots looked at, and those that fail. */
  const looked = computed(() => {
    const { failing, pulled } = roots.verdictOf(lot().row.id)?.value.sequential ?? { failing: 0, pulled: 0 };
    return { failing, pulled };
  });
  const outlook = shallowRef<{ of: GradeScheme; on: EpochDay; found: Worked<GradeOutlook> } | null>(null);
  // While the ribbon is dragged, the day it comes to rest at is what matters.
  const work = latestOnly(async () => {
    const of = scheme();
    const on = forecasts.viewsOf;
    const { facts, row } = lot();
    if (!of || on === null || row.held.standing === 0) {
      outlook.value = null;
      return;
    }
    const { failing, pulled } = looked.value;
    const found = await forecasts.grades(facts.id, on, {
      classes: of.grades.map(({ fromCm, toCm, collarMm }) => ({ fromCm, toCm, collarMm })),
      trees: row.held.standing,
      bad: pulled ? jeffreys(failing, pulled) : null,
      thinRule: of.thinRule ?? 'out',
    });
    outlook.value = found && { of, on, found };
  });
  watch(
    [() => lot().facts, () => lot().row.held.standing, scheme, looked, () => forecasts.viewsOf],
    () => void work(),
    { immediate: true },
  );
  return { outlook, looked };
}
