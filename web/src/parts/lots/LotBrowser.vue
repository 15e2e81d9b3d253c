<script setup lang="ts">
import { say } from '@kauri/core';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { ListChecks } from 'lucide-vue-next';
import { computed, onMounted, ref, toRef, useTemplateRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import { useForecasts } from '../../stores/forecasts';
import { useNursery } from '../../stores/nursery';
import { useMessages } from '../../stores/messages';
import { useSession } from '../../stores/session';
import { several } from '../../words/numbers';
import type { ShownLot } from '../useLots';
import { filterWords, groupsOf, type LotGroupRows, type LotOrder } from './lotFilter';
import LotFilterBar from './LotFilterBar.vue';
import LotLine from './LotLine.vue';
import { useLotFilter } from './useLotFilter';
import { useSteady } from './useSteady';

/** The lots of a nursery as a list to work with: found, filtered, ordered, grouped, several chosen at once. */
const props = withDefaults(
  defineProps<{
    lots: readonly ShownLot[];
    chosenId: string | null;
    station?: 'grow' | 'roots' | 'lift';
    /** What “most urgent first” means here. */
    urgent?: LotOrder;
    /** The parts the list falls into where it is not grouped otherwise. */
    sections?: (lots: readonly ShownLot[]) => LotGroupRows[];
    /** Whether several lots can be worked on at once, and lots that are gone stay folded away. */
    whole?: boolean;
    testid?: string;
    /** Height of a line, px: only those in sight of a long list are drawn. */
    linePx?: number;
  }>(),
  { station: 'grow', urgent: undefined, sections: undefined, whole: true, testid: 'lots', linePx: 81 },
);
defineSlots<{ default?: () => unknown; line?: (of: { lot: ShownLot }) => unknown }>();
const emit = defineEmits<{ together: [act: Together, lots: ShownLot[]] }>();
/** What can be done with several lots at once. */
type Together = 'care' | 'labels' | 'carry' | 'hand-over';
const router = useRouter();
const session = useSession();
const nursery = useNursery();
const forecasts = useForecasts();
const messages = useMessages();
const withEnded = ref(false);

const isLive = (lot: ShownLot) => !['lifted', 'ended'].includes(lot.view.standing.status);
const { filter, set, clear, shown, leavesOut } = useLotFilter(
  toRef(props, 'lots'),
  props.station,
  props.urgent,
);
const live = computed(() => shown.value.filter(isLive));
/** Lots that are gone stay folded away, unless they were asked for. */
const wantsEnded = computed(() => withEnded.value || ['lifted', 'ended'].includes(filter.value.status));
const folded = computed(() => props.whole && !wantsEnded.value);
/** Lots that left long ago are fetched when they are wanted. */
const away = computed(() => (nursery.past === 'here' ? 0 : nursery.pastLots.length));
watch(wantsEnded, (wanted) => wanted && lookBack(), { immediate: true });
function lookBack() {
  nursery.lookBack().catch((error: unknown) => messages.say(sentenceOf(error)));
}
const listed = computed(() => (folded.value ? live.value : shown.value));
const words = computed(() =>
  // A list that waits for its forecasts says so; it never counts what is not there yet.
  forecasts.viewsOf === null
    ? say`Working the lots out …`
    : leavesOut.value || filter.value.sort !== 'urgent'
      ? filterWords(filter.value, listed.value)
      : say`${several((folded.value ? live : listed).value.length, 'lot')}, most urgent first`,
);
const failed = computed(() =>
  [...nursery.unread, ...forecasts.faults].map(([id, fault]) => ({
    code: nursery.lots.get(id)?.code ?? '',
    fault,
  })),
);

const parted = computed(() =>
  props.sections && filter.value.group === 'none'
    ? props.sections(listed.value).filter(({ lots }) => lots.length)
    : groupsOf(listed.value, filter.value.group),
);
type Row = { key: string; name: string; lot: null } | { key: string; name: ''; lot: ShownLot };
const current = computed(() =>
  parted.value.flatMap(({ name, lots }): Row[] => [
    ...(name ? [{ key: `group ${name}`, name: `${name}, ${several(lots.length, 'lot')}`, lot: null }] : []),
    ...lots.map((lot) => ({ key: lot.row.id, name: '' as const, lot })),
  ]),
);
const { steady: rows, press } = useSteady(current, window);

/** Long lists draw only what is seen; a short one is drawn whole, so that the browser's own search finds all of it. */
const DRAWN_WHOLE = 200;
const list = useTemplateRef('list');
const scroller = ref<HTMLElement | null>(null);
onMounted(() => {
  let at = list.value?.parentElement ?? null;
  while (at && !/auto|scroll/.test(getComputedStyle(at).overflowY)) at = at.parentElement;
  scroller.value = at;
});
const virtual = useVirtualizer(
  computed(() => ({
    count: rows.value.length > DRAWN_WHOLE ? rows.value.length : 0,
    getScrollElement: () => scroller.value,
    estimateSize: (i: number) => (rows.value[i]?.lot ? props.linePx : 36),
    getItemKey: (i: number) => rows.value[i]?.key ?? i,
    overscan: 8,
  })),
);
const isLong = computed(() => rows.value.length > DRAWN_WHOLE);
const drawn = computed(() =>
  isLong.value
    ? virtual.value.getVirtualItems().map(({ index, start }) => ({ row: rows.value[index], start }))
    : rows.value.map((row) => ({ row, start: 0 })),
);

/** Up and down go to the next lot, as the arrows of a list do. */
function step(by: number) {
  const at = listed.value.findIndex((lot) => lot.row.id === props.chosenId);
  const next = listed.value[Math.max(0, Math.min(listed.value.length - 1, at + by))];
  if (next)
    void router.replace({
      name: props.station,
      params: { lot: next.row.id },
      query: router.currentRoute.value.query,
    });
}

const acts: readonly { act: Together; words: string }[] = [
  { act: 'care', words: say`Work done` },
  { act: 'carry', words: say`Carry` },
  { act: 'hand-over', words: say`Hand over` },
  { act: 'labels', words: say`Labels` },
];
const choosing = ref(false);
const picked = ref<ReadonlySet<string>>(new Set());
/** Those picked that still stand and are in sight: what is gone, or filtered away unseen, is not worked on. */
const choosable = computed(() => listed.value.filter(isLive));
const together = computed(() => choosable.value.filter((lot) => picked.value.has(lot.row.id)));
function pick(id: string) {
  const next = new Set(picked.value);
  if (!next.delete(id)) next.add(id);
  picked.value = next;
}
function pickAll() {
  picked.value =
    together.value.length === choosable.value.length
      ? new Set()
      : new Set(choosable.value.map((lot) => lot.row.id));
}
function choose() {
  choosing.value = !choosing.value;
  picked.value = new Set();
}
</script>

<template>
  <div>
    <div class="border-rule bg-paper sticky top-0 z-20 space-y-2 border-b px-3 py-2">
      <LotFilterBar :lots="lots" :filter="filter" :narrowed="leavesOut" @set="set" @clear="clear" />
      <div class="flex min-h-11 items-center justify-between gap-2">
        <p class="text-muted font-bold" data-testid="lots-said" aria-live="polite">{{ words }}</p>
        <span class="flex gap-2">
          <button
            v-if="whole && session.may('crew') && choosable.length > 1"
            class="act px-3"
            type="button"
            :aria-pressed="choosing"
            @click="choose"
          >
            <ListChecks :size="18" aria-hidden="true" /><span class="sr-only">{{
              say`Choose several lots`
            }}</span>
          </button>
          <slot />
        </span>
      </div>
      <div v-if="choosing" data-testid="together">
        <div class="flex items-center gap-3">
          <button class="act" type="button" @click="pickAll">
            {{ together.length === choosable.length ? say`None` : say`All` }}
          </button>
          <p class="text-muted" aria-live="polite">{{ say`${several(together.length, 'lot')} chosen` }}</p>
        </div>
        <div class="mt-2 flex flex-wrap gap-1">
          <button
            v-for="{ act, words: said } in acts"
            :key="act"
            class="px-2.5"
            :class="act === 'care' ? 'act-main' : 'act'"
            type="button"
            :disabled="together.length === 0"
            :aria-label="`${said}: ${several(together.length, 'lot')}`"
            @click="emit('together', act, together)"
          >
            {{ said }}
          </button>
        </div>
      </div>
    </div>
    <p v-for="{ code, fault } in failed" :key="code" class="bg-tag text-tag-ink px-4 py-2" role="alert">
      <b>{{ code }}</b>{{ say`: no forecast. ${fault}` }}
    </p>
    <p v-if="leavesOut && !listed.length" class="px-4 py-6">
      {{ say`No lot is like that.` }}
      <button class="quiet" type="button" @click="clear">{{ say`Show all lots` }}</button>
      <button
        v-if="whole && away && nursery.past === 'away'"
        class="quiet"
        type="button"
        @click="withEnded = true"
      >
        {{ say`Look among ${several(away, 'lot')} of the past` }}
      </button>
    </p>
    <ul
      ref="list"
      @pointerdown.left="press"
      class="relative"
      :data-testid="testid"
      :style="isLong ? { height: `${virtual.getTotalSize()}px` } : undefined"
      @keydown.down.prevent="step(1)"
      @keydown.up.prevent="step(-1)"
    >
      <li
        v-for="{ row, start } in drawn"
        :key="row.key"
        class="border-rule flex items-center border-b"
        :class="isLong ? 'absolute inset-x-0 top-0' : ''"
        :style="isLong ? { transform: `translateY(${start}px)` } : undefined"
      >
        <p v-if="!row.lot" class="text-muted bg-paper w-full px-4 py-1.5 text-sm font-bold">{{ row.name }}</p>
        <template v-else>
          <label v-if="choosing" class="flex size-11 shrink-0 cursor-pointer items-center justify-center">
            <input
              class="accent-ink size-5"
              type="checkbox"
              :checked="picked.has(row.lot.row.id)"
              :disabled="!isLive(row.lot)"
              @change="pick(row.lot.row.id)"
            />
            <span class="sr-only">{{ say`Choose ${row.lot.row.code}` }}</span>
          </label>
          <slot name="line" :lot="row.lot">
            <LotLine :lot="row.lot" :chosen="row.lot.row.id === chosenId" :station="station" />
          </slot>
        </template>
      </li>
    </ul>
    <button
      v-if="whole && live.length < shown.length + away"
      class="quiet px-4"
      type="button"
      :aria-expanded="withEnded"
      @click="withEnded = !withEnded"
    >
      {{ say`${withEnded ? say`Hide` : say`Show`} ${shown.length - live.length + away} lifted or ended` }}
    </button>
    <p v-if="nursery.past === 'coming'" class="text-muted px-4 py-2" role="status">
      {{ say`Fetching them …` }}
    </p>
  </div>
</template>
