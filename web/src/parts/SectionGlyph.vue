<script setup lang="ts">
import { depthMmOf, type LotFacts } from '@kauri/core';
import { computed } from 'vue';
import type { LotView } from '../workers/forecast.worker';

/**
 * A slice through a lot, small: above the ground line its height against target and lid; below, depth of
 * medium, how far roots fill it, the prune line and the air beneath.
 */
const props = defineProps<{ facts: LotFacts; view: LotView }>();

const GROUND = 24;
const g = computed(() => {
  const { facts, view } = props;
  const { state } = view.forecast;
  const lidCm = facts.home.kind === 'bed' ? facts.home.headroomCm : null;
  const tallest = Math.max(state.heightCm.p50, facts.targetHeightCm ?? 0, lidCm ?? 0, 15);
  const up = (cm: number) => GROUND - (cm / tallest) * 20;
  const depth = 8 + Math.min(1, depthMmOf(facts.home) / 350) * 12;
  const standing = view.standing.tally.standing > 0;
  return {
    top: standing && state.heightCm.p50 > 0 ? up(state.heightCm.p50) : GROUND,
    target: facts.targetHeightCm === null ? null : up(facts.targetHeightCm),
    lid: lidCm === null ? null : up(lidCm),
    depth,
    roots: standing ? Math.min(1, state.fill.p50) * depth : 0,
    bound: view.standing.status === 'bound',
    inset: facts.home.kind === 'container' ? 12 : 4,
    dash: facts.home.airShare > 0.45 ? '2 2' : facts.home.airShare > 0.15 ? '3 2' : '6 2',
  };
});
</script>

<template>
  <svg viewBox="0 0 48 52" class="h-13 w-12 shrink-0" aria-hidden="true">
    <rect :x="g.inset" :y="GROUND" :width="48 - 2 * g.inset" :height="g.depth" fill="var(--soil)" />
    <rect
      v-if="g.roots"
      :x="g.inset"
      :y="GROUND"
      :width="48 - 2 * g.inset"
      :height="g.roots"
      :fill="g.bound ? 'var(--root)' : 'var(--root-mid)'"
    />
    <path
      v-if="g.bound"
      :d="`M${g.inset} ${GROUND + g.depth * 0.55}c6 4 ${36 - 2 * g.inset} 4 ${48 - 2 * g.inset} 0M${g.inset} ${GROUND + g.depth * 0.85}c6 4 ${36 - 2 * g.inset} 4 ${48 - 2 * g.inset} 0`"
      fill="none"
      stroke="var(--card)"
    />
    <path
      v-else-if="g.roots"
      :d="`M24 ${GROUND}v${g.roots}M24 ${GROUND + 2}l${-g.roots * 0.5} ${g.roots * 0.8}M24 ${GROUND + 2}l${g.roots * 0.5} ${g.roots * 0.8}`"
      stroke="var(--root)"
      fill="none"
    />
    <path
      :d="`M${g.inset} ${GROUND}v${g.depth}h${48 - 2 * g.inset}v${-g.depth}`"
      fill="none"
      stroke="var(--ink)"
      :stroke-dasharray="g.dash"
      stroke-width="1.4"
    />
    <path :d="`M1 ${GROUND}h46`" stroke="var(--ink)" stroke-width="1.6" />
    <path v-if="g.lid !== null" :d="`M6 ${g.lid}h36`" stroke="var(--ink)" stroke-width="1.4" />
    <path
      v-if="g.target !== null"
      :d="`M8 ${g.target}h32`"
      stroke="var(--leaf)"
      stroke-dasharray="1 2.5"
      stroke-width="1.6"
    />
    <template v-if="g.top < GROUND">
      <path :d="`M24 ${GROUND}V${g.top}`" stroke="var(--leaf)" stroke-width="2.2" />
      <ellipse :cx="24" :cy="g.top" rx="3.6" ry="2.6" fill="var(--leaf-mid)" stroke="var(--leaf)" />
    </template>
  </svg>
</template>
