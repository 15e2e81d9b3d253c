import { factsFrom, type LotFacts } from '@kauri/core';
import type { LotRow } from '@kauri/core/contract';
import { computed } from 'vue';
import { useForecasts } from '../stores/forecasts';
import { useNursery } from '../stores/nursery';
import type { LotView } from '../workers/forecast.worker';

/** A lot as the lists show it at the ribbon's date. */
export interface ShownLot {
  row: LotRow;
  facts: LotFacts;
  view: LotView;
  species: string;
  /** Container or density, and the place. */
  where: string;
}

/** The lots that had been sown by the ribbon's date, with forecast and standing. */
export function useLots() {
  const nursery = useNursery();
  const forecasts = useForecasts();
  const facts = computed(() => {
    const all = new Map<string, LotFacts>();
    for (const row of nursery.lots.values())
      all.set(row.id, factsFrom(row, nursery.evidence.get(row.id)!, nursery.lookup));
    return all;
  });
  const lots = computed(() => {
    const shown: ShownLot[] = [];
    for (const [id, view] of forecasts.views) {
      const row = nursery.lots.get(id);
      if (!row) continue;
      const place = nursery.lookup.places.get(row.stage.placeId)?.place.name ?? '';
      const lotFacts = facts.value.get(id)!;
      const home =
        lotFacts.home.kind === 'container' ? lotFacts.home.name : `${lotFacts.home.densityPerM2}/m²`;
      shown.push({
        row,
        facts: lotFacts,
        view,
        species: nursery.lookup.species.get(row.speciesId)?.common ?? '',
        where: `${home}, ${place}`,
      });
    }
    return shown;
  });
  return { lots, facts };
}
