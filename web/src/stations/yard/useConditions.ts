import { inWords } from '@kauri/core';
import type { PlaceCheck } from '@kauri/core/contract';
import { computed } from 'vue';
import { useSeason } from '../../stores/season';
import { useYard } from '../../stores/yard';

const short = inWords({ sound: '', watch: '◐ watch', repair: '◑ repair', unsafe: '○ unsafe' } as const);

/** What places were last found to be, up to the ribbon's date, in a word beside their names; nothing where sound. */
export function useConditions() {
  const yard = useYard();
  const season = useSeason();
  return computed(() => {
    const latest = new Map<string, PlaceCheck>();
    for (const check of yard.checks)
      if (check.day <= season.viewIso && !latest.has(check.placeId)) latest.set(check.placeId, check);
    return new Map(
      [...latest].map(([id, { condition }]) => [id, short[condition]]).filter(([, words]) => words) as [
        string,
        string,
      ][],
    );
  });
}
