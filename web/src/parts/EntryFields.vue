<script setup lang="ts">
import { say } from '@kauri/core';
import { useSeason } from '../stores/season';
import DateField from './DateField.vue';
import FormField from './FormField.vue';

/** Day and note, which every record has. */
defineProps<{ wrong: (path: string) => string | null; hint?: string }>();
const on = defineModel<string>('on', { required: true });
const note = defineModel<string>('note', { required: true });
const season = useSeason();
</script>

<template>
  <div class="grid gap-3 sm:grid-cols-[11rem_1fr]">
    <DateField v-model="on" :label="say`Day`" :max="season.todayIso" :fault="wrong('on')" />
    <FormField v-model="note" :label="say`Note`" :hint="hint" :fault="wrong('note')" />
  </div>
</template>
