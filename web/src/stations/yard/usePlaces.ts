import {
  apartAt,
  dayOf,
  footprintOf,
  occupancyOf,
  shareLeft,
  type EpochDay,
  type Footprint,
  type Occupancy,
  type Occupant,
} from '@kauri/core';
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

/** Whether a lot takes up room at the date looked at. */
export function takesRoom({ view, row }: ShownLot, day: number): boolean {
  const { status } = view.standing;
  return status !== 'lifted' && status !== 'ended' && dayOf(row.stage.startedOn) <= day;
}

/** A lot as it takes room on a day: set apart it takes more, half lifted less. */
export function occupantOf({ row, facts, view }: ShownLot, day: EpochDay): Occupant {
  return {
    lotId: row.id,
    stage: row.stage,
    apart: apartAt(facts, day),
    share: shareLeft(view.standing.tally),
  };
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
