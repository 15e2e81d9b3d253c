<script setup lang="ts">
import { say } from '@kauri/core';
import { useSessionStorage } from '@vueuse/core';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import { useNursery } from '../../../stores/nursery';
import { useSeed } from '../../../stores/seed';
import { dateWords } from '../../../words/dates';
import { findLot } from './findLot';
import { keptKey } from '../../../stores/kept';

const nursery = useNursery();
const seed = useSeed();
const lost = useSessionStorage(keptKey('lostlabel'), { placeId: '', month: '', leaf: '' });
const places = computed(() => [
  { value: '', words: say`Not sure` },
  ...nursery.catalogue!.places.map((p) => ({ value: p.id, words: p.place.name })),
]);
const asked = computed(
  () => lost.value.placeId !== '' || lost.value.month !== '' || lost.value.leaf.trim() !== '',
);
const found = computed(() =>
  asked.value
    ? findLot(lost.value, nursery.lots.values(), (lot) => seed.startFor(lot.speciesId).leafWords)
    : [],
);
</script>

<template>
  <section class="panel h-fit space-y-3 p-4" aria-labelledby="lost">
    <h2 id="lost" class="text-lg">{{ say`A label is lost` }}</h2>
    <SelectField v-model="lost.placeId" :label="say`Where it stands`" :options="places" />
    <FormField v-model="lost.month" :label="say`Sown about`" type="month" />
    <FormField
      v-model="lost.leaf"
      :label="say`Its leaf`"
      :hint="say`opposite, lobed, feathered, needles, thorn …`"
    />
    <ul v-if="found.length" class="divide-rule divide-y" data-testid="candidates">
      <li v-for="c in found" :key="c.lot.id" class="py-1">
        <RouterLink class="quiet font-bold" :to="{ name: 'grow', params: { lot: c.lot.id } }">{{
          c.lot.code
        }}</RouterLink>
        {{ seed.speciesOf(c.lot.speciesId).common }}, {{ dateWords(c.lot.sownOn) }}
        <span class="text-muted block text-sm">{{
          say`${seed.startFor(c.lot.speciesId).leafWords}. Fits: ${c.reasons.join('; ') || say`a little`}`
        }}</span>
      </li>
    </ul>
    <p v-else class="text-muted">
      {{
        asked
          ? say`No lot fits that. Leave something blank.`
          : say`Say what you know; the likeliest lots come up.`
      }}
    </p>
  </section>
</template>
