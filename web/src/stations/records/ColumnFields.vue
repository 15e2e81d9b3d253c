<script setup lang="ts" generic="K extends string">
import { say } from '@kauri/core';
import SelectField from '../../parts/SelectField.vue';

/** Which column of a table holds what. −1 stands for none. */
const props = defineProps<{
  header: readonly string[];
  wanted: readonly { key: K; words: string; needed: boolean }[];
}>();
const columns = defineModel<Record<K, number>>({ required: true });

const options = (needed: boolean) => [
  { value: '-1', words: needed ? say`Choose a column` : say`None` },
  ...props.header.map((name, i) => ({ value: String(i), words: name.trim() || say`column ${i + 1}` })),
];
function set(key: K, value: string) {
  columns.value = { ...columns.value, [key]: Number(value) };
}
</script>

<template>
  <div class="mt-4 grid grid-cols-2 gap-3 md:grid-cols-4">
    <SelectField
      v-for="want in wanted"
      :key="want.key"
      :label="want.words"
      :options="options(want.needed)"
      :model-value="String(columns[want.key])"
      @update:model-value="set(want.key, $event)"
    />
    <slot />
  </div>
</template>
