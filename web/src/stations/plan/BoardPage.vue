<script setup lang="ts">
import {
  couldGive,
  firstsOfMonths,
  isoOf,
  partsOf,
  type BoardSpan,
  type EpochDay,
  type Stay,
  say,
  word,
} from '@kauri/core';
import type { Place, PlannedSowing } from '@kauri/core/contract';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { AlertTriangle, ChevronDown } from 'lucide-vue-next';
import { computed, ref, useTemplateRef } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import EmptyState from '../../parts/EmptyState.vue';
import TableOut from '../../tables/TableOut.vue';
import { makePdf, offerFile } from '../../print/pdf';
import { useNursery } from '../../stores/nursery';
import { usePlan } from '../../stores/plan';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { monthName, shortDate, yearOf } from '../../words/dates';
import { percent, several } from '../../words/numbers';
import { boardSheets, boardTable } from './boardFiles';
import BoardSowing from './BoardSowing.vue';
import { useBoard, WEEKS, type BoardPlace } from './useBoard';
import { useBoardLines, type BoardLoad } from './useBoardLines';
import { putInto, stageOf, useDrag, whyNotIn } from './useDrag';
import { useShift } from './useShift';

/** Places down, weeks across: how full each is, with what stands and what is planned. */
const nursery = useNursery();
const season = useSeason();
const session = useSession();
const plan = usePlan();
const { show } = usePreferences();
const { rows, ready, from, until } = useBoard();

const WEEK_PX = 11;
const NAME_PX = 168;
const ROW_PX = 44;
const HEAD_PX = 30;
const { lines, toggle } = useBoardLines({ rows, from });
const loadWords = ({ weeks }: BoardLoad) =>
  weeks.map(({ week, words }) => `${day(week)}: ${words}`).join(', ');
const scroller = useTemplateRef('scroller');
const board = useTemplateRef('board');
const virtual = useVirtualizer(
  computed(() => ({
    count: lines.value.length,
    getScrollElement: () => scroller.value,
    estimateSize: (i: number) => (lines.value[i].kind === 'head' ? HEAD_PX : ROW_PX),
    overscan: 8,
  })),
);
const drawn = computed(() =>
  virtual.value.getVirtualItems().map((item) => ({ ...item, line: lines.value[item.index] })),
);
const x = (day: EpochDay) => ((day - from.value) / 7) * WEEK_PX;
const months = computed(() => firstsOfMonths(from.value, 26).filter((day) => day < until.value));
const monthLabel = (first: EpochDay) => {
  const { year, month } = partsOf(first);
  return month === 1 ? String(year) : monthName(month - 1);
};
const year = computed(() => yearOf(season.view));
const day = (on: EpochDay) => shortDate(on, year.value);
const isOver = ({ share }: BoardSpan) => share > 1.000001;
const level = (share: number) => `${100 * Math.min(1, share)}%`;

