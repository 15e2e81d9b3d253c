import {
  askedTogether,
  holdAsks,
  itemsOfLot,
  todayKnown,
  todayOf,
  type AgendaLine,
  type TodayItem,
} from '@kauri/core';
import { createSharedComposable } from '@vueuse/core';
import { computed } from 'vue';
import { useLots } from '../../parts/useLots';
import { useAgenda } from '../../stores/agenda';
import { useForecasts } from '../../stores/forecasts';
import { useHolds } from '../../stores/holds';
import { useSeason } from '../../stores/season';
import { useTodayBook } from '../../stores/todayBook';

/**
 * What Today asks of one lot by its own name, at the ribbon’s date and in Today’s order, without the rest of Today: a lot’s page
 * and a tag need no more. Until the forecasts are here it is the server’s list.
 */
export const useLotAsks = createSharedComposable(() => {
  const served = useAgenda();
  const season = useSeason();
  const forecasts = useForecasts();
  const kept = useTodayBook();
  const holds = useHolds();
  const { lots } = useLots();

  const byId = computed(() => new Map(lots.value.map((lot) => [lot.row.id, lot])));
  const known = computed(() => kept.book && todayKnown(kept.book.marks, kept.book.rules));
  const together = computed(() => askedTogether(lots.value.map(({ view }) => view.acts)));

  function linesOf(lotId: string): readonly AgendaLine<TodayItem>[] {
    if (forecasts.viewsOf === null || known.value === null || !holds.loaded)
      return (served.servers?.lines ?? []).filter(
        ({ item }) => item.part === 'lot' && item.subjectId === lotId,
      );
    const lot = byId.value.get(lotId);
    if (!lot) return [];
    const day = season.view;
    const { code } = lot.row;
    const held = holdAsks(
      holds.all.filter((hold) => hold.lotId === lotId),
      day,
    );
    const items = itemsOfLot({ lotId, code, acts: lot.view.acts }, together.value, held, day);
    return todayOf(items, known.value, day).lines;
  }

  // Others mark acts too: both are read anew whenever a page begins to ask.
  void kept.load().catch(() => undefined);
  void holds.load().catch(() => undefined);
  return { linesOf };
});
