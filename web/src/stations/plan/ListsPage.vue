<script setup lang="ts">
import {
  cashByMonth,
  costTerms,
  dayOf,
  isoOf,
  needsOf,
  sowingCost,
  stepsOf,
  treatmentsOf,
  waterPeak,
  type EvaporationAhead,
  type PlanStep,
  say,
  word,
} from '@kauri/core';
import { csvOf } from '../../tables/csv';
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { RouterLink } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import EmptyState from '../../parts/EmptyState.vue';
import TableOut from '../../tables/TableOut.vue';
import { makePdf, offerFile } from '../../print/pdf';
import { useForecasts } from '../../stores/forecasts';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { usePlan } from '../../stores/plan';
import { usePreferences } from '../../stores/preferences';
import { useProposals } from '../../stores/proposals';
import { useSeason } from '../../stores/season';
import { useSeed } from '../../stores/seed';
import { monthWords, shortDate, yearOf } from '../../words/dates';
import { count, several } from '../../words/numbers';
import { plain, seedWork } from '../../workers/seedWork';
import { money } from '../../words/money';
import { planSheet } from './planSheet';

/** What a plan asks for: steps week by week, seed, trays and their filling, hours; on paper and as a table. */
const nursery = useNursery();
const orders = useOrders();
const plan = usePlan();
const season = useSeason();
const seed = useSeed();
const { show, shown } = usePreferences();
const fault = ref<string | null>(null);
const proposals = useProposals();
const forecasts = useForecasts();
const told = (error: unknown) => void (fault.value = sentenceOf(error));
const evaporation = shallowRef<EvaporationAhead | null>(null);
onMounted(() => {
  seed.load().catch(told);
  proposals.load().catch(told);
  forecasts.evaporation().then((ahead) => (evaporation.value = ahead), told);
});

const steps = computed(() => stepsOf(plan.sowings));
const needs = computed(() => needsOf(plan.sowings, nursery.lookup));
const day = (on: number) => shortDate(on, yearOf(season.today));
const speciesName = (id: string) => nursery.lookup.species.get(id)?.common ?? '?';
const placeName = (id: string) =>
  nursery.lookup.places.get(id)?.place.name ?? say`a place no longer in the yard`;
const containerName = (id: string) =>
  nursery.lookup.containers.get(id)?.values.name ?? say`a container no longer in the list`;
const doing = ({ sowing, stage }: PlanStep) =>
  stage > 0 ? say`Move` : sowing.start === 'cuttings' ? say`Stick` : say`Sow`;
const into = ({ containerTypeId, trays, areaM2 }: PlanStep) =>
  containerTypeId === null
    ? say`${show(areaM2!, 'area', 1)} of bed`
    : `${several(trays!, 'tray')}, ${containerName(containerTypeId)}`;
const buyerOf = ({ sowing }: PlanStep) =>
  orders.all.find(({ lines }) => lines.some(({ id }) => id === sowing.lineId))?.buyer ?? '';

const treatments = computed(() => treatmentsOf(plan.sowings, nursery.lookup.species));

/** Seed of each species, with what is in store; null until it is reckoned. */
interface SeedNeed {
  speciesId: string;
  seeds: number;
  grams: number;
  inStore: number;
  /** The day it is wanted first: to be treated, or sown. */
  by: number;
}
/** First day on which seed of a species is wanted: its treatment begins, or it is sown. */
const seedWantedOn = (speciesId: string): number =>
  Math.min(
    ...treatments.value.filter((of) => of.speciesId === speciesId).map(({ on }) => on),
    ...plan.sowings
      .filter((of) => of.speciesId === speciesId && of.start !== 'cuttings')
      .map(({ stages }) => dayOf(stages[0].from)),
  );
