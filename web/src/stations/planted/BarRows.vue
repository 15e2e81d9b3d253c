<script setup lang="ts">
import { count } from '../../words/numbers';

/** Figures as bars under one another, each with its words and its number. */
const props = defineProps<{ rows: readonly { words: string; count: number; pale?: boolean }[] }>();
const most = () => Math.max(1, ...props.rows.map((row) => row.count));
</script>

<template>
  <ul class="space-y-1.5">
    <li
      v-for="row in rows"
      :key="row.words"
      class="grid grid-cols-[9rem_1fr] items-center gap-x-3 sm:grid-cols-[13rem_1fr]"
    >
      <span class="text-right">{{ row.words }}</span>
      <span class="flex items-center gap-2">
        <span
          class="h-5 rounded-sm"
          :class="row.pale ? 'bg-leaf-pale border-leaf border' : 'bg-leaf'"
          :style="{ width: `${(80 * row.count) / most()}%`, minWidth: row.count ? '2px' : '0' }"
          aria-hidden="true"
        />
        <b class="tabular-nums">{{ count(row.count) }}</b>
      </span>
    </li>
  </ul>
</template>
