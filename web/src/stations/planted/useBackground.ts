import { sizeAtPlanting, yearOf, type PlantedCase, type SizeAtPlanting, say } from '@kauri/core';
import { computed, ref } from 'vue';
import { sentenceOf } from '../../api/problem';
import { useArrivals } from '../../stores/arrivals';
import { useNursery } from '../../stores/nursery';
import { useRoots } from '../../stores/roots';

/** How far lots are followed back to what came from outside. */
const GENERATIONS = 8;

/** Groups by the verdict on roots, by which they are also found again. */
export const verdictGroups = () => ({
  none: say`roots not judged`,
  accept: say`roots accepted`,
  reject: say`roots rejected`,
  pull: say`roots in doubt`,
});

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
  /** A lot and those it was set apart from, the last first. */
  function lineOf(lotId: string): string[] {
    const line: string[] = [];
    let id: string | null = lotId;
    for (let i = 0; id !== null && i < GENERATIONS; i++) {
      line.push(id);
      id = nursery.lots.get(id)?.parentLotId ?? null;
    }
    return line;
  }
  const byLot = computed(() => new Map(arrivals.all.flatMap((one) => (one.lotId ? [[one.lotId, one]] : []))));
  /** Whom a lot's plants came from; null where they were raised here. */
  function supplierOf(lotId: string): string | null {
    const came = lineOf(lotId).find((id) => byLot.value.has(id));
    return came === undefined ? null : byLot.value.get(came)!.supplier;
  }
  /** How tall and thick trees were when they were planted, by what was measured of their lot, or of that it was set apart from. */
  function sizeOf(one: PlantedCase): SizeAtPlanting | null {
    for (const id of lineOf(one.lotId)) {
      const size = sizeAtPlanting(nursery.evidence.get(id)?.sizes ?? [], one);
      if (size) return size;
    }
    return null;
  }
  /** How the plants that were pulled of a lot judged its roots. */
  function rootsOf(lotId: string): string {
    const verdict = roots.verdictOf(lotId)?.value.sequential;
    return verdictGroups()[!verdict || verdict.pulled === 0 ? 'none' : verdict.call];
  }
  const seasonOf = ({ on }: Pick<PlantedCase, 'on'>) => say`planted ${yearOf(on)}`;
  return { load, ready, fault, supplierOf, sizeOf, rootsOf, seasonOf };
}
