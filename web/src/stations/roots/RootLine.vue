<script setup lang="ts">
import { say } from '@kauri/core';
import type { LotVerdict, SequentialCall } from '@kauri/core';
import { Check, CircleDashed, Hand, X } from 'lucide-vue-next';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import type { ShownLot } from '../../parts/useLots';
import { callWords } from '../../words/roots';

/** One lot in the list of the root bench: what its pulled plants say so far. */
const props = defineProps<{
  lot: ShownLot;
  judged: LotVerdict['sequential'] | null;
  chosen: boolean;
}>();
const marks: Record<SequentialCall, typeof Check> = { accept: Check, reject: X, pull: Hand };
const pulled = computed(() => (props.judged?.pulled ? props.judged : null));
</script>

<template>
  <RouterLink
    :to="{ name: 'roots', params: { lot: lot.row.id }, query: $route.query }"
    class="block min-w-0 flex-1 border-l-4 px-3 py-2"
    :class="chosen ? 'border-ink bg-card' : 'hover:bg-card border-transparent'"
    :aria-current="chosen ? 'true' : undefined"
  >
    <span class="flex justify-between gap-2">
      <span class="min-w-0 truncate"
        ><b>{{ lot.row.code }}</b> {{ lot.species }}</span
      >
      <span class="flex items-center gap-1 font-bold whitespace-nowrap">
        <component :is="pulled ? marks[pulled.call] : CircleDashed" :size="18" aria-hidden="true" />
        {{ pulled ? callWords[pulled.call] : say`Not pulled` }}
      </span>
    </span>
    <span class="text-muted flex justify-between gap-2 text-[0.93rem]">
      <span class="truncate">{{ lot.where }}</span>
      <span v-if="pulled" class="whitespace-nowrap">{{
        say`${pulled.failing} of ${pulled.pulled} fail`
      }}</span>
    </span>
  </RouterLink>
</template>
