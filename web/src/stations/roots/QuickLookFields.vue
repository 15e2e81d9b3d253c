<script setup lang="ts">
import { plugScoreWords, seenWords } from '../../words/roots';
import { type QuickLook, say } from '@kauri/core';
import { computed } from 'vue';
import ChoiceRow from '../../parts/ChoiceRow.vue';

/** Five taps in the field. */
defineProps<{ hasPlug: boolean }>();
const look = defineModel<QuickLook>({ required: true });
const score = computed({ get: () => look.value.score ?? 2, set: (v) => (look.value.score = v) });
const scores = plugScoreWords.map((words, value) => ({
  value: value as 0 | 1 | 2 | 3 | 4,
  words: `${value} ${words}`,
}));
const same = <T extends keyof typeof seenWords>(values: readonly T[]) =>
  values.map((value) => ({ value, words: seenWords[value] }));
const round = same(['all round', 'gaps', 'one-sided'] as const);
const runs = same(['straight', 'some turned', 'mostly turned'] as const);
const surface = same(['clean', 'some', 'matted'] as const);
const tips = same(['white', 'some', 'brown'] as const);
</script>

<template>
  <div class="space-y-3">
    <ChoiceRow
      v-if="hasPlug"
      v-model="score"
      :label="say`Lifted by the stem, the plug is`"
      :options="scores"
    />
    <ChoiceRow v-model="look.round" :label="say`Roots stand`" :options="round" />
    <ChoiceRow v-model="look.runs" :label="say`They run`" :options="runs" />
    <ChoiceRow v-model="look.surface" :label="say`The outside is`" :options="surface" />
    <ChoiceRow v-model="look.tips" :label="say`Tips`" :options="tips" />
  </div>
</template>
