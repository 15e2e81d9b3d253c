<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, ref } from 'vue';
import BedInto from './BedInto.vue';
import CellsInto from './CellsInto.vue';
import FlatInto from './FlatInto.vue';
import type { Desk } from './useDesk';

/** Where the seed goes: rows of a bed, cells, or a flat to prick out of. */
defineProps<{ desk: Desk; seeds: number }>();
const ways = [
  { name: 'bed', words: say`Into a bed` },
  { name: 'cells', words: say`Into cells` },
  { name: 'flat', words: say`Into a flat, to prick out` },
] as const;
const way = ref<(typeof ways)[number]['name']>('bed');
const shown = computed(() => ({ bed: BedInto, cells: CellsInto, flat: FlatInto })[way.value]);
</script>

<template>
  <section class="border-rule border-t pt-3" :aria-label="say`Where it is sown`">
    <div class="mb-3 flex flex-wrap gap-2" role="tablist" :aria-label="say`Where it is sown`">
      <button
        v-for="w in ways"
        :key="w.name"
        type="button"
        role="tab"
        :aria-selected="way === w.name"
        class="min-h-11 cursor-pointer border-b-3 px-3 font-bold"
        :class="way === w.name ? 'border-ink' : 'text-muted border-transparent'"
        @click="way = w.name"
      >
        {{ w.words }}
      </button>
    </div>
    <component :is="shown" :desk="desk" :seeds="seeds" role="tabpanel" />
  </section>
</template>