const overs = computed(() =>
  rows.value
    .flatMap((row) => row.over.map((span) => ({ row, span })))
    .sort((a, b) => a.span.from - b.span.from),
);
function overWords({ row, span }: { row: BoardPlace; span: BoardSpan }): string {
  const when = say`${row.place.place.name}, ${day(span.from)} to ${day(span.until - 1)}`;
  if (span.fault) return `${when}: ${span.fault}`;
  const by =
    row.place.place.kind === 'bed'
      ? show(span.over, 'area', 1)
      : say`${show(span.over / 1000, 'site', 1)} of its length`;
  return say`${when}: ${by} more than it has, at most`;
}
const nameOf = (id: string) => nursery.lots.get(id)?.code ?? say`a planned sowing`;
const plannedName = (id: string) => {
  const sowing = plan.sowings.find((one) => one.id === id);
  return sowing ? `${speciesName(sowing.speciesId)}, ${word(sowing.route)}` : nameOf(id);
};
const table = () => boardTable(rows.value, { nameOf: plannedName });
async function paper() {
  try {
    const title = say`What the yard carries, ${nursery.catalogue!.nursery.name}, from ${isoOf(from.value)}`;
    const weeks = [from.value, until.value] as const;
    const sheet = boardSheets(rows.value, months.value, weeks, { title, speciesName });
    offerFile('board.pdf', await makePdf(sheet), 'application/pdf');
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
const gives = (span: BoardSpan) => couldGive(span).slice(0, 3);

const query = useRoute().query.sowing;
const chosenId = ref<string | null>(typeof query === 'string' ? query : null);
const chosen = computed<PlannedSowing | null>(
  () => plan.sowings.find(({ id }) => id === chosenId.value) ?? null,
);
/** Planned in a place that was taken down since: no row shows them. */
const homeless = computed(() =>
  plan.sowings.filter(({ stages }) => stages.some(({ placeId }) => !nursery.lookup.places.has(placeId))),
);
const speciesName = (id: string) => nursery.lookup.species.get(id)?.common ?? '?';
const { shift, fault, busy } = useShift();
function placeAt(clientY: number): Place | null {
  const top = board.value?.getBoundingClientRect().top;
  if (top === undefined) return null;
  const y = clientY - top;
  const at = virtual.value.getVirtualItems().find(({ start, size }) => start <= y && y < start + size);
  const line = at && lines.value[at.index];
  return line?.kind === 'place' ? line.row.place : null;
}
const drag = useDrag(WEEK_PX, placeAt, ({ sowing, stay, weeks, place }) => {
  const at = stageOf(sowing, stay);
  const why = place && at >= 0 ? whyNotIn(sowing.stages[at], place) : null;
  if (why) fault.value = why;
  else void shift(sowing, weeks, place ? putInto(sowing, stay, place.id) : sowing);
});
const grab = (event: PointerEvent, sowing: PlannedSowing, stay: Stay) => {
  if (session.may('grower') && !busy.value) drag.grab(event, sowing, stay);
};
/** Where what is carried would begin, in words. */
const carriedWords = computed(() => {
  const of = drag.carried.value;
  if (!of) return null;
  const when = day(of.stay.from + 7 * of.weeks);
  return `${drag.why.value ?? `${of.place?.place.name ?? ''}, ${when}`}`;
});
/** What is carried is seen where it would go. */
const carriedBy = (stay: Stay) => {
  const of = drag.carried.value;
  return of?.stay === stay ? `translateX(${of.weeks * WEEK_PX}px)` : undefined;
};
/** Rows that cannot take what is carried. */
const isShut = (place: Place) => {
  const of = drag.carried.value;
  const at = of ? stageOf(of.sowing, of.stay) : -1;
  return at >= 0 && whyNotIn(of!.sowing.stages[at], place) !== null;
};
/** A row told in words, for who does not see it. */
const rowWords = (row: BoardPlace) =>
  row.all
    .map(
      (span) => `${day(span.from)}: ${Number.isFinite(span.share) ? percent(span.share) : say`does not fit`}`,
    )
    .join(', ');
</script>

<template>
  <div class="flex h-full flex-col">
    <div class="space-y-2 p-4 md:px-5">
      <header class="flex flex-wrap items-baseline gap-x-4">
        <h1 class="text-2xl">{{ say`What the yard carries` }}</h1>
        <p class="text-muted">
          {{ say`${several(rows.length, 'place')}, ${several(plan.sowings.length, 'sowing')} planned` }}
        </p>
        <span v-if="ready && rows.length" class="ml-auto flex gap-2">
          <button class="act" type="button" @click="paper">{{ say`On paper, A3` }}</button>
          <TableOut :label="say`As a table`" name="board" :table="table" />
        </span>
      </header>
      <p class="text-muted flex flex-wrap gap-x-5 text-sm">
        <span
          ><i class="bg-leaf-mid inline-block h-3 w-5 align-middle" aria-hidden="true" />
          {{ say`stands` }}</span
        >
        <span
          ><i class="planned inline-block h-3 w-5 align-middle" aria-hidden="true" /> {{ say`planned` }}</span
        >
        <span
          ><i class="over inline-block h-3 w-5 align-middle" aria-hidden="true" />
          {{ say`more than it has` }}</span
        >
        <span>{{
          say`What stands is drawn until its plug is bound or its lifting window closes: move it earlier, and the room is free.`
        }}</span>
      </p>
      <p v-for="sowing in homeless" :key="sowing.id" class="flex items-baseline gap-2 font-bold">
        {{
          say`${speciesName(sowing.speciesId)}, ${sowing.route}: a place it was planned in is no longer in the yard.`
        }}
        <button class="quiet" type="button" @click="chosenId = sowing.id">{{ say`Choose another` }}</button>
      </p>
      <ul v-if="ready && overs.length" class="max-h-32 space-y-1 overflow-y-auto" data-testid="over-full">
        <li
          v-for="over in overs"
          :key="`${over.row.place.id} ${over.span.from}`"
          class="flex items-start gap-2"
        >
          <AlertTriangle class="text-wrong shrink-0 self-center" :size="18" aria-hidden="true" />
          <span>
            <b>{{ overWords(over) }}.</b>
            <template v-if="gives(over.span).length">
              {{ say` Could leave by then:` }}
              <template v-for="(stay, i) in gives(over.span)" :key="stay.id"
                >{{ i ? ', ' : ''
                }}<RouterLink class="quiet" :to="{ name: 'grow', params: { lot: stay.id } }">{{
                  nameOf(stay.id)
                }}</RouterLink></template
              >.
            </template>
            <template v-else-if="over.span.stays.every((stay) => stay.isPlanned)">
              {{ say` Put some of it elsewhere, or in another week.` }}</template
            >
            <template v-else> {{ say` Nothing that stands there could leave by then.` }}</template>
          </span>
        </li>
      </ul>
    </div>
    <p v-if="fault" class="text-wrong px-4 font-bold" role="alert">{{ fault }}</p>
    <p
      v-if="carriedWords"
      class="bg-ink text-paper pointer-events-none fixed bottom-28 left-1/2 z-30 -translate-x-1/2 rounded-md px-4 py-2 font-bold"
      role="status"
    >
      {{ carriedWords }}
    </p>
    <BoardSowing
      v-if="chosen"
      :key="chosen.id"
      :sowing="chosen"
      :busy="busy"
      @shift="(weeks) => shift(chosen!, weeks)"
      @close="chosenId = null"
    />
    <p v-if="!ready" class="text-muted p-5" role="status">
      {{ say`Working out how long what stands will stay …` }}
    </p>
    <EmptyState v-else-if="!rows.length" :title="say`No places yet`">
      {{ say`Add a bed or a bench in the Yard: the board shows how full each will be.` }}
    </EmptyState>
    <div
      v-else
      ref="scroller"
      class="border-rule relative min-h-0 flex-1 overflow-auto border-t"
      data-testid="board"
    >
      <div :style="{ width: `${NAME_PX + WEEKS * WEEK_PX}px` }">
        <div class="bg-paper border-rule sticky top-0 z-20 flex h-7 border-b text-sm">
          <span class="bg-paper sticky left-0 z-10 shrink-0" :style="{ width: `${NAME_PX}px` }" />
          <span class="relative flex-1">
            <span
              v-for="first in months"
              :key="first"
              class="text-muted border-rule absolute top-0 h-full border-l pl-1"
              :style="{ left: `${x(first)}px` }"
              >{{ monthLabel(first) }}</span
            >
          </span>
        </div>
        <div ref="board" class="relative" :style="{ height: `${virtual.getTotalSize()}px` }">
          <div
            v-for="{ line, start, size, key } in drawn"
            :key="String(key)"
            class="absolute inset-x-0 flex"
            :style="{ transform: `translateY(${start}px)`, height: `${size}px` }"
          >
            <h2 v-if="line.kind === 'head'" class="bg-paper sticky left-0 z-10 self-end pl-3 text-base">
              <button
                class="flex items-center gap-1"
                type="button"
                :aria-expanded="!line.group.isShut"
                @click="toggle(line.group)"
              >
                <ChevronDown
                  :class="line.group.isShut ? '-rotate-90' : ''"
                  class="transition-transform"
                  :size="16"
                  aria-hidden="true"
                />{{ line.group.words }}
              </button>
            </h2>
            <template v-else-if="line.kind === 'load'">
              <span
                class="bg-paper border-rule sticky left-0 z-10 flex shrink-0 flex-col justify-center border-b pl-4 text-sm leading-tight"
                :style="{ width: `${NAME_PX}px` }"
                >{{ line.load.name
                }}<span class="text-muted">{{ say`at most ${line.load.most}` }}</span></span
              >
              <div
                class="border-rule relative flex-1 border-b"
                role="img"
                :aria-label="loadWords(line.load)"
                data-testid="load"
              >
                <span
                  v-for="{ week, share, words } in line.load.weeks"
                  :key="week"
                  class="bg-muted absolute bottom-0"
                  :title="`${day(week)}: ${words}`"
                  :style="{
                    left: `${x(week) + 1}px`,
                    width: `${WEEK_PX - 2}px`,
                    height: `${92 * share}%`,
                  }"
                />
              </div>
            </template>
            <template v-else>
              <RouterLink
                class="bg-paper border-rule sticky left-0 z-10 flex shrink-0 items-center truncate border-b pl-4 font-bold"
                :style="{ width: `${NAME_PX}px` }"
                :to="{ name: 'yard', params: { place: line.row.place.id } }"
                >{{ line.row.place.place.name }}</RouterLink
              >
              <div
                class="border-rule relative flex-1 border-b"
                :class="isShut(line.row.place) ? 'opacity-30' : ''"
                role="img"
                :aria-label="rowWords(line.row)"
              >
                <template v-for="span in line.row.all" :key="span.from">
                  <span
                    v-if="span.share > 0"
                    class="absolute bottom-0"
                    :class="isOver(span) ? 'over' : 'planned'"
                    :style="{
                      left: `${x(span.from)}px`,
                      width: `${x(span.until) - x(span.from)}px`,
                      height: level(span.share),
                    }"
                  />
                </template>
                <template v-for="span in line.row.standing" :key="`s${span.from}`">
                  <span
                    v-if="span.share > 0"
                    class="absolute bottom-0"
                    :class="isOver(span) ? 'over' : 'bg-leaf-mid'"
                    :style="{
                      left: `${x(span.from)}px`,
                      width: `${x(span.until) - x(span.from)}px`,
                      height: level(span.share),
                    }"
                  />
                </template>
              </div>
              <button
                v-for="({ stay, sowing }, i) in line.row.planned"
                :key="`${sowing.id} ${stay.from}`"
                class="border-ink absolute z-[5] truncate rounded border-2 px-1 text-left text-xs leading-none font-bold"
                :class="[
                  sowing.id === chosenId ? 'bg-tag text-tag-ink' : 'bg-card/85',
                  drag.carried.value?.stay === stay ? 'z-10 opacity-80 shadow-lg' : '',
                ]"
                :style="{
                  left: `${NAME_PX + Math.max(0, x(stay.from))}px`,
                  transform: carriedBy(stay),
                  width: `${Math.max(18, x(Math.min(until, stay.until)) - Math.max(0, x(stay.from)))}px`,
                  top: `${4 + (i * (ROW_PX - 8)) / line.row.planned.length}px`,
                  height: `${(ROW_PX - 8) / line.row.planned.length}px`,
                }"
                type="button"
                :aria-pressed="sowing.id === chosenId"
                :aria-label="
                  say`${speciesName(sowing.speciesId)}, planned ${day(stay.from)} to ${day(stay.until)}`
                "
                @click="chosenId = sowing.id"
                @pointerdown="grab($event, sowing, stay)"
                @pointermove="drag.carry"
                @pointerup="drag.release"
                @pointercancel="drag.letGo"
                @keydown.esc="drag.letGo"
                @keydown.left.prevent="shift(sowing, -1)"
                @keydown.right.prevent="shift(sowing, 1)"
              >
                {{ speciesName(sowing.speciesId) }}
              </button>
            </template>
          </div>
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.planned {
  background: repeating-linear-gradient(135deg, var(--leaf) 0 2px, var(--leaf-pale) 2px 7px);
}
.over {
  background: repeating-linear-gradient(45deg, var(--wrong) 0 3px, var(--card) 3px 7px);
}
</style>
