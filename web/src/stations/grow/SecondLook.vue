<script setup lang="ts">
import { disagreement, isoOf, type Disagreement, type Foretold, say } from '@kauri/core';
import { watchDebounced } from '@vueuse/core';
import { shallowRef } from 'vue';
import type { ShownLot } from '../../parts/useLots';
import { useForecasts } from '../../stores/forecasts';
import { usePreferences } from '../../stores/preferences';
import { dateWords } from '../../words/dates';

/** Said where what was measured and what was forecast disagree twice running, with what to check. */
const props = defineProps<{ lot: ShownLot }>();
const forecasts = useForecasts();
const { show } = usePreferences();
const found = shallowRef<Disagreement | null>(null);
watchDebounced(
  () => props.lot.facts,
  async (facts, before) => {
    if (facts.id !== before?.id) found.value = null;
    // Two measurements at the least, or there is nothing to disagree twice.
    const answer =
      facts.sizes.length + facts.pulls.length < 3 ? null : disagreement(await forecasts.heldOf(facts.id));
    if (facts.id === props.lot.facts.id) found.value = answer;
  },
  { immediate: true, debounce: 400 },
);
const words: Record<Foretold, string> = { height: say`Height`, diameter: say`Collar`, fill: say`Root fill` };
const figure = (what: Foretold, value: number) =>
  what === 'fill' ? value.toFixed(2) : show(value, what, what === 'diameter' ? 1 : 0);
</script>

<template>
  <div v-if="found" class="border-ink mt-3 max-w-3xl border-l-4 pl-3" role="status" data-testid="second-look">
    <p>
      <b>{{ say`Worth a second look.` }}</b>
      {{ say`${words[found.what]} was ${found.above ? say`more` : say`less`} than forecast twice running:` }}
      <template v-for="(h, i) in found.last" :key="h.on">{{
        say`${i ? ', ' : ''}${figure(found.what, h.seen)} on ${dateWords(isoOf(h.on))} where ${figure(found.what, h.low)} to ${figure(found.what, h.high)} was forecast`
      }}</template>.
    </p>
    <p>
      {{
        say`Check the label, that it stands where it is written down, that the weather is this yard’s, and the species’ values; draw plants by the sample plan, not by eye.`
      }}
    </p>
  </div>
</template>
