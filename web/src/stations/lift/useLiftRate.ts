import { todayKnown, workRates } from '@kauri/core';
import { computed, onMounted } from 'vue';
import { useTodayBook } from '../../stores/todayBook';

/** What lifting takes here, as work done taught; a starting value until then. */
export function useLiftRate() {
  const kept = useTodayBook();
  onMounted(() => kept.book === null && void kept.load().catch(() => undefined));
  return computed(() => {
    const { work } = todayKnown(kept.book?.marks ?? [], kept.book?.rules ?? { schema: 1, rules: {} });
    return workRates(work).lift;
  });
}
