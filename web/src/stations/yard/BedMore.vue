<script setup lang="ts">
import {
  bedAgainstContainer,
  bedCost,
  bedSupports,
  cutFromRolls,
  buildOf,
  depthThrough,
  openAreaFraction,
  retaining,
  serviceLife,
  timberCautions,
  timberClasses,
  type BedDesign,
  type LotForecast,
  type TimberClass,
  say,
  usualSowing,
} from '@kauri/core';
import type { Medium } from '@kauri/core/contract';
import { useLocalStorage, watchDebounced } from '@vueuse/core';
import { computed, ref } from 'vue';
import SelectField from '../../parts/SelectField.vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import { useForecasts } from '../../stores/forecasts';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { longDate, yearOf } from '../../words/dates';
import { count, percent } from '../../words/numbers';
import type { BedAnswers } from './bedAnswers';
import { money } from '../../words/money';
import { keptKey } from '../../stores/kept';

/** What a bed asks for and gives beyond its sizes: what carries it, life and cost by timber, lid, pots instead. */
const props = defineProps<{
  design: BedDesign;
  medium: Medium['values'];
  answers: BedAnswers;
  densityPerM2: number;
}>();
const nursery = useNursery();
const forecasts = useForecasts();
const season = useSeason();
const { show } = usePreferences();
const prices = computed(() => nursery.catalogue!.prices.list);
const cash = (amount: number) => money(amount, prices.value.currency);

const supports = computed(() => bedSupports(props.design, props.medium));
const holds = computed(() => retaining(props.design, props.medium));
/** What cannot be bought in one piece. */
const bought = computed(() => {
  const { outsideLengthMm: l, outsideWidthMm: w } = props.answers.geometry;
  const { boardLengthsMm, rollWidthsMm } = prices.value;
  const said: string[] = [];
  const longest = Math.max(...boardLengthsMm);
  if (!props.design.found && l > longest)
    said.push(
      say`No board is sold as long as its side: the longest is ${show(longest, 'timber')}. Shorten it, or add a longer board to the prices.`,
    );
  const { joints } = cutFromRolls(l, w, rollWidthsMm).value;
  if (joints)
    said.push(
      say`No roll of mesh is wide enough: ${joints + 1} strips are laced together. A width of ${show(Math.max(...rollWidthsMm.filter((r) => r <= w), rollWidthsMm[0]), 'timber')} needs none.`,
    );
  return said;
});
const layers = computed(() =>
  props.design.layers.map((layer) => ({
    words:
      layer.kind === 'mesh'
        ? `${layer.wireMm >= 3 ? say`grid` : say`mesh`} ${show(layer.openingMm[0], 'timber')}`
        : layer.kind === 'cloth'
          ? say`cloth, ${percent(layer.shadeShare)} shade`
          : say`bearers`,
    share: openAreaFraction([layer]).value,
  })),
);
const settle = computed(() =>
  [0, 0.25, 0.5, 1].map((share) =>
    depthThrough(props.answers.geometry.looseDepthMm, props.medium.settling, share),
  ),
);
const timberWords: Record<TimberClass, string> = {
  treated: say`Treated`,
  durable: say`Durable, untreated`,
  scrap: say`Scrap`,
};
const trees = computed(() => props.answers.trees * 0.75);
/** Timbers to set side by side; of a thing found only itself is told. */
const timbers = computed(() => (props.design.found ? [buildOf(props.design).timber] : timberClasses));
const schools = computed(() =>
  timbers.value.map((timber) => {
    const design = { ...props.design, build: { ...buildOf(props.design), timber } };
    return {
      timber,
      chosen: timber === buildOf(props.design).timber,
      life: serviceLife(design),
      cost: bedCost(design, props.medium, prices.value, trees.value),
      caution: timberCautions[timber],
    };
  }),
);
const own = computed(() => schools.value.find((s) => s.chosen)!);

