<script setup lang="ts">
import { depthMmOf, type LotFacts, type LotForecast, type Standing, say } from '@kauri/core';
import { computed } from 'vue';
import { usePreferences } from '../../stores/preferences';
import { percent } from '../../words/numbers';

/** One tree of the lot and the medium it has to itself, cut through, to scale. */
const props = defineProps<{ facts: LotFacts; forecast: LotForecast; standing: Standing }>();
const { show } = usePreferences();

const W = 240;
const GROUND = 172;

const s = computed(() => {
  const { facts, forecast, standing } = props;
  const up = standing.tally.standing > 0;
  const heightMm = up ? forecast.state.heightCm.p50 * 10 : 0;
  const lidMm =
    facts.home.kind === 'bed' && facts.home.headroomCm !== null ? facts.home.headroomCm * 10 : null;
  const targetMm = facts.targetHeightCm === null ? null : facts.targetHeightCm * 10;
  const depth = depthMmOf(facts.home);
  // One scale for both sides of the ground line.
  const scale = Math.min((GROUND - 14) / Math.max(heightMm, lidMm ?? 0, targetMm ?? 0, 120), 130 / depth);
  const across =
    facts.home.kind === 'container'
      ? Math.sqrt((facts.home.cellMl * 1000) / depth)
      : Math.sqrt(1e6 / facts.home.densityPerM2);
  const half = Math.max(5, (across * scale) / 2);
  const fill = up ? Math.min(1, forecast.state.fill.p50) : 0;
  return {
    top: GROUND - heightMm * scale,
    lid: lidMm === null ? null : GROUND - lidMm * scale,
    target: targetMm === null ? null : GROUND - targetMm * scale,
    bottom: GROUND + depth * scale,
    half,
    reach: fill * depth * scale,
    depth,
    heightMm,
    bound: standing.status === 'bound',
  };
});
const leaves = computed(() => {
  const height = GROUND - s.value.top;
  if (height < 8) return [];
  const pairs = Math.min(7, Math.max(2, Math.round(height / 20)));
  const size = Math.max(4, Math.min(13, height / 7));
  return Array.from({ length: pairs }, (_, i) => ({
    y: s.value.top + (height * 0.85 * (i + 0.3)) / pairs,
    size: size * (0.75 + (0.5 * i) / pairs),
  }));
});
const roots = computed(() => {
  const { half, reach } = s.value;
  if (reach <= 0) return '';
  const lines = [];
  for (let i = -4; i <= 4; i++) {
    const out = (i / 4) * half * 0.92;
    const down = reach * (1 - 0.18 * Math.abs(i % 2));
    lines.push(
      `M${W / 2} ${GROUND + 2}C${W / 2 + out * 0.7} ${GROUND + down * 0.2} ${W / 2 + out} ${GROUND + down * 0.5} ${W / 2 + out} ${GROUND + down}`,
    );
  }
  return lines.join('');
});
const title = computed(() =>
  props.facts.home.kind === 'container'
    ? props.facts.home.name
    : say`Bed at ${show(props.facts.home.densityPerM2, 'density')}`,
);
</script>

<template>
  <figure>
    <figcaption class="text-[0.95rem] leading-snug">
      <b class="block">{{ title }}</b>
      <span class="text-muted">{{ say`air share ${percent(facts.home.airShare)}` }}</span>
    </figcaption>
    <svg
      :viewBox="`0 0 ${W} ${Math.ceil(s.bottom) + 14}`"
      class="w-full max-w-64"
      role="img"
      :aria-label="
        say`Section to scale: ${show(s.heightMm / 10, 'height')} above ground, ${show(s.depth, 'timber')} of medium below`
      "
    >
      <rect
        :x="W / 2 - s.half"
        :y="GROUND"
        :width="2 * s.half"
        :height="s.bottom - GROUND"
        fill="var(--soil)"
      />
      <rect
        v-if="s.reach"
        :x="W / 2 - s.half"
        :y="GROUND"
        :width="2 * s.half"
        :height="s.reach"
        fill="var(--root-mid)"
        opacity="0.45"
      />
      <path :d="roots" fill="none" stroke="var(--root)" stroke-width="1.6" stroke-linecap="round" />
      <path
        v-if="s.bound"
        :d="`M${W / 2 - s.half} ${s.bottom - 14}q${s.half} 12 ${2 * s.half} 0M${W / 2 - s.half} ${s.bottom - 5}q${s.half} 8 ${2 * s.half} 0`"
        fill="none"
        stroke="var(--root)"
        stroke-width="2"
      />
      <path
        :d="`M${W / 2 - s.half} ${GROUND}V${s.bottom}M${W / 2 + s.half} ${GROUND}V${s.bottom}`"
        stroke="var(--ink)"
        stroke-width="2"
        :stroke-dasharray="facts.home.kind === 'bed' ? '2 4' : '10 4'"
      />
      <path
        :d="`M${W / 2 - s.half - 4} ${s.bottom}h${2 * s.half + 8}`"
        stroke="var(--ink)"
        stroke-width="2"
        stroke-dasharray="3 4"
      />
      <text :x="W / 2 + s.half + 8" :y="s.bottom + 4" font-size="13" fill="var(--root)">
        {{ say`tips stop in air` }}
      </text>
      <path :d="`M14 ${GROUND}H${W - 14}`" stroke="var(--ink)" stroke-width="2.5" />
      <template v-if="s.heightMm > 0">
        <path
          :d="`M${W / 2} ${GROUND}V${s.top}`"
          stroke="var(--leaf)"
          stroke-width="3"
          stroke-linecap="round"
        />
        <g v-for="(leaf, i) in leaves" :key="i" fill="var(--leaf-mid)" stroke="var(--leaf)">
          <path
            :d="`M${W / 2} ${leaf.y}q${leaf.size} ${-leaf.size * 0.9} ${leaf.size * 1.9} ${-leaf.size * 0.1}q${-leaf.size * 0.9} ${leaf.size * 0.8} ${-leaf.size * 1.9} ${leaf.size * 0.1}M${W / 2} ${leaf.y + 5}q${-leaf.size} ${-leaf.size * 0.9} ${-leaf.size * 1.9} ${-leaf.size * 0.1}q${leaf.size * 0.9} ${leaf.size * 0.8} ${leaf.size * 1.9} ${leaf.size * 0.1}`"
          />
        </g>
        <text x="14" :y="Math.max(14, s.top + 5)" font-size="13" fill="var(--leaf)">
          {{ show(s.heightMm / 10, 'height') }}
        </text>
      </template>
      <template v-if="s.target !== null">
        <path :d="`M70 ${s.target}H${W - 70}`" stroke="var(--leaf)" stroke-dasharray="2 4" stroke-width="2" />
        <text
          v-if="Math.abs(s.target - (s.lid ?? -99)) > 14"
          :x="W - 66"
          :y="s.target + 4"
          font-size="13"
          fill="var(--leaf)"
        >
          {{ say`wanted` }}
        </text>
      </template>
      <template v-if="s.lid !== null">
        <path :d="`M40 ${s.lid}H${W - 52}`" stroke="var(--ink)" stroke-width="2" />
        <text :x="W - 46" :y="s.lid + 4" font-size="13" fill="var(--ink)">{{ say`lid` }}</text>
      </template>
      <text x="14" :y="(GROUND + s.bottom) / 2 + 5" font-size="13" fill="var(--root)">
        {{ show(s.depth, 'timber') }}
      </text>
    </svg>
  </figure>
</template>
