<script setup lang="ts">
import { say } from '@kauri/core';
import { computed } from 'vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { usePreferences } from '../../../stores/preferences';
import { percent, several } from '../../../words/numbers';
import { flowOf, type WateredPlace } from './wateredPlace';

/** What the drip on a place does, what it holds, and what rain alone would do. */
defineProps<{ watered: WateredPlace }>();
const preferences = usePreferences();
const { show } = preferences;
/** Millimetres are whole ones, inches hundredths. */
const depthDigits = computed(() => (preferences.units === 'metric' ? 0 : 2));
const lineBad = (x: WateredPlace) => x.line.emissionUniformityPct < 85;
</script>

<template>
  <section aria-labelledby="drip-figures">
    <h2 id="drip-figures" class="text-lg">{{ say`What it does` }}</h2>
    <dl class="text-[0.95rem]" data-testid="drip-figures">
      <div class="border-rule flex justify-between border-b py-1">
        <dt class="text-muted">{{ say`Flow of the bed` }}</dt>
        <dd class="text-right">
          <b>{{ show(flowOf(watered), 'flow') }}</b>
        </dd>
      </div>
      <div class="border-rule flex justify-between border-b py-1">
        <dt class="text-muted">{{ say`Application rate` }}</dt>
        <dd>
          <b>{{ show(watered.bucket.applicationMmPerH, 'rainRate') }}</b>
        </dd>
      </div>
      <div class="border-rule flex justify-between border-b py-1">
        <dt class="text-muted">{{ say`Evenness along a line (EU)` }}</dt>
        <dd class="text-right">
          <b>{{ watered.line.emissionUniformityPct.toFixed(0) }} %</b>
          <span class="block">{{
            lineBad(watered) ? say`⚠ under 85 %: shorter lines or a wider pipe` : say`even`
          }}</span>
        </dd>
      </div>
      <div class="border-rule flex justify-between border-b py-1">
        <dt class="text-muted">{{ say`Longest line that stays even` }}</dt>
        <dd class="text-right">
          <b>{{ show((watered.longest * watered.drip.emitterSpacingMm) / 1000, 'site') }}</b>
          <span class="block">{{ several(watered.longest, 'emitter') }}</span>
        </dd>
      </div>
      <div class="border-rule flex justify-between border-b py-1">
        <dt class="text-muted">{{ say`Water held for plants` }}</dt>
        <dd>
          <b>{{ show(watered.heldMm, 'rain', depthDigits) }}</b>
        </dd>
      </div>
      <div class="border-rule flex justify-between border-b py-1">
        <dt class="text-muted">{{ say`Run that fills it at dry-down` }}</dt>
        <dd>
          <b>{{ watered.runMinutes.toFixed(0) }} min</b>
        </dd>
      </div>
      <div v-if="watered.plan" class="border-rule flex justify-between border-b py-1">
        <dt class="text-muted">{{ say`On rain alone, next 28 weeks` }}</dt>
        <dd class="text-right">
          <b>{{ say`enough in ${percent(watered.plan.rainOnlyShare)} of years` }}</b>
          <span class="block">{{ say`wholly dry in ${percent(watered.plan.rainOnlyDries)}` }}</span>
        </dd>
      </div>
      <div class="border-rule flex justify-between border-b py-1">
        <dt class="text-muted">{{ say`Parts` }}</dt>
        <dd class="text-right">
          {{
            say`${show(watered.parts.lineM, 'site')} of line, ${show(watered.parts.manifoldM, 'site')} of manifold, ${several(watered.parts.emitters, 'emitter')}, ${several(watered.parts.connectors, 'connector')}, ${several(watered.parts.endPlugs, 'end plug')}`
          }}
        </dd>
      </div>
    </dl>
    <ShowWorking :steps="watered.working" />
  </section>
</template>