const seeds = shallowRef<SeedNeed[] | null>(null);
let asking = 0;
watch(
  [() => plan.sowings, () => seed.loaded === nursery.nurseryId],
  async ([sowings, here]) => {
    const mine = ++asking;
    seeds.value = null;
    if (!here) return;
    try {
      const worker = await seedWork();
      const bySpecies = new Map<string, number>();
      for (const { speciesId, start, stages, wanted } of sowings) {
        if (start === 'cuttings') continue;
        const { viability, emergence } = seed.chainOf(speciesId, null, null);
        const n = await worker.seeds(
          plain({
            target: stages[0].plants,
            probability: wanted.chance,
            stages: [viability.next, emergence.next],
          }),
        );
        if (mine !== asking) return;
        bySpecies.set(speciesId, (bySpecies.get(speciesId) ?? 0) + n);
      }
      seeds.value = [...bySpecies].map(([speciesId, n]) => ({
        speciesId,
        seeds: n,
        grams: (n / (nursery.lookup.species.get(speciesId)?.values.seedsPerKg ?? Infinity)) * 1000,
        by: seedWantedOn(speciesId),
        inStore: seed.known.lots
          .filter((bag) => bag.speciesId === speciesId)
          .reduce((sum, bag) => sum + (seed.held.get(bag.id)?.seeds ?? 0), 0),
      }));
    } catch (error) {
      if (mine === asking) fault.value = sentenceOf(error);
    }
  },
  { immediate: true },
);
/** Trees that the plan in force buys in. */
const buying = computed(() => {
  const chosen = proposals.loaded ? proposals.all.find((one) => one.chosen) : undefined;
  const { buyTimes, treeWorth } = chosen?.asked ?? { buyTimes: null, treeWorth: 0 };
  return (chosen?.result?.lines ?? []).flatMap(({ lineId, bought }) => {
    const line = orders.all.flatMap((order) => order.lines).find(({ id }) => id === lineId);
    return line && bought > 0 && buyTimes !== null
      ? [{ line, bought, money: bought * buyTimes * (line.price ?? treeWorth) }]
      : [];
  });
});
const currency = computed(() => nursery.catalogue!.prices.list.currency);
/** Money paid out month by month; null until the seed room is there to price seed by. */
const cash = computed(() => {
  if (seed.loaded !== nursery.nurseryId) return null;
  const prices = nursery.catalogue!.prices.list;
  const terms = costTerms({ prices, room: seed.room, lookup: nursery.lookup }, prices.hour);
  const costs = plan.sowings.map((sowing) => sowingCost(sowing, nursery.lookup, terms).value);
  return {
    months: cashByMonth([
      ...costs.flatMap(({ payments }) => payments),
      ...buying.value.map(({ line, money: of }) => ({ on: dayOf(line.on), money: of })),
    ]),
    isWhole: costs.every(({ unpriced }) => !unpriced.includes('seed') && !unpriced.includes('filling')),
  };
});
const peak = computed(() =>
  evaporation.value && plan.sowings.length
    ? waterPeak(plan.sowings, nursery.lookup, evaporation.value)
    : null,
);
const rows = computed(() =>
  steps.value.map((step) => ({
    step,
    cells: [
      day(step.on),
      `${doing(step)} ${speciesName(step.sowing.speciesId)}`,
      count(step.plants),
      into(step),
      placeName(step.placeId),
      step.sowing.route,
      buyerOf(step),
    ],
  })),
);
/** Small seed weighs little: as many places as it takes to be seen. */
const massWords = (grams: number) => show(grams, 'seedMass', shown(grams, 'seedMass') < 0.1 ? 4 : undefined);
const heads = [say`Week of`, say`What`, say`Plants`, say`In`, say`Place`, say`Route`, say`For`];
const totals = computed(() => {
  const list: { what: string; much: string }[] = [];
  for (const { speciesId, seeds: n, grams, inStore, by } of seeds.value ?? [])
    list.push({
      what: say`Seed of ${speciesName(speciesId)}`,
      much: say`${count(n)}, ${massWords(grams)}, by ${day(by)}; ${
        inStore >= n
          ? say`in store`
          : inStore >= 1
            ? say`${count(n - inStore)} more than is in store`
            : say`none in store`
      }`,
    });
  for (const { containerTypeId, filled, most, on, litres } of needs.value.trays)
    list.push({
      what: containerName(containerTypeId),
      much: say`${several(filled, 'tray')} filled, ${count(most)} at once from ${day(on)}; ${show(litres, 'volume', 0)} of medium`,
    });
  if (needs.value.beds)
    list.push({
      what: say`Ground in beds`,
      much: say`${show(needs.value.beds.most, 'area', 1)} at once, from ${day(needs.value.beds.on)}`,
    });
  for (const { line, bought, money: of } of buying.value)
    list.push({
      what: say`Bought in: ${speciesName(line.speciesId)}`,
      much: say`${count(bought)} for ${day(dayOf(line.on))}, about ${money(of, currency.value)}`,
    });
  if (peak.value)
    list.push({
      what: say`Water, at most`,
      much: say`${show(peak.value.litres, 'volume', 0)} in the week of ${day(peak.value.week)} for what is planned`,
    });
  list.push({ what: say`Labels`, much: count(needs.value.labels) });
  return list;
});
const weekMost = computed(() => Math.max(0.1, ...needs.value.hours.map(({ hours }) => hours)));
const hoursWords = (hours: number) => `${Number(hours.toFixed(1))} h`;

