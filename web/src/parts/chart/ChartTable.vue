<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, ref } from 'vue';
import { chartTable, type Series } from './chart';

/** What a chart shows, in figures. */
const props = defineProps<{ chart: Series; label: string }>();
const open = ref(false);
const table = computed(() => (open.value ? chartTable(props.chart) : null));
</script>

<template>
  <details class="print:hidden" @toggle="open = ($event.target as HTMLDetailsElement).open">
    <summary class="quiet text-sm">{{ say`In figures` }}</summary>
    <div v-if="table" class="max-h-72 overflow-auto" tabindex="0" role="group" :aria-label="label">
      <table class="text-[0.95rem]" data-testid="chart-table">
        <caption class="sr-only">
          {{
            label
          }}
        </caption>
        <thead class="text-muted text-left">
          <tr>
            <th v-for="name in table.head" :key="name" scope="col" class="pr-4 font-normal">{{ name }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, i) in table.rows" :key="i" class="border-rule border-t">
            <th scope="row" class="pr-4 text-left font-normal whitespace-nowrap">{{ row[0] }}</th>
            <td v-for="(cell, k) in row.slice(1)" :key="k" class="pr-4">{{ cell }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </details>
</template>
