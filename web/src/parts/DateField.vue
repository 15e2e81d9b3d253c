<script setup lang="ts">
import { dayInField, dayOf, isoOf, readDay, say } from '@kauri/core';
import { onClickOutside } from '@vueuse/core';
import { CalendarDays } from 'lucide-vue-next';
import { computed, defineAsyncComponent, nextTick, ref, useId, useTemplateRef, watch } from 'vue';
import { useSeason } from '../stores/season';
import { useFloatingPanel } from './useFloatingPanel';

/**
 * A day, typed as people write one or chosen from a calendar: in the language spoken, whatever the browser’s own is. ISO text
 * in and out; nothing while what is typed is no day, which is said.
 */
const {
  label,
  labelHidden,
  hint,
  fault = null,
} = defineProps<{
  label: string;
  /** Read out and not shown: the field stands under a column’s head. */
  labelHidden?: boolean;
  hint?: string;
  fault?: string | null;
  /** The first and the last day the calendar offers, ISO. */
  min?: string;
  max?: string;
}>();
const iso = defineModel<string>({ required: true });
const id = useId();
/** Why what is typed is no day; null while it is being typed, and where it is one. */
const unread = ref<string | null>(null);
const wrong = computed(() => unread.value ?? fault);

// Fetched when it is first opened.
const DayCalendar = defineAsyncComponent(() => import('./DayCalendar.vue'));
const season = useSeason();
const text = ref(dayInField(iso.value));
let given = iso.value;
watch(iso, (now) => {
  if (now !== given) show(now);
});
function show(day: string) {
  given = iso.value = day;
  text.value = dayInField(day);
  unread.value = null;
}
/** The day that is typed; null where it is none, with why. */
function typedDay(): { iso: string; why: string | null } {
  try {
    const day = readDay(text.value, season.today);
    return { iso: day === null ? '' : isoOf(day), why: null };
  } catch (error) {
    return { iso: '', why: error instanceof Error ? error.message : String(error) };
  }
}
function type() {
  given = iso.value = typedDay().iso;
  unread.value = null;
}
function leave() {
  const { iso: day, why } = typedDay();
  unread.value = why;
  if (!why) text.value = dayInField(day);
}
function step(days: number) {
  show(isoOf((iso.value ? dayOf(iso.value) : season.today) + days));
}

const box = useTemplateRef('box');
const field = useTemplateRef('field');
const panel = useTemplateRef('panel');
const open = ref(false);
const TALL_PX = 460;
const place = useFloatingPanel(box, panel, TALL_PX);
onClickOutside(panel, () => (open.value = false), { ignore: [box] });
async function close() {
  open.value = false;
  await nextTick();
  field.value?.focus();
}
function choose(day: string) {
  show(day);
  void close();
}
/** The keys went elsewhere: it is done with. */
function gone({ relatedTarget }: FocusEvent) {
  if (relatedTarget instanceof Node && !panel.value?.contains(relatedTarget)) open.value = false;
}
</script>

<template>
  <div class="min-w-0">
    <label :for="id" class="mb-1 block font-bold" :class="labelHidden ? 'sr-only' : ''">{{ label }}</label>
    <div ref="box" class="relative">
      <input
        :id="id"
        ref="field"
        v-model="text"
        class="field pr-12"
        type="text"
        autocomplete="off"
        aria-keyshortcuts="ArrowUp ArrowDown Alt+ArrowDown"
        :data-value="iso"
        :aria-invalid="wrong ? true : undefined"
        :aria-describedby="wrong || hint ? `${id}-words` : undefined"
        @input="type"
        @focus="field?.select()"
        @blur="leave"
        @keydown.up.exact.prevent="step(1)"
        @keydown.down.exact.prevent="step(-1)"
        @keydown.alt.down.prevent="open = true"
      />
      <button
        class="text-muted hover:text-ink absolute inset-y-0 right-0 grid w-11 cursor-pointer place-items-center"
        type="button"
        tabindex="-1"
        :aria-label="say`Choose from a calendar`"
        :aria-expanded="open"
        @click="open = !open"
      >
        <CalendarDays :size="20" aria-hidden="true" />
      </button>
      <div
        v-if="open"
        ref="panel"
        popover="manual"
        role="dialog"
        class="border-rule bg-card text-ink overflow-y-auto rounded-md border shadow-lg"
        :aria-label="say`Calendar`"
        :style="place"
        @keydown.esc.stop.prevent="close"
        @focusout="gone"
      >
        <DayCalendar :day="iso || null" :today="season.todayIso" :min="min" :max="max" @choose="choose" />
      </div>
    </div>
    <p v-if="wrong" :id="`${id}-words`" class="text-wrong mt-1 text-sm font-bold">{{ wrong }}</p>
    <p v-else-if="hint" :id="`${id}-words`" class="text-muted mt-1 text-sm">{{ hint }}</p>
  </div>
</template>
