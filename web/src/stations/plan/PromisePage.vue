<script setup lang="ts">
import {
  addYears,
  answerAsk,
  dayOf,
  firstsOfMonths,
  isoOf,
  mightServe,
  treeForms,
  type PromiseAnswer,
  say,
} from '@kauri/core';
import { watchDebounced } from '@vueuse/core';
import { computed, ref, shallowRef } from 'vue';
import { RouterLink } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import IdeaHelp from '../../help/IdeaHelp.vue';
import DateField from '../../parts/DateField.vue';
import FormField from '../../parts/FormField.vue';
import PlantTag from '../../parts/PlantTag.vue';
import SelectField from '../../parts/SelectField.vue';
import { useForecasts } from '../../stores/forecasts';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { useParcels } from '../../stores/parcels';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { dateWords, shortDate, yearOf } from '../../words/dates';
import { count, odds, several } from '../../words/numbers';
import { formWords, sizeWords } from './orderWords';
import { useTreesAsked } from './useTreesAsked';

/** What can still be promised of a species, size and form on a day, with the lots behind it. */
const nursery = useNursery();
const orders = useOrders();
const forecasts = useForecasts();
const parcels = useParcels();
const season = useSeason();
const { shown, unit } = usePreferences();

const { asked, sizes } = useTreesAsked('promise', { form: 'bare-root', on: '' });
if (!asked.value.on) asked.value.on = isoOf(season.today);
const ask = computed(() => {
  const { speciesId, form, on } = asked.value;
  if (!/^\d{4}-\d{2}-\d{2}$/.test(on)) return { fault: say`Say for which day.` };
  if (dayOf(on) < season.today) return { fault: say`That day has gone by: ask for today or later.` };
  if (dayOf(on) > addYears(season.today, 3)) return { fault: say`Kauri looks three years ahead at most.` };
  const { fault, ...size } = sizes.value;
  return fault === null ? { fault, value: { speciesId, form, ...size, on: dayOf(on) } } : { fault };
});
/** The day asked about, then the firsts of the coming months. */
const days = computed(() => firstsOfMonths(season.today, 12));
const answer = shallowRef<PromiseAnswer | null>(null);
const along = shallowRef<readonly { day: number; free: number | null }[]>([]);
const fault = ref<string | null>(null);
let asking = 0;
watchDebounced(
  [ask, () => orders.all, () => nursery.facts, () => nursery.weatherVersion],
  async () => {
    const mine = ++asking;
    fault.value = null;
    const of = ask.value.value;
    if (!of) {
      answer.value = null;
      along.value = [];
      return;
    }
    try {
      const { on, ...what } = of;
      const [now] = await forecasts.promisable(what, [on]);
      if (mine !== asking) return;
      answer.value = answerAsk(now, parcels.wanted(), of);
      const later = await forecasts.promisable(what, days.value);
      if (mine !== asking) return;
      along.value = days.value.map((day, i) => ({
        day,
        free: answerAsk(later[i], parcels.wanted(), { ...what, on: day }).free,
      }));
    } catch (error) {
      if (mine === asking) fault.value = sentenceOf(error);
    }
  },
  { debounce: 150, immediate: true },
);
const species = computed(() => nursery.lookup.species.get(asked.value.speciesId)!);
const words = computed(() => {
  const of = ask.value.value;
  if (!answer.value || !of) return null;
  const { free, from, promised, short } = answer.value;
  const what = `${species.value.common}, ${sizeWords(of, (cm) => shown(cm, 'height'), unit('height'))}, ${formWords[of.form]}`;
  if (free === null)
    return {
      headline: say`Nothing: what is promised already cannot all be met`,
      detail: say`${what}: ${several(short, 'tree')} of ${count(promised)} promised are not there, nine chances in ten.`,
      urgent: true,
    };
  return {
    headline:
      free > 0
        ? say`${several(free, 'tree')} can still be promised`
        : say`Nothing can be promised for that day`,
    detail: say`${what}, on ${dateWords(isoOf(of.on))}, size and plugs each nine chances in ten${from.length ? say`, from ${several(from.length, 'lot')}` : ''}${promised ? say`; ${count(promised)} promised before are kept` : ''}.`,
    urgent: false,
  };
});
const most = computed(() => Math.max(1, ...along.value.map(({ free }) => free ?? 0)));
const year = computed(() => yearOf(season.today));
const speciesOptions = computed(() =>
  nursery.catalogue!.species.map((s) => ({ value: s.id, words: s.common })),
);
const formOptions = treeForms.map((value) => ({ value, words: formWords[value] }));
</script>

