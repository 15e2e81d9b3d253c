<script setup lang="ts">
import { say } from '@kauri/core';
import type { SowingPlan } from '@kauri/core';
import { computed } from 'vue';
import { count, percent } from '../../../words/numbers';

/** Chance against surplus, over the number of seeds; the handle sets the seeds. */
const props = defineProps<{
  plan: SowingPlan;
  target: number;
  seeds: number;
  chance: number;
  surplus: number;
}>();
const emit = defineEmits<{ seeds: [seeds: number] }>();
const [W, H, LEFT, BOTTOM] = [420, 190, 44, 28];
const low = computed(() => props.plan.curve[0].seeds);
const high = computed(() => props.plan.curve.at(-1)!.seeds);
const x = (seeds: number) =>
  LEFT + ((seeds - low.value) / Math.max(1, high.value - low.value)) * (W - LEFT - 10);
const y = (chance: number) => 8 + (1 - chance) * (H - 8 - BOTTOM);
const line = computed(() =>
  props.plan.curve.map((p) => `${x(p.seeds).toFixed(1)},${y(p.chance).toFixed(1)}`).join(' '),
);
const step = computed(() => Math.max(1, Math.round((high.value - low.value) / 200)));
</script>

<template>
  <section aria-labelledby="surplus">
    <h2 id="surplus" class="text-lg">{{ say`More seed, surer: at what surplus?` }}</h2>
    <svg :viewBox="`0 0 ${W} ${H}`" class="w-full" aria-hidden="true">
      <g font-size="13" fill="var(--muted)">
        <template v-for="share in [0, 0.5, 0.9, 1]" :key="share">
          <line :x1="LEFT" :x2="W - 10" :y1="y(share)" :y2="y(share)" stroke="var(--rule)" />
          <text v-if="share !== 1" :x="LEFT - 6" :y="y(share) + 4" text-anchor="end">
            {{ percent(share) }}
          </text>
        </template>
        <text :x="LEFT" :y="H - 8">{{ count(low) }}</text>
        <text :x="W - 10" :y="H - 8" text-anchor="end">{{ say`${count(high)} seeds` }}</text>
      </g>
      <polyline :points="line" fill="none" stroke="var(--ink)" stroke-width="2.5" />
      <line
        :x1="x(seeds)"
        :x2="x(seeds)"
        :y1="y(chance)"
        :y2="H - BOTTOM"
        stroke="var(--ink)"
        stroke-dasharray="3 3"
      />
      <circle
        :cx="x(Math.min(high, Math.max(low, seeds)))"
        :cy="y(chance)"
        r="6"
        fill="var(--card)"
        stroke="var(--ink)"
        stroke-width="3"
      />
    </svg>
    <label class="sr-only" for="desk-seeds">{{ say`Seeds to sow` }}</label>
    <input
      id="desk-seeds"
      class="accent-ink h-11 w-full"
      type="range"
      :min="low"
      :max="high"
      :step="step"
      :value="seeds"
      :aria-valuetext="say`${count(seeds)} seeds, ${percent(chance)} chance`"
      @input="emit('seeds', Number(($event.target as HTMLInputElement).value))"
    />
    <p data-testid="trade">
      {{ say`${count(seeds)} seeds:` }} <b>{{ percent(chance) }}</b> {{ say`chance, and` }}
      <b>{{ surplus >= 0 ? say`${count(surplus)} trees over` : say`${count(-surplus)} trees short` }}</b>
      {{ say`on average.` }}
    </p>
  </section>
</template>
