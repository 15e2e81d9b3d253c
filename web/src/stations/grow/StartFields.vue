<script setup lang="ts">
import { cuttingKinds, type CuttingKind, say } from '@kauri/core';
import { computed } from 'vue';
import SelectField from '../../parts/SelectField.vue';
import { useMass } from '../../parts/useMass';
import { useSeed } from '../../stores/seed';
import { cuttingWords } from '../../words/seed';

/** What a lot begins with: seed of a bag or a treated batch, or cuttings of a stock bed. */
interface TypedStart {
  speciesId: string;
  origin: 'seed' | 'cuttings';
  seedLotId: string;
  treatmentId: string;
  stockBedId: string;
  cutting: CuttingKind;
}
const draft = defineModel<TypedStart>({ required: true });
const seed = useSeed();
const mass = useMass();

const lots = computed(() => seed.room.lots.filter((lot) => lot.speciesId === draft.value.speciesId));
/** The batch it begins with is among those to choose from, though it is sown. */
const first = draft.value.treatmentId;
const batches = computed(() =>
  seed.room.treatments.filter(
    (t) => t.seedLotId === draft.value.seedLotId && (t.state === 'under way' || t.id === first),
  ),
);
const beds = computed(() => seed.room.stockBeds.filter((bed) => bed.speciesId === draft.value.speciesId));
/** A lot or bed of another species is not sown under this one. */
const lotId = computed({
  get: () => (lots.value.some((lot) => lot.id === draft.value.seedLotId) ? draft.value.seedLotId : ''),
  set: (id: string) => Object.assign(draft.value, { seedLotId: id, treatmentId: '' }),
});
const batchId = computed({
  get: () => (batches.value.some((b) => b.id === draft.value.treatmentId) ? draft.value.treatmentId : ''),
  set: (id: string) => (draft.value.treatmentId = id),
});
const bedId = computed({
  get: () => (beds.value.some((b) => b.id === draft.value.stockBedId) ? draft.value.stockBedId : ''),
  set: (id: string) => (draft.value.stockBedId = id),
});
const origins = [
  { value: 'seed', words: say`Seed` },
  { value: 'cuttings', words: say`Cuttings` },
] as const;
/** What lies in the store is not known until it has come. */
const none = (words: string) => ({ value: '', words: seed.loaded === null ? say`Looking …` : words });
const lotOptions = computed(() => [
  none(say`No bag in the store`),
  ...lots.value.map((lot) => ({
    value: lot.id,
    words: `${lot.code}, ${mass(seed.held.get(lot.id)?.grams ?? 0)}`,
  })),
]);
const batchOptions = computed(() => [
  { value: '', words: say`Straight from the bag` },
  ...batches.value.map((b) => ({ value: b.id, words: `${b.name}, ${mass(b.grams)}` })),
]);
const bedOptions = computed(() => [
  none(say`Elsewhere`),
  ...beds.value.map((b) => ({ value: b.id, words: b.name })),
]);
const kinds = cuttingKinds.map((value) => ({ value, words: cuttingWords[value] }));
</script>

<template>
  <div class="grid grid-cols-2 gap-3">
    <SelectField v-model="draft.origin" :label="say`Begun from`" :options="origins" />
    <template v-if="draft.origin === 'seed'">
      <SelectField v-model="lotId" :label="say`Seed lot`" :options="lotOptions" />
      <SelectField
        v-if="batches.length"
        v-model="batchId"
        class="col-span-2"
        :label="say`Batch`"
        :options="batchOptions"
      />
    </template>
    <template v-else>
      <SelectField v-model="draft.cutting" :label="say`Cuttings`" :options="kinds" />
      <SelectField v-model="bedId" class="col-span-2" :label="say`From`" :options="bedOptions" />
    </template>
  </div>
</template>
