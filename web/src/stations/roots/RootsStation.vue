<script setup lang="ts">
import type { SequentialCall } from '@kauri/core';
import { Check, CircleDashed, Hand, X } from 'lucide-vue-next';
import { computed, onMounted, ref, watch } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import EmptyState from '../../parts/EmptyState.vue';
import PickRow from '../../parts/PickRow.vue';
import { byUrgency } from '../../parts/sortLots';
import { useLots } from '../../parts/useLots';
import { useForecasts } from '../../stores/forecasts';
import { useNursery } from '../../stores/nursery';
import { useRoots } from '../../stores/roots';
import { callWords } from '../../words/roots';
import { several } from '../../words/numbers';
import ComparePage from './ComparePage.vue';
import RootLotPage from './RootLotPage.vue';

const route = useRoute();
const roots = useRoots();
const forecasts = useForecasts();
const nursery = useNursery();
const { lots } = useLots();
const fault = ref<string | null>(null);
onMounted(() => roots.load().catch((error: unknown) => (fault.value = sentenceOf(error))));

const rank: Record<string, number> = { begun: 0, reject: 1, none: 2, accept: 3 };
/** Lots with something standing: those half judged first, then the rejected, then the most urgent. */
const rows = computed(() =>
  lots.value
    .filter(({ row, view }) => view.standing.tally.standing > 0 || roots.plantsOf(row.id).length > 0)
    .map((lot) => {
      const s = roots.verdictOf(lot.row.id)?.value.sequential ?? null;
      const stage = !s || s.pulled === 0 ? 'none' : s.call === 'pull' ? 'begun' : s.call;
      return { lot, s, stage };
    })
    .sort((a, b) => rank[a.stage] - rank[b.stage] || byUrgency(a.lot, b.lot)),
);
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
const marks: Record<SequentialCall, typeof Check> = { accept: Check, reject: X, pull: Hand };
const begun = computed(() => rows.value.filter((r) => r.stage === 'begun').length);
</script>

<template>
  <p v-if="fault" class="bg-tag text-tag-ink m-4 rounded p-3" role="alert">{{ fault }}</p>
  <EmptyState
    v-else-if="roots.rules && forecasts.viewsOf !== null && !rows.length"
    title="Nothing stands to be pulled"
  >
    Pull a plant or two here and there, lay its roots on the rosette, and Kauri says whether to go on, accept
    the lot or reject it.
  </EmptyState>
  <div v-else-if="roots.rules" class="h-full md:grid md:grid-cols-[23.5rem_1fr]">
    <div
      class="border-rule md:overflow-y-auto md:border-r"
      :class="route.params.lot ? 'hidden md:block' : ''"
    >
      <div class="border-rule flex min-h-15 items-center justify-between gap-2 border-b px-4">
        <p class="text-muted font-bold">
          {{ begun ? `${several(begun, 'lot')} half judged` : 'Roots by lot' }}
        </p>
        <RouterLink class="act" :to="{ name: 'roots', params: { lot: 'compare' } }">Compare</RouterLink>
      </div>
      <ul class="divide-rule divide-y" data-testid="root-lots">
        <PickRow
          v-for="{ lot, s, stage } in rows"
          :key="lot.row.id"
          :to="{ name: 'roots', params: { lot: lot.row.id } }"
          :chosen="!comparing && lot.row.id === chosen?.lot.row.id"
        >
          <span class="flex justify-between gap-2">
            <span
              ><b>{{ lot.row.code }}</b> {{ lot.species }}</span
            >
            <span class="flex items-center gap-1 font-bold whitespace-nowrap">
              <component :is="s && s.pulled ? marks[s.call] : CircleDashed" :size="18" aria-hidden="true" />
              {{ stage === 'none' ? 'Not pulled' : callWords[s!.call] }}
            </span>
          </span>
          <span class="text-muted flex justify-between gap-2 text-[0.93rem]">
            <span class="truncate">{{ lot.where }}</span>
            <span v-if="s && s.pulled" class="whitespace-nowrap">{{ s.failing }} of {{ s.pulled }} fail</span>
          </span>
        </PickRow>
      </ul>
    </div>
    <div class="relative md:overflow-y-auto" :class="route.params.lot ? '' : 'hidden md:block'">
      <template v-if="comparing">
        <ComparePage v-if="nursery.past === 'here'" />
        <p v-else class="text-muted p-6" role="status">Fetching the lots of the past …</p>
      </template>
      <RootLotPage v-else-if="chosen" :key="chosen.lot.row.id" :lot="chosen.lot" />
    </div>
  </div>
</template>
