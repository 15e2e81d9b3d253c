<script setup lang="ts">
import {
  containerAirShare,
  containerFigures,
  containerSuitability,
  containerVolume,
  holdingWarmth,
  plantingSites,
  washedBetweenUses,
  type PlantingSite,
  say,
  inSentence,
} from '@kauri/core';
import { useLocalStorage } from '@vueuse/core';
import { computed } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import SelectField from '../../../parts/SelectField.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { useLived } from '../../../parts/useLived';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSession } from '../../../stores/session';
import { count, percent } from '../../../words/numbers';
import { money } from '../../../words/money';
import ContainerDialog from './ContainerDialog.vue';
import ContainerSection from './ContainerSection.vue';
import { containerKindWords, siteWords } from './kindWords';
import { keptKey } from '../../../stores/kept';

const nursery = useNursery();
const session = useSession();
const route = useRoute();
const router = useRouter();
const { show } = usePreferences();
const may = computed(() => session.may('grower'));

const speciesId = useLocalStorage(keptKey('containers.species'), '');
const site = useLocalStorage<PlantingSite>(keptKey('containers.site'), 'ordinary');
const picked = useLocalStorage<string[]>(keptKey('containers.picked'), []);
const species = computed(
  () => nursery.catalogue!.species.find((s) => s.id === speciesId.value) ?? nursery.catalogue!.species[0],
);
const soilless = computed(() => nursery.catalogue!.media.at(-1)!.values);
/** How trees raised in each fare once planted, all species together. */
const { by } = useLived();
const lived = computed(() => by(({ raisedIn, form }) => raisedIn || form));
const currency = computed(() => nursery.catalogue!.prices.list.currency);
/** Warmth of an ordinary week in summer above 5 °C, for turning degree-days into weeks. */
const WEEK_DD = 70;

const rows = computed(() =>
  nursery
    .catalogue!.containers.map((c) => ({
      ...c,
      figures: containerFigures(c.values, soilless.value.wetKgPerM3),
      suit: containerSuitability(c.values, species.value.values, site.value),
      hold: holdingWarmth(containerVolume(c.values).value, species.value.values),
    }))
    .sort((a, b) => b.suit.grade - a.suit.grade || a.figures.volumeMl - b.figures.volumeMl),
);
const compared = computed(() => {
  const chosen = rows.value.filter((r) => picked.value.includes(r.id));
  return chosen.length ? chosen : rows.value.filter((r) => r.suit.grade === 1).slice(0, 4);
});
/** One scale for all sections side by side. */
const scale = computed(() =>
  Math.min(
    150 / Math.max(1, ...compared.value.map((c) => c.values.depthMm)),
    100 / Math.max(1, ...compared.value.map((c) => c.values.topMm)),
  ),
);
function pick(id: string) {
  picked.value = picked.value.includes(id)
    ? picked.value.filter((p) => p !== id)
    : [...picked.value, id].slice(-6);
}
const gradeWords = { '1': say`● fits`, '0': say`◐ with care`, '-1': say`○ unfit` } as const;
const gradeOf = (g: number) => gradeWords[String(g) as keyof typeof gradeWords];
const weeks = (dd: number) => (Number.isFinite(dd) ? (dd / WEEK_DD).toFixed(0) : '30+');
const hold = (r: (typeof rows.value)[number]) =>
  Number.isFinite(r.hold.value.boundDd)
    ? ((r.hold.value.boundDd - r.hold.value.readyDd) / WEEK_DD).toFixed(0)
    : '20+';
const editing = computed(() => nursery.catalogue!.containers.find((c) => c.id === route.query.edit));
const close = () => void router.replace({ query: {} });
</script>

