import { useLocalStorage } from '@vueuse/core';
import { computed, type Ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { keptKey } from '../../stores/kept';
import { useSession } from '../../stores/session';
import type { ShownLot } from '../useLots';
import {
  filtered,
  filterFromQuery,
  leavesOut,
  lotIndex,
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
  const find = computed(() => lotIndex(lots.value));
  const shown = computed(() => filtered(lots.value, filter.value, (words) => find.value(words), urgent));
  const clear = () => set({ ...noFilter, sort: filter.value.sort, group: filter.value.group });
  return { filter, set, clear, shown, leavesOut: computed(() => leavesOut(filter.value)) };
}
