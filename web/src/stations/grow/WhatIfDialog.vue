<script setup lang="ts">
import { usePreferences } from '../../stores/preferences';
import { nextWinter, type LotForecast, type RunOut, say } from '@kauri/core';
import { watchDebounced } from '@vueuse/core';
import { computed, ref, shallowRef } from 'vue';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import FormDialog from '../../parts/FormDialog.vue';
import type { ShownLot } from '../../parts/useLots';
import { useForecasts } from '../../stores/forecasts';
import { useNursery } from '../../stores/nursery';
import { useSeason } from '../../stores/season';
import { longDate, shortDate, yearOf } from '../../words/dates';
import { percent } from '../../words/numbers';

/** What setting cells apart, or feeding again, would change. Nothing is kept by trying. */
const props = defineProps<{ lot: ShownLot }>();
const emit = defineEmits<{ close: []; move: [] }>();
const forecasts = useForecasts();
const season = useSeason();
const nursery = useNursery();
const spaceable = computed(() => {
  const { home } = props.lot.facts;
  return home.kind === 'container' && home.spaceable === true;
});
const what = ref<'spread' | 'feed'>(spaceable.value ? 'spread' : 'feed');
const apart = ref<'2' | '3' | '4'>('2');
const whats = computed(() => [
  ...(spaceable.value ? [{ value: 'spread' as const, words: say`Cells set apart` }] : []),
  { value: 'feed' as const, words: say`New feed today` },
]);
const day = (value: number) =>
  Number.isFinite(value) ? shortDate(value, yearOf(season.today)) : say`not within three years`;

const runsOut = (value: number) => (Number.isFinite(value) ? day(value) : say`beyond three years`);

const spread = shallowRef<{ stays: LotForecast; moves: LotForecast } | null>(null);
watchDebounced(
  apart,
  async (times) => {
    if (spaceable.value) spread.value = await forecasts.spread(props.lot.row.id, Number(times));
  },
  { immediate: true, debounce: 30 },
);
const gained = computed(() => {
  if (!spread.value) return '';
  const { stays, moves } = spread.value;
  if (!stays.leavesMeet || !moves.leavesMeet) return '';
  if (!Number.isFinite(moves.leavesMeet.p50))
    return say`Set apart, leaves are not forecast to meet within three years.`;
  const days = Math.round(moves.leavesMeet.p50 - stays.leavesMeet.p50);
  return days > 0
    ? say`Leaves meet about ${days} days later; the lot takes ${apart.value} times the bench.`
    : say`They meet as soon: it is too late to gain by it.`;
});
const feeds = shallowRef<RunOut[]>([]);
/** The end of the growing season this is, or comes next: until then feed is wanted. */
const until = computed(() => nextWinter(nursery.catalogue!.nursery.latitudeDeg, season.today));
watchDebounced(
  what,
  async (chosen) => {
    if (chosen !== 'feed') return;
    feeds.value = (await forecasts.feed(season.today, until.value, 0)).choices;
  },
  { immediate: true, debounce: 30 },
);
const { show } = usePreferences();
</script>

<template>
  <FormDialog
    :title="say`What if`"
    :subtitle="`${lot.row.code} · ${lot.species}, ${lot.where}`"
    @close="emit('close')"
  >
    <div class="space-y-4">
      <ChoiceRow v-model="what" :label="say`Try`" :options="whats" />
      <template v-if="what === 'spread'">
        <ChoiceRow
          v-model="apart"
          :label="say`How far`"
          :options="[
            { value: '2', words: say`2 × the room` },
            { value: '3', words: '3 ×' },
            { value: '4', words: '4 ×' },
          ]"
        />
        <p class="text-lg font-bold" data-testid="gained">{{ gained }}</p>
        <table v-if="spread" class="w-full text-[0.95rem]" data-testid="spread-what-if">
          <thead class="text-muted">
            <tr>
              <td></td>
              <th scope="col" class="text-right font-normal">{{ say`As it stands` }}</th>
              <th scope="col" class="text-right font-normal">{{ say`Set apart` }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="q in ['p10', 'p50', 'p90'] as const" :key="q" class="border-rule border-t">
              <th scope="row" class="py-1 text-left font-normal">
                {{ say`Leaves meet, ${{ p10: say`1 in 10`, p50: say`half`, p90: say`9 in 10` }[q]} by` }}
              </th>
              <td class="text-right">
                {{ spread.stays.leavesMeet ? day(spread.stays.leavesMeet[q]) : '–' }}
              </td>
              <td class="text-right font-bold">
                {{ spread.moves.leavesMeet ? day(spread.moves.leavesMeet[q]) : '–' }}
              </td>
            </tr>
          </tbody>
        </table>
      </template>
      <template v-else>
        <p>
          {{
            say`Prills given ${longDate(season.today, yearOf(season.today))}, wanted until ${longDate(until, yearOf(season.today))}; warmer is faster.`
          }}
        </p>
        <table class="w-full text-[0.95rem]" data-testid="feed-what-if">
          <thead class="text-muted">
            <tr>
              <th scope="col" class="text-left font-normal">
                {{ say`Rated at ${show(21, 'temperature', 0)}` }}
              </th>
              <th scope="col" class="text-right font-normal">{{ say`Runs out` }}</th>
              <th scope="col" class="text-right font-normal">{{ say`Warm to cool years` }}</th>
              <th scope="col" class="text-right font-normal">{{ say`Unspent then` }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="feed in feeds" :key="feed.ratedMonths" class="border-rule border-t">
              <th scope="row" class="py-1 text-left font-normal">{{ say`${feed.ratedMonths} months` }}</th>
              <td class="text-right font-bold whitespace-nowrap">{{ runsOut(feed.median) }}</td>
              <td class="pl-4 text-right whitespace-nowrap">
                {{ Number.isFinite(feed.late) ? `${day(feed.early)} – ${day(feed.late)}` : '' }}
              </td>
              <td class="text-right">{{ percent(feed.unspentAtEnd) }}</td>
            </tr>
          </tbody>
        </table>
      </template>
      <p class="text-muted">
        {{ say`Another container, a denser or wider bed, a warmer place:` }}
        <button class="quiet" type="button" @click="emit('move')">{{ say`try a move` }}</button>
      </p>
    </div>
  </FormDialog>
</template>
