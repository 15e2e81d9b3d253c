<script setup lang="ts">
import { say } from '@kauri/core';
import { computed } from 'vue';
import { usePreferences } from '../../stores/preferences';
import { count, percent } from '../../words/numbers';
import type { BedAnswers } from './bedAnswers';

const props = defineProps<{ answers: BedAnswers; density: number; rimMm: number }>();
const { show } = usePreferences();

const rows = computed(() => {
  const { geometry: g, weight: w, airShare, trees } = props.answers;
  return [
    {
      name: g.tierDepthsMm.length ? say`Inside` : say`Counts as an upright box of`,
      value: `${show(g.insideLengthMm, 'timber')} × ${show(g.insideWidthMm, 'timber')}`,
      aside: g.tierDepthsMm.length ? '' : say`${show(g.insideAreaM2, 'area')}, the mean over its depth`,
    },
    {
      name: say`Outside`,
      value: `${show(g.outsideLengthMm, 'timber')} × ${show(g.outsideWidthMm, 'timber')}`,
    },
    g.tierDepthsMm.length
      ? {
          name: say`Height of boards as they measure`,
          value: show(g.frameHeightMm, 'timber'),
          aside: say`${show(g.nominalHeightMm - g.frameHeightMm, 'timber')} less than their names add up to`,
        }
      : { name: say`Height of its walls`, value: show(g.frameHeightMm, 'timber') },
    {
      name: say`Rim above the ground`,
      value: show(props.rimMm, 'timber'),
      aside: props.rimMm >= 700 ? say`worked standing` : props.rimMm < 300 ? say`worked kneeling` : '',
    },
    { name: say`Depth filled`, value: show(g.looseDepthMm, 'timber') },
    {
      name: say`Depth settled`,
      value: show(g.settledDepthMm, 'timber'),
      aside: g.shallow ? say`shallow: growth is reduced` : '',
    },
    { name: say`Medium to buy, loose`, value: show(g.mediumL, 'volume') },
    { name: say`Air share beneath`, value: percent(airShare) },
    {
      name: say`Weight, watered`,
      value: show(w.totalKg, 'mass'),
      aside: w.overCarryLimit ? say`⚠ two people or a machine` : say`one person can carry it`,
    },
    { name: say`On the surface`, value: show(w.surfaceKPa, 'pressure') },
    { name: say`Trees at ${show(props.density, 'density')}`, value: count(trees) },
  ];
});
</script>

<template>
  <dl class="text-[0.95rem]" data-testid="bed-figures">
    <div v-for="row in rows" :key="row.name" class="border-rule flex justify-between gap-x-3 border-b py-1">
      <dt class="text-muted">{{ row.name }}</dt>
      <dd class="text-right">
        <b>{{ row.value }}</b>
        <span v-if="row.aside" class="block">{{ row.aside }}</span>
      </dd>
    </div>
  </dl>
</template>
