<script setup lang="ts">
import { say, inSentence } from '@kauri/core';
import { useLocalStorage } from '@vueuse/core';
import { computed } from 'vue';
import FormField from '../../parts/FormField.vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import { typedNumber } from '../../parts/typed';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import BedMore from './BedMore.vue';
import BedPatches from './BedPatches.vue';
import BedFigures from './BedFigures.vue';
import BedSection from './BedSection.vue';
import { bedAnswers } from './bedAnswers';
import { DENSITY_KEY, USUAL_DENSITY } from './bedForm';
import type { ShownPlace } from './usePlaces';

const props = defineProps<{ shown: ShownPlace }>();
const nursery = useNursery();
const preferences = usePreferences();
const densityPerM2 = useLocalStorage(DENSITY_KEY, USUAL_DENSITY);
const typed = computed({
  get: () => String(Number(preferences.shown(densityPerM2.value, 'density').toFixed(1))),
  set: (text: string) => {
    const value = preferences.typed(typedNumber(text), 'density');
    if (value >= 1 && value <= 5000) densityPerM2.value = value;
  },
});
const bed = computed(() => (props.shown.place.place.kind === 'bed' ? props.shown.place.place : null));
const medium = computed(
  () => nursery.lookup.media.get(bed.value?.mediumId ?? '') ?? nursery.catalogue!.media[0],
);
const answers = computed(() =>
  bed.value ? bedAnswers(bed.value.design, medium.value.values, densityPerM2.value) : null,
);
</script>

<template>
  <section v-if="bed && answers" aria-labelledby="what-it-holds">
    <h2 id="what-it-holds" class="mb-2 text-lg">{{ say`What it holds` }}</h2>
    <div class="grid gap-5 lg:grid-cols-2">
      <div>
        <BedSection :design="bed.design" :geometry="answers.geometry" />
        <p class="text-muted mt-1">
          {{ say`Filled with ${inSentence(medium.values.name)}. ${medium.values.note}` }}
        </p>
        <FormField
          v-model="typed"
          class="mt-3 max-w-48"
          :label="say`Density asked about`"
          :unit="preferences.unit('density')"
          inputmode="decimal"
        />
      </div>
      <div>
        <BedFigures
          :answers="answers"
          :density="densityPerM2"
          :rim-mm="answers.geometry.frameHeightMm + bed.design.airGapMm"
        />
        <ShowWorking :steps="[...answers.working, ...shown.occupancy.working]" />
      </div>
    </div>
    <BedPatches
      class="mt-4"
      :place-id="shown.place.id"
      :length-mm="answers.geometry.insideLengthMm"
      :width-mm="answers.geometry.insideWidthMm"
    />
    <details class="mt-3">
      <summary class="quiet">{{ say`What carries it, life and cost, lid, pots instead` }}</summary>
      <BedMore
        class="mt-2"
        :design="bed.design"
        :medium="medium.values"
        :answers="answers"
        :density-per-m2="densityPerM2"
      />
    </details>
  </section>
</template>
