import { dayOf, factsAt, type LotFacts } from '@kauri/core';
import type { LotRow } from '@kauri/core/contract';
import { computed } from 'vue';
import { useForecasts } from '../stores/forecasts';
import { useNursery } from '../stores/nursery';
import { useSeason } from '../stores/season';
import type { LotView } from '../workers/forecast.worker';

/** A lot as the lists show it at the ribbon's date. */
export interface ShownLot {
  row: LotRow;
  facts: LotFacts;
  view: LotView;
  species: string;
  /** Container or density, and the place. */
  where: string;
  place: string;
}

/** The lots that had been sown by the ribbon's date, with forecast and standing. */
export function useLots() {
  const nursery = useNursery();
  const forecasts = useForecasts();
  const season = useSeason();
  const facts = computed(() => nursery.facts);
  const asOf = computed(() => Math.min(season.view, season.today));
  /** Where a lot stood on the date looked at. */
  const placeOf = (row: LotRow) => {
    const stages = nursery.evidence.get(row.id)?.stages ?? [];
    const stage = stages.findLast((s) => dayOf(s.startedOn) <= asOf.value) ?? stages[0] ?? row.stage;
    return nursery.lookup.places.get(stage.placeId)?.place.name ?? '';
  };
  const lots = computed(() => {
    const shown: ShownLot[] = [];
    for (const [id, view] of forecasts.views) {
      const row = nursery.lots.get(id);
      const whole = facts.value.get(id);
      if (!row || !whole) continue;
      const place = placeOf(row);
      const lotFacts = whole.homes ? factsAt(whole, asOf.value) : whole;
      const home =
        lotFacts.home.kind === 'container' ? lotFacts.home.name : `${lotFacts.home.densityPerM2}/m²`;
      shown.push({
        row,
        facts: lotFacts,
        view,
        species: nursery.lookup.species.get(row.speciesId)?.common ?? '',
        where: `${home}, ${place}`,
        place,
      });
    }
    return shown;
  });
  return { lots, facts };
}
