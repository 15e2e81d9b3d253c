import { useLocalStorage } from '@vueuse/core';
import { computed, ref, watch, type Ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { keptKey } from '../../stores/kept';
import { latestOnly } from '../../stores/latestOnly';
import { useSession } from '../../stores/session';
import { inSlices } from '../../stores/slices';
import type { ShownLot } from '../useLots';
import {
  asTyped,
  filtered,
  filterFromQuery,
  leavesOut,
  LotIndex,
  noFilter,
  queryFromFilter,
  type LotFilter,
  type LotOrder,
} from './lotFilter';

/**
 * How a list of lots is looked through: held by the address, so that back, reload and a link show the same, and
 * remembered for the person at this browser.
 */
export function useLotFilter(lots: Ref<readonly ShownLot[]>, station: string, urgent?: LotOrder) {
  const route = useRoute();
  const router = useRouter();
  const session = useSession();
  const kept = useLocalStorage<Record<string, string | undefined>>(
    keptKey(`lots.${session.me?.person.id ?? ''}${station === 'grow' ? '' : `.${station}`}`),
    {},
  );
  const said = Object.keys(queryFromFilter(noFilter));
  const filter = computed<LotFilter>(() =>
    filterFromQuery(said.some((key) => key in route.query) ? route.query : kept.value),
  );
  const set = (part: Partial<LotFilter>) => {
    const query = queryFromFilter({ ...filter.value, ...part });
    kept.value = JSON.parse(JSON.stringify(query));
    void router.replace({ query: { ...route.query, ...query } });
  };
  const index = new LotIndex();
  /** Grows with every change of the index, so that what was found is looked for again. */
  const indexed = ref(0);
  const take = latestOnly(async () => {
    await inSlices(lots.value, (lot) => index.take(lot));
    index.keep(lots.value);
    indexed.value++;
  });
  watch(lots, () => void take(), { immediate: true });
  const find = (words: string) => {
    // Read, so that it is looked for again once all are indexed; until then letter by letter, no slip forgiven.
    return indexed.value === 0 ? asTyped(lots.value, words) : index.find(words);
  };
  const shown = computed(() => filtered(lots.value, filter.value, find, urgent));
  const clear = () => set({ ...noFilter, sort: filter.value.sort, group: filter.value.group });
  return { filter, set, clear, shown, leavesOut: computed(() => leavesOut(filter.value)) };
}
