<script setup lang="ts">
import type { Status } from '@kauri/core';
import { statusWords } from '../words/decision';

/** A status as a drawn shape and its word. The shapes are a cell seen from the side, filling with root. */
defineProps<{ status: Status }>();
const filled: Partial<Record<Status, number>> = {
  waiting: 0,
  filling: 5,
  ready: 8,
  holding: 10.5,
  bound: 13,
};
</script>

<template>
  <span class="inline-flex items-center gap-1.5 font-bold whitespace-nowrap">
    <svg viewBox="0 0 16 16" class="size-4 shrink-0" aria-hidden="true">
      <template v-if="status in filled">
        <path d="M3 1.5h10l-1.5 13h-7z" fill="none" stroke="currentColor" stroke-width="1.6" />
        <clipPath :id="`cell-${status}`"><path d="M3 1.5h10l-1.5 13h-7z" /></clipPath>
        <rect
          x="2"
          y="1.5"
          width="12"
          :height="filled[status]"
          fill="currentColor"
          :clip-path="`url(#cell-${status})`"
        />
        <path
          v-if="status === 'bound'"
          d="M1 5c3 3 11 3 14 0M1 10c3 3 11 3 14 0"
          fill="none"
          stroke="var(--card)"
          stroke-width="1.4"
        />
      </template>
      <path
        v-else-if="status === 'growing'"
        d="M8 15V6M8 9C4 9 2 6 2 3c4 0 6 3 6 6zm0-2c3 0 5-2 6-5-4 0-6 2-6 5"
        fill="none"
        stroke="currentColor"
        stroke-width="1.6"
      />
      <path
        v-else-if="status === 'lift'"
        d="M8 1l6 7h-4v4H6V8H2zM3 14.5h10"
        fill="currentColor"
        stroke="currentColor"
      />
      <path
        v-else-if="status === 'lifted'"
        d="M2 9l4 4 8-10"
        fill="none"
        stroke="currentColor"
        stroke-width="2.4"
      />
      <path
        v-else-if="status === 'failed'"
        d="M3 3l10 10M13 3L3 13"
        stroke="currentColor"
        stroke-width="2.2"
      />
      <path v-else d="M2 8h12" stroke="currentColor" stroke-width="2.2" />
    </svg>
    {{ statusWords[status] }}
  </span>
</template>
