<script setup lang="ts">
import { batchIn, minutesFor, say } from '@kauri/core';
import { Droplets, Timer, TriangleAlert } from 'lucide-vue-next';
import { computed } from 'vue';
import { several } from '../../words/numbers';
import { useExposure } from './useExposure';
import { useExposureClock } from './useExposureClock';
import { useLiftRate } from './useLiftRate';

/** How long bare roots have been in the air: begun by one tap, ended by another. */
const props = defineProps<{ on: string }>();
const outSince = defineModel<number | null>({ required: true });
const stand = useExposure(() => props.on);
const rate = useLiftRate();
const minutes = computed(() => stand.value?.minutes ?? null);
const { exposure, uncover, cover } = useExposureClock(outSince, () => minutes.value);

const batch = computed(() => {
  if (minutes.value === null) return null;
  const each = (minutesFor(rate.value, 100) - minutesFor(rate.value, 0)) / 100;
  return each > 0 ? batchIn(minutes.value, each) : null;
});
const looks = {
  covered: { icon: Droplets, shape: 'border-muted border' },
  out: { icon: Timer, shape: 'border-ink border-2' },
  soon: { icon: TriangleAlert, shape: 'border-ink bg-tag text-tag-ink border-4 border-dashed' },
  over: { icon: TriangleAlert, shape: 'border-wrong text-wrong border-8' },
} as const;
const look = computed(() => looks[exposure.value.state]);
const words = computed(() => {
  const { state, minutes: out, left } = exposure.value;
  const gone = several(Math.floor(out), 'minute');
  if (state === 'covered' && minutes.value === null)
    return say`The air of that day is not known: no warning can be given.`;
  if (state === 'covered')
    return say`Bare fine roots stand ${stand.value!.isLong ? say`two hours or more` : say`some ${several(minutes.value!, 'minute')}`} in still shade, a rule of thumb for midday; sun and wind leave less.`;
  if (state === 'soon') return say`Cover them now: ${gone} in the air.`;
  if (state === 'over')
    return say`Past what fine roots stand: ${gone} in the air. Wet them, cover them, and look at their tips.`;
  return left === null
    ? say`${gone} in the air.`
    : say`${gone} in the air, about ${several(Math.ceil(left), 'minute')} left.`;
});
</script>

<template>
  <section
    class="flex items-center gap-3 rounded-md p-2.5"
    :class="look.shape"
    :aria-label="say`Roots in the air`"
    :data-state="exposure.state"
    data-testid="exposure-clock"
  >
    <component :is="look.icon" :size="28" class="shrink-0" aria-hidden="true" />
    <p class="min-w-0 flex-1 leading-snug" :role="exposure.state === 'over' ? 'alert' : 'status'">
      {{ words }}
      <template v-if="exposure.state === 'covered' && batch !== null">
        {{ say` At your pace some ${several(batch, 'tree')} a batch.` }}</template
      >
    </p>
    <button v-if="outSince === null" class="act min-h-14" type="button" @click="uncover">
      {{ say`Roots out` }}
    </button>
    <button v-else class="act-main min-h-14" type="button" @click="cover">{{ say`Covered` }}</button>
  </section>
</template>
