import {
  holdAsks,
  itemsOf,
  lastHeatDays,
  lotAsks,
  planAsks,
  plantingAsks,
  roomAsks,
  storeAsks,
  todayKnown,
  todayOf,
  workRates,
  type Agenda,
  type AgendaLine,
  type EpochDay,
  type LotAsks,
  type TodayItem,
} from '@kauri/core';
import { createSharedComposable, tryOnScopeDispose, useDebounceFn } from '@vueuse/core';
import { computed, shallowRef, watch } from 'vue';
import type { RouteLocationRaw } from 'vue-router';
import { useLots, type ShownLot } from '../../parts/useLots';
import { useAgenda, type Counts } from '../../stores/agenda';
import { useForecasts } from '../../stores/forecasts';
import { latestOnly } from '../../stores/latestOnly';
import { useHolds } from '../../stores/holds';
import { useNursery } from '../../stores/nursery';
import { useKeeps } from '../../parts/useKeeps';
import { useParcels } from '../../stores/parcels';
import { usePlan } from '../../stores/plan';
import { usePlantings } from '../../stores/plantings';
import { useRoots } from '../../stores/roots';
import { useSeason } from '../../stores/season';
import { useSeed } from '../../stores/seed';
import { inSlices } from '../../stores/slices';
import { useTodayBook } from '../../stores/todayBook';
import { useComingUp } from '../seed/up/useComingUp';

const nobodyPulled = { call: 'pull', failing: 0, pulled: 0 } as const;
const nothing: Agenda<TodayItem> = { lines: [], hidden: [], muted: 0 };

/**
 * What is to be done at the ribbon’s date, from every part of the nursery, and what was done about it; worked out once for
 * all who ask, a few lots at a time. Until the lots are here, today’s list is the server’s.
 */
