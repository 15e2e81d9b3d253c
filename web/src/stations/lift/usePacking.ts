import { ONE_LIFTS_KG } from '@kauri/core';
import { useLocalStorage } from '@vueuse/core';
import { computed, type Ref } from 'vue';
import { buyerOf } from '../plan/orderWords';
import type { LoadRow } from './useLoading';
import { useParcelWeight } from './useParcelWeight';

/** A crate as many nurseries have them; whoever packs says theirs. */
export const USUAL_CRATE = { litres: 90, mostKg: 20 };

/** What goes to one receiver: how many pieces, and what they weigh. */
export interface PackedFor {
  whom: string;
  trees: number;
  kg: number;
  crates: number;
  trays: number;
  /** The heaviest piece, kg. */
  heaviestKg: number;
  longCm: number;
  forTwo: boolean;
}

/** What is to be loaded, as it travels: crates of bundles and trays, for whom, and their weight. */
export function usePacking(rows: Ref<readonly LoadRow[]>) {
  const weigh = useParcelWeight();
  const crate = useLocalStorage('kauri.crate', USUAL_CRATE, { mergeDefaults: true });

  const packed = computed(() =>
    rows.value.map((row) => ({ row, of: weigh(row.parcel, row.trees, crate.value) })),
  );
  const byReceiver = computed<PackedFor[]>(() => {
    const found = new Map<string, PackedFor>();
    for (const { row, of } of packed.value) {
      if (!of) continue;
      const { value, inTrays } = of;
      const whom = buyerOf(row.order);
      const before = found.get(whom) ?? {
        whom,
        trees: 0,
        kg: 0,
        crates: 0,
        trays: 0,
        heaviestKg: 0,
        longCm: 0,
        forTwo: false,
      };
      const heaviestKg = Math.max(before.heaviestKg, value.pieceKg);
      found.set(whom, {
        whom,
        trees: before.trees + row.trees,
        kg: before.kg + value.kg,
        crates: before.crates + (inTrays ? 0 : value.pieces),
        trays: before.trays + (inTrays ? value.pieces : 0),
        heaviestKg,
        longCm: Math.max(before.longCm, value.longCm),
        forTwo: heaviestKg > ONE_LIFTS_KG,
      });
    }
    return [...found.values()];
  });
  const working = computed(() => packed.value.flatMap(({ of }) => of?.working ?? []));
  /** Lots that nothing is known of in height. */
  const unknown = computed(() => packed.value.filter(({ of }) => !of).map(({ row }) => row.parcel.code));
  return { crate, byReceiver, working, unknown };
}
