<script setup lang="ts">
import { addYears, batchFor, dayFrom, isoOf, partsOf, type RunOut } from '@kauri/core';
import { useSessionStorage, watchDebounced } from '@vueuse/core';
import { computed, reactive, ref } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { call } from '../../../api/client';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { typedNumber } from '../../../parts/typed';
import { useSaving } from '../../../parts/useSaving';
import { useForecasts } from '../../../stores/forecasts';
import { useMessages } from '../../../stores/messages';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSeason } from '../../../stores/season';
import { useSession } from '../../../stores/session';
import { useYard } from '../../../stores/yard';
import { dateWords, longDate } from '../../../words/dates';
import { percent } from '../../../words/numbers';
import { money } from '../money';
import MediumDialog from './MediumDialog.vue';
import { keptKey } from '../../../stores/kept';

const nursery = useNursery();
const session = useSession();
const season = useSeason();
const yard = useYard();
const forecasts = useForecasts();
const messages = useMessages();
const route = useRoute();
const router = useRouter();
const { show, typed, unit } = usePreferences();
const may = computed(() => session.may('grower'));
const media = computed(() => nursery.catalogue!.media);
const currency = computed(() => nursery.catalogue!.prices.list.currency);
const lies = (id: string) => yard.stock.filter((s) => s.mediumId === id).reduce((t, s) => t + s.litres, 0);

const chosenId = useSessionStorage(keptKey('media.chosen'), '');
const chosen = computed(() => media.value.find((m) => m.id === chosenId.value) ?? media.value[0]);
const batch = useSessionStorage(keptKey('batch'), {
  litres: '200',
  bag: '40',
  barrow: '80',
  feed: '3',
  inoculum: '0',
});
const volume = (text: string) => typed(typedNumber(text), 'volume');
const mixed = computed(() => {
  const parts = chosen.value.values.parts;
  if (!parts?.length)
    return { fault: 'This medium has no recipe yet: edit it to say what it is mixed from.' };
  try {
    return {
      fault: null,
      ...batchFor({
        litres: volume(batch.value.litres),
        parts,
        bagL: volume(batch.value.bag),
        barrowL: volume(batch.value.barrow),
        feedGPerL: typedNumber(batch.value.feed),
        inoculumMlPerL: typedNumber(batch.value.inoculum),
      }),
    };
  } catch (error) {
    return { fault: (error as Error).message };
  }
});

const reasons = [
  { value: 'bought', words: 'Bought' },
  { value: 'mixed', words: 'Mixed here' },
  { value: 'spent', words: 'Spent medium brought back' },
  { value: 'filled', words: 'Filled into beds or pots' },
  { value: 'thrown-out', words: 'Thrown out' },
  { value: 'counted', words: 'Counted: correct the heap' },
] as const;
const stock = reactive({ litres: '', why: 'bought' as (typeof reasons)[number]['value'], note: '' });
const { busy, save, sentence } = useSaving('stock');
async function move() {
  const litres = volume(stock.litres);
  const out = stock.why === 'filled' || stock.why === 'thrown-out';
  const amount = stock.why === 'counted' ? litres - lies(chosen.value.id) : out ? -litres : litres;
  const body = { day: season.todayIso, litres: amount, why: stock.why, note: stock.note };
  const kept = await save({ ...body, mediumId: chosen.value.id }, (id) =>
    call('moveStock', { params: { ...nursery.params, medium: chosen.value.id }, body: { id, ...body } }),
  );
  if (!kept) return;
  yard.stock = [...yard.stock, kept];
  stock.litres = '';
  stock.note = '';
  messages.say('Heap kept.');
}
const history = computed(() =>
  yard.stock
    .filter((s) => s.mediumId === chosen.value.id)
    .slice(-6)
    .reverse(),
);
const whyWords = Object.fromEntries(reasons.map((r) => [r.value, r.words]));