const containers = computed(() =>
  nursery.catalogue!.containers.filter((c) => c.values.cellsPerTray > 1 || (c.values.kind ?? '') !== 'flat'),
);
const containerId = useLocalStorage(keptKey('compare.container'), '');
const container = computed(
  () => containers.value.find((c) => c.id === containerId.value) ?? containers.value[0],
);
/** Evapotranspiration of an ordinary season: a reference crop's for 28 weeks, of the order of the cool temperate. */
const SEASON_ET_MM = 430;
const against = computed(() => {
  try {
    return bedAgainstContainer(
      props.design,
      props.medium,
      props.densityPerM2,
      container.value.values,
      nursery.catalogue!.media.at(-1)!.values,
      prices.value,
      SEASON_ET_MM,
    );
  } catch {
    return null;
  }
});
const speciesId = useLocalStorage(keptKey('lid.species'), '');
const species = computed(
  () => nursery.catalogue!.species.find((s) => s.id === speciesId.value) ?? nursery.catalogue!.species[0],
);
const sowDay = computed(() => usualSowing(nursery.catalogue!.nursery.latitudeDeg, season.today));
const supposed = ref<LotForecast | null>(null);
watchDebounced(
  [
    () => props.answers.geometry.headroomMm,
    () => props.answers.geometry.settledDepthMm,
    species,
    () => props.densityPerM2,
  ],
  async () => {
    const { headroomMm, settledDepthMm } = props.answers.geometry;
    supposed.value = await forecasts.suppose({
      id: 'supposed',
      code: 'supposed',
      species: JSON.parse(JSON.stringify(species.value.values)) as typeof species.value.values,
      sownOn: sowDay.value,
      seedState: 'ready',
      home: {
        kind: 'bed',
        densityPerM2: props.densityPerM2,
        settledDepthMm,
        airShare: props.answers.airShare,
        headroomCm: headroomMm === null ? null : headroomMm / 10,
      },
      targetHeightCm: null,
      leafFallOn: null,
      counts: [],
      sizes: [],
      pulls: [],
      movements: [],
    });
  },
  { debounce: 250, immediate: true },
);
const lidWords = computed(() => {
  const lid = supposed.value?.lid;
  if (props.design.lidAboveRimMm === null) return say`No lid.`;
  if (!lid) return '…';
  const year = yearOf(season.today);
  if (!Number.isFinite(lid.p50))
    return say`Sown ${longDate(sowDay.value, year)}, the tallest tenth are not forecast to meet it within the season.`;
  return say`Sown ${longDate(sowDay.value, year)}, the tallest tenth meet it about ${longDate(lid.p50, year)} (${longDate(lid.p10, year)} in an early year of ten).`;
});
</script>

