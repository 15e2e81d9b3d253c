<script setup lang="ts">
import { say } from '@kauri/core';
import type { LotVerdict } from '@kauri/core';
import { computed, onMounted, ref, watch } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import EmptyState from '../../parts/EmptyState.vue';
import LotBrowser from '../../parts/lots/LotBrowser.vue';
import { byUrgency } from '../../parts/sortLots';
import { useLots, type ShownLot } from '../../parts/useLots';
import { useForecasts } from '../../stores/forecasts';
import { useNursery } from '../../stores/nursery';
import { useRoots } from '../../stores/roots';
import ComparePage from './ComparePage.vue';
import RootLine from './RootLine.vue';
import RootLotPage from './RootLotPage.vue';

const route = useRoute();
const roots = useRoots();
const forecasts = useForecasts();
const nursery = useNursery();
const { lots } = useLots();
const fault = ref<string | null>(null);
onMounted(() => roots.load().catch((error: unknown) => (fault.value = sentenceOf(error))));

const rank: Record<string, number> = { begun: 0, reject: 1, none: 2, accept: 3 };
const stageOf = (s: LotVerdict['sequential'] | null) =>
  !s || s.pulled === 0 ? 'none' : s.call === 'pull' ? 'begun' : s.call;

/** Lots with something standing: those half judged first, then the rejected, then the most urgent. */
const rankOf = (lot: ShownLot) => rank[stageOf(roots.verdictOf(lot.row.id)?.value.sequential ?? null)];
const byJudged = (a: ShownLot, b: ShownLot) => rankOf(a) - rankOf(b) || byUrgency(a, b);
const rows = computed(() =>
  lots.value
    .filter(({ row, view }) => view.standing.tally.standing > 0 || roots.plantsOf(row.id).length > 0)
    .map((lot) => {
      const s = roots.verdictOf(lot.row.id)?.value.sequential ?? null;
      return { lot, s };
    })
    .sort((a, b) => byJudged(a.lot, b.lot)),
);
const judgedById = computed(() => new Map(rows.value.map(({ lot, s }) => [lot.row.id, s])));
const chosen = computed(
  () => rows.value.find((r) => r.lot.row.id === route.params.lot) ?? rows.value[0] ?? null,
);
/** All of them side by side, in the place of one. */
const comparing = computed(() => route.params.lot === 'compare');
watch(
  comparing,
  (on) => on && nursery.lookBack().catch((error: unknown) => (fault.value = sentenceOf(error))),
  { immediate: true },
);
</script>

<template>
  <p v-if="fault" class="bg-tag text-tag-ink m-4 rounded p-3" role="alert">{{ fault }}</p>
  <EmptyState
    v-else-if="roots.rules && forecasts.viewsOf !== null && !rows.length"
    :title="say`Nothing stands to be pulled`"
  >
    {{
      say`Pull a plant or two here and there, lay its roots on the rosette, and Kauri says whether to go on, accept the lot or reject it.`
    }}
  </EmptyState>
  <div v-else-if="roots.rules" class="h-full md:grid md:grid-cols-[23.5rem_1fr]">
    <div
      class="border-rule md:overflow-y-auto md:border-r"
      :class="route.params.lot ? 'hidden md:block' : ''"
    >
      <LotBrowser
        station="roots"
        testid="root-lots"
        :lots="rows.map((r) => r.lot)"
        :chosen-id="comparing ? null : (chosen?.lot.row.id ?? null)"
        :urgent="byJudged"
        :whole="false"
        :line-px="63"
      >
        <RouterLink class="act" :to="{ name: 'roots', params: { lot: 'compare' } }">{{
          say`Compare`
        }}</RouterLink>
        <template #line="{ lot }">
          <RootLine
            :lot="lot"
            :judged="judgedById.get(lot.row.id) ?? null"
            :chosen="!comparing && lot.row.id === chosen?.lot.row.id"
          />
        </template>
      </LotBrowser>
    </div>
    <div class="relative md:overflow-y-auto" :class="route.params.lot ? '' : 'hidden md:block'">
      <template v-if="comparing">
        <ComparePage v-if="nursery.past === 'here'" />
        <p v-else class="text-muted p-6" role="status">{{ say`Fetching the lots of the past …` }}</p>
      </template>
      <RootLotPage v-else-if="chosen" :key="chosen.lot.row.id" :lot="chosen.lot" />
    </div>
  </div>
</template>
