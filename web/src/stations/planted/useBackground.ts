import { yearOf, type PlantedCase, say } from '@kauri/core';
import { computed, ref } from 'vue';
import { sentenceOf } from '../../api/problem';
import { useArrivals } from '../../stores/arrivals';
import { useNursery } from '../../stores/nursery';
import { useRoots } from '../../stores/roots';

/** How far lots are followed back to what came from outside. */
const GENERATIONS = 8;

/** What is known of planted trees from before they were planted: how their roots were judged, and whom they came from. */
export function useBackground() {
  const nursery = useNursery();
  const arrivals = useArrivals();
  const roots = useRoots();
  const ready = ref(false);
  const fault = ref<string | null>(null);
  async function load(): Promise<void> {
    fault.value = null;
    try {
      await Promise.all([nursery.lookBack(), arrivals.load(), roots.load()]);
      ready.value = true;
    } catch (error) {
      fault.value = sentenceOf(error);
    }
  }
  const byLot = computed(() => new Map(arrivals.all.flatMap((one) => (one.lotId ? [[one.lotId, one]] : []))));
  /** Whom a lot's plants came from; null where they were raised here. */
  function supplierOf(lotId: string): string | null {
    let id: string | null = lotId;
    for (let i = 0; id !== null && i < GENERATIONS; i++) {
      const came = byLot.value.get(id);
      if (came) return came.supplier;
      id = nursery.lots.get(id)?.parentLotId ?? null;
    }
    return null;
  }
  /** How the plants that were pulled of a lot judged its roots. */
  function rootsOf(lotId: string): string {
    const verdict = roots.verdictOf(lotId)?.value.sequential;
    if (!verdict || verdict.pulled === 0) return say`roots not judged`;
    return { accept: 'roots accepted', reject: say`roots rejected`, pull: say`roots in doubt` }[verdict.call];
  }
  const seasonOf = ({ on }: Pick<PlantedCase, 'on'>) => say`planted ${yearOf(on)}`;
  return { load, ready, fault, supplierOf, rootsOf, seasonOf };
}