<template>
  <div class="space-y-4">
    <section :aria-label="say`What carries it`" data-testid="bed-carries">
      <h3 class="text-base">{{ say`What carries it` }}</h3>
      <ul
        v-if="supports.value.faults.length || bought.length || !holds.holds || !holds.tipsPass"
        class="font-bold"
        role="status"
      >
        <li v-for="f in [...supports.value.faults, ...bought]" :key="f">⚠ {{ f }}</li>
        <li v-if="!holds.holds || !holds.tipsPass">⚠ {{ holds.sentence }}</li>
      </ul>
      <p class="text-[0.95rem]">
        <template v-if="supports.value.crossSagMm !== null">
          {{
            say` Bearers sag ${show(supports.value.crossSagMm, 'diameter')} of ${show(supports.value.crossLimitMm!, 'diameter')} allowed; `
          }}
        </template>
        <template v-if="supports.value.sideSagMm !== null">
          {{
            say`Sides sag ${show(supports.value.sideSagMm, 'diameter')} of ${show(supports.value.sideLimitMm!, 'diameter')} allowed. `
          }}
        </template>
        {{
          say`Each foot carries ${show(supports.value.perFootKg, 'mass')} of ${show(supports.value.footBearsKg, 'mass')}, ${show(supports.value.underFootKPa, 'pressure')} under it.`
        }}
        <template v-if="holds.holds && holds.tipsPass">{{ holds.sentence }}</template>
      </p>
      <p class="text-muted text-[0.95rem]">
        {{
          say`Air by layer: ${layers.map((l) => `${l.words} ${percent(l.share)}`).join(' × ') || say`nothing beneath`}. Depth from ${show(settle[0], 'timber')} fresh to ${show(settle[1], 'timber')} after a quarter, ${show(settle[2], 'timber')} after half, ${show(settle[3], 'timber')} at the season’s end.`
        }}
      </p>
      <ShowWorking :steps="supports.working" />
    </section>
    <section :aria-label="say`Lid`">
      <h3 class="text-base">{{ say`Lid and shoots` }}</h3>
      <SelectField
        class="max-w-72"
        :model-value="species.id"
        :label="say`Meant for`"
        :options="nursery.catalogue!.species.map((s) => ({ value: s.id, words: s.common }))"
        @update:model-value="(id: string) => (speciesId = id)"
      />
      <p class="mt-1 text-[0.95rem]" data-testid="lid-meets">{{ lidWords }}</p>
    </section>
    <section :aria-label="say`Life and cost`">
      <h3 class="text-base">{{ design.found ? say`Life and cost` : say`Timber, side by side` }}</h3>
      <div class="overflow-x-auto" tabindex="0" role="group" :aria-label="say`Table`">
        <table class="w-full text-[0.9rem]" data-testid="timber-schools">
          <thead class="text-muted text-left">
            <tr>
              <th scope="col" class="font-normal">{{ design.found ? say`Walls` : say`Timber` }}</th>
              <th scope="col" class="pl-3 text-right font-normal">{{ say`Seasons` }}</th>
              <th scope="col" class="pl-3 text-right font-normal">{{ say`To build, filled` }}</th>
              <th scope="col" class="pl-3 text-right font-normal">{{ say`A season` }}</th>
              <th scope="col" class="pl-3 text-right font-normal">{{ say`A tree` }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="s in schools" :key="s.timber" class="border-rule border-t align-top">
              <th scope="row" class="py-1 text-left" :class="s.chosen ? '' : 'font-normal'">
                {{ design.found ? say`As it is` : timberWords[s.timber]
                }}{{ s.chosen && !design.found ? say` (this one)` : '' }}
              </th>
              <td class="py-1 pl-3 text-right">
                {{ s.life.value.early.toFixed(0) }}–{{ s.life.value.late.toFixed(0) }}
              </td>
              <td class="py-1 pl-3 text-right">{{ cash(s.cost.value.total) }}</td>
              <td class="py-1 pl-3 text-right">{{ cash(s.cost.value.perSeason) }}</td>
              <td class="py-1 pl-3 text-right">{{ cash(s.cost.value.perTree) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="!design.found" class="border-ink text-muted mt-1 border-l-4 pl-3 text-sm">{{ own.caution }}</p>
      <p class="text-muted text-sm">
        {{ say`A tree’s share counts three of four that are sown as saleable.` }}
      </p>
      <ShowWorking :steps="[...own.life.working, ...own.cost.working]" />
    </section>
    <section v-if="against" :aria-label="say`Pots instead`">
      <h3 class="text-base">{{ say`The same ${count(against.value.trees)} trees in pots` }}</h3>
      <SelectField
        class="max-w-72"
        label-hidden
        :model-value="container.id"
        :label="say`Container to compare with`"
        :options="containers.map((c) => ({ value: c.id, words: c.values.name }))"
        @update:model-value="(id: string) => (containerId = id)"
      />
      <table class="mt-1 w-full text-[0.9rem]" data-testid="against">
        <thead class="text-muted">
          <tr>
            <th scope="col" class="text-left font-normal">{{ say`A season` }}</th>
            <th scope="col" class="pl-3 text-right font-normal">{{ say`This bed` }}</th>
            <th scope="col" class="pl-3 text-right font-normal">{{ say`Containers` }}</th>
          </tr>
        </thead>
        <tbody>
          <tr class="border-rule border-t">
            <th scope="row" class="text-left font-normal">{{ say`Ground` }}</th>
            <td class="py-1 pl-3 text-right">{{ show(against.value.bed.groundM2, 'area') }}</td>
            <td class="py-1 pl-3 text-right">{{ show(against.value.container.groundM2, 'area') }}</td>
          </tr>
          <tr class="border-rule border-t">
            <th scope="row" class="text-left font-normal">{{ say`Medium` }}</th>
            <td class="py-1 pl-3 text-right">{{ show(against.value.bed.mediumL, 'volume') }}</td>
            <td class="py-1 pl-3 text-right">{{ show(against.value.container.mediumL, 'volume') }}</td>
          </tr>
          <tr class="border-rule border-t">
            <th scope="row" class="text-left font-normal">{{ say`Water` }}</th>
            <td class="py-1 pl-3 text-right">{{ show(against.value.bed.waterL, 'volume') }}</td>
            <td class="py-1 pl-3 text-right">{{ show(against.value.container.waterL, 'volume') }}</td>
          </tr>
          <tr class="border-rule border-t">
            <th scope="row" class="text-left font-normal">{{ say`Cost` }}</th>
            <td class="py-1 pl-3 text-right">{{ cash(against.value.bed.cost) }}</td>
            <td class="py-1 pl-3 text-right">{{ cash(against.value.container.cost) }}</td>
          </tr>
          <tr class="border-rule border-t">
            <th scope="row" class="text-left font-normal">{{ say`Hours` }}</th>
            <td class="py-1 pl-3 text-right">{{ against.value.bed.hours.toFixed(0) }} h</td>
            <td class="py-1 pl-3 text-right">{{ against.value.container.hours.toFixed(0) }} h</td>
          </tr>
        </tbody>
      </table>
      <ShowWorking :steps="against.working" />
    </section>
  </div>
</template>
