import { footprintOf, occupancyOf, occupantOf, takesRoom, type Footprint, type Occupancy } from '@kauri/core';
import type { Place } from '@kauri/core/contract';
import { computed } from 'vue';
import { useLots, type ShownLot } from '../../parts/useLots';
import { useNursery } from '../../stores/nursery';
import { useSeason } from '../../stores/season';

/** A place with what stands in it at the ribbon's date. */
export interface ShownPlace {
  place: Place;
  footprint: Footprint;
  occupancy: Occupancy;
  lots: ShownLot[];
}

export function usePlaces() {
  const nursery = useNursery();
  const season = useSeason();
  const { lots } = useLots();
  const places = computed<ShownPlace[]>(() =>
    nursery.catalogue!.places.map((place) => {
      const here = lots.value.filter(
        (lot) => lot.row.stage.placeId === place.id && takesRoom(lot, season.view),
      );
      return {
        place,
        footprint: footprintOf(place.place),
        occupancy: occupancyOf(
          place,
          here.map((lot) => occupantOf(lot, season.view)),
          nursery.lookup,
        ),
        lots: here,
      };
    }),
  );
  return { places };
}
