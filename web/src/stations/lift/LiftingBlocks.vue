<script setup lang="ts">
import { isoOf, say, type EpochDay, type LiftingOdds } from '@kauri/core';
import { useMediaQuery } from '@vueuse/core';
import { computed, ref } from 'vue';
import { sentenceOf } from '../../api/problem';
import { useLiftingPlan } from '../../stores/liftingPlan';
import { useMessages } from '../../stores/messages';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { longDate, shortDate, yearOf } from '../../words/dates';
import LiftingBlock from './LiftingBlock.vue';
import { blocksByDay } from './liftingBlocks';
import { hoursWritten } from './liftingWords';
import type { LotInOrder } from './useLiftingOrder';
import { useMovingBlocks } from './useMovingBlocks';

/** The next two weeks of lifting, a block for each lot and day, as long as its work; moved by pointer, tap or keys. */
const props = defineProps<{ odds: LiftingOdds; lots: ReadonlyMap<string, LotInOrder> }>();
const plan = useLiftingPlan();
const season = useSeason();
const session = useSession();
const messages = useMessages();
const year = computed(() => yearOf(season.today));
const DAYS_A_WEEK = 7;
/** How tall a whole day's work stands, rem; no block is less than a thumb. */
const DAY_REM = 11;

const chances = computed(() => new Map(props.odds.lots.map(({ id, chance }) => [id, chance])));
const days = computed(() => {
  const byDay = blocksByDay(props.odds.blocks.filter(({ id }) => props.lots.has(id)));
  return props.odds.days.map(({ day, hours }) => ({ day, hours, blocks: byDay.get(day) ?? [] }));
});
const weeks = computed(() => [days.value.slice(0, DAYS_A_WEEK), days.value.slice(DAYS_A_WEEK)]);
const columns = (week: readonly { hours: number }[]) =>
  week.map(({ hours }) => (hours > 0 ? 'minmax(0, 1fr)' : '3.5rem')).join(' ');
/** Days that a lot may be moved to: with people, and not before its trees rest. */
const daysFor = (lot: LotInOrder) =>
  days.value.filter(({ day, hours }) => hours > 0 && day >= lot.from).map(({ day }) => day);

async function move(id: string, day: EpochDay | null) {
  const lot = props.lots.get(id);
  const before = plan.moved.get(id) ?? null;
  if (!lot || before === day) return;
  const { code } = lot.lot.row;
  if (day !== null && day < lot.from) {
    messages.say(
      say`${code} stays where it was: its trees are not at rest before ${shortDate(lot.from, year.value)}.`,
    );
    return;
  }
  const keep = (to: EpochDay | null) => plan.move(id, to === null ? null : isoOf(to));
  const said =
    day === null
      ? say`${code} is lifted when the order has it`
      : say`${code} moved to ${longDate(day, year.value)}`;
  try {
    await keep(day);
    messages.say(said, () => keep(before));
  } catch (error) {
    messages.say(sentenceOf(error));
  }
}
const board = ref<HTMLElement | null>(null);
const hasPointer = useMediaQuery('(pointer: fine)');
useMovingBlocks(
  board,
  () => hasPointer.value && session.may('crew'),
  (id, day) => void move(id, day),
);
</script>

<template>
  <div ref="board" class="space-y-3" data-testid="lifting-days">
    <ol
      v-for="(week, w) in weeks"
      :key="w"
      class="grid gap-1.5 max-md:block"
      :style="{ gridTemplateColumns: columns(week) }"
    >
      <li
        v-for="{ day, hours, blocks } in week"
        :key="day"
        class="data-over:bg-leaf-pale border-rule border-t p-1 pb-2"
        :class="hours > 0 ? '' : 'text-muted max-md:hidden'"
        :data-day="hours > 0 ? day : undefined"
      >
        <p class="flex flex-wrap items-baseline justify-between gap-x-2 text-[0.95rem]">
          <b :class="hours > 0 ? '' : 'font-normal'">{{ longDate(day, year) }}</b>
          <span v-if="hours > 0" class="text-muted text-sm">{{ say`${hoursWritten(hours)} h` }}</span>
        </p>
        <div class="flex flex-col gap-1">
          <LiftingBlock
            v-for="block in blocks"
            :key="block.id"
            class="data-moving:relative data-moving:z-40 data-moving:opacity-80"
            :data-lot="block.id"
            :style="{ minHeight: `${(DAY_REM * block.hours) / hours}rem` }"
            :lot="lots.get(block.id)!"
            :hours="block.hours"
            :chance="chances.get(block.id) ?? 0"
            :days="daysFor(lots.get(block.id)!)"
            :disabled="!session.may('crew')"
            @move="move(block.id, $event)"
          />
          <p v-if="hours > 0 && !blocks.length" class="text-muted text-sm">{{ say`free` }}</p>
        </div>
      </li>
    </ol>
  </div>
</template>
