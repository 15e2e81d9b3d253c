<script setup lang="ts">
import { say, type EpochDay } from '@kauri/core';
import { Menu, MenuButton, MenuItems } from '@headlessui/vue';
import { Hand } from 'lucide-vue-next';
import { computed, useTemplateRef } from 'vue';
import MenuRow from '../../parts/MenuRow.vue';
import { useFloatingPanel } from '../../parts/useFloatingPanel';
import { useSeason } from '../../stores/season';
import { longDate, yearOf } from '../../words/dates';
import { hoursWritten } from './liftingWords';
import type { LotInOrder } from './useLiftingOrder';

/** A day's work on a lot; pressed, the days it can be moved to. */
defineProps<{
  lot: LotInOrder;
  hours: number;
  /** To be out in time. */
  chance: number;
  days: readonly EpochDay[];
  disabled: boolean;
}>();
const emit = defineEmits<{ move: [to: EpochDay | null] }>();
const season = useSeason();
const year = computed(() => yearOf(season.today));
const button = useTemplateRef<InstanceType<typeof MenuButton>>('button');
const panel = useTemplateRef<InstanceType<typeof MenuItems>>('panel');
const TALL_PX = 360;
const place = useFloatingPanel(button, panel, TALL_PX);
</script>

<template>
  <Menu v-slot="{ open }" as="div" class="grid">
    <MenuButton
      ref="button"
      class="border-ink bg-leaf-pale hover:bg-card min-h-11 w-full cursor-pointer rounded-md border px-2 py-1 text-left leading-tight disabled:cursor-default"
      :class="lot.moved === undefined ? '' : 'border-l-8'"
      :disabled="disabled"
    >
      <span class="flex w-full flex-wrap items-baseline justify-between gap-x-2">
        <b>{{ lot.lot.row.code }}</b>
        <span>{{ say`${hoursWritten(hours)} h` }}</span>
      </span>
      <span class="block text-sm">{{ lot.lot.species }}</span>
      <span v-if="lot.moved !== undefined" class="inline-flex items-center gap-1 text-sm">
        <Hand :size="14" aria-hidden="true" class="shrink-0" />{{ say`moved by hand` }}
      </span>
      <span v-if="chance < 0.5" class="text-wrong block text-sm font-bold">{{ say`hardly in time` }}</span>
    </MenuButton>
    <MenuItems
      v-if="open"
      ref="panel"
      static
      popover="manual"
      class="border-rule bg-card text-ink overflow-y-auto rounded-md border p-1 shadow-lg"
      :style="place"
    >
      <p class="text-muted px-3 py-1 text-sm">{{ say`Lift ${lot.lot.row.code} from` }}</p>
      <MenuRow v-if="lot.moved !== undefined" data-to="order" @choose="emit('move', null)">{{
        say`When the order has it`
      }}</MenuRow>
      <MenuRow v-for="day in days" :key="day" :data-to="day" @choose="emit('move', day)">{{
        longDate(day, year)
      }}</MenuRow>
    </MenuItems>
  </Menu>
</template>
