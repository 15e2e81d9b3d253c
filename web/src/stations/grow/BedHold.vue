<script setup lang="ts">
import { holdTogether, say, startingTreePrices, type BedLot, type BedWay, type Choice } from '@kauri/core';
import { watchDebounced } from '@vueuse/core';
import { computed, shallowRef } from 'vue';
import { RouterLink } from 'vue-router';
import ShowWorking from '../../parts/ShowWorking.vue';
import type { ShownLot } from '../../parts/useLots';
import { useForecasts } from '../../stores/forecasts';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { money } from '../../words/money';
import { count, several } from '../../words/numbers';
import { holdAnswer, type SeasonsAhead } from './holdAnswer';

/** A whole bed: emptied now, held, or each lot its own way; and what its ground would have to earn elsewhere. */
const props = defineProps<{ lots: readonly ShownLot[]; areaM2: number }>();
const forecasts = useForecasts();
const nursery = useNursery();
const { show, typed } = usePreferences();
const prices = computed(() => nursery.catalogue!.prices.list.trees ?? startingTreePrices);
const isStarting = computed(() => nursery.catalogue!.prices.list.trees === undefined);
const cash = (value: number) => money(value, nursery.catalogue!.prices.list.currency);

const standing = computed(() => props.lots.filter((lot) => lot.view.standing.tally.standing > 0));
/** The seasons of each lot, as they were when its facts were these. */
const seen = shallowRef<ReadonlyMap<string, SeasonsAhead | null> | null>(null);
let asked = 0;
watchDebounced(
  () => standing.value.map((lot) => lot.facts),
  async () => {
    const ticket = ++asked;
    const lots = standing.value;
    const ahead = await Promise.all(
      lots.map(async (lot) => [lot.row.id, await forecasts.seasons(lot.row.id, null)] as const),
    );
    if (ticket === asked) seen.value = new Map(ahead);
  },
  { immediate: true, debounce: 60 },
);
const answers = computed(() =>
  standing.value.map((lot) => {
    const ahead = seen.value?.get(lot.row.id);
    return {
      lot,
      ...(ahead ? holdAnswer(ahead, lot.facts.home, null, prices.value) : { said: null, fault: null }),
    };
  }),
);
const told = computed(() => answers.value.filter((one) => one.said !== null));
const whole = computed(() => {
  const lots = told.value.map(({ lot, said }): BedLot => ({
    name: say`${lot.row.code}, ${lot.species}`,
    trees: lot.view.standing.tally.standing,
    said: said!.value,
  }));
  // The bed is told as a whole only where every lot of it is.
  return lots.length && lots.length === answers.value.length ? holdTogether(lots, props.areaM2) : null;
});
const bestWords: Record<BedWay, string> = {
  clear: say`Empty it now: no lot here is worth more for another season`,
  hold: say`Hold it: every lot here is worth more for another season`,
  each: say`Part of it: some lots gain by another season, others do not`,
};
const wayWords: Record<BedWay, string> = {
  clear: say`All of it goes now`,
  hold: say`All of it is held`,
  each: say`Each lot its own way`,
};
const choiceWords: Record<Choice, string> = {
  now: say`let it go`,
  hold: say`hold it`,
  move: say`move it up`,
};
const way = (said: NonNullable<(typeof told.value)[number]['said']>['value']) =>
  said.best === 'hold' ? say`hold it ${several(said.seasons, 'season')}` : choiceWords[said.best];
/** Ways worth showing: lot by lot only where it differs from the other two. */
const ways = computed((): BedWay[] =>
  whole.value?.value.best === 'each' ? ['each', 'hold', 'clear'] : ['hold', 'clear'],
);
</script>

<template>
  <section data-testid="bed-hold" :aria-label="say`Hold this bed or empty it`">
    <p v-if="standing.length === 0" class="text-muted">{{ say`No trees stand here.` }}</p>
    <p v-else-if="!seen" role="status" class="text-muted">{{ say`Working out the seasons …` }}</p>
    <template v-else>
      <template v-if="whole">
        <p class="text-lg font-bold" data-testid="bed-hold-answer">{{ bestWords[whole.value.best] }}</p>
        <table class="mt-1 text-[0.95rem]">
          <caption class="text-muted text-left">
            {{
              say`What its trees are worth by it, costs off`
            }}
          </caption>
          <tbody>
            <tr v-for="w in ways" :key="w" class="border-rule border-t">
              <th
                scope="row"
                class="py-1 pr-4 text-left"
                :class="w === whole.value.best ? 'font-bold' : 'font-normal'"
              >
                {{ wayWords[w] }}
              </th>
              <td class="text-right font-bold">{{ cash(whole.value.worth[w]) }}</td>
            </tr>
          </tbody>
        </table>
        <p v-if="whole.value.elsewherePerM2 !== null" class="mt-1">
          {{
            say`Empty it all only if other trees would earn more than ${cash(whole.value.elsewherePerM2 * typed(1, 'area'))} on each ${show(typed(1, 'area'), 'area', 0)} of it in that time, all costs off.`
          }}
        </p>
      </template>
      <ul class="mt-2">
        <li v-for="{ lot, said, fault } in answers" :key="lot.row.id" class="border-rule border-t py-1">
          <RouterLink class="quiet font-bold" :to="{ name: 'grow', params: { lot: lot.row.id } }">{{
            lot.row.code
          }}</RouterLink>
          {{
            say`${lot.species}, ${count(lot.view.standing.tally.standing)} standing, ${show(lot.view.forecast.state.heightCm.p50, 'height')}:`
          }}
          <b v-if="said">{{ way(said.value) }}</b>
          <span v-else>{{ fault ?? say`its seasons cannot be foreseen` }}</span>
        </li>
      </ul>
      <p v-if="isStarting" class="mt-1">
        <b>{{ say`Prices are Kauri’s starting values, not yours` }}</b>{{
          say`: put in your own on a lot’s page before you act on this.`
        }}
      </p>
      <ShowWorking v-if="whole" :steps="whole.working" />
    </template>
  </section>
</template>
