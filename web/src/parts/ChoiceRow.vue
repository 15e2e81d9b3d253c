<script setup lang="ts" generic="T extends string | number">
import { useId } from 'vue';

/** One of a few things, chosen by a tap. */
defineProps<{ label: string; options: readonly { value: T; words: string; hint?: string }[] }>();
const value = defineModel<T>({ required: true });
const name = useId();
</script>

<template>
  <fieldset>
    <legend class="mb-1 font-bold">{{ label }}</legend>
    <div class="flex flex-wrap gap-1.5">
      <label v-for="option in options" :key="option.value" class="pill" :title="option.hint">
        <input v-model="value" class="sr-only" type="radio" :name="name" :value="option.value" />
        {{ option.words }}
      </label>
    </div>
  </fieldset>
</template>
