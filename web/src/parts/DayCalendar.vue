<script setup lang="ts">
import { say, speech } from '@kauri/core';
import { parseDate, type DateValue } from '@internationalized/date';
import { ChevronLeft, ChevronRight } from 'lucide-vue-next';
import {
  CalendarCell,
  CalendarCellTrigger,
  CalendarGrid,
  CalendarGridBody,
  CalendarGridHead,
  CalendarGridRow,
  CalendarHeadCell,
  CalendarHeader,
  CalendarHeading,
  CalendarNext,
  CalendarPrev,
  CalendarRoot,
} from 'reka-ui';
import { computed } from 'vue';

/** A month of days, of which one is chosen; by keys too. ISO dates in and out. */
const { day, today, min, max } = defineProps<{
  day: string | null;
  today: string;
  min?: string;
  max?: string;
}>();
const emit = defineEmits<{ choose: [day: string] }>();

/** Monday where nobody says otherwise. */
const weekStart = () => {
  const locale: Intl.Locale & { getWeekInfo?: () => { firstDay: number } } = new Intl.Locale(speech().tag);
  return ((locale.getWeekInfo?.().firstDay ?? 1) % 7) as 0 | 1 | 2 | 3 | 4 | 5 | 6;
};
const chosen = computed(() => (day ? parseDate(day) : undefined));
const shown = computed(() => chosen.value ?? parseDate(max && max < today ? max : today));
const at = (iso?: string) => (iso ? parseDate(iso) : undefined);
const choose = (value: DateValue | undefined) => value && emit('choose', value.toString());
</script>

<template>
  <CalendarRoot
    v-slot="{ weekDays, grid }"
    class="p-2"
    :model-value="chosen"
    :default-placeholder="shown"
    :min-value="at(min)"
    :max-value="at(max)"
    :locale="speech().tag"
    :week-starts-on="weekStart()"
    :calendar-label="say`Days to choose from`"
    fixed-weeks
    initial-focus
    prevent-deselect
    @update:model-value="(value) => choose(value as DateValue | undefined)"
  >
    <CalendarHeader class="flex items-center gap-1">
      <CalendarPrev class="act px-3" :aria-label="say`The month before`">
        <ChevronLeft :size="20" aria-hidden="true" />
      </CalendarPrev>
      <CalendarHeading class="flex-1 text-center font-bold" />
      <CalendarNext class="act px-3" :aria-label="say`The month after`">
        <ChevronRight :size="20" aria-hidden="true" />
      </CalendarNext>
    </CalendarHeader>
    <CalendarGrid v-for="month in grid" :key="month.value.toString()" class="mt-1 border-collapse">
      <CalendarGridHead>
        <CalendarGridRow class="flex">
          <CalendarHeadCell
            v-for="name in weekDays"
            :key="name"
            class="text-muted w-11 text-center text-sm font-normal"
          >
            {{ name }}
          </CalendarHeadCell>
        </CalendarGridRow>
      </CalendarGridHead>
      <CalendarGridBody>
        <CalendarGridRow v-for="(week, i) in month.rows" :key="i" class="flex">
          <CalendarCell v-for="one in week" :key="one.toString()" :date="one">
            <CalendarCellTrigger
              v-slot="{ dayValue, outsideView, disabled, selected }"
              :day="one"
              :month="month.value"
              class="focus-visible:outline-water grid size-11 cursor-pointer place-items-center rounded-md data-[disabled]:cursor-default"
            >
              <span
                class="grid size-10 place-items-center rounded-md"
                :class="[
                  selected ? 'bg-ink text-paper font-bold' : disabled ? '' : 'hover:bg-leaf-pale',
                  outsideView || disabled ? 'text-muted' : '',
                  disabled ? 'line-through' : '',
                  one.toString() === today ? 'underline underline-offset-4' : '',
                ]"
              >
                {{ dayValue }}
              </span>
            </CalendarCellTrigger>
          </CalendarCell>
        </CalendarGridRow>
      </CalendarGridBody>
    </CalendarGrid>
  </CalendarRoot>
</template>
