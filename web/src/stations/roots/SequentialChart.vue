<script setup lang="ts">
import { sequentialPlan, type SequentialTerms, say } from '@kauri/core';
import { computed } from 'vue';

/** Plants pulled across, plants failing up, between the line that accepts and the line that rejects. */
const props = defineProps<{ terms: SequentialTerms; fails: readonly boolean[]; cap: number }>();
const W = 360;
const H = 150;
const LEFT = 34;
/** Room for the words at the lines’ ends. */
const RIGHT = 52;
const BOTTOM = 26;

const s = computed(() => {
  const plan = sequentialPlan(props.terms).value;
  const across = Math.max(10, Math.min(props.cap, Math.max(12, props.fails.length + 6)), props.fails.length);
  const up = Math.max(4, props.fails.filter(Boolean).length + 2, plan.rejectIntercept + plan.slope * across);
  const x = (n: number) => LEFT + (n / across) * (W - LEFT - RIGHT);
  const y = (k: number) => H - BOTTOM - (k / up) * (H - BOTTOM - 8);
  const line = (intercept: number) => {
    // Below nothing failing the line is not drawn.
    const from = Math.max(0, -intercept / plan.slope);
    return {
      x1: x(Math.min(across, from)),
      y1: y(Math.max(0, intercept)),
      x2: x(across),
      y2: y(Math.max(0, intercept + plan.slope * across)),
    };
  };
  let failing = 0;
  const points = [{ x: x(0), y: y(0), fail: false }];
  props.fails.forEach((fail, i) => {
    if (fail) failing++;
    points.push({ x: x(i + 1), y: y(failing), fail });
  });
  return {
    accept: line(plan.acceptIntercept),
    reject: line(plan.rejectIntercept),
    points,
    path: points.map((p, i) => `${i ? 'L' : 'M'}${p.x} ${p.y}`).join(''),
    ticks: [0, Math.round(across / 2), across].map((n) => ({ n, x: x(n) })),
    sideTicks: [0, Math.floor(up / 2), Math.floor(up)].map((k) => ({ k, y: y(k) })),
  };
});
</script>

<template>
  <figure>
    <svg
      :viewBox="`0 0 ${W} ${H}`"
      class="w-full max-w-xl"
      role="img"
      :aria-label="say`Plants failing against plants pulled, with the accept and reject lines`"
    >
      <line :x1="LEFT" :x2="W - RIGHT" :y1="H - BOTTOM" :y2="H - BOTTOM" stroke="var(--ink)" />
      <line :x1="LEFT" :x2="LEFT" y1="6" :y2="H - BOTTOM" stroke="var(--ink)" />
      <line v-bind="s.reject" stroke="var(--ink)" stroke-width="2" />
      <line v-bind="s.accept" stroke="var(--ink)" stroke-width="2" stroke-dasharray="6 4" />
      <text :x="s.reject.x2 + 5" :y="s.reject.y2 + 4" class="fill-ink text-[11px]">{{ say`reject` }}</text>
      <text :x="s.accept.x2 + 5" :y="s.accept.y2 + 4" class="fill-ink text-[11px]">{{ say`accept` }}</text>
      <path :d="s.path" fill="none" stroke="var(--root)" stroke-width="2" />
      <g v-for="(p, i) in s.points" :key="i">
        <path
          v-if="p.fail"
          :d="`M${p.x - 4} ${p.y - 4}l8 8m0-8l-8 8`"
          stroke="var(--root)"
          stroke-width="2.5"
        />
        <circle
          v-else-if="i"
          :cx="p.x"
          :cy="p.y"
          r="4"
          fill="var(--card)"
          stroke="var(--root)"
          stroke-width="2"
        />
      </g>
      <text
        v-for="t in s.ticks"
        :key="t.n"
        :x="t.x"
        :y="H - BOTTOM + 13"
        class="fill-muted text-[11px]"
        text-anchor="middle"
      >
        {{ t.n }}
      </text>
      <text
        v-for="t in s.sideTicks"
        :key="`k${t.k}`"
        :x="LEFT - 6"
        :y="t.y + 4"
        class="fill-muted text-[11px]"
        text-anchor="end"
      >
        {{ t.k }}
      </text>
    </svg>
    <figcaption class="text-muted text-sm">
      {{
        say`Across: plants pulled. Up: plants failing. Ring: passes, cross: fails. On or above the upper line reject, on or below the broken one accept.`
      }}
    </figcaption>
  </figure>
</template>