<template>
  <div class="grid min-h-full lg:grid-cols-[22rem_1fr]">
    <div class="border-rule space-y-3 p-4 lg:border-r">
      <h2 class="text-lg">{{ say`Asked for` }}</h2>
      <SelectField v-model="asked.speciesId" :label="say`Species`" :options="speciesOptions" />
      <SelectField v-model="asked.form" :label="say`Form`" :options="formOptions" />
      <div class="grid grid-cols-2 gap-3">
        <FormField v-model="asked.from" :label="say`Size from`" :unit="unit('height')" inputmode="decimal" />
        <FormField v-model="asked.to" :label="say`Size to`" :unit="unit('height')" inputmode="decimal" />
      </div>
      <DateField v-model="asked.on" :label="say`On`" />
      <p class="text-muted text-sm">
        {{
          say`A lot serves only while its plugs hold and are not yet bound, or within its lifting window. Each promise keeps its own trees.`
        }}
      </p>
    </div>
    <div class="space-y-5 p-4 md:p-5">
      <div class="flex items-center gap-1">
        <h1 class="text-2xl">{{ say`Free to promise` }}</h1>
        <IdeaHelp idea="promise" />
      </div>
      <p v-if="ask.fault ?? fault" class="font-bold" role="status">{{ ask.fault ?? fault }}</p>
      <PlantTag v-if="words" v-bind="words" />
      <p v-else-if="!ask.fault && !fault" class="text-muted" role="status">{{ say`Asking the lots …` }}</p>
      <template v-if="answer && !ask.fault">
        <section v-if="answer.from.length" aria-labelledby="from-lots">
          <h2 id="from-lots" class="text-lg">{{ say`From` }}</h2>
          <table class="w-full max-w-3xl text-[0.95rem]" data-testid="from-lots">
            <thead class="text-muted">
              <tr>
                <th scope="col" class="text-left font-normal">{{ say`Lot` }}</th>
                <th scope="col" class="text-right font-normal">{{ say`Of it` }}</th>
                <th scope="col" class="text-right font-normal">{{ say`To size, sure` }}</th>
                <th scope="col" class="text-right font-normal">{{ say`likely` }}</th>
                <th scope="col" class="text-right font-normal">{{ say`Standing` }}</th>
                <th scope="col" class="pl-4 text-left font-normal">{{ say`Can leave` }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="{ lot, count: n } in answer.from" :key="lot.id" class="border-rule border-t">
                <th scope="row" class="py-1 text-left">
                  <RouterLink class="quiet" :to="{ name: 'grow', params: { lot: lot.lotId ?? lot.id } }">{{
                    lot.code
                  }}</RouterLink>
                </th>
                <td class="text-right font-bold">{{ count(n) }}</td>
                <td class="text-right">{{ count(lot.count) }}</td>
                <td class="text-right">{{ count(lot.likely) }}</td>
                <td class="text-right">{{ count(lot.standing) }}</td>
                <td class="pl-4">{{ say`${shortDate(lot.from, year)} to ${shortDate(lot.until, year)}` }}</td>
              </tr>
            </tbody>
          </table>
        </section>
        <section v-if="answer.others.length" aria-labelledby="other-lots">
          <h2 id="other-lots" class="text-lg">{{ say`Not for that day` }}</h2>
          <ul class="text-[0.95rem]" data-testid="other-lots">
            <li v-for="lot in answer.others" :key="lot.id" class="border-rule border-t py-1">
              <RouterLink
                class="quiet font-bold"
                :to="{ name: 'grow', params: { lot: lot.lotId ?? lot.id } }"
                >{{ lot.code }}</RouterLink
              >
              {{ say`about ${count(lot.likely)} to size,` }}
              <template v-if="lot.sure">
                <template v-if="lot.until < season.today">
                  {{ say` its window closed ${shortDate(lot.until, year)}: judge its roots ` }}
                </template>
                <template v-else>
                  {{ say`${shortDate(lot.from, year)} to ${shortDate(lot.until, year)}`
                  }}<template v-if="lot.from <= ask.value!.on && ask.value!.on <= lot.until">{{
                    say`: all promised`
                  }}</template>
                </template>
              </template>
              <template v-else-if="!mightServe(lot)">{{
                say`whose plugs hold too seldom that day`
              }}</template>
              <template v-else>
                {{
                  say` whose plugs hold in ${odds(lot.holds)} forecasts that day: not sure enough to promise; plugs pulled would tell `
                }}
              </template>
            </li>
          </ul>
        </section>
        <section v-if="along.length" aria-labelledby="along">
          <h2 id="along" class="text-lg">{{ say`Through the year, at each first of the month` }}</h2>
          <ol class="flex max-w-3xl items-end gap-1" data-testid="along">
            <li v-for="{ day, free } in along" :key="day" class="flex-1 text-center text-sm">
              <span class="block font-bold">{{ free === null ? '–' : count(free) }}</span>
              <span class="flex h-16 items-end" aria-hidden="true">
                <span
                  class="bg-leaf block w-full rounded-t-sm"
                  :style="{ height: `${(100 * (free ?? 0)) / most}%` }"
                />
              </span>
              <span class="border-rule text-muted block border-t">{{ shortDate(day).slice(2) }}</span>
            </li>
          </ol>
          <p v-if="along.some(({ free }) => free === null)" class="text-muted text-sm">
            {{ say`–: what is promised already cannot all be met.` }}
          </p>
        </section>
      </template>
    </div>
  </div>
</template>
