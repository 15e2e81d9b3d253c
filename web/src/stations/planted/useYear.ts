import {
  addYears,
  dayOf,
  isoOf,
  plantedCases,
  survivalGroups,
  yearBySpecies,
  yearSums,
  type SurvivalGroup,
} from '@kauri/core';
import type { OrderLine, Year } from '@kauri/core/contract';
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { call } from '../../api/client';
import { sentenceOf } from '../../api/problem';
import { latestOnly } from '../../stores/latestOnly';
import { useArrivals } from '../../stores/arrivals';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { usePlantings } from '../../stores/plantings';
import { useSeason } from '../../stores/season';
import { useBackground } from './useBackground';

/** Bought plants of one supplier: what was paid for one that was taken, and how those planted live. */
export interface SupplierSeen {
  supplier: string;
  taken: number;
  came: number;
  /** Paid for one that was taken, money; null where no price is known. */
  paid: number | null;
  lived: SurvivalGroup | null;
}

/** Orders of which trees were wanted in the year: how far they were met, and what they fetched. */
export interface OrdersSeen {
  met: number;
  part: number;
  missed: number;
  open: number;
  wanted: number;
  sent: number;
  /** Trees sent at the price agreed, and those of which none is known. */
  fetched: number;
  unpriced: number;
}

/** What a year came to: from the address, so that it can be gone back to and sent to somebody. */
export function useYear() {
  const nursery = useNursery();
  const season = useSeason();
  const orders = useOrders();
  const plantings = usePlantings();
  const arrivals = useArrivals();
  const background = useBackground();
  const route = useRoute();
  const router = useRouter();

  const isDay = (value: unknown): value is string =>
    typeof value === 'string' && /^\d{4}-\d\d-\d\d$/.test(value);
  const until = computed(() => (isDay(route.query.until) ? route.query.until : season.todayIso));
  const from = computed(() =>
    isDay(route.query.from) ? route.query.from : isoOf(addYears(dayOf(until.value), -1) + 1),
  );
  const show = (days: { from?: string; until?: string }) =>
    void router.replace({ query: { from: from.value, until: until.value, ...days } });

  const year = shallowRef<Year | null>(null);
  const fault = ref<string | null>(null);
  const fetchYear = latestOnly(async () => {
    try {
      const query = { from: from.value, until: until.value };
      year.value = await call('year', { params: nursery.params, query });
      fault.value = null;
    } catch (error) {
      fault.value = sentenceOf(error);
    }
  });
  watch([from, until, () => nursery.lots], () => void fetchYear(), { immediate: true });
  onMounted(() => {
    void background.load();
    void orders.load().catch((error: unknown) => (fault.value = sentenceOf(error)));
  });

  const sums = computed(() => year.value && yearSums(year.value));
  const species = computed(() => (year.value ? yearBySpecies(year.value) : []));

  const isIn = ({ on }: Pick<OrderLine, 'on'>) => on >= from.value && on <= until.value;
  const orderLines = computed(() =>
    orders.all.flatMap((order) =>
      order.buyer ? order.lines.filter(isIn).map((line) => ({ order, line })) : [],
    ),
  );
  const met = computed<OrdersSeen>(() => {
    const seen: OrdersSeen = {
      met: 0,
      part: 0,
      missed: 0,
      open: 0,
      wanted: 0,
      sent: 0,
      fetched: 0,
      unpriced: 0,
    };
    for (const { line } of orderLines.value) {
      const isPast = line.until < season.todayIso;
      if (line.sent >= line.count) seen.met++;
      else if (line.state === 'fell through' || (isPast && line.sent === 0)) seen.missed++;
      else if (isPast) seen.part++;
      else seen.open++;
      seen.wanted += line.count;
      seen.sent += line.sent;
      if (line.price === null) seen.unpriced += line.sent;
      else seen.fetched += line.sent * line.price;
    }
    return seen;
  });

  /** Every part of a planting that was walked by then, and how they live by species. */
  const cases = computed(() => plantedCases(plantings.kept, dayOf(until.value)));
  const lived = computed(
    () =>
      survivalGroups(cases.value.map(({ speciesId, alive, dead }) => ({ group: speciesId, alive, dead })))
        .groups,
  );
  const suppliers = computed<SupplierSeen[]>(() => {
    if (!background.ready.value) return [];
    const groups = survivalGroups(
      cases.value.map(({ lotId, alive, dead }) => ({
        group: background.supplierOf(lotId) ?? '',
        alive,
        dead,
      })),
    ).groups;
    const names = [...new Set(arrivals.all.map(({ supplier }) => supplier))].sort((a, b) =>
      a.localeCompare(b),
    );
    return names.map((supplier) => {
      const of = arrivals.all.filter((one) => one.supplier === supplier && one.on <= until.value);
      const priced = of.filter(({ price, accepted }) => price !== null && accepted > 0);
      const trees = priced.reduce((sum, { accepted }) => sum + accepted, 0);
      return {
        supplier,
        taken: of.reduce((sum, { accepted }) => sum + accepted, 0),
        came: of.reduce((sum, { count }) => sum + count, 0),
        paid: trees ? priced.reduce((sum, { accepted, price }) => sum + accepted * price!, 0) / trees : null,
        lived: groups.find(({ group }) => group === supplier) ?? null,
      };
    });
  });
  return { from, until, show, year, fault, sums, species, orderLines, met, lived, suppliers, background };
}
