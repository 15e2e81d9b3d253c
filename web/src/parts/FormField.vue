<script setup lang="ts">
import { useId, useTemplateRef } from 'vue';

/** A labelled input with its unit, hint and fault. The text stays as typed, right or wrong. */
withDefaults(
  defineProps<{
    label: string;
    unit?: string;
    hint?: string;
    fault?: string | null;
    type?: string;
    inputmode?: 'text' | 'decimal' | 'numeric' | 'email';
    autocomplete?: string;
    max?: string;
    /** Read out and not shown: the field stands under a column's head. */
    labelHidden?: boolean;
  }>(),
  {
    type: 'text',
    inputmode: 'text',
    autocomplete: 'off',
    unit: undefined,
    hint: undefined,
    fault: null,
    max: undefined,
  },
);
const text = defineModel<string>({ required: true });
const id = useId();
defineExpose({ input: useTemplateRef<HTMLInputElement>('input') });
</script>

<template>
  <div>
    <label :for="id" class="mb-1 block font-bold" :class="labelHidden ? 'sr-only' : ''">
      {{ label }} <span v-if="unit" class="text-muted font-normal">{{ unit }}</span>
    </label>
    <input
      :id="id"
      ref="input"
      v-model="text"
      class="field"
      :type="type"
      :inputmode="inputmode"
      :autocomplete="autocomplete"
      :max="max"
      :aria-invalid="fault ? true : undefined"
      :aria-describedby="fault || hint ? `${id}-words` : undefined"
    />
    <p v-if="fault" :id="`${id}-words`" class="text-wrong mt-1 text-sm font-bold">{{ fault }}</p>
    <p v-else-if="hint" :id="`${id}-words`" class="text-muted mt-1 text-sm">{{ hint }}</p>
  </div>
</template>
