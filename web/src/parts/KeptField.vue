<script setup lang="ts">
import FormField from './FormField.vue';

/** A figure that is kept when it is left or Enter is pressed, without a button. */
defineProps<{ label: string; unit?: string; fault?: string | null; text?: boolean }>();
const emit = defineEmits<{ keep: [] }>();
const value = defineModel<string>({ required: true });
</script>

<template>
  <div @keydown.enter="emit('keep')" @focusout="emit('keep')">
    <FormField
      v-model="value"
      :label="label"
      :unit="unit"
      :inputmode="text ? 'text' : 'decimal'"
      :fault="fault"
    />
  </div>
</template>
