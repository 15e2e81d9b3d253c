import { dayOf, isoOf, seasonStrip, type EpochDay } from '@kauri/core';
import { useSessionStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { useNursery } from './nursery';

/** The date the whole application shows. */
export const useSeason = defineStore('season', () => {
  const nursery = useNursery();
  const chosen = useSessionStorage<string | null>('kauri.date', null);

  const today = computed<EpochDay>(() => dayOf(nursery.catalogue!.nursery.today));
  const view = computed<EpochDay>(() => (chosen.value === null ? today.value : clamp(dayOf(chosen.value))));
  const viewIso = computed(() => isoOf(view.value));
  const todayIso = computed(() => isoOf(today.value));
  /** The strip stays the same object while the date moves within it, so that nothing is drawn again for it. */
  const strip = computed<ReturnType<typeof seasonStrip>>((before) => {
    const now = seasonStrip(nursery.catalogue!.nursery.latitudeDeg, view.value);
    return before && before.start === now.start && before.end === now.end ? before : now;
  });
  const isToday = computed(() => view.value === today.value);

  function clamp(day: EpochDay): EpochDay {
    return Math.max(nursery.firstDay - 30, Math.min(today.value + 400, day));
  }
  function look(day: EpochDay) {
    const at = clamp(Math.round(day));
    chosen.value = at === today.value ? null : isoOf(at);
  }
  return { today, view, viewIso, todayIso, strip, isToday, look };
});
