<script setup lang="ts">
import { openLines, say, word } from '@kauri/core';
import type { Proposal } from '@kauri/core/contract';
import { computed, onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import EmptyState from '../../parts/EmptyState.vue';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { useParcels } from '../../stores/parcels';
import { usePreferences } from '../../stores/preferences';
import { useProposals } from '../../stores/proposals';
import { useSeason } from '../../stores/season';
import { dateWords } from '../../words/dates';
import { count, percent } from '../../words/numbers';
import { money } from '../../words/money';
import { formWords, sizeWords } from './orderWords';
import SeasonHead from './SeasonHead.vue';
import SeasonLineWhy from './SeasonLineWhy.vue';
import SeasonTerms from './SeasonTerms.vue';
import { useSeasonWords } from './seasonWords';

/** A season planned for all that is wanted: proposals side by side, line by line, with why and what would free what does not fit. */
const nursery = useNursery();
const orders = useOrders();
const parcels = useParcels();
const proposals = useProposals();
const season = useSeason();
const route = useRoute();
const router = useRouter();
const { shown, unit, show } = usePreferences();
const { day, placeLike } = useSeasonWords();
const fault = ref<string | null>(null);
onMounted(() =>
  Promise.all([proposals.load(), parcels.ready()]).catch(
    (error: unknown) => (fault.value = sentenceOf(error)),
  ),
);

const currency = computed(() => nursery.catalogue!.prices.list.currency);
const wanted = computed(() => openLines(orders.all, parcels.asides, { treeWorth: 1 }, season.today));
const trees = computed(() => wanted.value.reduce((sum, line) => sum + line.trees, 0));
/** Lines that any of the proposals speaks of, then others that are open now, each in the order they are wanted. */
const rows = computed(() => {
  const planned = new Set(
    proposals.all.flatMap(({ result }) => result?.lines.map(({ lineId }) => lineId) ?? []),
  );
  const known = new Set([...planned, ...wanted.value.map(({ id }) => id)]);
  return orders.all
    .flatMap((order) => order.lines.map((line) => ({ order, line })))
    .filter(({ line }) => known.has(line.id))
    .sort(
      (a, b) =>
        Number(planned.has(b.line.id)) - Number(planned.has(a.line.id)) || a.line.on.localeCompare(b.line.on),
    );
});
const speciesName = (id: string) => nursery.lookup.species.get(id)?.common ?? '?';
const lineOf = ({ result }: Proposal, lineId: string) => result?.lines.find((line) => line.lineId === lineId);
const sownFor = ({ result }: Proposal, lineId: string) =>
  result?.sowings.filter(({ sowing }) => sowing.lineId === lineId) ?? [];
/** How a line is served, in a few words. */
function servedWords(proposal: Proposal, lineId: string): string {
  const line = lineOf(proposal, lineId);
  if (!line) return '';
  const sown = sownFor(proposal, lineId);
  const weeks = [
    ...new Set(sown.map(({ sowing }) => `${word(sowing.route)}, ${day(sowing.stages[0].from)}`)),
  ];
  return [
    ...(line.kept ? [say`${count(line.kept)} planned already`] : []),
    ...(line.standing.length
      ? [say`${count(line.standing.reduce((n, of) => n + of.trees, 0))} that stand`]
      : []),
    ...weeks,
    ...(line.bought ? [say`${count(line.bought)} bought in`] : []),
  ].join('; ');
}
const chosen = computed(() => {
  const { proposal: id, line: lineId } = route.params;
  const proposal = proposals.all.find((one) => one.id === id);
  const row = rows.value.find(({ line }) => line.id === lineId);
  const line = proposal && row && lineOf(proposal, row.line.id);
  return proposal && row && line ? { proposal, row, line } : null;
});
const open = (proposal: Proposal, lineId: string) =>
  router.replace({
    name: 'plan-season',
    params: isOpen(proposal, lineId) ? {} : { proposal: proposal.id, line: lineId },
  });
const isOpen = (proposal: Proposal, lineId: string) =>
  chosen.value?.proposal.id === proposal.id && chosen.value.line.lineId === lineId;
const dear = computed(() => {
  const of = chosen.value?.proposal ?? proposals.all.find((one) => one.chosen) ?? proposals.all.at(-1);
  return of?.result ? { of, list: of.result.dear.slice(0, 3) } : null;
});
const grid = computed(() => ({
  minWidth: `${10 + 11.5 * proposals.all.length}rem`,
  gridTemplateColumns: `minmax(10rem, 15rem) repeat(${Math.max(1, proposals.all.length)}, minmax(11.5rem, 1fr))`,
}));
</script>

<template>
  <div class="grid min-h-full lg:grid-cols-[19rem_1fr]">
    <div class="border-rule p-4 lg:border-r">
      <SeasonTerms :lines="wanted.length" :trees="trees" />
    </div>
    <div class="min-w-0 space-y-4 p-4 md:p-5" data-testid="season">
      <h1 class="text-2xl">{{ say`The season, planned` }}</h1>
      <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
      <p v-if="proposals.isCut" class="text-wrong font-bold" role="status">
        {{ say`The server does not answer: how far planning is, is not known just now.` }}
      </p>
      <p v-if="!proposals.loaded" class="text-muted" role="status">{{ say`Opening the plans …` }}</p>
      <EmptyState v-else-if="!proposals.all.length" :title="say`No season is planned yet`">
        {{
          say`From orders and hopes, what stands, routes, places and hours, Kauri plans who is served by what: lot, route, week and place, with the odds; and says what does not fit and what would free it.`
        }}
      </EmptyState>
      <template v-else>
        <section
          v-if="dear?.list.length"
          class="border-rule rounded-md border px-3 py-2"
          :aria-label="say`What is short`"
          data-testid="dear"
        >
          <b>{{ say`Short in “${dear.of.name}”:` }}</b>
          <template v-for="(of, i) in dear.list" :key="of.placeId">{{
            say`${i ? ';' : ''} ${placeLike(of.placeId)}, ${of.from === of.until ? say`from ${day(of.from)}` : say`${day(of.from)} to ${day(of.until)}`}: ${show(1, 'area', 0)} more would save about ${money(of.perM2, currency)}`
          }}</template>.
          <span class="text-muted">{{ say`A guide: worked out as if lots could be parted at will.` }}</span>
        </section>
        <div class="overflow-x-auto pb-2">
          <div class="grid" :style="grid">
            <div class="bg-paper z-10 md:sticky md:left-0" />
            <SeasonHead
              v-for="proposal in proposals.all"
              :key="proposal.id"
              class="border-rule border-l px-3 pb-3"
              :proposal="proposal"
            />
            <template v-for="{ order, line } in rows" :key="line.id">
              <div class="bg-paper border-rule z-10 border-t py-2 pr-3 md:sticky md:left-0">
                <b>{{ count(line.count - line.sent) }} {{ speciesName(line.speciesId) }}</b>
                <span class="text-muted block text-sm"
                  >{{ sizeWords(line, (cm) => shown(cm, 'height'), unit('height')) }},
                  {{ formWords[line.form] }}, {{ dateWords(line.on) }}, {{ order.buyer || say`a hope` }}</span
                >
              </div>
              <template v-for="proposal in proposals.all" :key="proposal.id">
                <button
                  v-if="lineOf(proposal, line.id)"
                  class="border-rule hover:bg-card flex flex-col items-start border-t border-l px-3 py-2 text-left"
                  :class="isOpen(proposal, line.id) ? 'bg-card' : ''"
                  type="button"
                  :aria-expanded="isOpen(proposal, line.id)"
                  @click="open(proposal, line.id)"
                >
                  <span class="block">{{ servedWords(proposal, line.id) }}</span>
                  <b v-if="lineOf(proposal, line.id)!.short" class="text-wrong block">{{
                    say`${count(lineOf(proposal, line.id)!.short)} short`
                  }}</b>
                  <span v-else class="text-muted block text-sm">{{
                    say`all there in ${percent(lineOf(proposal, line.id)!.met)} of seasons`
                  }}</span>
                </button>
                <div v-else class="border-rule text-muted border-t border-l px-3 py-2">
                  {{ proposal.result ? say`not in it` : '' }}
                </div>
              </template>
              <SeasonLineWhy
                v-if="chosen?.line.lineId === line.id"
                class="col-span-full md:sticky md:left-0 md:max-w-4xl"
                :proposal="chosen.proposal"
                :order="order"
                :line="line"
                :served="chosen.line"
              />
            </template>
          </div>
        </div>
      </template>
    </div>
  </div>
</template>
