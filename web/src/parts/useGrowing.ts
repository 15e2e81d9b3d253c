import { useRafFn } from '@vueuse/core';
import { ref, type Ref } from 'vue';

/**
 * A number that grows frame by frame up to its most, so that a long list is drawn a little at a time and the page is never
 * held.
 */
export function useGrowing(first: number, most: number): Ref<number> {
  const now = ref(first);
  const { pause } = useRafFn(() => {
    now.value = Math.min(most, now.value + first);
    if (now.value === most) pause();
  });
  return now;
}
