<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, watch } from 'vue';
import DateField from '../../parts/DateField.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import { useNursery } from '../../stores/nursery';
import { useSeason } from '../../stores/season';
import type { TypedSowing } from './sowing';
import StartFields from './StartFields.vue';

/** Of what a lot was begun, when and how; where it stands goes below. */
defineProps<{
  /** The code it gets where none is typed. */
  ownCode: string;
  wrong: (path: string) => string | null;
}>();
const draft = defineModel<TypedSowing>({ required: true });
const nursery = useNursery();
const season = useSeason();

const species = computed(() => nursery.lookup.species.get(draft.value.speciesId)!);
watch(
  () => draft.value.speciesId,
  () => {
    draft.value.seedState = species.value.values.winters > 0 ? 'fresh' : 'ready';
    // Another species' bag is not sown under this one.
    Object.assign(draft.value, { seedLotId: '', treatmentId: '', stockBedId: '' });
  },
);
const speciesOptions = nursery.catalogue!.species.map((s) => ({
  value: s.id,
  words: `${s.common}, ${s.latin}`,
}));
const states = [
  { value: 'ready', words: say`Ready to grow: treated, or needs nothing` },
  { value: 'fresh', words: say`Fresh: winter is to wake it` },
] as const;
</script>

<template>
  <SelectField
    v-model="draft.speciesId"
    :label="say`Species`"
    :options="speciesOptions"
    :fault="wrong('speciesId')"
  />
  <div class="grid grid-cols-2 gap-3">
    <DateField v-model="draft.sownOn" :label="say`Sown on`" :max="season.todayIso" :fault="wrong('sownOn')" />
    <FormField
      v-model="draft.code"
      :label="say`Code`"
      :hint="draft.code.trim() ? undefined : say`Blank: ${ownCode}`"
      :fault="wrong('code')"
    />
  </div>
  <StartFields v-model="draft" />
  <SelectField
    v-if="draft.origin === 'seed'"
    v-model="draft.seedState"
    :label="say`The seed is`"
    :options="states"
    :hint="
      draft.seedState === 'fresh' && species.values.winters > 0
        ? say`It lies ${species.values.winters === 1 ? say`one winter` : say`${species.values.winters} winters`} before it comes up.`
        : undefined
    "
  />
</template>
