<script setup lang="ts">
import {
  isoOf,
  plantCv,
  type Band,
  type LotFacts,
  type LotForecast,
  type Quantity,
  type Standing,
  say,
} from '@kauri/core';
import { computed } from 'vue';
import { usePreferences } from '../../stores/preferences';
import { dateWords } from '../../words/dates';
import { count, percent, several } from '../../words/numbers';

const props = defineProps<{ facts: LotFacts; forecast: LotForecast; standing: Standing }>();
const { show, shown } = usePreferences();

/** A middle figure with its band behind it, the unit once. */
function banded(band: Band, quantity: Quantity, digits?: number): string {
  const part = (value: number) => shown(value, quantity).toFixed(digits ?? 0);
  return `${show(band.p50, quantity, digits)} (${part(band.p10)}–${part(band.p90)})`;
}
/** The latest sample of heights, where it is young enough to be held against the figure shown. */
const YOUNG_DAYS = 28;
const sample = computed(() => {
  const { day } = props.forecast.state;
  const last = props.facts.sizes.filter((s) => s.what === 'height' && s.n > 1 && s.day <= day).at(-1);
  return last && day - last.day <= YOUNG_DAYS && props.standing.tally.standing > 0 ? last : null;
});
/** Why the figure is not the sample’s, where they are further apart than rounding. */
const apart = computed(() => {
  if (!sample.value) return null;
  const { p50 } = props.forecast.state.heightCm;
  if (Math.abs(sample.value.mean - p50) < 0.03 * p50) return null;
  return say`Measured ${show(sample.value.mean, 'height', 1)} on ${dateWords(isoOf(sample.value.day))}, ${several(sample.value.n, 'plant')}. The height shown weighs that with all earlier samples and with how such lots grow.`;
});
const rows = computed(() => {
  const { state } = props.forecast;
  const { tally } = props.standing;
  const lines: { name: string; value: string; assumed?: boolean }[] = [];
  const measured = (what: 'height' | 'diameter') =>
    props.facts.sizes.some((s) => s.what === what && s.day <= state.day);
  if (tally.standing > 0) {
    if (props.facts.home.kind === 'container') {
      lines.push({
        name: say`Root fill`,
        value: `${state.fill.p50.toFixed(2)} (${state.fill.p10.toFixed(2)}–${state.fill.p90.toFixed(2)})`,
        assumed: !props.facts.pulls.some((pull) => pull.day <= state.day),
      });
    }
    lines.push({ name: say`Height`, value: banded(state.heightCm, 'height'), assumed: !measured('height') });
    lines.push({
      name: say`Collar`,
      value: banded(state.diameterMm, 'diameter', 1),
      assumed: !measured('diameter'),
    });
    // What nobody measured is not called sturdy or thin.
    if (state.diameterMm.p50 > 0 && measured('height') && measured('diameter'))
      lines.push({
        name: say`Sturdiness`,
        value: `${Math.round((state.heightCm.p50 * 10) / state.diameterMm.p50)} : 1`,
      });
    if (state.shareToSize !== null)
      lines.push({
        name: say`At ${show(props.facts.targetHeightCm!, 'height')} or over`,
        value: percent(state.shareToSize),
      });
    lines.push({
      name: say`Spread between plants`,
      value: percent(plantCv(props.facts)),
      assumed: !props.facts.sizes.some((s) => s.what === 'height' && s.n > 1 && s.day <= state.day),
    });
  }
  lines.push({ name: say`Standing`, value: say`${count(tally.standing)} of ${count(tally.seeds)} sown` });
  return lines;
});
</script>

<template>
  <div>
    <dl class="text-[0.95rem]" data-testid="figures">
      <div v-for="row in rows" :key="row.name" class="border-rule flex justify-between gap-2 border-b py-1">
        <dt class="text-muted">{{ row.name }}</dt>
        <dd class="text-right" :class="row.assumed ? 'text-muted italic' : 'font-bold'">{{ row.value }}</dd>
      </div>
    </dl>
    <p v-if="rows.some((row) => row.assumed)" class="text-muted mt-1 text-sm italic" data-testid="assumed">
      {{ say`Slanting figures are its kind’s and the weather’s: nobody has measured them in this lot yet.` }}
    </p>
    <p v-if="apart" class="text-muted mt-1 text-sm" data-testid="measured-apart">{{ apart }}</p>
  </div>
</template>
