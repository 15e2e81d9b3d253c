<script setup lang="ts">
import { isoOf, treeForms, say } from '@kauri/core';
import { computed, toRef } from 'vue';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import DateField from '../../parts/DateField.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { percent } from '../../words/numbers';
import { formWords } from './orderWords';
import { useLineAsked } from './useLineAsked';
import type { useWhen } from './useWhen';

/** The trees that are asked about: those of a line, or of one's own asking. */
const props = defineProps<{
  asked: ReturnType<typeof useWhen>['asked']['value'];
  /** Whether their form is asked for too. */
  form?: boolean;
}>();
const asked = toRef(props, 'asked');
const nursery = useNursery();
const season = useSeason();
const { unit } = usePreferences();
const { line, lineOptions } = useLineAsked(asked);
const speciesOptions = computed(() =>
  nursery.catalogue!.species.map((s) => ({ value: s.id, words: s.common })),
);
const formOptions = treeForms.map((value) => ({ value, words: formWords[value] }));
const chances = [0.5, 0.8, 0.9, 0.95].map((value) => ({ value, words: percent(value) }));
const isoToday = computed(() => isoOf(season.today));
</script>

<template>
  <h2 class="text-lg">{{ say`Wanted` }}</h2>
  <SelectField v-model="line" :label="say`For`" :options="lineOptions" />
  <SelectField v-model="asked.speciesId" :label="say`Species`" :options="speciesOptions" />
  <div class="grid grid-cols-2 gap-3">
    <SelectField v-if="form" v-model="asked.form" :label="say`Form`" :options="formOptions" />
    <FormField
      v-model="asked.count"
      :label="say`Trees`"
      inputmode="numeric"
      :class="form ? '' : 'col-span-2'"
    />
    <FormField v-model="asked.from" :label="say`Size from`" :unit="unit('height')" inputmode="decimal" />
    <FormField v-model="asked.to" :label="say`Size to`" :unit="unit('height')" inputmode="decimal" />
    <DateField v-model="asked.on" :label="say`First day`" :min="isoToday" />
    <DateField v-model="asked.until" :label="say`Last day`" :min="asked.on" />
  </div>
  <ChoiceRow v-model="asked.chance" :label="say`How sure`" :options="chances" />
</template>
