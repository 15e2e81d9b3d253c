<script setup lang="ts">
import { say } from '@kauri/core';
import { RouterLink } from 'vue-router';
import SectionGlyph from '../../parts/SectionGlyph.vue';
import StatusMark from '../../parts/StatusMark.vue';
import type { ShownLot } from '../../parts/useLots';
import { usePreferences } from '../../stores/preferences';
import { count, several } from '../../words/numbers';

defineProps<{ lots: readonly ShownLot[] }>();
const { show } = usePreferences();
</script>

<template>
  <ul class="grid gap-2 sm:grid-cols-2">
    <li v-for="lot in lots" :key="lot.row.id">
      <RouterLink
        :to="{ name: 'grow', params: { lot: lot.row.id } }"
        class="panel hover:bg-leaf-pale flex items-center gap-2 px-2 py-1"
      >
        <SectionGlyph :facts="lot.facts" :view="lot.view" />
        <span class="min-w-0 flex-1">
          <span class="flex justify-between gap-2"
            ><b class="whitespace-nowrap">{{ lot.row.code }}</b>
            <StatusMark :status="lot.view.standing.status"
          /></span>
          <span class="text-muted block text-[0.93rem]">
            {{
              say`${lot.species}, ${count(lot.view.standing.tally.standing)} standing, ${
                lot.row.stage.areaM2 !== null
                  ? show(lot.row.stage.areaM2, 'area')
                  : several(lot.row.stage.trays ?? 0, 'tray')
              }`
            }}
          </span>
        </span>
      </RouterLink>
    </li>
  </ul>
</template>
