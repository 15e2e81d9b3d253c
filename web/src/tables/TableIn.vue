<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, ref, shallowRef } from 'vue';
import { sentenceOf } from '../api/problem';
import ChoiceRow from '../parts/ChoiceRow.vue';
import { besidePage } from './besidePage';
import { looksPacked, sheetAsCsv, TABLE_FILES, type Sheet } from './sheet';

/** Chooses a table: text as it is, or one sheet of a spreadsheet; of several it asks which. */
const props = defineProps<{
  label: string;
  /** Endings taken besides those of tables. */
  also?: string;
}>();
const emit = defineEmits<{ file: [file: File | null] }>();
const chosen = shallowRef<File | null>(null);
const sheets = shallowRef<readonly Sheet[]>([]);
const at = ref(0);
const fault = ref<string | null>(null);
const accept = computed(() => (props.also ? `${TABLE_FILES},${props.also}` : TABLE_FILES));
const sheet = computed({
  get: () => at.value,
  set: (i: number) => {
    at.value = i;
    emit('file', sheetAsCsv(sheets.value[i], chosen.value!.name));
  },
});

async function picked(event: Event) {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0] ?? null;
  chosen.value = file;
  sheets.value = [];
  fault.value = null;
  emit('file', null);
  if (!file) return;
  try {
    // Text is read as it stands; only a spreadsheet is unpacked.
    const found = (await looksPacked(file)) ? await besidePage((worker) => worker.sheetsOf(file)) : null;
    if (file !== chosen.value) return;
    if (!found) emit('file', file);
    else {
      sheets.value = found;
      sheet.value = 0;
    }
  } catch (error) {
    if (file === chosen.value) fault.value = sentenceOf(error);
  }
  // The same file can be chosen again once it was mended.
  input.value = '';
}
</script>

<template>
  <div class="space-y-2">
    <label class="act">
      {{ label }}
      <input class="sr-only" type="file" :accept="accept" @change="picked" />
    </label>
    <span v-if="chosen" class="ml-3">{{ chosen.name }}</span>
    <ChoiceRow
      v-if="sheets.length > 1"
      v-model="sheet"
      :label="say`Sheet`"
      :options="sheets.map(({ name }, i) => ({ value: i, words: name }))"
    />
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
  </div>
</template>
