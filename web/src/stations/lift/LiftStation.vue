<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import EmptyState from '../../parts/EmptyState.vue';
import LotBrowser from '../../parts/lots/LotBrowser.vue';
import { byUrgency } from '../../parts/sortLots';
import { useLots, type ShownLot } from '../../parts/useLots';
import { useForecasts } from '../../stores/forecasts';
import { useSeason } from '../../stores/season';
import { longDate, shortDate, yearOf } from '../../words/dates';
import LiftPage from './LiftPage.vue';

const route = useRoute();
const season = useSeason();
const forecasts = useForecasts();
const { lots } = useLots();

const sorted = computed(() => [...lots.value].sort(byUrgency));
const inWindow = computed(() => sorted.value.filter(isToLift));
/** Container stock whose plugs hold: it leaves by its holding window, not by dormancy. */
const toMove = computed(() =>
  sorted.value.filter((lot) => ['bound', 'holding', 'ready'].includes(lot.view.standing.status)),
);
const listed = computed(() => [...inWindow.value, ...toMove.value]);
const isToLift = (lot: ShownLot) => lot.view.standing.status === 'lift';
const isBound = (lot: ShownLot) => lot.view.standing.status === 'bound';
const sections = (these: readonly ShownLot[]) => [
  { name: say`Beds in the lifting window`, lots: these.filter(isToLift) },
  { name: say`Containers whose plugs hold`, lots: these.filter((lot) => !isToLift(lot) && !isBound(lot)) },
  { name: say`Root-bound in their containers`, lots: these.filter(isBound) },
];
const next = computed(() =>
  Math.min(
    ...lots.value.flatMap(({ view }) =>
      view.standing.decision.kind === 'grow-on' ? [view.standing.decision.liftFrom] : [Infinity],
    ),
  ),
);
/** The lot opened at first stays open when it has left the list, lifted to the last tree. */
const first = ref<string | null>(null);
watch(
  () => inWindow.value[0] ?? toMove.value[0],
  (lot) => (first.value ??= lot?.row.id ?? null),
  { immediate: true },
);
const chosen = computed(() => {
  const id = (route.params.lot as string) || first.value;
  return lots.value.find((lot) => lot.row.id === id) ?? null;
});
watch(
  () => (route.name === 'lift' ? (chosen.value?.row.id ?? null) : undefined),
  (id) => id !== undefined && forecasts.select(id),
  { immediate: true },
);
</script>

<template>
  <div class="h-full md:grid md:grid-cols-[23.5rem_1fr]">
    <div
      class="border-rule md:overflow-y-auto md:border-r"
      :class="route.params.lot ? 'hidden md:block' : ''"
    >
      <p v-if="!inWindow.length && forecasts.viewsOf !== null" class="text-muted px-4 py-3">
        {{ say`No bed lot is dormant on ${longDate(season.view, yearOf(season.today))}.` }}
        <template v-if="Number.isFinite(next)">{{
          say`The next window opens about ${shortDate(next, yearOf(season.view))}.`
        }}</template>
      </p>
      <LotBrowser
        station="lift"
        :lots="listed"
        :chosen-id="chosen?.row.id ?? null"
        :sections="sections"
        :whole="false"
      />
    </div>
    <div class="md:overflow-y-auto" :class="route.params.lot ? '' : 'hidden md:block'">
      <LiftPage v-if="chosen" :key="chosen.row.id" :lot="chosen" />
      <EmptyState v-else-if="forecasts.viewsOf !== null" :title="say`Nothing to lift at this date`">
        {{
          say`Here stand the lots in their lifting window, and the container lots whose plugs hold. Move the ribbon to see when that is.`
        }}
      </EmptyState>
    </div>
  </div>
</template>
