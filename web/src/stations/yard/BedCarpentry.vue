<script setup lang="ts">
import { footKinds, timberClasses, say } from '@kauri/core';
import { computed } from 'vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import { usePreferences } from '../../stores/preferences';
import type { BedForm } from './bedForm';

/** How a bed is put together: timber, corners, bearers, feet, and what comes off. */
defineProps<{ open: boolean; wrong: (path: string) => string | null }>();
const draft = defineModel<BedForm>({ required: true });
const preferences = usePreferences();
const timbers = timberClasses.map((value) => ({
  value,
  words: { treated: say`Treated`, durable: say`Durable, untreated`, scrap: say`Scrap` }[value],
}));
const feet = footKinds.map((value) => ({
  value,
  words: { bricks: say`Bricks`, blocks: say`Blocks`, legs: say`Legs`, pallet: say`Pallets` }[value],
}));
const corners = [
  { value: 'brackets', words: say`Corner brackets` },
  { value: 'butt', words: say`Butt joints, screwed` },
] as const;
const bearerOptions = computed(() =>
  [
    ...new Set([
      preferences.units === 'us' ? '2x3' : '50x75',
      preferences.units === 'us' ? '2x4' : '50x100',
      draft.value.bearerBoard,
    ]),
  ].map((value) => ({ value, words: value })),
);
</script>

<template>
  <details class="panel p-3" :open="open">
    <summary class="min-h-8 cursor-pointer font-bold">{{ say`How it is put together` }}</summary>
    <div class="mt-2 grid grid-cols-2 gap-3">
      <SelectField v-model="draft.timber" :label="say`Timber`" :options="timbers" />
      <SelectField v-model="draft.corners" :label="say`Corners`" :options="corners" />
      <FormField
        v-model="draft.bearers"
        :label="say`Bearers across`"
        inputmode="numeric"
        :fault="wrong('design.build.crossMembers')"
      />
      <SelectField v-model="draft.bearerBoard" :label="say`Bearer`" :options="bearerOptions" />
      <SelectField v-model="draft.feet" :label="say`Feet`" :options="feet" />
      <FormField
        v-model="draft.footCount"
        :label="say`How many feet`"
        inputmode="numeric"
        :fault="wrong('design.build.feet.count')"
      />
      <FormField
        v-model="draft.risers"
        :label="say`Tiers that lift off`"
        inputmode="numeric"
        :fault="wrong('design.build.riserTiers')"
      />
      <div>
        <label class="flex min-h-11 items-center gap-2"
          ><input v-model="draft.loosenSide" type="checkbox" class="size-5" />
          {{ say`A long side unscrews` }}</label
        >
        <label class="flex min-h-11 items-center gap-2"
          ><input v-model="draft.runners" type="checkbox" class="size-5" />
          {{ say`Runners hold the mesh` }}</label
        >
      </div>
    </div>
  </details>
</template>
