import {
  treesThatFit,
  trenchRoom,
  trenchWanted,
  type Heeled,
  type TrenchRoom,
  type Worked,
} from '@kauri/core';
import { computed, onMounted } from 'vue';
import { useGrading } from '../../stores/grading';
import { useNursery } from '../../stores/nursery';
import { useParcels } from '../../stores/parcels';

/** Bays of the yard by the row of trench they have, what lies in it, and what is left. */
export function useTrench() {
  const nursery = useNursery();
  const parcels = useParcels();
  const grading = useGrading();
  onMounted(() => void grading.load().catch(() => undefined));
  /** By name, as lifted trees say where they lie. */
  const bays = computed(
    () =>
      new Map(
        nursery.catalogue!.places.flatMap(({ place }) =>
          place.kind === 'bay' ? [[place.name, place.design] as const] : [],
        ),
      ),
  );
  /**
   * Room of a bay; null for any other place, and until it is known what lies there.
   * @param but a parcel that is not counted: it is about to be put somewhere
   */
  function roomOf(name: string, but?: string): Worked<TrenchRoom> | null {
    const design = bays.value.get(name);
    if (!design || !parcels.loaded || grading.kept === null) return null;
    const lying = parcels.lying
      .filter(({ place, id }) => place === name && id !== but)
      .map(({ held, fromCm, toCm }): Heeled => ({ count: held, fromCm, toCm }));
    return trenchRoom(design, lying, grading.trench);
  }
  /** Whether how closely trees lie is the nursery's own count. */
  const isOwn = computed(() => grading.kept?.grading.trench !== undefined);
  const wantedBy = (trees: readonly Heeled[]) => trenchWanted(trees, grading.trench);
  const fitIn = (leftM: number, one: Heeled) => treesThatFit(leftM, one, grading.trench);
  return { bays, roomOf, isOwn, wantedBy, fitIn };
}
