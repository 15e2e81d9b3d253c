import { lastHeatDays, plantingSeen, type PlantingSeen } from '@kauri/core';
import { computed } from 'vue';
import { useNursery } from '../../stores/nursery';
import { usePlantings } from '../../stores/plantings';
import { useSeason } from '../../stores/season';

/** The plantings as they are known on the ribbon's date. */
export function usePlantingsSeen() {
  const plantings = usePlantings();
  const nursery = useNursery();
  const season = useSeason();
  return computed<PlantingSeen[]>(() => {
    const { kept } = plantings;
    const { latitudeDeg } = nursery.catalogue!.nursery;
    const weather = lastHeatDays(nursery.series, season.view);
    return kept.plantings.map((planting) =>
      plantingSeen(planting, kept.walks, weather, latitudeDeg, season.view),
    );
  });
}
