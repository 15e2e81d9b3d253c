<script setup lang="ts">
import { say } from '@kauri/core';
import type { PreviewRow } from './tablePreview';

/** The first lines as they will be read, beside what is wrong with them. */
defineProps<{ caption: string; head: readonly string[]; rows: readonly PreviewRow[] }>();
</script>

<template>
  <div class="mt-4 overflow-x-auto">
    <table class="w-full text-[0.95rem]" data-testid="preview">
      <caption class="pb-1 text-left font-bold">
        {{
          caption
        }}
      </caption>
      <thead class="text-muted text-left">
        <tr>
          <th class="pr-4 font-normal" scope="col">{{ say`Line` }}</th>
          <th v-for="name in head" :key="name" class="pr-4 font-normal" scope="col">{{ name }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.line" class="border-rule border-t">
          <td class="text-muted py-1 pr-4">{{ row.line }}</td>
          <td v-if="row.fault" :colspan="head.length" class="text-wrong">{{ row.fault }}</td>
          <template v-else>
            <td v-for="(cell, i) in row.cells" :key="i" class="pr-4">{{ cell }}</td>
          </template>
        </tr>
      </tbody>
    </table>
  </div>
</template>
