<script setup lang="ts">
import { say } from '@kauri/core';
import { Menu, MenuButton, MenuItems } from '@headlessui/vue';
import { ChevronDown } from 'lucide-vue-next';
import { ref } from 'vue';
import { sentenceOf } from '../api/problem';
import MenuRow from '../parts/MenuRow.vue';
import { offerTable } from './offerTable';
import type { TableFormat } from './tableFile';

/** Saves a table, as text or as a spreadsheet. */
const props = defineProps<{
  label: string;
  /** File name without its ending. */
  name: string;
  /** The table as CSV, made when it is asked for. */
  table: () => string | Promise<string>;
  quiet?: boolean;
  /** Whether its button stands at the right edge. */
  right?: boolean;
}>();
const fault = ref<string | null>(null);
const formats: readonly { format: TableFormat; words: string }[] = [
  { format: 'csv', words: say`Text (CSV)` },
  { format: 'xlsx', words: say`Spreadsheet (XLSX)` },
  { format: 'ods', words: say`Spreadsheet (ODS)` },
];
async function save(format: TableFormat) {
  fault.value = null;
  try {
    await offerTable(await props.table(), props.name, format);
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
</script>

<template>
  <Menu as="div" class="relative inline-block">
    <MenuButton :class="quiet ? 'quiet' : 'act'">
      {{ label }} <ChevronDown :size="18" aria-hidden="true" />
    </MenuButton>
    <MenuItems class="drop desk:w-56 p-1" :class="right ? 'desk:right-0' : 'desk:left-0'">
      <MenuRow v-for="one in formats" :key="one.format" @choose="save(one.format)">{{ one.words }}</MenuRow>
    </MenuItems>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
  </Menu>
</template>
