import { say, inWords } from '@kauri/core';
import type { RouteStart, StageEnd } from '@kauri/core';
import type { RouteStage } from '@kauri/core/contract';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';

export const startWords: Record<RouteStart, string> = inWords({
  'treated seed': 'Treated seed',
  'fresh seed': 'Fresh seed, woken by winter',
  cuttings: 'Cuttings',
});
export const endWords: Record<StageEnd, string> = inWords({
  'true leaves': 'Until the first true leaves',
  'plug holds': 'Until the plug holds',
  'end of season': 'Until growth ends for the year',
});

/** Says where a stage stands, in a few words and the grower's units. */
export function useStageWords() {
  const nursery = useNursery();
  const { show } = usePreferences();
  return ({
    containerTypeId,
    densityPerM2,
    placeId,
  }: Pick<RouteStage, 'containerTypeId' | 'densityPerM2' | 'placeId'>) => {
    const { containers, places } = nursery.lookup;
    const place = places.get(placeId)?.place.name ?? say`a place no longer in the yard`;
    return containerTypeId === null
      ? say`a bed like ${place}, ${show(densityPerM2!, 'density')}`
      : (containers.get(containerTypeId)?.values.name ?? say`a container no longer in the list`);
  };
}