export const useToday = createSharedComposable(() => {
  const served = useAgenda();
  const season = useSeason();
  const nursery = useNursery();
  const forecasts = useForecasts();
  const seed = useSeed();
  const roots = useRoots();
  const kept = useTodayBook();
  const plan = usePlan();
  const plantings = usePlantings();
  const holds = useHolds();
  const parcels = useParcels();
  const { keeps } = useKeeps();
  const { lots } = useLots();
  const { shown: rising, settled: risen } = useComingUp();

  const byId = computed(() => new Map(lots.value.map((lot) => [lot.row.id, lot])));
  const known = computed(() =>
    todayKnown(kept.book?.marks ?? [], kept.book?.rules ?? { schema: 1, rules: {} }),
  );
  const rates = computed(() => workRates(known.value.work));
  /** Everything the list is made of is here. */
  const ready = computed(
    () =>
      nursery.whole &&
      forecasts.viewsOf !== null &&
      roots.rules !== null &&
      seed.settled &&
      risen.value &&
      kept.book !== null &&
      plan.loaded &&
      plantings.loaded &&
      holds.loaded &&
      parcels.loaded &&
      keeps.value !== null,
  );

  const lyingAsks = (day: EpochDay) =>
    storeAsks(
      {
        parcels: parcels.all,
        looks: parcels.looks,
        stores: parcels.stores,
        species: nursery.lookup.species,
        keeps: new Map([...keeps.value!].map(([id, { value }]) => [id, value])),
        weather: lastHeatDays(nursery.series, day),
      },
      day,
    );
  /** What each lot asked for last, with what that was made of. */
  let asked = new Map<string, { of: readonly unknown[]; asks: LotAsks }>();
  const own = shallowRef<Agenda<TodayItem> | null>(null);
  let workedFor: EpochDay = season.view;
  const work = latestOnly(async () => {
    const day: EpochDay = season.view;
    const risingById = new Map(rising.value.map((r) => [r.lot.row.id, r.outlook?.value ?? null]));
    const before = asked;
    const now: typeof asked = new Map();
    await inSlices(lots.value, ({ row, facts, view }) => {
      const of = [facts, view, risingById.get(row.id) ?? null, roots.verdictOf(row.id)] as const;
      const same = before.get(row.id);
      if (same?.of.every((part, i) => part === of[i])) return void now.set(row.id, same);
      const [, , up, verdict] = of;
      const call = verdict?.value.sequential ?? nobodyPulled;
      now.set(row.id, { of, asks: lotAsks(facts, view.forecast, view.standing, up, call, view.acts) });
    });
    asked = now;
    const room = roomAsks(seed.room, seed.knownRoom, seed.outlooks, nursery.lookup.species, day);
    workedFor = day;
    own.value = todayOf(
      itemsOf(
        [...now.values()].map(({ asks }) => asks),
        room,
        day,
        {
          planned: planAsks(plan.sowings, nursery.lookup.species, seed.room, day),
          plantings: plantingAsks(
            plantings.kept,
            lastHeatDays(nursery.series, day),
            nursery.catalogue!.nursery.latitudeDeg,
            day,
          ),
          holds: holdAsks(holds.all, day),
          lying: lyingAsks(day),
        },
      ),
      known.value,
      day,
    );
  });
  /** While the ribbon is dragged the list follows now and then, and when it rests. */
  const soon = useDebounceFn(work, 60, { maxWait: 600 });
  watch(
    [
      ready,
      lots,
      rising,
      () => roots.rules,
      () => seed.knownRoom,
      () => seed.outlooks,
      () => plan.sowings,
      () => plantings.kept,
      () => holds.all,
      () => parcels.looks,
      keeps,
      known,
    ],
    () => ready.value && (own.value === null ? work() : soon()),
    { immediate: true },
  );

  // Lifted, sent or lost by anybody: what lies there is asked for anew.
  const lifted = computed(() => [...nursery.lots.values()].reduce((sum, { held }) => sum + held.lifted, 0));
  watch(lifted, () => parcels.loaded && parcels.isStale && void parcels.load().catch(() => undefined));

  async function load() {
    void seed.load().catch(() => undefined);
    void kept.load().catch(() => undefined);
    void roots.load().catch(() => undefined);
    void plan.load().catch(() => undefined);
    void plantings.load().catch(() => undefined);
    void holds.load().catch(() => undefined);
    void parcels.ready().catch(() => undefined);
    await served.load();
  }
  // A mark set before this browser has a list of its own: the server’s follows.
  watch(
    () => kept.book,
    (_, before) => before && own.value === null && void served.load().catch(() => undefined),
  );
  /** Acts by urgency, with those that are not at hand yet. */
  const counts = computed<Counts>(() => {
    if (own.value === null && served.servers !== null) return served.fromServer!.counts;
    const counted = { now: 0, week: 0, weeks: 0, watch: 0 };
    for (const { when } of agenda.value.lines) counted[when]++;
    return counted;
  });
  const agenda = computed(() => own.value ?? served.servers ?? nothing);
  /** Whether there is a list to show, and whether it is this browser’s own. */
  const shown = computed(() => own.value !== null || served.servers !== null);
  const isOwn = computed(() => own.value !== null);
  watch(own, () => (served.own = { day: workedFor, counts: counts.value }), { flush: 'sync' });
  tryOnScopeDispose(() => (served.own = null));
  // Once it is wanted it follows, so that it is there at once when it is opened again.
  served.wanted = true;
  load().catch(() => undefined);
  return { agenda, counts, rates, byId, load, shown, isOwn };
});

/** The lot an act is about; null where it is about something else, or its lot is not here yet. */
export const lotOf = (
  byId: ReadonlyMap<string, ShownLot>,
  { item }: AgendaLine<TodayItem>,
): ShownLot | null => (item.part === 'lot' ? (byId.get(item.subjectId!) ?? null) : null);

/** Where an act leads. */
export function leadsTo({ part, of, subjectId }: TodayItem): RouteLocationRaw {
  const id = subjectId ?? '';
  if (part === 'roots') return { name: 'roots', params: { lot: id } };
  switch (of) {
    case 'lot':
    case 'lots':
      return { name: 'grow', params: { lot: id } };
    case 'store':
      return { name: 'seed', params: { seedLot: id } };
    case 'clock':
      return { name: 'seed-clock', params: { batch: id } };
    case 'layers':
      return { name: 'seed-layers', params: { layer: id } };
    case 'up':
      return { name: 'seed-up', params: { lot: id } };
    case 'planting':
      return { name: 'planted', params: { planting: id } };
    case 'lying':
      return { name: 'lift-lying', query: { parcel: id } };
    case 'plan':
      return { name: 'plan-board', query: { sowing: id } };
  }
}
