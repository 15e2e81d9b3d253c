<script setup lang="ts">
import { say, word } from '@kauri/core';
import type { KeptOrder, OrderLine, PlannedSowing, Proposal, ProposedLine } from '@kauri/core/contract';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { useNursery } from '../../stores/nursery';
import { count, percent, surely, several } from '../../words/numbers';
import { money } from '../../words/money';
import { formWords } from './orderWords';
import { useSeasonWords } from './seasonWords';

/** How a proposal serves a line: lots, sowings, the next best of each, and what would free what does not fit. */
const props = defineProps<{ proposal: Proposal; order: KeptOrder; line: OrderLine; served: ProposedLine }>();
const nursery = useNursery();
const { day, shortWords, freesWords } = useSeasonWords();
const currency = computed(() => nursery.catalogue!.prices.list.currency);
const sown = computed(() =>
  props.proposal.result!.sowings.filter(({ sowing }) => sowing.lineId === props.line.id),
);
const species = computed(() => nursery.lookup.species.get(props.line.speciesId)?.common ?? '?');
const nextWords = (sowing: PlannedSowing, { route, on }: { route: string; on: string }) =>
  route === sowing.route && on === sowing.stages[0].from
    ? say`the same in another kind of place`
    : `${word(route)}, ${day(on)}`;
const placeName = (id: string) =>
  nursery.lookup.places.get(id)?.place.name ?? say`a place no longer in the yard`;
</script>

<template>
  <section class="panel my-1 space-y-2 p-4" :aria-label="say`How a line is served`" data-testid="line-why">
    <header class="flex flex-wrap items-baseline gap-x-3">
      <h2 class="text-lg">{{ count(served.trees) }} {{ species }}, {{ formWords[line.form] }}</h2>
      <span class="text-muted">{{
        say`“${proposal.name}”: all there in ${percent(served.met)} of ${proposal.result!.seasons} simulated seasons`
      }}</span>
      <RouterLink class="quiet" :to="{ name: 'plan', params: { order: order.id } }">{{
        say`The order`
      }}</RouterLink>
      <RouterLink
        v-if="served.short"
        class="quiet"
        :to="{
          name: 'plan-when',
          query: {
            species: line.speciesId,
            form: line.form,
            from: line.fromCm ?? '',
            to: line.toCm ?? '',
            on: line.on,
            until: line.until,
            count: String(line.count - line.sent),
          },
        }"
        >{{ say`When to sow it` }}</RouterLink
      >
    </header>
    <ul class="space-y-1">
      <li v-if="served.kept">
        {{ say`${several(served.kept, 'tree')} of what is pinned or begun already` }}
      </li>
      <li v-for="lot in served.standing" :key="lot.lotId">
        {{ say`${several(lot.trees, 'tree')} of` }}
        <RouterLink class="quiet" :to="{ name: 'grow', params: { lot: lot.lotId } }">{{
          nursery.lots.get(lot.lotId)?.code ?? say`a lot closed since`
        }}</RouterLink>{{ say`, which stands` }}
      </li>
      <li v-for="{ sowing, next } in sown" :key="sowing.id">
        {{
          say`${several(sowing.wanted.trees, 'tree')}: ${word(sowing.route)}, sown ${day(sowing.stages[0].from)} in ${placeName(sowing.stages[0].placeId)}; in time in ${surely(sowing.chance)} of forecasts`
        }}
        <span class="text-muted">
          <template v-if="next">{{
            say`· next best: ${nextWords(sowing, next)}, ${next.more > 0.005 ? say`${money(next.more, currency)} dearer` : say`as good`}`
          }}</template>
          <template v-else>{{ say`· nothing else of that size fits beside the rest` }}</template>
        </span>
      </li>
      <li v-if="served.bought">
        {{ say`${several(served.bought, 'tree')} bought in: order them in time for ${day(line.on)}` }}
      </li>
      <li v-if="served.short" class="text-wrong font-bold">{{ shortWords(served) }}</li>
      <li v-if="freesWords(served)" data-testid="frees">{{ freesWords(served) }}</li>
    </ul>
  </section>
</template>
