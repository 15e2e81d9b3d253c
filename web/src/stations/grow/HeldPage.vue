<script setup lang="ts">
import { coverageOf, isoOf, widening, type Coverage, type Foretold, type Held, say } from '@kauri/core';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { RouterLink } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import EmptyState from '../../parts/EmptyState.vue';
import { useForecasts } from '../../stores/forecasts';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { dateWords } from '../../words/dates';
import { percent, several } from '../../words/numbers';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { useLearnt } from './useLearnt';

/** How often past forecasts held: each measurement beside what was forecast of it four weeks before. */
const forecasts = useForecasts();
const nursery = useNursery();
const { show } = usePreferences();
const held = shallowRef<Held[] | null>(null);
const fault = ref<string | null>(null);
const what = ref<Foretold>('height');
onMounted(async () => {
  try {
    held.value = await forecasts.held();
  } catch (error) {
    fault.value = sentenceOf(error);
  }
});
const whats = [
  { value: 'height', words: say`Height` },
  { value: 'diameter', words: say`Collar` },
  { value: 'fill', words: say`Root fill, by pulled plugs` },
] as const;
const by = ref<'species' | 'year'>('species');
const bys = [
  { value: 'species', words: say`By species` },
  { value: 'year', words: say`By year` },
] as const;
const these = computed(() => (held.value ?? []).filter((h) => h.what === what.value));
const speciesOf = (lotId: string) =>
  nursery.lookup.species.get(nursery.lots.get(lotId)!.speciesId)?.common ?? '';
const all = computed(() => coverageOf(these.value));
const rows = computed(() => {
  const groups = new Map<string, Held[]>();
  for (const h of these.value) {
    const name = by.value === 'species' ? speciesOf(h.lotId) : isoOf(h.on).slice(0, 4);
    groups.set(name, [...(groups.get(name) ?? []), h]);
  }
  return [...groups]
    .map(([name, list]) => ({ name, ...coverageOf(list) }))
    .sort((a, b) => b.n - a.n || a.name.localeCompare(b.name));
});
/** Fewer than this tell nothing of a species. */
const FEWEST = 8;
function judged({ n, p10, p90, bias }: Coverage): string {
  if (n < FEWEST) return say`too few to tell`;
  const off =
    Math.abs(bias) < 0.05 ? '' : bias > 0 ? say`, more grew than forecast` : say`, less grew than forecast`;
  if (p90 < 0.8) return say`bands too narrow${off}`;
  if (p10 > 0.8) return say`bands wider than they need be${off}`;
  return say`as promised${off}`;
}
const headline = computed(() =>
  all.value.n < FEWEST
    ? say`${all.value.n} of the measurements had a forecast four weeks before: too few to tell`
    : say`${all.value.inside} of ${all.value.n} fell within their band: ${percent(all.value.share)}, where 80 % is promised`,
);
const { keep, fault: keepFault } = useLearnt();
const session = useSession();
const season = useSeason();
const proposal = computed(() => widening(these.value));
const taken = computed(
  () => nursery.learnt?.learnt.bands?.find((band) => band.figure === what.value) ?? null,
);
const whatWords = computed(
  () => ({ height: say`height`, diameter: say`collar`, fill: say`root fill` })[what.value],
);
const times = (width: number) => `${width.toFixed(2)} ×`;
function take(width: number, n: number) {
  const figure = what.value;
  const on = isoOf(season.today);
  void keep(
    (now) => ({
      ...now,
      bands: [...(now.bands ?? []).filter((band) => band.figure !== figure), { figure, width, n, on }],
    }),
    say`Bands of ${whatWords.value} are ${times(width)} as wide from now on.`,
  );
}
function takeBack() {
  const figure = what.value;
  void keep(
    (now) => ({ ...now, bands: (now.bands ?? []).filter((band) => band.figure !== figure) }),
    say`Bands of ${whatWords.value} are as they start.`,
  );
}
const misses = computed(() =>
  these.value
    .filter((h) => !h.inside)
    .sort((a, b) => b.on - a.on)
    .slice(0, 12),
);
const figure = (value: number) =>
  what.value === 'fill' ? value.toFixed(2) : show(value, what.value, what.value === 'diameter' ? 1 : 0);
</script>

