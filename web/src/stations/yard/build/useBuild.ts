import {
  buildOf,
  buildSheet,
  bedParts,
  type BedDesign,
  type BoardBuying,
  type BuildItem,
  type TimberClass,
} from '@kauri/core';
import { useSessionStorage } from '@vueuse/core';
import { wrapSpeaking } from '../../../workers/speaking';
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue';
import { useNursery } from '../../../stores/nursery';
import type { CutWorker } from '../../../workers/cut.worker';
import { keptKey } from '../../../stores/kept';

/** Which designs are built, how many of each, and what they need. The cutting runs in a worker. */
export function useBuild() {
  const nursery = useNursery();
  const counts = useSessionStorage<Record<string, number>>(keptKey('build.counts'), {}, { deep: true });
  const prices = computed(() => nursery.catalogue!.prices.list);
  const designs = computed(() => nursery.catalogue!.designs);
  const items = computed<BuildItem[]>(() =>
    designs.value
      .filter((d) => !d.design.found)
      .filter((d) => (counts.value[d.id] ?? 0) > 0)
      .map((d) => ({
        name: d.name,
        design: d.design as BedDesign,
        count: counts.value[d.id],
        medium: nursery.catalogue!.media[0].values,
      })),
  );
  const worked = computed(() => {
    try {
      return { sheet: items.value.length ? buildSheet(items.value, prices.value) : null, fault: null };
    } catch (error) {
      return { sheet: null, fault: (error as Error).message };
    }
  });
  const raw = new Worker(new URL('../../../workers/cut.worker.ts', import.meta.url), { type: 'module' });
  const worker = wrapSpeaking<CutWorker>(raw);
  onBeforeUnmount(() => raw.terminate());
  const buying = shallowRef<BoardBuying[] | null>(null);
  const cutting = ref(false);
  const cutFault = ref<string | null>(null);
  let asked = 0;
  watch(
    [() => worked.value.sheet, prices],
    async () => {
      const ask = ++asked;
      buying.value = null;
      cutFault.value = null;
      const { sheet } = worked.value;
      if (!sheet) return;
      cutting.value = true;
      // One section in two timbers is bought as the dearer: a sheet is of one timber in practice.
      const timberOf: Record<string, TimberClass> = {};
      for (const item of items.value)
        for (const part of bedParts(item.design).timber) timberOf[part.board] ??= buildOf(item.design).timber;
      try {
        const list = await worker.buy(
          JSON.parse(JSON.stringify(sheet.timber)) as typeof sheet.timber,
          JSON.parse(JSON.stringify(prices.value)) as typeof prices.value,
          timberOf,
          {},
        );
        if (ask === asked) buying.value = list;
      } catch (error) {
        if (ask === asked) cutFault.value = (error as Error).message;
      } finally {
        if (ask === asked) cutting.value = false;
      }
    },
    { immediate: true },
  );
  return { counts, designs, items, prices, worked, buying, cutting, cutFault };
}
