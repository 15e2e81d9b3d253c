<script setup lang="ts">
import { usePreferences } from '../../../stores/preferences';
import { dayOf, isoOf, type RunOut, say, usualSowing } from '@kauri/core';
import { watchDebounced } from '@vueuse/core';
import { ref } from 'vue';
import DateField from '../../../parts/DateField.vue';
import FormField from '../../../parts/FormField.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { typedNumber } from '../../../parts/typed';
import { useForecasts } from '../../../stores/forecasts';
import { useNursery } from '../../../stores/nursery';
import { useSeason } from '../../../stores/season';
import { longDate, yearOf } from '../../../words/dates';
import { percent } from '../../../words/numbers';

/** Which rating of controlled-release feed is used up by the end of a season, over the past weather years. */
const nursery = useNursery();
const season = useSeason();
const forecasts = useForecasts();

/** From next spring's potting to the end of its season. */
const feedFrom = ref('');
const feedUntil = ref('');
const start = usualSowing(nursery.catalogue!.nursery.latitudeDeg, season.today);
const year = yearOf(season.today);
feedFrom.value = isoOf(start);
feedUntil.value = isoOf(start + 165);
const warmer = ref('0');
const feeds = ref<{ choices: RunOut[]; best: number | null } | null>(null);
const feedFault = ref<string | null>(null);
const { show, typed, unit } = usePreferences();
watchDebounced(
  [feedFrom, feedUntil, warmer],
  async () => {
    feedFault.value = null;
    try {
      feeds.value = await forecasts.feed(
        dayOf(feedFrom.value),
        dayOf(feedUntil.value),
        typed(typedNumber(warmer.value) || 0, 'degrees'),
      );
    } catch (error) {
      feeds.value = null;
      feedFault.value = (error as Error).message;
    }
  },
  { debounce: 200, immediate: true },
);
</script>

<template>
  <section aria-labelledby="feed">
    <h2 id="feed" class="text-lg">{{ say`Which controlled-release feed` }}</h2>
    <div class="grid max-w-xl grid-cols-3 gap-2">
      <DateField v-model="feedFrom" :label="say`Mixed in on`" />
      <DateField v-model="feedUntil" :label="say`Wanted until`" />
      <FormField
        v-model="warmer"
        :label="say`Medium warmer by`"
        :unit="unit('degrees')"
        inputmode="decimal"
      />
    </div>
    <p v-if="feedFault" class="mt-1 font-bold" role="status">{{ feedFault }}</p>
    <template v-else-if="feeds">
      <p class="mt-2" data-testid="feed-choice">
        <b v-if="feeds.best">{{
          say`Take the ${feeds.best}-month rating: the longest that is not wasted here.`
        }}</b>
        <b v-else>{{ say`Even the shortest rating is not used up by then: take it, and less of it.` }}</b>
      </p>
      <table class="mt-1 text-[0.95rem]">
        <thead class="text-muted">
          <tr>
            <th scope="col" class="pr-5 text-left font-normal">
              {{ say`Rated at ${show(21, 'temperature', 0)}` }}
            </th>
            <th scope="col" class="pr-5 text-left font-normal">{{ say`Runs out` }}</th>
            <th scope="col" class="pr-5 text-left font-normal">
              {{ say`In an early and a late year of ten` }}
            </th>
            <th scope="col" class="text-right font-normal">{{ say`Unspent at the end` }}</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="c in feeds.choices"
            :key="c.ratedMonths"
            class="border-rule border-t"
            :class="c.ratedMonths === feeds.best ? 'font-bold' : ''"
          >
            <td class="pr-5">{{ say`${c.ratedMonths} months` }}</td>
            <td class="pr-5">{{ longDate(c.median, year) }}</td>
            <td class="pr-5">{{ say`${longDate(c.early, year)} to ${longDate(c.late, year)}` }}</td>
            <td class="text-right">{{ percent(c.unspentAtEnd) }}</td>
          </tr>
        </tbody>
      </table>
      <ShowWorking
        :steps="[
          {
            what: say`Run-out of each rating`,
            how: say`Every day counts 2^((mean − 21) ÷ 10) days at 21 °C; 80 % is released when they add up to the rated life, over each past weather year.`,
            result: feeds.best ? say`${feeds.best} months` : 'none',
            source: 'Rate doubling per 10 °C; first-order release, 80 % at the rated life',
          },
        ]"
      />
    </template>
  </section>
</template>
