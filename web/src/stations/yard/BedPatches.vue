<script setup lang="ts">
import { say } from '@kauri/core';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { dateWords } from '../../words/dates';
import { shownPatches } from './patches';

/** What stands in which part of a bed, seen from above and true to scale. */
const props = defineProps<{ placeId: string; lengthMm: number; widthMm: number }>();
const nursery = useNursery();
const { show } = usePreferences();
const patches = computed(() =>
  shownPatches(nursery.lots.values(), props.placeId).map((p) => ({
    ...p,
    species: nursery.lookup.species.get(p.speciesId)?.common ?? '',
  })),
);
const H = computed(() => (props.widthMm / props.lengthMm) * 700);
const x = (mm: number) => (Math.min(mm, props.lengthMm) / props.lengthMm) * 700;
const rowsOf = (p: { patch: { firstRow: number | null; lastRow: number | null } }) =>
  p.patch.lastRow === null
    ? []
    : Array.from({ length: p.patch.lastRow }, (_, i) => ((i + 0.5) / p.patch.lastRow!) * H.value);
</script>

<template>
  <section v-if="patches.length" aria-labelledby="rows">
    <h3 id="rows" class="text-lg">{{ say`What is this row?` }}</h3>
    <svg
      :viewBox="`-2 -2 704 ${H + 4}`"
      class="w-full"
      role="img"
      :aria-label="say`Patches of the bed, from its left end`"
    >
      <rect
        x="0"
        y="0"
        width="700"
        :height="H"
        fill="var(--soil)"
        stroke="var(--soil-deep)"
        stroke-width="2"
      />
      <g v-for="p in patches" :key="p.id">
        <rect
          :x="x(p.patch.fromMm)"
          y="0"
          :width="Math.max(1, x(p.patch.toMm) - x(p.patch.fromMm))"
          :height="H"
          fill="none"
          stroke="var(--ink)"
          stroke-width="1.5"
        />
        <line
          v-for="(y, i) in rowsOf(p)"
          :key="i"
          :x1="x(p.patch.fromMm) + 4"
          :x2="x(p.patch.toMm) - 4"
          :y1="y"
          :y2="y"
          stroke="var(--leaf)"
          stroke-width="2.5"
          stroke-dasharray="2 5"
        />
        <text
          :x="(x(p.patch.fromMm) + x(p.patch.toMm)) / 2"
          :y="H / 2 + 6"
          text-anchor="middle"
          font-size="17"
          font-weight="700"
          fill="var(--ink)"
          stroke="var(--soil)"
          stroke-width="5"
          paint-order="stroke"
        >
          {{ p.code }}
        </text>
      </g>
    </svg>
    <ul class="text-[0.95rem]">
      <li v-for="p in patches" :key="p.id">
        <RouterLink class="quiet font-bold" :to="{ name: 'grow', params: { lot: p.id } }">{{
          p.code
        }}</RouterLink>
        {{
          say`${p.species}, sown ${dateWords(p.sownOn)}: ${show(p.patch.fromMm, 'timber')} to ${show(p.patch.toMm, 'timber')}`
        }}<template v-if="p.patch.lastRow">{{ say`, ${p.patch.lastRow} rows` }}</template>
      </li>
    </ul>
  </section>
</template>
