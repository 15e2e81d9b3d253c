<script setup lang="ts">
import { schools, startOf, type School, say } from '@kauri/core';
import type { Species } from '@kauri/core/contract';
import { ref } from 'vue';
import FormDialog from '../../../parts/FormDialog.vue';
import SelectField from '../../../parts/SelectField.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import { typedNumber } from '../../../parts/typed';
import { schoolWords } from '../../../words/seed';
import PhaseRows, { type TypedPhase } from '../PhaseRows.vue';
import { useSpeciesList } from './useSpeciesList';

/** The treatments of a species, one for each way growers go about it. */
const props = defineProps<{ species: Species }>();
const emit = defineEmits<{ close: [] }>();
const { change, busy, fault } = useSpeciesList();
const start = startOf(props.species);
const typed = ref(
  start.protocols.map(({ school, phases }) => ({
    school,
    phases: phases.map(({ kind, days }): TypedPhase => ({ kind, days: String(days) })),
  })),
);
async function save() {
  const protocols = typed.value.map(({ school, phases }) => ({
    school,
    phases: phases.map(({ kind, days }) => ({ kind, days: typedNumber(days) })),
  }));
  if (await change(props.species, { ...props.species.values, start: { ...start, protocols } })) emit('close');
}
const options = schools.map((value) => ({ value, words: schoolWords[value] }));
const add = (school: School) => typed.value.push({ school, phases: [] });
</script>

<template>
  <FormDialog :title="say`Treatments`" :subtitle="species.common" wide @close="emit('close')">
    <form class="space-y-4" novalidate @submit.prevent="save">
      <div class="grid gap-4 md:grid-cols-2">
        <fieldset v-for="(protocol, i) in typed" :key="i" class="panel space-y-3 p-3">
          <legend class="px-1 font-bold">{{ say`Treatment ${i + 1}` }}</legend>
          <SelectField v-model="protocol.school" :label="say`Where ${i + 1}`" :options="options" />
          <PhaseRows v-model="protocol.phases" />
          <button v-if="typed.length > 1" class="quiet" type="button" @click="typed.splice(i, 1)">
            {{ say`Remove this treatment` }}
          </button>
        </fieldset>
      </div>
      <button class="act" type="button" @click="add('indoors')">{{ say`Add a treatment` }}</button>
      <SheetActs :act="say`Keep them`" :busy="busy" :sentence="fault" @save="save" />
    </form>
  </FormDialog>
</template>
