<script setup lang="ts">
import { phaseKinds, type PhaseKind, say } from '@kauri/core';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import { phaseWords } from '../../words/seed';

/** Phases of a protocol, in order, as they are typed. */
export interface TypedPhase {
  kind: PhaseKind;
  days: string;
}
const phases = defineModel<TypedPhase[]>({ required: true });
const kinds = phaseKinds.map((value) => ({ value, words: phaseWords[value] }));
</script>

<template>
  <div class="space-y-2">
    <div v-for="(phase, i) in phases" :key="i" class="grid grid-cols-[1fr_5.5rem_auto] items-end gap-2">
      <SelectField v-model="phase.kind" :label="say`Phase ${i + 1}`" :options="kinds" />
      <FormField v-model="phase.days" :label="say`Days ${i + 1}`" inputmode="numeric" />
      <button class="act" type="button" :aria-label="say`Remove phase ${i + 1}`" @click="phases.splice(i, 1)">
        {{ say`Remove` }}
      </button>
    </div>
    <p v-if="!phases.length" class="text-muted">{{ say`No phase: the seed is ready to sow.` }}</p>
    <button class="act" type="button" @click="phases.push({ kind: 'cold', days: '60' })">
      {{ say`Add a phase` }}
    </button>
  </div>
</template>
