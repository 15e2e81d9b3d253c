<script setup lang="ts">
import { say, trenchClasses, usualTrench } from '@kauri/core';
import { ref } from 'vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import { useGrading } from '../../stores/grading';
import { useMessages } from '../../stores/messages';
import { usePreferences } from '../../stores/preferences';
import { heightsWritten } from '../../words/grades';
import { useGradingSheet } from './useGradingSheet';

/** What a metre of trench takes here: rules of thumb to begin with, the nursery's own once it has heeled some in. */
const emit = defineEmits<{ close: [] }>();
const grading = useGrading();
const messages = useMessages();
const { shown, typed, unit } = usePreferences();
const { busy, keep, sentence, wrong } = useGradingSheet('trench');
const written = (value: number) => String(Number(value.toFixed(2)));
const apartAs = (cm: number) => written(shown(cm, 'height'));
const perAs = (perM: number) => written(shown(perM, 'perLength'));
const apart = ref(apartAs(grading.trench.rowsApartCm));
const trees = ref(grading.trench.perM.map(perAs));
const was = { apart: apart.value, trees: [...trees.value] };
const classWords = trenchClasses.map((one) => heightsWritten(one, (cm) => shown(cm, 'height')));

async function write() {
  const { trench } = grading;
  // Figures that nobody touched here are as they stand, whoever wrote them meanwhile.
  const rowsApartCm =
    apart.value === was.apart ? trench.rowsApartCm : typed(typedNumber(apart.value), 'height');
  const perM = trees.value.map((text, i) =>
    text === was.trees[i] ? trench.perM[i] : typed(typedNumber(text), 'perLength'),
  );
  const mine = { rowsApartCm, perM };
  // Rules of thumb are nobody's own.
  const isUsual = JSON.stringify(mine) === JSON.stringify(usualTrench);
  if (!(await keep({ trench: isUsual ? undefined : mine }))) return;
  messages.say(say`Kept: how closely trees lie in a trench.`);
  emit('close');
}
function asUsual() {
  apart.value = apartAs(usualTrench.rowsApartCm);
  trees.value = usualTrench.perM.map(perAs);
}
</script>

<template>
  <FormDialog :title="say`How closely trees lie in a trench`" @close="emit('close')">
    <form class="space-y-4" novalidate @submit.prevent="write">
      <p class="text-muted">
        {{
          say`For trees laid side by side with their roots covered, bundles opened. To begin with, rules of thumb: count a stretch of your own and write it here.`
        }}
      </p>
      <FormField
        v-model="apart"
        class="max-w-48"
        :label="say`Rows apart`"
        :unit="unit('height')"
        inputmode="decimal"
        :fault="wrong('grading.trench.rowsApartCm')"
      />
      <fieldset class="grid grid-cols-2 gap-3 sm:grid-cols-3">
        <legend class="mb-1 font-bold">{{ say`Trees, by their height in ${unit('height')}` }}</legend>
        <FormField
          v-for="(words, i) in classWords"
          :key="i"
          v-model="trees[i]"
          :label="words"
          :unit="unit('perLength')"
          inputmode="decimal"
          :fault="wrong(`grading.trench.perM.${i}`)"
        />
      </fieldset>
      <button class="quiet" type="button" @click="asUsual">{{ say`Back to the rules of thumb` }}</button>
      <SheetActs :act="say`Keep them`" :busy="busy" :sentence="sentence()" @save="write" />
    </form>
  </FormDialog>
</template>