<template>
  <article class="mx-auto max-w-4xl space-y-4 p-4 md:p-6">
    <h1 class="text-2xl">{{ say`How well past forecasts held` }}</h1>
    <p>
      {{
        say`Each measurement is set beside the forecast as it would have stood four weeks before, knowing nothing later. Eight in ten should fall within the band. If many fewer do, trust the dates less than they say.`
      }}
    </p>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <p v-else-if="!held" role="status">{{ say`Working out past forecasts …` }}</p>
    <template v-else>
      <ChoiceRow v-model="what" :label="say`Of what`" :options="whats" />
      <ChoiceRow v-model="by" :label="say`Parted`" :options="bys" />
      <EmptyState v-if="!these.length" :title="say`Nothing to judge by yet`">
        {{
          say`Measure lots, and pull plugs, more than four weeks after they came up; each is then held against what was forecast.`
        }}
      </EmptyState>
      <template v-else>
        <p class="text-lg font-bold" data-testid="held-all">{{ headline }}</p>
        <div class="overflow-x-auto">
          <table class="w-full text-[0.95rem]" data-testid="held">
            <thead class="text-muted">
              <tr>
                <th scope="col" class="text-left font-normal">
                  {{ by === 'species' ? say`Species` : say`Year` }}
                </th>
                <th scope="col" class="text-right font-normal">{{ say`Forecasts` }}</th>
                <th scope="col" class="text-right font-normal">{{ say`Held` }}</th>
                <th scope="col" class="text-right font-normal">{{ say`Width of bands` }}</th>
                <th scope="col" class="text-right font-normal">{{ say`On the whole` }}</th>
                <th scope="col" class="pl-4 text-left font-normal">{{ say`Bands` }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in rows" :key="row.name" class="border-rule border-t">
                <th scope="row" class="py-1.5 text-left">{{ row.name }}</th>
                <td class="text-right">{{ row.n }}</td>
                <td class="text-right font-bold">{{ percent(row.share) }}</td>
                <td class="text-right">{{ percent(row.width) }}</td>
                <td class="text-right whitespace-nowrap">
                  {{ row.bias >= 0 ? '+' : '−' }}{{ Math.round(Math.abs(row.bias) * 100) }} %
                </td>
                <td class="pl-4">{{ judged(row) }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <section
          v-if="proposal || taken"
          class="panel space-y-2 p-4"
          aria-labelledby="widen"
          data-testid="widen"
        >
          <h2 id="widen" class="text-lg">
            {{
              taken
                ? say`Bands of ${whatWords} are ${times(taken.width)} as wide as they start`
                : proposal!.width > 1
                  ? say`Bands of ${whatWords} hold too seldom`
                  : say`Bands of ${whatWords} are wider than they need be`
            }}
          </h2>
          <p v-if="taken">
            {{
              say`Since ${dateWords(taken.on)}, by ${several(taken.n, 'measurement')}. The table above shows bands as they start.`
            }}
          </p>
          <p v-if="proposal">
            {{
              say`${percent(proposal.share)} held, where 80 % is promised; ${times(proposal.width)} as wide, ${percent(proposal.then)} of the same ${proposal.n} would have. Dates that rest on ${whatWords} ${proposal.width > 1 ? say`spread` : say`draw together`} with them.`
            }}
          </p>
          <p v-else-if="taken">{{ say`By all that is measured now, the bands as they start would do.` }}</p>
          <p v-if="keepFault" class="text-wrong font-bold" role="alert">{{ keepFault }}</p>
          <div v-if="session.may('grower')" class="flex flex-wrap gap-2">
            <button
              v-if="proposal && (!taken || Math.abs(taken.width - proposal.width) > 0.01)"
              class="act"
              type="button"
              @click="take(proposal.width, proposal.n)"
            >
              {{
                say`${proposal.width > 1 ? say`Widen` : say`Narrow`} them to ${times(proposal.width)} from now on`
              }}
            </button>
            <button v-if="taken" class="act" type="button" @click="takeBack">
              {{ say`Back to bands as they start` }}
            </button>
          </div>
        </section>
        <section v-if="misses.length" aria-labelledby="misses">
          <h2 id="misses" class="text-lg">{{ say`Outside their band, newest first` }}</h2>
          <ul class="text-[0.95rem]" data-testid="misses">
            <li v-for="h in misses" :key="`${h.lotId}${h.on}${h.what}`" class="border-rule border-t py-1">
              <RouterLink class="quiet font-bold" :to="{ name: 'grow', params: { lot: h.lotId } }">{{
                nursery.lots.get(h.lotId)!.code
              }}</RouterLink>
              {{ dateWords(isoOf(h.on)) }}: <b>{{ figure(h.seen) }}</b>
              {{ say`measured, ${figure(h.low)} to ${figure(h.high)} forecast` }}
            </li>
          </ul>
        </section>
      </template>
    </template>
  </article>
</template>
