import {
  byNature,
  boardRow,
  mondayOf,
  overFull,
  standingStay,
  staysOf,
  type BoardSpan,
  type Stay,
} from '@kauri/core';
import type { Place, PlannedSowing } from '@kauri/core/contract';
import { computed } from 'vue';
import { useLots } from '../../parts/useLots';
import { useForecasts } from '../../stores/forecasts';
import { useNursery } from '../../stores/nursery';
import { usePlan } from '../../stores/plan';
import { useSeason } from '../../stores/season';

/** Weeks across the board. */
export const WEEKS = 104;

/** One place across the weeks: what stands, with what is planned, and the sowings that are planned there. */
export interface BoardPlace {
  place: Place;
  standing: readonly BoardSpan[];
  all: readonly BoardSpan[];
  over: readonly BoardSpan[];
  planned: readonly { stay: Stay; sowing: PlannedSowing }[];
}

/** What the yard carries, week by week: lots that stand, and sowings that are planned. */
export function useBoard() {
  const nursery = useNursery();
  const season = useSeason();
  const plan = usePlan();
  const forecasts = useForecasts();
  const { lots } = useLots();
  const from = computed(() => mondayOf(season.view));
  const until = computed(() => from.value + 7 * WEEKS);
  const standing = computed<Stay[]>(() =>
    lots.value.flatMap((lot) => {
      const stay = standingStay(lot, lot.view.forecast, season.view, from.value, until.value);
      return stay ? [stay] : [];
    }),
  );
  const planned = computed(() =>
    plan.sowings.flatMap((sowing) => staysOf(sowing).map((stay) => ({ stay, sowing }))),
  );
  const byPlace = <T>(list: readonly T[], placeOf: (one: T) => string) => {
    const found = new Map<string, T[]>();
    for (const one of list) found.set(placeOf(one), [...(found.get(placeOf(one)) ?? []), one]);
    return found;
  };
  const rows = computed<BoardPlace[]>(() => {
    const stand = byPlace(standing.value, (stay) => stay.placeId);
    const plans = byPlace(planned.value, ({ stay }) => stay.placeId);
    return [...nursery.catalogue!.places]
      .sort((a, b) => byNature(a.place.name, b.place.name))
      .map((place) => {
        const here = stand.get(place.id) ?? [];
        const coming = plans.get(place.id) ?? [];
        const row = (stays: readonly Stay[]) =>
          boardRow(place, stays, nursery.lookup, from.value, until.value);
        const alone = row(here);
        const all = coming.length ? row([...here, ...coming.map(({ stay }) => stay)]) : alone;
        return { place, standing: alone, all, over: overFull(all), planned: coming };
      });
  });
  /** All that stands and is planned. */
  const stays = computed(() => [...standing.value, ...planned.value.map(({ stay }) => stay)]);
  /** Whether the lots that stand are all there: before that the yard looks emptier than it is. */
  const ready = computed(() => forecasts.viewsOf !== null);
  return { rows, stays, ready, from, until };
}
