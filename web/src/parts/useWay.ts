import { byNature, middleOfPlace, walkingWay } from '@kauri/core';
import { computed } from 'vue';
import { useNursery } from '../stores/nursery';

/** Places as one walks past them: by a short way through the yard, those that are no place of the yard last. */
export function useWay() {
  const nursery = useNursery();
  const spots = computed(
    () => new Map(nursery.catalogue!.places.map(({ place }) => [place.name, middleOfPlace(place)] as const)),
  );
  // From where a main path comes in, or from the corner of the site.
  const gate = computed(
    () => nursery.plan.find(({ kind, main }) => kind === 'path' && main)?.points[0] ?? ([0, 0] as const),
  );
  /** @param names of places, each once; blank for what is nowhere */
  return (names: readonly string[]): string[] => {
    const known = names.filter((name) => spots.value.has(name)).sort(byNature);
    const others = names
      .filter((name) => !spots.value.has(name))
      .sort((a, b) => Number(a === '') - Number(b === '') || byNature(a, b));
    const way = walkingWay(
      known.map((name) => spots.value.get(name)!),
      [...gate.value],
    );
    return [...way.map((i) => known[i]), ...others];
  };
}