function table() {
  const lines = steps.value.map((step) => ({
    date: isoOf(step.on),
    step: doing(step).toLowerCase(),
    species: nursery.lookup.species.get(step.sowing.speciesId)?.latin ?? '',
    plants: step.plants,
    container: step.containerTypeId === null ? '' : containerName(step.containerTypeId),
    trays: step.trays ?? '',
    area_m2: step.areaM2 ?? '',
    place: placeName(step.placeId),
    route: word(step.sowing.route),
    buyer: buyerOf(step),
    hours: Number(step.hours.toFixed(2)),
  }));
  return csvOf(lines);
}
async function paper() {
  try {
    const name = nursery.catalogue!.nursery.name;
    const sheet = planSheet(
      say`Plan, ${name}`,
      heads,
      rows.value.map(({ cells }) => cells),
      [
        { head: say`To have on hand`, rows: totals.value },
        {
          head: say`Treatments to begin`,
          rows: treatments.value.map(({ speciesId, on, days }) => ({
            what: day(on),
            much: say`${speciesName(speciesId)}, about ${several(days, 'day')}`,
          })),
        },
        {
          head: say`Money paid out`,
          rows: (cash.value?.months ?? []).map(({ month, money: of }) => ({
            what: monthWords(month),
            much: money(of, currency.value),
          })),
        },
        {
          head: say`Hours of sowing and moving`,
          rows: needs.value.hours.map(({ week, hours }) => ({ what: day(week), much: hoursWords(hours) })),
        },
      ],
    );
    offerFile('plan.pdf', await makePdf(sheet), 'application/pdf');
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
</script>

<template>
  <div class="space-y-5 p-4 md:p-5">
    <header class="flex flex-wrap items-baseline gap-x-4 gap-y-2">
      <h1 class="text-2xl">{{ say`What the plan asks for` }}</h1>
      <template v-if="steps.length">
        <button class="act ml-auto" type="button" :disabled="seeds === null" @click="paper">
          {{ say`On paper` }}
        </button>
        <TableOut :label="say`As a table`" name="plan" :table="table" />
      </template>
    </header>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <EmptyState v-if="!steps.length" :title="say`Nothing is planned yet`">
      {{
        say`Choose a season, or plan a sowing under When to sow: here is then what to get, fill and do, week by week.`
      }}
    </EmptyState>
    <template v-else>
      <section aria-labelledby="get">
        <h2 id="get" class="text-lg">{{ say`To have on hand` }}</h2>
        <dl class="grid max-w-3xl grid-cols-[auto_1fr] gap-x-4 gap-y-1" data-testid="on-hand">
          <template v-for="{ what, much } in totals" :key="what">
            <dt class="text-muted">{{ what }}</dt>
            <dd>{{ much }}</dd>
          </template>
        </dl>
        <p v-if="seeds === null" class="text-muted" role="status">{{ say`Reckoning the seed …` }}</p>
        <p class="text-muted text-sm">
          {{ say`Seed for what must come up, each sowing with the chance it was planned with.` }}
        </p>
      </section>
      <section v-if="treatments.length" aria-labelledby="treat">
        <h2 id="treat" class="text-lg">{{ say`Treatments to begin` }}</h2>
        <ul class="max-w-3xl" data-testid="treatments">
          <li v-for="{ speciesId, on, days, sowings } in treatments" :key="`${speciesId} ${on}`">
            <b :class="on < season.today ? 'text-wrong' : ''">{{ day(on) }}</b>{{
              say`: ${speciesName(speciesId)}, about ${several(days, 'day')}, for the sowing of ${day(dayOf(sowings[0].stages[0].from))}`
            }}
            <template v-if="on < season.today">{{ say`· that day has gone by` }}</template>
          </li>
        </ul>
        <p class="text-muted text-sm">
          {{ say`At the pace of a cold store and a warm room; the treatment clock works out your own.` }}
        </p>
      </section>
      <section v-if="cash?.months.length" aria-labelledby="cash">
        <h2 id="cash" class="text-lg">{{ say`Money paid out, by month` }}</h2>
        <dl class="grid max-w-md grid-cols-[1fr_auto] gap-x-6" data-testid="cash">
          <template v-for="{ month, money: paid } in cash.months" :key="month">
            <dt class="text-muted">{{ monthWords(month) }}</dt>
            <dd class="text-right">{{ money(paid, currency) }}</dd>
          </template>
        </dl>
        <p class="text-muted text-sm">
          {{
            say`Seed, filling of containers, trees bought in.${cash.isWhole ? '' : say` Some of it has no price written down and is not counted.`}`
          }}
        </p>
      </section>
      <section aria-labelledby="hours">
        <h2 id="hours" class="text-lg">{{ say`Hours of sowing and moving` }}</h2>
        <ul class="max-w-xl">
          <li v-for="{ week, hours } in needs.hours" :key="week" class="grid grid-cols-[8rem_1fr_4rem] gap-2">
            <span>{{ day(week) }}</span>
            <span class="self-center"
              ><i
                class="bg-leaf-mid block h-3 rounded"
                :style="{ width: `${(100 * hours) / weekMost}%` }"
                aria-hidden="true"
            /></span>
            <span class="text-right">{{ hoursWords(hours) }}</span>
          </li>
        </ul>
      </section>
      <section aria-labelledby="steps">
        <h2 id="steps" class="text-lg">{{ say`Step by step` }}</h2>
        <div class="overflow-x-auto">
          <table class="w-full text-left" data-testid="steps">
            <thead>
              <tr class="text-muted">
                <th v-for="head in heads" :key="head" class="py-1 pr-4 font-normal">{{ head }}</th>
              </tr>
            </thead>
            <tbody>
              <tr
                v-for="{ step, cells } in rows"
                :key="`${step.sowing.id} ${step.stage}`"
                class="border-rule border-t align-top"
              >
                <td v-for="(cell, i) in cells" :key="i" class="py-1.5 pr-4">
                  <RouterLink
                    v-if="i === 1"
                    class="underline underline-offset-4"
                    :to="{ name: 'plan-board', query: { sowing: step.sowing.id } }"
                    >{{ cell }}</RouterLink
                  >
                  <template v-else>{{ cell }}</template>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
    </template>
  </div>
</template>
