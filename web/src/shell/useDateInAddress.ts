import { dayOf, isoOf, type EpochDay } from '@kauri/core';
import { watchDebounced } from '@vueuse/core';
import { onScopeDispose } from 'vue';
import { useRouter, type LocationQueryValue } from 'vue-router';
import { useSeason } from '../stores/season';

/** How long the date rests before it is written to the address, ms: a ribbon that is dragged writes once. */
const REST_MS = 300;

type Said = LocationQueryValue | LocationQueryValue[] | undefined;

/** The day an address says; null where it says none that exists. */
function dayIn(said: Said): EpochDay | null {
  try {
    return typeof said === 'string' ? dayOf(said) : null;
  } catch {
    return null;
  }
}

/**
 * Keeps the date looked at in the address, so that back, reload and a link show the same: written where it is not today,
 * carried from page to page, and taken from an address that is opened or gone back to.
 */
export function useDateInAddress(): void {
  const router = useRouter();
  const season = useSeason();
  /** Set while going back or on through what was looked at. */
  let going = false;
  /** Set while a page is on its way: what is written meanwhile would stop it. */
  let underway = false;
  /** Set while the date itself is written: then none is carried. */
  let writing = false;
  const take = (on: Said) => season.look(dayIn(on) ?? season.today);
  function write() {
    if (underway) return;
    const { on: before, ...rest } = router.currentRoute.value.query;
    const on = season.isToday ? undefined : isoOf(season.view);
    if (on === before) return;
    writing = true;
    void router.replace({ query: on ? { ...rest, on } : rest }).finally(() => (writing = false));
  }
  const ends = [
    router.options.history.listen(() => (going = true)),
    router.beforeEach((to, from) => {
      underway = true;
      if (going || writing || to.query.on !== undefined || from.query.on === undefined) return true;
      return { ...to, query: { ...to.query, on: from.query.on } };
    }),
    router.afterEach((to) => {
      underway = false;
      if (going) take(to.query.on);
      going = false;
      // What rested while the page was on its way.
      write();
    }),
    router.onError(() => (underway = going = false)),
  ];
  const { query } = router.currentRoute.value;
  if (query.on !== undefined) take(query.on);
  watchDebounced(() => season.view, write, { debounce: REST_MS, immediate: true });
  onScopeDispose(() => ends.forEach((end) => end()));
}