/** From next spring's potting to the end of its season. */
const feedFrom = ref('');
const feedUntil = ref('');
const north = nursery.catalogue!.nursery.latitudeDeg >= 0;
const { year } = partsOf(season.today);
let start = dayFrom(year, north ? 4 : 10, 1);
if (start < season.today) start = addYears(start, 1);
feedFrom.value = isoOf(start);
feedUntil.value = isoOf(start + 165);
const warmer = ref('0');
const feeds = ref<{ choices: RunOut[]; best: number | null } | null>(null);
const feedFault = ref<string | null>(null);
const dayNumber = (iso: string) => Math.round(Date.parse(`${iso}T00:00:00Z`) / 86_400_000);
watchDebounced(
  [feedFrom, feedUntil, warmer],
  async () => {
    feedFault.value = null;
    try {
      feeds.value = await forecasts.feed(
        dayNumber(feedFrom.value),
        dayNumber(feedUntil.value),
        typedNumber(warmer.value) || 0,
      );
    } catch (error) {
      feeds.value = null;
      feedFault.value = (error as Error).message;
    }
  },
  { debounce: 200, immediate: true },
);
const editing = computed(() => media.value.find((m) => m.id === route.query.edit));
const close = () => void router.replace({ query: {} });
</script>

<template>
  <div class="grid min-h-full lg:grid-cols-[24rem_1fr]">
    <div class="border-rule p-4 lg:border-r">
      <div class="mb-1 flex items-center justify-between">
        <h2 class="text-lg">Media</h2>
        <RouterLink v-if="may" class="act" :to="{ query: { add: '1' } }">Add a recipe</RouterLink>
      </div>
      <ul class="divide-rule divide-y" data-testid="media">
        <li v-for="m in media" :key="m.id">
          <button
            class="block w-full py-2 text-left"
            type="button"
            :aria-current="m.id === chosen.id ? 'true' : undefined"
            @click="chosenId = m.id"
          >
            <span class="flex justify-between gap-2">
              <span :class="m.id === chosen.id ? 'font-bold' : ''">{{ m.values.name }}</span>
              <b>{{ show(lies(m.id), 'volume') }}</b>
            </span>
            <span class="text-muted block text-sm">
              {{ m.values.wetKgPerM3.toFixed(0) }} kg/m³ watered, air {{ percent(m.values.airShare) }},
              settles {{ percent(m.values.settling)
              }}<template v-if="m.values.ph">, pH {{ m.values.ph }}</template
              ><template v-if="m.values.costPerM3 !== undefined"
                >, {{ money(m.values.costPerM3, currency) }}/m³</template
              >
            </span>
          </button>
        </li>
      </ul>
    </div>
    <div class="space-y-5 p-4">
      <div class="flex flex-wrap items-baseline gap-3">
        <h1 class="text-2xl">{{ chosen.values.name }}</h1>
        <RouterLink v-if="may" class="quiet" :to="{ query: { edit: chosen.id } }">Recipe</RouterLink>
      </div>
      <p v-if="chosen.values.parts">
        {{ chosen.values.parts.map((p) => `${p.parts} ${p.material}`).join(' : ') }}, by volume.
        {{ chosen.values.note }}
      </p>
      <div class="grid gap-5 xl:grid-cols-2">
        <section aria-labelledby="batch">
          <h2 id="batch" class="text-lg">Mix a batch</h2>
          <div class="grid grid-cols-3 gap-2">
            <FormField v-model="batch.litres" label="Wanted" :unit="unit('volume')" inputmode="decimal" />
            <FormField v-model="batch.bag" label="Bag" :unit="unit('volume')" inputmode="decimal" />
            <FormField v-model="batch.barrow" label="Barrow" :unit="unit('volume')" inputmode="decimal" />
            <FormField v-model="batch.feed" label="Feed" unit="g/L" inputmode="decimal" />
            <FormField v-model="batch.inoculum" label="Inoculum" unit="mL/L" inputmode="decimal" />
          </div>
          <p v-if="mixed.fault" class="mt-1 font-bold" role="status">{{ mixed.fault }}</p>
          <template v-else-if="'value' in mixed && mixed.value">
            <table class="mt-2 w-full text-[0.95rem]" data-testid="batch">
              <tbody>
                <tr v-for="p in mixed.value.parts" :key="p.material" class="border-rule border-b">
                  <th scope="row" class="py-1 text-left font-normal">{{ p.material }}</th>
                  <td class="text-right font-bold">{{ show(p.litres, 'volume') }}</td>
                  <td class="text-right">{{ p.bags }} {{ p.bags === 1 ? 'bag' : 'bags' }}</td>
                  <td class="text-right">{{ p.barrows.toFixed(1) }} barrows</td>
                </tr>
              </tbody>
            </table>
            <p class="mt-1">
              Feed <b>{{ mixed.value.feedG.toFixed(0) }} g</b
              ><template v-if="mixed.value.inoculumMl > 0"
                >, inoculum <b>{{ mixed.value.inoculumMl.toFixed(0) }} mL</b></template
              >; costs {{ money(mixed.value.cost, currency) }}.
            </p>
            <p class="border-ink text-muted mt-1 border-l-4 pl-3 text-sm">
              Damp the mix before turning it: dust, moulds and Legionella. Mask and gloves with feed; wash
              hands.
            </p>
            <ShowWorking :steps="mixed.working" />
          </template>
        </section>
        <section aria-labelledby="heap">
          <h2 id="heap" class="text-lg">On hand: {{ show(lies(chosen.id), 'volume') }}</h2>
          <form v-if="session.may('crew')" class="grid grid-cols-2 gap-2" novalidate @submit.prevent="move">
            <SelectField v-model="stock.why" label="What happened" :options="reasons" />
            <FormField
              v-model="stock.litres"
              :label="stock.why === 'counted' ? 'Lies there' : 'How much'"
              :unit="unit('volume')"
              inputmode="decimal"
            />
            <FormField v-model="stock.note" class="col-span-2" label="Note" />
            <SheetActs class="col-span-2" act="Record" :busy="busy" :sentence="sentence()" @save="move" />
          </form>
          <ul v-if="history.length" class="mt-2 text-[0.95rem]">
            <li v-for="h in history" :key="h.id" class="border-rule flex justify-between gap-2 border-b py-1">
              <span
                >{{ dateWords(h.day) }}: {{ whyWords[h.why]
                }}<template v-if="h.note">, {{ h.note }}</template></span
              >
              <span class="whitespace-nowrap"
                >{{ h.litres > 0 ? '+' : '−' }}{{ show(Math.abs(h.litres), 'volume') }}</span
              >
            </li>
          </ul>
          <p class="text-muted mt-1 text-sm">
            Spent medium goes back to beds only from lots without root disease.
          </p>
        </section>
      </div>
      <section aria-labelledby="feed">
        <h2 id="feed" class="text-lg">Which controlled-release feed</h2>
        <div class="grid max-w-xl grid-cols-3 gap-2">
          <FormField v-model="feedFrom" label="Mixed in on" type="date" />
          <FormField v-model="feedUntil" label="Wanted until" type="date" />
          <FormField v-model="warmer" label="Medium warmer by" unit="°C" inputmode="decimal" />
        </div>
        <p v-if="feedFault" class="mt-1 font-bold" role="status">{{ feedFault }}</p>
        <template v-else-if="feeds">
          <p class="mt-2" data-testid="feed-choice">
            <b v-if="feeds.best"
              >Take the {{ feeds.best }}-month rating: the longest that is not wasted here.</b
            >
            <b v-else>Even the shortest rating is not used up by then: take it, and less of it.</b>
          </p>
          <table class="mt-1 text-[0.95rem]">
            <thead class="text-muted">
              <tr>
                <th scope="col" class="pr-5 text-left font-normal">Rated at 21 °C</th>
                <th scope="col" class="pr-5 text-left font-normal">Runs out</th>
                <th scope="col" class="pr-5 text-left font-normal">In an early and a late year of ten</th>
                <th scope="col" class="text-right font-normal">Unspent at the end</th>
              </tr>
            </thead>
            <tbody>
              <tr
                v-for="c in feeds.choices"
                :key="c.ratedMonths"
                class="border-rule border-t"
                :class="c.ratedMonths === feeds.best ? 'font-bold' : ''"
              >
                <td class="pr-5">{{ c.ratedMonths }} months</td>
                <td class="pr-5">{{ longDate(c.median, year) }}</td>
                <td class="pr-5">{{ longDate(c.early, year) }} to {{ longDate(c.late, year) }}</td>
                <td class="text-right">{{ percent(c.unspentAtEnd) }}</td>
              </tr>
            </tbody>
          </table>
          <ShowWorking
            :steps="[
              {
                what: 'Run-out of each rating',
                how: 'Every day counts 2^((mean − 21) ÷ 10) days at 21 °C; 80 % is released when they add up to the rated life, over each past weather year.',
                result: feeds.best ? `${feeds.best} months` : 'none',
                source: 'Rate doubling per 10 °C; first-order release, 80 % at the rated life',
              },
            ]"
          />
        </template>
      </section>
    </div>
    <MediumDialog v-if="may && route.query.add" @close="close" />
    <MediumDialog v-if="may && editing" :key="editing.id" :medium="editing" @close="close" />
  </div>
</template>
