import { risingFacts, type EmergenceOutlook, type UpBy, type Worked } from '@kauri/core';
import { watchDebounced } from '@vueuse/core';
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

/** Lots on their way up at the ribbon's date, with the forecast of each. */
export function useComingUp() {
  const nursery = useNursery();
  const seed = useSeed();
  const { lots } = useLots();
  const outlooks = shallowRef<Map<string, Worked<EmergenceOutlook>>>(new Map());
  const fault = ref<string | null>(null);

  /** Sown or stuck, and not yet written down as over; and sister lots, which are compared for good. */
  const rising = computed(() =>
    lots.value
      .filter(
        ({ row, view }) =>
          ['seed', 'cuttings'].includes(row.origin) && (view.standing.tally.sown > 0 || isCompared(row.id)),
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
          nursery.catalogue!.nursery.latitudeDeg,
          seed.asOf,
        );
        return known ? [{ lot, ...known }] : [];
      }),
  );
  function isCompared(lotId: string): boolean {
    const row = nursery.lots.get(lotId)!;
    if (row.seedLotId === null || row.origin !== 'seed') return false;
    return seed.sownOf(row.seedLotId).length > 1;
  }
  const ask = latestOnly(async () => {
    const asked = rising.value.map(({ sown, counts, since, prior }) => ({ sown, counts, since, prior }));
    const ids = rising.value.map((r) => r.lot.row.id);
    try {
      const answers = await (await seedWork()).emergence(plain(asked), seed.asOf);
      outlooks.value = new Map(ids.map((id, i) => [id, answers[i]]));
      fault.value = null;
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
  return { shown, fault };
}
