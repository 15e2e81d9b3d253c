<script setup lang="ts">
import { RouterLink } from 'vue-router';
import { useSeason } from '../../stores/season';
import { decisionWords } from '../../words/decision';
import SectionGlyph from '../SectionGlyph.vue';
import StatusMark from '../StatusMark.vue';
import type { ShownLot } from '../useLots';

/** One lot in a list: its section, what it is, where it stands, and what to do about it. */
withDefaults(defineProps<{ lot: ShownLot; chosen: boolean; station?: 'grow' | 'roots' | 'lift' }>(), {
  station: 'grow',
});
const season = useSeason();
</script>

<template>
  <RouterLink
    :to="{ name: station, params: { lot: lot.row.id }, query: $route.query }"
    class="flex min-w-0 flex-1 items-center gap-3 border-l-4 px-3 py-2"
    :class="chosen ? 'border-ink bg-card' : 'hover:bg-card border-transparent'"
    :aria-current="chosen ? 'true' : undefined"
  >
    <SectionGlyph :facts="lot.facts" :view="lot.view" />
    <span class="min-w-0 flex-1">
      <span class="flex justify-between gap-2">
        <span class="font-bold">{{ lot.row.code }}</span>
        <StatusMark :status="lot.view.standing.status" />
      </span>
      <span class="flex justify-between gap-2 text-[0.93rem]">
        <span class="truncate">{{ lot.species }}</span>
        <span class="whitespace-nowrap">{{
          decisionWords(lot.view.standing.decision, season.view).short
        }}</span>
      </span>
      <span class="text-muted block truncate text-[0.93rem]">{{ lot.where }}</span>
    </span>
  </RouterLink>
</template>
