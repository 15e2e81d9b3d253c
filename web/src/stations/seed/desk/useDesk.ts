import { treesFrom, type SowingPlan, type Worked } from '@kauri/core';
import { useSessionStorage } from '@vueuse/core';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import { typedNumber } from '../../../parts/typed';
import { useNursery } from '../../../stores/nursery';
import { useSeed } from '../../../stores/seed';
import { usePreferences } from '../../../stores/preferences';
import { plain, seedWork } from '../../../workers/seedWork';
import { keptKey } from '../../../stores/kept';

/** Where the desk's question starts. */
type DeskStart = 'trees' | 'seed';

/** What is asked at the sowing desk, and what the core answers, kept up as it changes. */
export function useDesk() {
  const nursery = useNursery();
  const seed = useSeed();
  const route = useRoute();
  const asked = useSessionStorage(keptKey('desk'), {
    speciesId: '',
    seedLotId: '',
    batchId: '',
    /** Asked from the trees wanted, or from the seed that must go in. */
    from: 'trees' as DeskStart,
    target: '2000',
    mass: '',
    chance: 0.9,
    /** Seeds set by hand on the slider; null follows the chance. */
    seeds: null as number | null,
  });
  const query = (name: string) => (typeof route.query[name] === 'string' ? String(route.query[name]) : '');
  if (seed.lotById.has(query('seedLot'))) {
    asked.value.seedLotId = query('seedLot');
    asked.value.batchId = seed.treatmentById.has(query('batch')) ? query('batch') : '';
    asked.value.speciesId = seed.lotById.get(query('seedLot'))!.speciesId;
  }
  // Opened first, or in another nursery: what lies in the store comes before what does not.
  if (!nursery.lookup.species.has(asked.value.speciesId)) {
    const bag = seed.known.lots.find((l) => seed.held.get(l.id)!.seeds >= 1);
    asked.value.speciesId = bag?.speciesId ?? nursery.catalogue!.species[0].id;
    asked.value.seedLotId = bag?.id ?? '';
  }

  const species = computed(() => seed.speciesOf(asked.value.speciesId));
  const lots = computed(() =>
    seed.known.lots.filter(
      (lot) =>
        lot.speciesId === asked.value.speciesId &&
        (seed.held.get(lot.id)!.seeds >= 1 || batchesOf(lot.id).length),
    ),
  );
  const batchesOf = (lotId: string) =>
    seed.known.underWay.filter((batch) => batch.seedLotId === lotId && batch.state === 'under way');
  const lot = computed(() => lots.value.find((l) => l.id === asked.value.seedLotId) ?? null);
  const batch = computed(() =>
    lot.value ? (batchesOf(lot.value.id).find((b) => b.id === asked.value.batchId) ?? null) : null,
  );
  /** Another species: its first bag, straight. */
  function chooseSpecies(speciesId: string) {
    asked.value.speciesId = speciesId;
    Object.assign(asked.value, { seedLotId: lots.value[0]?.id ?? '', batchId: '' });
  }
  watch(
    () => [asked.value.target, asked.value.chance, asked.value.seedLotId],
    () => (asked.value.seeds = null),
  );

  const chain = computed(() => seed.chainOf(asked.value.speciesId, lot.value, batch.value?.school ?? null));
  /** Of the bag itself where it was counted. */
  const seedsPerKg = computed(() => {
    const bag = lot.value ? seed.held.get(lot.value.id) : undefined;
    if (bag && bag.grams > 0 && bag.seeds > 0) return (bag.seeds / bag.grams) * 1000;
    return lot.value?.seedsPerKg ?? species.value.values.seedsPerKg;
  });
  const held = computed(() =>
    batch.value ? batch.value.seeds : lot.value ? (seed.held.get(lot.value.id)?.seeds ?? 0) : null,
  );

  const { typed } = usePreferences();
  const stages = computed(() => Object.values(chain.value).map((link) => link.next));
  /** Seeds that must go in; null where the desk starts from trees. */
  const given = computed(() => {
    if (asked.value.from !== 'seed') return null;
    const grams = typed(typedNumber(asked.value.mass), 'seedMass');
    return grams > 0 ? Math.round((grams / 1000) * seedsPerKg.value) : 0;
  });
  /** Trees asked for: typed, or the most that the seed gives with the chance wanted. */
  const target = computed(() =>
    given.value === null
      ? typedNumber(asked.value.target)
      : Math.max(1, treesFrom(given.value, asked.value.chance, stages.value)),
  );

  const plan = shallowRef<Worked<SowingPlan> | null>(null);
  const fault = ref<string | null>(null);
  let asking = 0;
  watch(
    [target, () => asked.value.chance, chain, seedsPerKg, held],
    async () => {
      const mine = ++asking;
      try {
        const answer = await (
          await seedWork()
        ).sowing(
          plain({
            target: target.value,
            probability: asked.value.chance,
            chain: chain.value,
            seedsPerKg: seedsPerKg.value,
            seedsHeld: held.value,
            pricePerKg: lot.value?.price ?? null,
          }),
        );
        if (mine !== asking) return;
        plan.value = answer;
        fault.value = null;
      } catch (error) {
        if (mine !== asking) return;
        plan.value = null;
        fault.value = error instanceof Error ? error.message : String(error);
      }
    },
    { immediate: true },
  );
  return {
    asked,
    chooseSpecies,
    species,
    lots,
    lot,
    batch,
    batchesOf,
    chain,
    stages,
    seedsPerKg,
    held,
    given,
    target,
    plan,
    fault,
  };
}
export type Desk = ReturnType<typeof useDesk>;
