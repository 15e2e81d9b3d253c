import { isRising, risingFacts, type EmergenceOutlook, type UpBy, type Worked } from '@kauri/core';
import { createSharedComposable, watchDebounced } from '@vueuse/core';
import type { LotRow } from '@kauri/core/contract';
import { computed, ref, shallowRef } from 'vue';
import { useLots, type ShownLot } from '../../../parts/useLots';
import { latestOnly } from '../../../stores/latestOnly';
import { useNursery } from '../../../stores/nursery';
import { useSeed } from '../../../stores/seed';
import { plain, seedWork } from '../../../workers/seedWork';

export interface RisingLot {
  lot: ShownLot;
  sown: number;
  counts: UpBy[];
  outlook: Worked<EmergenceOutlook> | null;
}

/** Lots on their way up at the ribbon's date, with the forecast of each; worked out once for all who ask. */
export const useComingUp = createSharedComposable(() => {
  const nursery = useNursery();
  const seed = useSeed();
  const { lots } = useLots();
  const outlooks = shallowRef<Map<string, Worked<EmergenceOutlook>>>(new Map());
  const fault = ref<string | null>(null);
  /** Whether lots are wanted too that nobody expects any more of, and nobody wrote off. */
  const everyLot = ref(false);
  /** Whether the forecasts have been worked out once. */
  const settled = ref(false);

  /** Sown or stuck, and not yet written down as over; and sister lots, which are compared for good. */
  const rising = computed(() =>
    lots.value
      .filter(
        ({ row, view }) =>
          ['seed', 'cuttings'].includes(row.origin) &&
          (isCompared(row) ||
            (everyLot.value ? view.standing.tally.sown > 0 : isRising(view.standing, view.forecast))),
      )
      .flatMap((lot) => {
        const { row, facts } = lot;
        const bag = row.seedLotId === null ? undefined : seed.viability.get(row.seedLotId);
        const known = risingFacts(
          row,
          facts,
          nursery.evidence.get(row.id)!,
          seed.speciesOf(row.speciesId),
          bag?.value.now.beta ?? null,
          seed.asOf,
        );
        return known ? [{ lot, ...known }] : [];
      }),
  );
  const sownOfBag = computed(() => {
    const counts = new Map<string, number>();
    for (const { seedLotId, origin } of nursery.lots.values())
      if (seedLotId !== null && origin === 'seed') counts.set(seedLotId, (counts.get(seedLotId) ?? 0) + 1);
    return counts;
  });
  const isCompared = ({ seedLotId, origin }: LotRow) =>
    seedLotId !== null && origin === 'seed' && sownOfBag.value.get(seedLotId)! > 1;
  const ask = latestOnly(async () => {
    const asked = rising.value.map(({ sown, counts, of, prior }) => ({ sown, counts, of, prior }));
    const ids = rising.value.map((r) => r.lot.row.id);
    try {
      const answers = await (await seedWork()).emergence(plain(asked), seed.asOf);
      outlooks.value = new Map(ids.map((id, i) => [id, answers[i]]));
      fault.value = null;
      settled.value = nursery.whole;
    } catch (error) {
      fault.value = error instanceof Error ? error.message : String(error);
    }
  });
  // The date rests a moment first, as for the rest of the seed room.
  watchDebounced([rising, () => seed.viability], () => void ask(), { immediate: true, debounce: 120 });
  const shown = computed<RisingLot[]>(() =>
    rising.value
      .map((r) => ({ ...r, outlook: outlooks.value.get(r.lot.row.id) ?? null }))
      .sort((a, b) => rank(b) - rank(a) || a.lot.row.code.localeCompare(b.lot.row.code)),
  );
  /** Late lots first, then those still coming. */
  const rank = ({ outlook, lot }: RisingLot) =>
    (outlook?.value.late && lot.view.standing.tally.sown > 0 ? 2 : 0) +
    (lot.view.standing.tally.sown > 0 ? 1 : 0);
  return { shown, fault, settled, everyLot };
});
