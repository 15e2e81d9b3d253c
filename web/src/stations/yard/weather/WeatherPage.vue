<script setup lang="ts">
import { lotsAtRisk, seasonCourses, weatherEvents, type WeatherEvent, say } from '@kauri/core';
import { computed, onMounted, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { sentenceOf } from '../../../api/problem';
import EmptyState from '../../../parts/EmptyState.vue';
import { useLots } from '../../../parts/useLots';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSeason } from '../../../stores/season';
import { useStations } from '../../../stores/stations';
import { shortDate, yearOf } from '../../../words/dates';
import { several } from '../../../words/numbers';
import { weatherEventWords, worstWords } from '../../../words/weather';
import WeatherBehind from '../../../parts/WeatherBehind.vue';
import CoversPanel from './CoversPanel.vue';
import SeasonChart from './SeasonChart.vue';
import StationsPanel from './StationsPanel.vue';

/** The season so far against past years, what the weather did, and the stations that tell it. */
const nursery = useNursery();
const season = useSeason();
const stations = useStations();
const { show } = usePreferences();
const { lots } = useLots();
const fault = ref<string | null>(null);
onMounted(() => stations.load().catch((error: unknown) => (fault.value = sentenceOf(error))));

const site = computed(() => {
  const { latitudeDeg, elevationM } = nursery.catalogue!.nursery;
  return { latitudeDeg, elevationM };
});
const asOf = computed(() => Math.min(season.view, season.today));
const measured = computed(() => nursery.series.tMinC.length > 0);
const courses = computed(() => (measured.value ? seasonCourses(nursery.series, site.value, asOf.value) : []));
const exposed = computed(() =>
  lots.value.map(({ row, facts, view }) => ({
    lotId: row.id,
    home: facts.home,
    standing: view.standing.tally.standing,
    upOn: view.forecast.emergence.seen,
  })),
);
const MOST_EVENTS = 12;
const events = computed(() =>
  measured.value
    ? weatherEvents(nursery.series, site.value.latitudeDeg, asOf.value - 365, asOf.value)
        .slice(-MOST_EVENTS)
        .reverse()
        .map((event) => ({ event, hit: lotsAtRisk(event, exposed.value) }))
    : [],
);
const codeOf = (lotId: string) => nursery.lots.get(lotId)?.code ?? '';
const when = ({ from, to }: WeatherEvent) => {
  const day = (d: number) => shortDate(d, yearOf(season.today));
  return from === to ? day(from) : say`${day(from)} to ${day(to)}`;
};
const shown = ref(new Set<string>());
const keyOf = ({ kind, from }: WeatherEvent) => `${kind}${from}`;
function open(key: string) {
  const next = new Set(shown.value);
  if (!next.delete(key)) next.add(key);
  shown.value = next;
}
</script>

<template>
  <div class="grid gap-6 p-4 md:p-6 lg:grid-cols-[1fr_24rem]">
    <div>
      <h1 class="mb-1 text-2xl">{{ say`The season so far` }}</h1>
      <WeatherBehind class="mb-3" />
      <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
      <EmptyState v-if="!measured" :title="say`No weather yet`">
        {{ say`Add a station, or take its table in: every date Kauri gives rests on warmth.` }}
        <template #action
          ><RouterLink class="act" :to="{ name: 'records' }">{{ say`Take a table in` }}</RouterLink></template
        >
      </EmptyState>
      <template v-else>
        <p class="text-muted mb-3">
          {{ say`Line: this season. Band: eight past years in ten by the same day; broken, the middle one.` }}
        </p>
        <div class="grid gap-4 xl:grid-cols-2">
          <SeasonChart v-for="course in courses" :key="course.what" :course="course" />
        </div>
        <section class="mt-6" aria-labelledby="events">
          <h2 id="events" class="text-lg">{{ say`What the weather did, a year back` }}</h2>
          <p v-if="!events.length" class="text-muted">
            {{ say`No frost, heat, drying wind or downpour worth a word.` }}
          </p>
          <ul class="divide-rule divide-y" data-testid="weather-events">
            <li v-for="{ event, hit } in events" :key="keyOf(event)" class="py-1.5">
              <p class="flex flex-wrap items-baseline gap-x-3">
                <b class="w-28">{{ weatherEventWords[event.kind] }}</b>
                <span class="w-44">{{ when(event) }}</span>
                <span class="w-24">{{ worstWords(event, show) }}</span>
                <button
                  v-if="hit.length"
                  class="quiet !min-h-8"
                  type="button"
                  :aria-expanded="shown.has(keyOf(event))"
                  @click="open(keyOf(event))"
                >
                  {{ say`${several(hit.length, 'lot')} at risk` }}
                </button>
                <span v-else class="text-muted">{{ say`no lot at risk` }}</span>
              </p>
              <ul v-if="shown.has(keyOf(event))" class="mt-1 flex flex-wrap gap-x-4 text-sm">
                <li v-for="h in hit" :key="h.lotId">
                  <RouterLink class="quiet !min-h-8" :to="{ name: 'grow', params: { lot: h.lotId } }">{{
                    codeOf(h.lotId)
                  }}</RouterLink>
                  <span class="text-muted"> {{ h.why }}</span>
                </li>
              </ul>
            </li>
          </ul>
        </section>
      </template>
    </div>
    <aside class="space-y-6">
      <StationsPanel />
      <CoversPanel />
    </aside>
  </div>
</template>
