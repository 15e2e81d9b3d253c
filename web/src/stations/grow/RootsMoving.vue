<script setup lang="ts">
import { say } from '@kauri/core';
import { ref } from 'vue';
import FormField from '../../parts/FormField.vue';
import TapCounter from '../../parts/TapCounter.vue';
import { count } from '../../words/numbers';
import { rootsSeen, type TypedRoots } from './rootsMoving';

/** Roots looked at while each tree is in the hand: tapped as they come, or left alone. */
const props = defineProps<{ standing: number; wrong: (path: string) => string | null }>();
const typed = defineModel<TypedRoots>({ required: true });
const isOpen = ref(Object.values(typed.value).some((text) => text !== ''));
const labels = {
  circling: say`Circling`,
  teased: say`Teased out`,
  shaved: say`Shaved or cut`,
  rejected: say`Rejected`,
};
</script>

<template>
  <button
    v-if="!isOpen"
    class="act"
    type="button"
    :aria-expanded="false"
    data-testid="roots-moving"
    @click="isOpen = true"
  >
    {{ say`Count their roots as they pass` }}
  </button>
  <fieldset v-else class="space-y-2">
    <legend class="font-bold">{{ say`Roots, as they pass through the hand` }}</legend>
    <FormField
      v-model="typed.looked"
      :label="say`Looked at`"
      inputmode="numeric"
      :hint="say`Blank: all ${count(props.standing)}`"
      :fault="wrong('roots.looked')"
    />
    <TapCounter
      v-for="what in rootsSeen"
      :key="what"
      v-model="typed[what]"
      :label="labels[what]"
      :fault="wrong(`roots.${what}`)"
    />
    <p class="text-muted text-sm">{{ say`Rejected trees leave the lot as culled.` }}</p>
  </fieldset>
</template>
