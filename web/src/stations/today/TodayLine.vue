<script setup lang="ts">
import { say } from '@kauri/core';
import type { AgendaLine } from '@kauri/core';
import { Asterisk, Bean, BookOpen, Package, Rows3, Trees } from 'lucide-vue-next';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import SectionGlyph from '../../parts/SectionGlyph.vue';
import type { ShownLot } from '../../parts/useLots';
import { useSession } from '../../stores/session';
import { useTodayBook } from '../../stores/todayBook';
import { leadsTo } from './useToday';
import { minutesWords, savingWords } from './todayWords';
import type { TodayItem } from '@kauri/core';

/** One act: what, why, what waiting costs; how long it takes, whose it is, and what was done about it. */
const props = defineProps<{ line: AgendaLine<TodayItem>; lot: ShownLot | null }>();
const emit = defineEmits<{ mark: [as: 'done' | 'skipped' | 'assigned'] }>();
const session = useSession();
const book = useTodayBook();
const item = computed(() => props.line.item);
const aside = computed(() =>
  props.lot
    ? [props.lot.species, props.lot.where]
    : [
        {
          lot: item.value.of === 'lots' ? item.value.about : '',
          roots: say`Root bench`,
          seed: say`Seed room`,
          plan: say`The plan`,
          planted: say`Planted out`,
          lifted: say`Lifted, and still here`,
        }[item.value.part],
      ],
);
const icons = { lot: Rows3, roots: Asterisk, seed: Bean, plan: BookOpen, planted: Trees, lifted: Package };
const work = computed(() => {
  const saves = savingWords(props.line.lossPerHour);
  return `${minutesWords(props.line.minutes)}${saves ? `, ${saves}` : ''}`;
});
</script>

<template>
  <li class="hover:bg-leaf-pale flex flex-wrap items-center sm:flex-nowrap" :data-testid="`${item.part}-act`">
    <RouterLink :to="leadsTo(item)" class="flex min-w-0 flex-1 items-center gap-4 py-2.5 pl-4 max-sm:pr-3">
      <SectionGlyph v-if="lot" :facts="lot.facts" :view="lot.view" />
      <component
        :is="icons[item.part]"
        v-else-if="item.part !== 'lot' || item.of === 'lots'"
        class="text-root w-10 shrink-0"
        :size="26"
        aria-hidden="true"
      />
      <span v-else class="h-13 w-12 shrink-0" aria-hidden="true" />
      <span class="min-w-0 flex-1">
        <span class="block font-bold">{{ item.words.title }}</span>
        <span class="block">{{ item.words.reason }}</span>
        <span v-if="item.words.waiting" class="text-muted block">{{ item.words.waiting }}</span>
        <span class="text-muted block text-sm" data-testid="work">
          {{ work }}<template v-if="line.assigned"> · {{ book.nameOf(line.assigned.assignedTo) }}</template>
        </span>
      </span>
      <span class="text-muted hidden w-40 shrink-0 text-right text-sm lg:block">
        <template v-for="(words, i) in aside" :key="i">{{ words }}<br /></template>
      </span>
    </RouterLink>
    <span
      v-if="session.may('crew')"
      class="flex shrink-0 gap-1.5 px-3 pb-2 max-sm:w-full max-sm:pl-18 sm:py-2 print:hidden"
    >
      <button
        class="act"
        type="button"
        :aria-label="say`Done: ${item.words.title}`"
        @click="emit('mark', 'done')"
      >
        {{ say`Done` }}
      </button>
      <button
        class="act px-3"
        type="button"
        :aria-label="say`Skip, or give to someone: ${item.words.title}`"
        @click="emit('mark', 'skipped')"
      >
        {{ say`Not now` }}
      </button>
    </span>
  </li>
</template>
