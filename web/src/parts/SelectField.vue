<script setup lang="ts" generic="T extends string">
import { useId } from 'vue';

defineProps<{
  label: string;
  options: readonly { value: T; words: string }[];
  hint?: string;
  fault?: string | null;
}>();
const chosen = defineModel<T>({ required: true });
const id = useId();
</script>

<template>
  <div>
    <label :for="id" class="mb-1 block font-bold">{{ label }}</label>
    <select
      :id="id"
      v-model="chosen"
      class="field"
      :aria-invalid="fault ? true : undefined"
      :aria-describedby="fault || hint ? `${id}-words` : undefined"
    >
      <option v-for="option in options" :key="option.value" :value="option.value">{{ option.words }}</option>
    </select>
    <p v-if="fault" :id="`${id}-words`" class="text-wrong mt-1 text-sm font-bold">{{ fault }}</p>
    <p v-else-if="hint" :id="`${id}-words`" class="text-muted mt-1 text-sm">{{ hint }}</p>
  </div>
</template>
