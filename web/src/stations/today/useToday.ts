import { itemsOf, lotAsks, roomAsks, todayKnown, todayOf, workRates, type TodayItem } from '@kauri/core';
import { computed } from 'vue';
import type { RouteLocationRaw } from 'vue-router';
import { useLots } from '../../parts/useLots';
import { useNursery } from '../../stores/nursery';
import { useRoots } from '../../stores/roots';
import { useSeason } from '../../stores/season';
import { useSeed } from '../../stores/seed';
import { useTodayBook } from '../../stores/todayBook';
import { useComingUp } from '../seed/up/useComingUp';

const nobodyPulled = { call: 'pull', failing: 0, pulled: 0 } as const;

/** What is to be done at the ribbon’s date, from every part of the nursery, and what was done about it. */
export function useToday() {
  const season = useSeason();
  const nursery = useNursery();
  const seed = useSeed();
  const roots = useRoots();
  const kept = useTodayBook();
  const { lots } = useLots();
  const { shown: rising } = useComingUp();

  const byId = computed(() => new Map(lots.value.map((lot) => [lot.row.id, lot])));
  const risingById = computed(
    () => new Map(rising.value.map((r) => [r.lot.row.id, r.outlook?.value ?? null])),
  );
  const asks = computed(() =>
    lots.value.map(({ row, facts, view }) =>
      lotAsks(
        facts,
        view.forecast,
        view.standing,
        risingById.value.get(row.id) ?? null,
        roots.verdictOf(row.id)?.value.sequential ?? nobodyPulled,
        nursery.catalogue!.nursery.latitudeDeg,
      ),
    ),
  );
  const room = computed(() =>
    roomAsks(seed.room, seed.knownRoom, seed.outlooks, nursery.lookup.species, season.view),
  );
  const known = computed(() =>
    todayKnown(kept.book?.marks ?? [], kept.book?.rules ?? { schema: 1, rules: {} }),
  );
  const rates = computed(() => workRates(known.value.work));
  const agenda = computed(() =>
    todayOf(itemsOf(asks.value, room.value, season.view), known.value, season.view),
  );
  return { agenda, rates, byId };
}

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
  }
}
