import {
  betaProduct,
  dayOf,
  emergenceClock,
  isoOf,
  startOf,
  type EmergenceOutlook,
  type UpBy,
  type Worked,
} from '@kauri/core';
import type { Evidence } from '@kauri/core/contract';
import { watchDebounced } from '@vueuse/core';
import { computed, ref, shallowRef } from 'vue';
import { useLots, type ShownLot } from '../../../parts/useLots';
import { latestOnly } from '../../../stores/latestOnly';
import { useNursery } from '../../../stores/nursery';
import { useSeed } from '../../../stores/seed';
import { plain, seedWork } from '../../../workers/seedWork';

/** All ever up by each day something came up or was counted. */
export function upBy(evidence: Evidence): UpBy[] {
  const days = new Map<string, number>();
  for (const { on } of evidence.counts) days.set(on, 0);
  const came = evidence.movements.filter(
    (m) => (m.from === 'sown' && m.to === 'standing') || (m.from === 'standing' && m.to === 'sown'),
  );
  for (const { on } of came) days.set(on, 0);
  return [...days.keys()].sort().map((on) => ({
    day: dayOf(on),
    up: Math.max(
      0,
      came.reduce((t, m) => t + (m.on <= on ? (m.to === 'standing' ? m.count : -m.count) : 0), 0),
    ),
  }));
}

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
      .map((lot) => {
        const evidence = nursery.evidence.get(lot.row.id)!;
        const iso = isoOf(seed.asOf);
        const known = {
          ...evidence,
          counts: evidence.counts.filter((c) => c.on <= iso),
          movements: evidence.movements.filter((m) => m.on <= iso),
        };
        const sown = known.movements.reduce(
          (t, m) => t + (m.from === 'seed' && m.to === 'sown' ? m.count : 0),
          0,
        );
        return { lot, sown, counts: upBy(known) };
      })
      .filter((r) => r.sown > 0),
  );
  function isCompared(lotId: string): boolean {
    const row = nursery.lots.get(lotId)!;
    if (row.seedLotId === null || row.origin !== 'seed') return false;
    return seed.sownOf(row.seedLotId).length > 1;
  }
  function priorOf({ row, facts }: ShownLot) {
    const { values } = seed.speciesOf(row.speciesId);
    const rooting =
      row.cutting === null ? undefined : startOf(seed.speciesOf(row.speciesId)).cuttings[row.cutting];
    if (rooting) return { final: rooting.take, half: rooting.rootDd };
    const viability =
      (row.seedLotId !== null && seed.viability.get(row.seedLotId)?.value.now.beta) || values.viability;
    return { final: betaProduct([viability, values.emergence]), half: facts.species.emergenceDd };
  }

  const ask = latestOnly(async () => {
    const asked = rising.value.map(({ lot, sown, counts }) => ({
      counts,
      sown,
      since: emergenceClock(lot.facts, nursery.catalogue!.nursery.latitudeDeg),
      prior: priorOf(lot),
    }));
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
