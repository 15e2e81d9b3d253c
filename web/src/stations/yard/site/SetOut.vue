<script setup lang="ts">
import { say } from '@kauri/core';
import { ref } from 'vue';
import FormField from '../../../parts/FormField.vue';
import { typedNumber } from '../../../parts/typed';
import { usePreferences } from '../../../stores/preferences';
import type { SiteEditing } from './useSiteEditing';

/** Copies of what is chosen, in rows and columns with paths between. */
const props = defineProps<{ editing: SiteEditing }>();
const preferences = usePreferences();
const array = ref({ columns: '4', rows: '2', path: '0.6' });
const arrayFault = ref<string | null>(null);
function setOut() {
  arrayFault.value = null;
  const path = preferences.typed(typedNumber(array.value.path), 'site');
  try {
    void props.editing.array(typedNumber(array.value.columns), typedNumber(array.value.rows), path, path);
  } catch (error) {
    arrayFault.value = (error as Error).message;
  }
}
</script>

<template>
  <section aria-labelledby="set-out">
    <h2 id="set-out" class="text-lg">{{ say`Set out in rows` }}</h2>
    <div class="grid grid-cols-3 gap-2">
      <FormField v-model="array.columns" :label="say`Columns`" inputmode="numeric" />
      <FormField v-model="array.rows" :label="say`Rows`" inputmode="numeric" />
      <FormField
        v-model="array.path"
        :label="say`Path`"
        :unit="preferences.unit('site')"
        inputmode="decimal"
      />
    </div>
    <p v-if="arrayFault" class="text-wrong font-bold" role="alert">{{ arrayFault }}</p>
    <button class="act mt-2" type="button" @click="setOut">{{ say`Set out copies` }}</button>
  </section>
</template>
