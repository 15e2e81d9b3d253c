<script setup lang="ts">
import { say } from '@kauri/core';
import type { SeedAct } from '@kauri/core';
import { computed, ref } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import EmptyState from '../../../parts/EmptyState.vue';
import PickRow from '../../../parts/PickRow.vue';
import { useMass } from '../../../parts/useMass';
import { useSeed } from '../../../stores/seed';
import { useSession } from '../../../stores/session';
import { percent, several } from '../../../words/numbers';
import { shareBand } from '../../../words/seed';
import SeedFiles from './SeedFiles.vue';
import SeedLotDialog from './SeedLotDialog.vue';
import SeedLotPage from './SeedLotPage.vue';

const seed = useSeed();
const mass = useMass();
const session = useSession();
const route = useRoute();
const router = useRouter();
const withEmpty = ref(false);

const rows = computed(() =>
  seed.known.lots
    .map((lot) => ({
      lot,
      species: seed.speciesOf(lot.speciesId),
      held: seed.held.get(lot.id)!,
      alive: seed.viability.get(lot.id)?.value ?? null,
      act: seed.acts.find((a) => a.subjectId === lot.id) ?? null,
    }))
    .sort((a, b) => a.species.common.localeCompare(b.species.common) || a.lot.code.localeCompare(b.lot.code)),
);
const live = computed(() => rows.value.filter((row) => row.held.seeds >= 1));
const shown = computed(() => (withEmpty.value ? rows.value : live.value));
const chosen = computed(
  () =>
    rows.value.find((row) => row.lot.id === route.params.seedLot) ?? live.value[0] ?? rows.value[0] ?? null,
);
const receiving = computed(() => route.query.add !== undefined && session.may('grower'));
const markOf = ({ rule, figures }: SeedAct): string =>
  rule === 'likely-dead' ? say`likely dead` : figures.tested ? say`test again` : say`not tested`;
</script>

<template>
  <EmptyState v-if="!rows.length && !receiving" :title="say`No seed in store yet`">
    {{
      say`Bags of seed go here, with where they come from. Kauri works out how alive each is today, and when to test it again.`
    }}
    <template #action>
      <span class="flex flex-wrap justify-center gap-2">
        <RouterLink v-if="session.may('grower')" class="act-main" :to="{ query: { add: '1' } }">{{
          say`Receive seed`
        }}</RouterLink>
        <SeedFiles v-if="session.may('grower')" />
      </span>
    </template>
  </EmptyState>
  <div v-else class="grid min-h-full lg:grid-cols-[24rem_1fr]">
    <div class="border-rule lg:border-r" :class="route.params.seedLot ? 'max-lg:hidden' : ''">
      <div class="border-rule flex flex-wrap items-center justify-between gap-2 border-b px-4 py-2">
        <p class="text-muted font-bold">{{ several(live.length, 'seed lot') }}</p>
        <RouterLink v-if="session.may('grower')" class="act" :to="{ query: { add: '1' } }">{{
          say`Receive seed`
        }}</RouterLink>
      </div>
      <ul class="divide-rule divide-y" data-testid="seed-lots">
        <PickRow
          v-for="row in shown"
          :key="row.lot.id"
          :to="{ name: 'seed', params: { seedLot: row.lot.id } }"
          :chosen="row.lot.id === chosen?.lot.id"
        >
          <span class="flex justify-between gap-2">
            <span
              ><b>{{ row.species.common }}</b> <span class="text-muted">{{ row.lot.code }}</span></span
            >
            <b class="whitespace-nowrap">{{ row.held.seeds < 1 ? say`empty` : mass(row.held.grams) }}</b>
          </span>
          <span class="flex items-center justify-between gap-3 text-[0.93rem]">
            <span v-if="row.alive" class="whitespace-nowrap">{{
              say`${shareBand(row.alive.now)} alive`
            }}</span>
            <span v-else class="text-muted">…</span>
            <span v-if="row.act" class="border-ink border-b-2 font-bold">{{ markOf(row.act) }}</span>
          </span>
          <span
            v-if="row.alive"
            class="bg-rule relative mt-1 block h-2 overflow-hidden rounded-full"
            aria-hidden="true"
          >
            <span
              class="bg-muted absolute inset-y-0 opacity-50"
              :style="{
                left: percent(row.alive.now.p10, 1).replace('\u00a0', ''),
                right: percent(1 - row.alive.now.p90, 1).replace('\u00a0', ''),
              }"
            />
            <span
              class="bg-ink absolute inset-y-0 w-1"
              :style="{ left: percent(row.alive.now.mean, 1).replace('\u00a0', '') }"
            />
          </span>
        </PickRow>
      </ul>
      <div class="flex flex-wrap gap-x-4 px-4">
        <button
          v-if="live.length < rows.length"
          class="quiet"
          type="button"
          :aria-expanded="withEmpty"
          @click="withEmpty = !withEmpty"
        >
          {{ withEmpty ? say`Hide` : say`Show` }} {{ several(rows.length - live.length, 'empty bag') }}
        </button>
        <SeedFiles />
      </div>
    </div>
    <SeedLotPage
      v-if="chosen"
      :key="chosen.lot.id"
      :lot="chosen.lot"
      :class="route.params.seedLot ? '' : 'max-lg:hidden'"
    />
  </div>
  <SeedLotDialog v-if="receiving" @close="router.replace({ query: {} })" />
</template>
