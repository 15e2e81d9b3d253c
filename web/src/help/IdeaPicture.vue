<script setup lang="ts">
import type { IdeaKey } from './ideas';

/** A small picture of an idea, where one helps. */
defineProps<{ idea: IdeaKey }>();
</script>

<template>
  <svg
    v-if="['groundLine', 'window', 'odds', 'working', 'rootFill'].includes(idea)"
    class="h-16 w-40"
    viewBox="0 0 160 64"
    fill="none"
    stroke-width="2"
    aria-hidden="true"
  >
    <template v-if="idea === 'groundLine'">
      <rect class="fill-soil" x="0" y="34" width="160" height="30" />
      <path class="fill-leaf-mid" d="M90 18L152 4V14L90 22Z" opacity="0.5" />
      <path class="stroke-leaf" d="M6 33C40 32 60 26 90 20" />
      <path class="stroke-leaf" d="M90 20L152 9" stroke-dasharray="5 4" />
      <path class="stroke-root" d="M6 35C40 38 60 44 90 48" />
      <path class="stroke-root" d="M90 48L152 57" stroke-dasharray="5 4" />
      <path class="stroke-ink" d="M0 34H160" />
    </template>
    <template v-else-if="idea === 'window'">
      <rect class="fill-frost" x="24" y="20" width="112" height="22" opacity="0.4" />
      <rect class="fill-frost stroke-ink" x="48" y="20" width="62" height="22" />
      <path class="stroke-ink" d="M4 52H156M48 52v6M110 52v6" />
    </template>
    <template v-else-if="idea === 'odds'">
      <circle
        v-for="i in 10"
        :key="i"
        class="stroke-ink"
        :class="i <= 9 ? 'fill-leaf-mid' : 'fill-card'"
        :cx="16 + ((i - 1) % 5) * 30"
        :cy="i <= 5 ? 18 : 46"
        r="9"
      />
    </template>
    <template v-else-if="idea === 'working'">
      <path class="stroke-muted" d="M10 12H90M10 26H70M10 40H104" />
      <path class="stroke-ink" d="M10 52H150" />
      <path class="stroke-ink" d="M122 36h20M122 44h20" />
    </template>
    <template v-else>
      <g v-for="(depth, i) in [14, 34, 48]" :key="depth" :transform="`translate(${8 + i * 52} 4)`">
        <path class="fill-root-mid" :d="`M${2 + 0.06 * depth} ${depth}H${38 - 0.06 * depth}L36 2H4Z`" />
        <path class="stroke-ink" d="M2 2H38L34 54H6Z" />
      </g>
    </template>
  </svg>
</template>
