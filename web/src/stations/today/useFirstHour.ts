import { say } from '@kauri/core';
import { useLocalStorage } from '@vueuse/core';
import { computed } from 'vue';
import { keptKey } from '../../stores/kept';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useSession } from '../../stores/session';
import { useTodayBook } from '../../stores/todayBook';
import { firstSteps, isBegun } from './firstHour';

/** The first hour of the nursery: its steps, and whether they are shown. */
export function useFirstHour() {
  const nursery = useNursery();
  const session = useSession();
  const preferences = usePreferences();
  const book = useTodayBook();
  const putAway = useLocalStorage(keptKey('first-hour.away'), false);

  const steps = computed(() => {
    const { placeName, latitudeDeg, elevationM } = nursery.catalogue!.nursery;
    const latitude = `${Math.abs(latitudeDeg).toFixed(1)}° ${latitudeDeg < 0 ? say`south` : say`north`}`;
    return firstSteps({
      where: say`${placeName}, ${latitude}, ${preferences.show(elevationM, 'site', 0)} up.`,
      weatherDays: nursery.series.tMinC.length,
      places: nursery.catalogue!.places.length,
      lot: nursery.lots.keys().next().value ?? null,
      counted: [...nursery.evidence.values()].some(({ counts }) => counts.length > 0),
      people: book.book?.people.length ?? 1,
      owns: session.may('owner'),
    });
  });
  /** The step that comes first. */
  const next = computed(() =>
    steps.value.find(({ done, to, optional }) => !done && to !== null && !optional),
  );
  const shown = computed(
    () => nursery.whole && session.may('grower') && !putAway.value && !isBegun(steps.value),
  );
  return { steps, next, shown, putAway: () => void (putAway.value = true) };
}