<template>
  <div class="space-y-5 p-4">
    <div class="flex flex-wrap items-end gap-3">
      <SelectField
        :model-value="species.id"
        class="min-w-48"
        :label="say`For`"
        :options="nursery.catalogue!.species.map((s) => ({ value: s.id, words: s.common }))"
        @update:model-value="(id: string) => (speciesId = id)"
      />
      <SelectField
        v-model="site"
        class="min-w-48"
        :label="say`planted on`"
        :options="plantingSites.map((value) => ({ value, words: siteWords[value] }))"
      />
      <RouterLink v-if="may" class="act" :to="{ query: { add: '1' } }">{{ say`Add a container` }}</RouterLink>
    </div>
    <section aria-labelledby="side">
      <h2 id="side" class="text-lg">{{ say`Side by side` }}</h2>
      <div class="overflow-x-auto" tabindex="0" role="group" :aria-label="say`Table`">
        <table class="text-[0.95rem]" data-testid="compare">
          <tbody>
            <tr class="align-bottom">
              <td></td>
              <td v-for="c in compared" :key="c.id" class="px-4">
                <ContainerSection :values="c.values" :px-per-mm="scale" />
              </td>
            </tr>
            <tr>
              <th scope="row"></th>
              <th v-for="c in compared" :key="c.id" scope="col" class="px-4 text-left">
                {{ c.values.name }}
              </th>
            </tr>
            <tr class="border-rule border-t align-top">
              <th scope="row" class="text-muted py-1 pr-3 text-left font-normal">{{ say`Suits` }}</th>
              <td v-for="c in compared" :key="c.id" class="min-w-44 px-4 py-1">
                <b>{{ gradeOf(c.suit.grade) }}</b>
                <span v-for="r in c.suit.reasons" :key="r.words" class="block text-sm"
                  >{{ r.for ? '+' : '−' }} {{ r.words }}</span
                >
              </td>
            </tr>
            <tr class="border-rule border-t">
              <th scope="row" class="text-muted py-1 pr-3 text-left font-normal">
                {{ say`Plug holds after` }}
              </th>
              <td v-for="c in compared" :key="c.id" class="px-4">
                {{ say`${weeks(c.hold.value.readyDd)} warm weeks` }}
              </td>
            </tr>
            <tr class="border-rule border-t">
              <th scope="row" class="text-muted py-1 pr-3 text-left font-normal">
                {{ say`Holding window` }}
              </th>
              <td v-for="c in compared" :key="c.id" class="px-4 font-bold">
                {{ say`${hold(c)} warm weeks` }}
              </td>
            </tr>
            <tr class="border-rule border-t">
              <th scope="row" class="text-muted py-1 pr-3 text-left font-normal">
                {{ say`Medium for 1000` }}
              </th>
              <td v-for="c in compared" :key="c.id" class="px-4">
                {{ show(c.figures.mediumPer1000L, 'volume') }}
              </td>
            </tr>
            <tr class="border-rule border-t">
              <th scope="row" class="text-muted py-1 pr-3 text-left font-normal">
                {{ say`A cell each use` }}
              </th>
              <td v-for="c in compared" :key="c.id" class="px-4">
                {{ c.figures.pricePerUse === null ? say`no price` : money(c.figures.pricePerUse, currency) }},
                {{ washedBetweenUses(c.values) ? say`washed between uses` : say`used once` }}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="text-muted text-sm">
        {{
          say`A warm week is ${show(WEEK_DD, 'warmth')} above ${show(5, 'temperature', 0)}, an ordinary one in summer; the forecast of a lot uses your own weather.`
        }}
      </p>
      <ShowWorking
        :steps="
          compared.flatMap((c) =>
            [
              ...containerVolume(c.values).working,
              ...containerAirShare(c.values).working,
              ...c.hold.working,
            ].map((s) => ({ ...s, what: `${c.values.name}: ${inSentence(s.what)}` })),
          )
        "
      />
    </section>
    <section aria-labelledby="library">
      <h2 id="library" class="text-lg">{{ say`Library` }}</h2>
      <div class="overflow-x-auto" tabindex="0" role="group" :aria-label="say`Table`">
        <table class="w-full min-w-[56rem] text-[0.92rem]" data-testid="library">
          <thead class="text-muted text-left">
            <tr>
              <th scope="col" class="font-normal">{{ say`Compare` }}</th>
              <th scope="col" class="font-normal">{{ say`Container` }}</th>
              <th scope="col" class="font-normal">{{ say`Suits` }}</th>
              <th scope="col" class="text-right font-normal">{{ say`Cell` }}</th>
              <th scope="col" class="text-right font-normal">{{ say`Depth` }}</th>
              <th scope="col" class="text-right font-normal">{{ say`Air share` }}</th>
              <th scope="col" class="text-right font-normal">{{ say`Close, /m²` }}</th>
              <th scope="col" class="text-right font-normal">{{ say`Spread, /m²` }}</th>
              <th scope="col" class="text-right font-normal">{{ say`Tray, wet` }}</th>
              <th scope="col" class="text-right font-normal">{{ say`Tray price` }}</th>
              <th scope="col" class="text-right font-normal">{{ say`Uses` }}</th>
              <th v-if="lived.size" scope="col" class="text-right font-normal">
                {{ say`Live once planted` }}
              </th>
              <th scope="col"></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="c in rows" :key="c.id" class="border-rule border-t">
              <td>
                <label class="flex min-h-9 min-w-9 items-center"
                  ><input
                    type="checkbox"
                    class="size-5"
                    :checked="picked.includes(c.id)"
                    :aria-label="say`Compare ${c.values.name}`"
                    @change="pick(c.id)"
                /></label>
              </td>
              <th scope="row" class="text-left">
                {{ c.values.name }}
                <span v-if="c.values.kind" class="text-muted block text-sm font-normal">{{
                  containerKindWords[c.values.kind]
                }}</span>
              </th>
              <td class="whitespace-nowrap">{{ gradeOf(c.suit.grade) }}</td>
              <td class="text-right">{{ show(c.figures.volumeMl, 'cell') }}</td>
              <td class="text-right">{{ show(c.values.depthMm, 'timber') }}</td>
              <td class="text-right">{{ percent(c.figures.airShare) }}</td>
              <td class="text-right">{{ count(c.figures.perM2) }}</td>
              <td class="text-right">
                {{ c.figures.perM2Spaced === null ? say`fixed` : count(c.figures.perM2Spaced) }}
              </td>
              <td class="text-right whitespace-nowrap">
                {{ c.figures.trayWetKg > 25 ? '⚠ ' : '' }}{{ show(c.figures.trayWetKg, 'mass') }}
              </td>
              <td class="text-right">
                {{ c.values.trayPrice === undefined ? '' : money(c.values.trayPrice, currency) }}
              </td>
              <td class="text-right">{{ c.values.uses ?? 1 }}</td>
              <td v-if="lived.size" class="text-right whitespace-nowrap" data-testid="container-lived">
                <template v-if="lived.get(c.values.name)">{{
                  say`${percent(lived.get(c.values.name)!.lower)} to ${percent(lived.get(c.values.name)!.upper)}`
                }}</template>
              </td>
              <td class="text-right">
                <RouterLink
                  v-if="may"
                  class="quiet"
                  :to="{ query: { edit: c.id } }"
                  :aria-label="say`Edit ${c.values.name}`"
                  >{{ say`Edit` }}</RouterLink
                >
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="text-muted text-sm">
        {{
          say`⚠ over ${show(25, 'mass')}: two people. Containers used again are washed and disinfected between lots; the label of the disinfectant is the law.`
        }}
      </p>
    </section>
    <ContainerDialog v-if="may && route.query.add" @close="close" />
    <ContainerDialog v-if="may && editing" :key="editing.id" :container="editing" @close="close" />
  </div>
</template>
