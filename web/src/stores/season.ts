import { dayOf, isoOf, seasonStrip, type EpochDay } from '@kauri/core';
import { useSessionStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { useNursery } from './nursery';

/** The date the whole application shows. */
export const useSeason = defineStore('season', () => {
  const nursery = useNursery();
  const chosen = useSessionStorage<string | null>('kauri.date', null);

  const today = computed<EpochDay>(() => dayOf(nursery.catalogue!.nursery.today));
  const view = computed<EpochDay>(() => (chosen.value === null ? today.value : clamp(dayOf(chosen.value))));
  const viewIso = computed(() => isoOf(view.value));
  const todayIso = computed(() => isoOf(today.value));
  /** While the ribbon is dragged its strip stays: else a date near its end would carry the strip on under the pointer. */
  const held = shallowRef<ReturnType<typeof seasonStrip> | null>(null);
  const hold = () => (held.value = strip.value);
  const release = () => (held.value = null);
  /** The strip stays the same object while the date moves within it, so that nothing is drawn again for it. */
  const strip = computed<ReturnType<typeof seasonStrip>>((before) => {
    if (held.value) return held.value;
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
  return { today, view, viewIso, todayIso, strip, isToday, look, hold, release };
});
