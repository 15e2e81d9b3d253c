import { dayOf, factsAt, type LotFacts, type StandingLot } from '@kauri/core';
import type { Evidence, LotRow } from '@kauri/core/contract';
import { createSharedComposable } from '@vueuse/core';
import { computed } from 'vue';
import { useForecasts } from '../stores/forecasts';
import { useNursery } from '../stores/nursery';
import { usePreferences } from '../stores/preferences';
import { useSeason } from '../stores/season';
import type { LotView } from '../workers/forecast.worker';

/** A lot as the lists show it at the ribbon's date. */
export interface ShownLot extends StandingLot {
  row: LotRow;
  view: LotView;
  species: string;
  /** Container or density, and the place. */
  where: string;
  place: string;
}

/** The lots that had been sown by the ribbon's date, with forecast and standing; worked out once for all who ask. */
export function useLots() {
  useForecasts().wantAll();
  return shownLots();
}
const shownLots = createSharedComposable(() => {
  const preferences = usePreferences();
  const nursery = useNursery();
  const forecasts = useForecasts();
  const season = useSeason();
  const facts = computed(() => nursery.facts);
  const asOf = computed(() => Math.min(season.view, season.today));

  /** As last shown, with what it was made of: a lot of which nothing changed stays the object it was. */
  let known = new Map<string, { of: readonly unknown[]; lot: ShownLot }>();
  const lots = computed(() => {
    const { lookup } = nursery;
    const before = known;
    known = new Map();
    for (const [id, view] of forecasts.views) {
      const row = nursery.lots.get(id);
      const whole = facts.value.get(id);
      if (!row || !whole) continue;
      const records = nursery.evidence.get(id);
      // Where it stands is said in units, which a person may switch.
      const of = [row, whole, view, records, lookup, asOf.value, preferences.units];
      const same = before.get(id);
      if (same?.of.every((part, i) => part === of[i])) known.set(id, same);
      else {
        const place = lookup.places.get(placeIdOf(row, records))?.place.name ?? '';
        known.set(id, {
          of,
          lot: shownLot(row, whole, view, lookup.species.get(row.speciesId)?.common ?? '', place),
        });
      }
    }
    return [...known.values()].map(({ lot }) => lot);
  });

  /** Where a lot stood on the date looked at. */
  function placeIdOf(row: LotRow, records: Evidence | undefined): string {
    const stages = records?.stages ?? [];
    return (stages.findLast((s) => dayOf(s.startedOn) <= asOf.value) ?? stages[0] ?? row.stage).placeId;
  }

  function shownLot(row: LotRow, whole: LotFacts, view: LotView, species: string, place: string): ShownLot {
    const lotFacts = whole.homes ? factsAt(whole, asOf.value) : whole;
    const home =
      lotFacts.home.kind === 'container'
        ? lotFacts.home.name
        : preferences.show(lotFacts.home.densityPerM2, 'density');
    return {
      row,
      facts: lotFacts,
      standing: view.standing,
      view,
      species,
      where: `${home}, ${place}`,
      place,
    };
  }
  return { lots, facts };
});
