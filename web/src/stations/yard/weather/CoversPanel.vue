<script setup lang="ts">
import { coverKinds, startingCovers, type CoverKind, say } from '@kauri/core';
import type { Climate } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { computed, reactive, ref } from 'vue';
import { sentenceOf } from '../../../api/problem';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import { typedNumber } from '../../../parts/typed';
import { useMessages } from '../../../stores/messages';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSession } from '../../../stores/session';
import { useStations } from '../../../stores/stations';
import { several } from '../../../words/numbers';
import { coverKindWords } from '../../../words/weather';

/** What stands over places, and how much warmer days and nights are under it. */
const nursery = useNursery();
const store = useStations();
const session = useSession();
const messages = useMessages();
const preferences = usePreferences();
const climate = computed(() => nursery.climate!.climate);
const fault = ref<string | null>(null);
const adding = reactive({ open: false, name: '', kind: 'tunnel' as CoverKind });
/** Differences of temperature have no zero to shift. */
const perDegree = computed(() => (preferences.units === 'metric' ? 1 : 1.8));
const signed = (c: number) =>
  `${c >= 0 ? '+' : '−'}${Math.abs(c * perDegree.value).toFixed(1)} ${preferences.units === 'metric' ? '°C' : '°F'}`;

async function keep(next: Climate, said: string) {
  fault.value = null;
  const before = climate.value;
  try {
    await store.setClimate(next);
    messages.say(said, () => store.setClimate(before));
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
const add = () => {
  const cover = {
    id: newId(),
    name: adding.name,
    kind: adding.kind,
    ...startingCovers[adding.kind],
    fitted: null,
  };
  void keep({ ...climate.value, covers: [...climate.value.covers, cover] }, say`${adding.name} added.`).then(
    () => {
      if (!fault.value) Object.assign(adding, { open: false, name: '' });
    },
  );
};
const loggerUnder = (coverId: string) => store.stations?.find((s) => s.coverId === coverId);
async function fit(coverId: string) {
  const logger = loggerUnder(coverId)!;
  try {
    const { lowC, highC, lowSd, highSd, days } = await store.fit(logger.id);
    const fitted = { stationId: logger.id, days, lowSd, highSd };
    const round = (c: number) => Math.round(c * 100) / 100;
    const covers = climate.value.covers.map((c) =>
      c.id === coverId ? { ...c, lowC: round(lowC), highC: round(highC), fitted } : c,
    );
    await keep(
      { ...climate.value, covers },
      say`Fitted from ${several(days, 'day')}: nights ${signed(lowC)}, days ${signed(highC)}.`,
    );
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
function change(coverId: string, what: 'lowC' | 'highC', text: string) {
  const value = typedNumber(text) / perDegree.value;
  if (!Number.isFinite(value)) {
    fault.value = say`“${text}” is not a number of degrees. The figure stays as it was.`;
    return;
  }
  const covers = climate.value.covers.map((c) =>
    c.id === coverId ? { ...c, [what]: value, fitted: null } : c,
  );
  void keep({ ...climate.value, covers }, say`Cover changed.`);
}
const coversOver = computed(() => [
  { value: '', words: say`In the open` },
  ...climate.value.covers.map((cover) => ({ value: cover.id, words: cover.name })),
]);
const under = (placeId: string) => climate.value.places.find((p) => p.placeId === placeId)?.coverId ?? '';
function put(placeId: string, coverId: string) {
  const others = climate.value.places.filter((p) => p.placeId !== placeId);
  const places = coverId ? [...others, { placeId, coverId }] : others;
  const name = nursery.lookup.places.get(placeId)!.place.name;
  const cover = climate.value.covers.find((c) => c.id === coverId);
  void keep(
    { ...climate.value, places },
    cover ? say`${name} stands under ${cover.name}.` : say`${name} stands in the open.`,
  );
}
const kinds = coverKinds.map((value) => ({ value, words: coverKindWords[value] }));
const places = computed(() => nursery.catalogue!.places);
const may = computed(() => session.may('grower'));
</script>

<template>
  <section aria-labelledby="covers">
    <h2 id="covers" class="text-lg">{{ say`Covers` }}</h2>
    <p class="text-muted mb-2">
      {{
        say`Forecasts of what stands under a cover use its days and nights. A logger under it replaces the starting figures with measured ones.`
      }}
    </p>
    <ul class="divide-rule divide-y" data-testid="covers">
      <li v-for="cover in climate.covers" :key="cover.id" class="py-2">
        <p class="flex flex-wrap items-center gap-x-3">
          <b>{{ cover.name }}</b>
          <span>{{ say`nights ${signed(cover.lowC)}, days ${signed(cover.highC)}` }}</span>
          <button v-if="may && loggerUnder(cover.id)" class="quiet" type="button" @click="fit(cover.id)">
            {{ say`Fit from ${loggerUnder(cover.id)!.name}` }}
          </button>
        </p>
        <p class="text-muted text-sm">
          <template v-if="cover.fitted">{{
            say`Fitted from ${several(cover.fitted.days, 'day')}; single nights spread ${(cover.fitted.lowSd * perDegree).toFixed(1)}°, days ${(cover.fitted.highSd * perDegree).toFixed(1)}°.`
          }}</template>
          <template v-else>{{ say`Starting figures; hang a logger under it for a fortnight.` }}</template>
        </p>
        <div v-if="may" class="mt-1 flex flex-wrap gap-2">
          <label
            v-for="what in ['lowC', 'highC'] as const"
            :key="what"
            class="flex items-center gap-2 text-sm"
          >
            {{ what === 'lowC' ? say`Nights` : say`Days` }}
            <input
              class="field w-20"
              inputmode="decimal"
              :value="(cover[what] * perDegree).toFixed(1)"
              @change="change(cover.id, what, ($event.target as HTMLInputElement).value)"
            />
          </label>
        </div>
      </li>
    </ul>
    <p v-if="fault" class="text-wrong my-2 font-bold" role="alert">{{ fault }}</p>
    <button v-if="may" class="act" type="button" @click="adding.open = !adding.open">
      {{ say`Add a cover` }}
    </button>
    <form v-if="adding.open" class="panel mt-2 space-y-3 p-3" novalidate @submit.prevent="add">
      <FormField v-model="adding.name" :label="say`Its name`" />
      <SelectField v-model="adding.kind" :label="say`Kind`" :options="kinds" />
      <button class="act-main" type="submit">{{ say`Add it` }}</button>
    </form>
    <details v-if="climate.covers.length" class="mt-2">
      <summary class="quiet">{{ say`What stands under them` }}</summary>
      <ul class="mt-1 space-y-1">
        <li v-for="{ id, place } in places" :key="id" class="flex flex-wrap items-center gap-2">
          <span class="w-44 truncate">{{ place.name }}</span>
          <SelectField
            class="min-w-44"
            label-hidden
            :label="say`Cover over ${place.name}`"
            :model-value="under(id)"
            :disabled="!may"
            :options="coversOver"
            @update:model-value="(cover: string) => put(id, cover)"
          />
        </li>
      </ul>
    </details>
  </section>
</template>
