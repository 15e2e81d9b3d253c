<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, defineAsyncComponent, shallowRef, watch } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import EmptyState from '../../parts/EmptyState.vue';
import { useLots, type ShownLot } from '../../parts/useLots';
import { sentenceOf } from '../../api/problem';
import { useForecasts } from '../../stores/forecasts';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useSession } from '../../stores/session';
import LotBrowser from '../../parts/lots/LotBrowser.vue';
import LotPage from './LotPage.vue';
import NewLotDialog from './NewLotDialog.vue';
import { byUrgency } from '../../parts/sortLots';

const CareDialog = defineAsyncComponent(() => import('./CareDialog.vue'));
const CarryDialog = defineAsyncComponent(() => import('./CarryDialog.vue'));
const HandOverDialog = defineAsyncComponent(() => import('./HandOverDialog.vue'));

const route = useRoute();
const router = useRouter();
const session = useSession();
const forecasts = useForecasts();
const nursery = useNursery();
const messages = useMessages();
const { lots } = useLots();

const sorted = computed(() => [...lots.value].sort(byUrgency));
const chosen = computed(() => {
  const id = route.params.lot as string;
  return id ? (lots.value.find((lot) => lot.row.id === id) ?? null) : (sorted.value[0] ?? null);
});
watch(
  () => chosen.value?.row.id ?? null,
  (id) => forecasts.select(id),
  { immediate: true },
);
// A lot of the past is fetched when its page is opened.
const isAway = computed(() => {
  const id = route.params.lot as string;
  return id !== '' && nursery.index.has(id) && !nursery.lots.has(id);
});
watch(
  isAway,
  (away) => away && nursery.lookBack().catch((error: unknown) => messages.say(sentenceOf(error))),
  {
    immediate: true,
  },
);
const adding = computed(() => route.query.new === '1' && session.may('grower'));
function close() {
  const { new: _, ...query } = route.query;
  void router.replace({ query });
}
/** Lots that a sheet is open about together. */
const several = shallowRef<{ act: 'care' | 'carry' | 'hand-over'; lots: ShownLot[] } | null>(null);
function begin(act: 'care' | 'labels' | 'carry' | 'hand-over', these: ShownLot[]) {
  if (act !== 'labels') several.value = { act, lots: these };
  else void router.push({ name: 'seed-labels', query: { lot: these.map((lot) => lot.row.id) } });
}
</script>

<template>
  <div class="h-full md:grid md:grid-cols-[23.5rem_1fr]">
    <div
      class="border-rule md:overflow-y-auto md:border-r"
      :class="route.params.lot ? 'hidden md:block' : ''"
    >
      <LotBrowser
        v-if="forecasts.viewsOf !== null"
        :lots="lots"
        :chosen-id="chosen?.row.id ?? null"
        @together="begin"
      >
        <RouterLink v-if="session.may('grower')" class="act" :to="{ query: { ...route.query, new: '1' } }"
          >{{ say`New lot` }} <span class="key" aria-hidden="true">N</span></RouterLink
        >
      </LotBrowser>
      <div v-else class="animate-pulse space-y-3 p-4" aria-hidden="true">
        <div v-for="i in 8" :key="i" class="bg-rule/50 h-16 rounded" />
      </div>
    </div>
    <div class="relative md:overflow-y-auto" :class="route.params.lot ? '' : 'hidden md:block'">
      <LotPage v-if="chosen" :key="chosen.row.id" :lot="chosen" />
      <EmptyState
        v-else-if="forecasts.viewsOf !== null && route.params.lot && !isAway"
        :title="say`Not sown yet at this date`"
      >
        {{ say`Move the ribbon on to a date after this lot was sown.` }}
      </EmptyState>
      <EmptyState v-else-if="forecasts.viewsOf !== null" :title="say`Sow the first lot`">
        {{
          say`A lot is one sowing of one species in one place. From its counts, measurements and pulled plugs Kauri works out when it is ready and how long it can wait.`
        }}
        <template v-if="session.may('grower')" #action
          ><RouterLink class="act-main" :to="{ query: { new: '1' } }">{{
            say`New lot`
          }}</RouterLink></template
        >
      </EmptyState>
    </div>
    <NewLotDialog v-if="adding" @close="close" />
    <CareDialog
      v-if="several?.act === 'care'"
      :lot="several.lots[0]"
      :chosen="several.lots"
      @close="several = null"
    />
    <CarryDialog v-if="several?.act === 'carry'" :lots="several.lots" @close="several = null" />
    <HandOverDialog v-if="several?.act === 'hand-over'" :lots="several.lots" @close="several = null" />
  </div>
</template>
