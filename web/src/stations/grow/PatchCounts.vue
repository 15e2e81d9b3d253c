<script setup lang="ts">
import { say } from '@kauri/core';
import { Plus } from 'lucide-vue-next';
import { computed, ref } from 'vue';
import FormField from '../../parts/FormField.vue';
import TapCounter from '../../parts/TapCounter.vue';
import { typedNumber } from '../../parts/typed';
import { count } from '../../words/numbers';

/** A count of a lot part by part: one part at a time under the thumb, the others beside it. */
export interface TypedPatch {
  name: string;
  counted: string;
}
defineProps<{ wrong: (path: string) => string | null }>();
const patches = defineModel<TypedPatch[]>({ required: true });
const at = ref(0);
const here = computed(() => patches.value[Math.min(at.value, patches.value.length - 1)]);
const nameOf = (patch: TypedPatch, i: number) => patch.name.trim() || say`Patch ${i + 1}`;
function another() {
  patches.value.push({ name: '', counted: '' });
  at.value = patches.value.length - 1;
}
function drop() {
  patches.value.splice(at.value, 1);
  at.value = Math.max(0, at.value - 1);
}
</script>

<template>
  <fieldset class="space-y-3">
    <legend class="mb-1 font-bold">{{ say`Patches` }}</legend>
    <div class="flex flex-wrap gap-2" data-testid="patches">
      <button
        v-for="(patch, i) in patches"
        :key="i"
        class="act"
        :class="i === at ? 'border-ink border-b-4' : ''"
        type="button"
        :aria-pressed="i === at"
        @click="at = i"
      >
        {{ nameOf(patch, i) }}
        <b>{{ patch.counted.trim() === '' ? '–' : count(typedNumber(patch.counted)) }}</b>
      </button>
      <button class="act" type="button" @click="another">
        <Plus :size="18" aria-hidden="true" /> {{ say`Patch` }}
      </button>
    </div>
    <template v-if="here">
      <TapCounter
        v-model="here.counted"
        :label="say`Standing in ${nameOf(here, at).replace(/^Patch/, 'patch')}`"
        :fault="wrong(`patches.${at}.counted`)"
      />
      <div class="flex items-end gap-3">
        <FormField
          v-model="here.name"
          class="flex-1"
          :label="say`Name of the patch`"
          :hint="say`North end, row 3, under the tree`"
          :fault="wrong(`patches.${at}.name`)"
        />
        <button class="quiet pb-3" type="button" @click="drop">{{ say`Remove it` }}</button>
      </div>
    </template>
  </fieldset>
</template>
