<script setup lang="ts">
import { LIGHT_STEPS, OPENINGS, type HoldState, say } from '@kauri/core';
import { computed, useId } from 'vue';

/** Humid air as a drop that empties by seven steps; beside it the way from shade to sun in three. */
const props = defineProps<{ state: HoldState }>();
const clip = useId();
const left = computed(() => 1 - props.state.opened / OPENINGS);
/** The drop's water stands between these heights of the drawing. */
const [TOP, BOTTOM] = [6, 58];
const level = computed(() => BOTTOM - (BOTTOM - TOP) * left.value);
</script>

<template>
  <svg
    class="h-20 w-28 shrink-0"
    viewBox="0 0 90 64"
    role="img"
    :aria-label="
      say`${state.opened} of ${OPENINGS} openings, ${state.light} of ${LIGHT_STEPS} steps to the light`
    "
  >
    <clipPath :id="clip"><path d="M26 4C30 16 44 26 44 42a18 18 0 0 1-36 0C8 26 22 16 26 4z" /></clipPath>
    <rect class="fill-water" x="4" :y="level" width="44" :height="62 - level" :clip-path="`url(#${clip})`" />
    <path
      class="stroke-ink fill-none"
      d="M26 4C30 16 44 26 44 42a18 18 0 0 1-36 0C8 26 22 16 26 4z"
      stroke-width="2"
    />
    <g v-for="i in OPENINGS - 1" :key="i">
      <line
        class="stroke-ink"
        :x1="20"
        :x2="32"
        :y1="TOP + ((BOTTOM - TOP) * i) / OPENINGS"
        :y2="TOP + ((BOTTOM - TOP) * i) / OPENINGS"
        stroke-width="1"
        :clip-path="`url(#${clip})`"
      />
    </g>
    <circle
      v-for="i in LIGHT_STEPS"
      :key="`light ${i}`"
      class="stroke-ink"
      :class="state.light >= i ? 'fill-leaf-mid' : 'fill-none'"
      cx="70"
      :cy="58 - i * 15"
      r="5.5"
      stroke-width="1.6"
    />
  </svg>
</template>
