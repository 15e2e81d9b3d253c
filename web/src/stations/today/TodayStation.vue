<script setup lang="ts">
import { type AgendaLine, type Status, type TodayItem, type When, say } from '@kauri/core';
import { computed, defineAsyncComponent, onMounted, ref } from 'vue';
import { useSessionStorage } from '@vueuse/core';
import { useGrowing } from '../../parts/useGrowing';
import { RouterLink } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import EmptyState from '../../parts/EmptyState.vue';
import StatusMark from '../../parts/StatusMark.vue';
import WeatherBehind from '../../parts/WeatherBehind.vue';
import { useLots } from '../../parts/useLots';
import { useWay } from '../../parts/useWay';
import { SHOWN_OF_EACH } from '../../stores/agenda';
import { keptKey } from '../../stores/kept';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { useTodayBook } from '../../stores/todayBook';
import { longDate, shortDate, yearOf } from '../../words/dates';
import { count, several } from '../../words/numbers';
import FirstHour from './FirstHour.vue';
import TodayLine from './TodayLine.vue';
import { useFirstHour } from './useFirstHour';
import { minutesWords } from './todayWords';
import { lotOf as lotOfLine, useToday } from './useToday';

const MarkDialog = defineAsyncComponent(() => import('./MarkDialog.vue'));
const TodayRulesDialog = defineAsyncComponent(() => import('./TodayRulesDialog.vue'));
const CalendarDialog = defineAsyncComponent(() => import('./CalendarDialog.vue'));

const season = useSeason();
const session = useSession();
const book = useTodayBook();
const { lots } = useLots();
const { agenda, counts, rates, byId, load, shown: isThere, isOwn } = useToday();
const fault = ref<string | null>(null);
onMounted(() => {
  // Read anew whenever it is opened: until this browser has worked its own out, it is what is shown.
  load().catch(() => undefined);
  book.load().catch((error: unknown) => (fault.value = sentenceOf(error)));
});

const groups: readonly { when: When; words: string }[] = [
  { when: 'now', words: say`Act now` },
  { when: 'week', words: say`This week` },
  { when: 'weeks', words: say`The next four weeks` },
  { when: 'watch', words: say`Watch` },
];
type Line = AgendaLine<TodayItem>;
const shown = computed(() =>
  groups
    .map((group) => ({ ...group, lines: agenda.value.lines.filter((line) => line.when === group.when) }))
    .filter((group) => group.lines.length),
);
/** Whether what is due is listed place by place, as one walks, or by how much it presses. */
const walking = useSessionStorage(keptKey('today.walking'), false);
const asWalked = useWay();
/** What is due within the week, where it is to be done, as one walks past it. */
const stops = computed(() => {
  const due = agenda.value.lines.filter(({ when }) => when === 'now' || when === 'week');
  const byPlace = new Map<string, Line[]>();
  for (const line of due) {
    const place = lotOf(line)?.place ?? '';
    byPlace.set(place, [...(byPlace.get(place) ?? []), line]);
  }
  return asWalked([...byPlace.keys()]).map((place) => ({ place, lines: byPlace.get(place)! }));
});
const nowhere = say`Not at a place of the yard`;
const minutesOf = (lines: readonly Line[]) => lines.reduce((sum, { minutes }) => sum + minutes, 0);
/** Lines drawn of each group: the first few at once, the others frame by frame, more when they are asked for. */
const FIRST = 3;
const drawn = useGrowing(FIRST, SHOWN_OF_EACH);
const more = ref<Partial<Record<When, number>>>({});
const limitOf = (when: When) => drawn.value + (more.value[when] ?? 0);
const showMore = (when: When) => (more.value[when] = (more.value[when] ?? 0) + 100);
const lotOf = (line: Line) => lotOfLine(byId.value, line);
/** Nothing is known of this date yet: neither what presses nor that nothing does. */
const coming = computed(() => !isThere.value);
const keyOf = ({ item }: Line) => `${item.rule} ${item.subjectId ?? ''}`;

const marking = ref<{ line: Line; as: 'done' | 'skipped' | 'assigned' } | null>(null);
const sheet = ref<'rules' | 'calendar' | null>(null);
const withHidden = ref(false);
const firstHour = useFirstHour();
const title = computed(
  () => `${season.isToday ? say`Today` : say`On`}, ${longDate(season.view, yearOf(season.today))}`,
);
const markWords = { done: say`Done`, skipped: say`Skipped`, assigned: say`Given` } as const;

async function paper() {
  const [{ makePdf, offerFile }, { todaySheet }] = await Promise.all([
    import('../../print/pdf'),
    import('./todaySheet'),
  ]);
  const where = (line: Line) => {
    const lot = lotOf(line);
    return lot ? `${lot.species}\n${lot.where}` : '';
  };
  const whose = ({ assigned }: Line) => (assigned ? book.nameOf(assigned.assignedTo) : '');
  const due = walking.value
    ? stops.value.map(({ place, lines }) => ({ words: place || nowhere, lines }))
    : shown.value.filter((group) => group.when !== 'watch');
  offerFile('to-do.pdf', await makePdf(todaySheet(title.value, due, where, whose)));
}

const order: Status[] = [
  'bound',
  'holding',
  'ready',
  'filling',
  'growing',
  'lift',
  'waiting',
  'failed',
  'lifted',
  'ended',
];
const tallies = computed(() =>
  order
    .map((status) => {
      const these = lots.value.filter((lot) => lot.view.standing.status === status);
      return {
        status,
        lots: these.length,
        trees: these.reduce((sum, lot) => sum + lot.view.standing.tally.standing, 0),
      };
    })
    .filter((tally) => tally.lots),
);
const standing = computed(() => lots.value.reduce((sum, lot) => sum + lot.view.standing.tally.standing, 0));
</script>

<template>
  <div class="grid gap-6 p-4 md:p-6 lg:grid-cols-[1fr_19rem]">
    <div>
      <div class="mb-3 flex flex-wrap items-center gap-x-4 gap-y-1">
        <h1 class="mr-auto text-2xl">{{ title }}</h1>
        <template v-if="isOwn && lots.length">
          <button
            class="quiet"
            type="button"
            :aria-pressed="walking"
            data-testid="as-one-walks"
            @click="walking = !walking"
          >
            {{ walking ? say`By what presses` : say`As one walks` }}
          </button>
          <button class="quiet" type="button" @click="paper">{{ say`On paper` }}</button>
          <button v-if="book.book" class="quiet" type="button" @click="sheet = 'calendar'">
            {{ say`Calendar` }}
          </button>
          <button
            v-if="book.book && session.may('grower')"
            class="quiet px-1"
            type="button"
            @click="sheet = 'rules'"
          >
            {{ say`Rules` }}
          </button>
        </template>
      </div>
      <WeatherBehind v-if="lots.length" class="mb-3" />
      <p v-if="fault" class="text-wrong mb-3 font-bold" role="alert">{{ fault }}</p>
      <div v-if="coming" class="animate-pulse space-y-3" role="status">
        <span class="sr-only">{{ say`Working out what is to be done …` }}</span>
        <div v-for="i in 6" :key="i" class="bg-rule/50 h-20 rounded" />
      </div>
      <FirstHour
        v-else-if="isOwn && firstHour.shown.value"
        :steps="firstHour.steps.value"
        :next="firstHour.next.value"
        @put-away="firstHour.putAway"
      />
      <EmptyState v-else-if="isOwn && !lots.length" :title="say`No lot has been sown by this date`">
        {{
          say`Here Kauri says what needs doing, why, and what waiting costs. It reads lots, their records and the weather.`
        }}
        <template v-if="session.may('grower')" #action
          ><RouterLink class="act-main" :to="{ name: 'grow', query: { new: '1' } }">{{
            say`Sow the first lot`
          }}</RouterLink></template
        >
      </EmptyState>
      <p v-else-if="!shown.length" class="text-muted">{{ say`Nothing presses on this date.` }}</p>
      <template v-if="walking && isOwn">
        <p v-if="shown.length && !stops.length" class="text-muted">
          {{ say`Nothing is due within the week: go by what presses for what comes later.` }}
        </p>
        <p v-else-if="stops.length" class="text-muted mb-3">
          {{
            say`What is due within the week, place by place by a short way: ${several(stops.length, 'stop')}, ${minutesWords(minutesOf(stops.flatMap(({ lines }) => lines)))}.`
          }}
        </p>
        <section
          v-for="(stop, i) in stops"
          :key="stop.place"
          class="mb-5"
          :aria-labelledby="`stop-${i}`"
          data-testid="stop"
        >
          <h2 :id="`stop-${i}`" class="mb-2 flex items-center gap-2 text-lg">
            {{ stop.place || nowhere }}
            <span class="text-muted font-sans text-base font-normal">{{
              minutesWords(minutesOf(stop.lines))
            }}</span>
          </h2>
          <ul class="panel divide-rule divide-y">
            <TodayLine
              v-for="line in stop.lines"
              :key="keyOf(line)"
              :line="line"
              :lot="lotOf(line)"
              @mark="marking = { line, as: $event }"
            />
          </ul>
        </section>
      </template>
      <section
        v-for="group in walking && isOwn ? [] : shown"
        :key="group.when"
        class="mb-5"
        :aria-labelledby="`when-${group.when}`"
      >
        <h2
          :id="`when-${group.when}`"
          :data-testid="`when-${group.when}`"
          class="mb-2 flex items-center gap-2 text-lg"
        >
          <span v-if="group.when === 'now'" class="bg-tag text-tag-ink rounded px-2 py-0.5">{{
            group.words
          }}</span>
          <template v-else>{{ group.words }}</template>
          <span class="text-muted font-sans text-base font-normal">{{ counts[group.when] }}</span>
        </h2>
        <ul class="panel divide-rule divide-y">
          <TodayLine
            v-for="line in group.lines.slice(0, limitOf(group.when))"
            :key="keyOf(line)"
            :line="line"
            :lot="lotOf(line)"
            @mark="marking = { line, as: $event }"
          />
        </ul>
        <button
          v-if="group.lines.length > limitOf(group.when) && isOwn && drawn === SHOWN_OF_EACH"
          class="quiet"
          type="button"
          @click="showMore(group.when)"
        >
          {{ say`Show more of ${several(group.lines.length - limitOf(group.when), 'other act')}` }}
        </button>
      </section>
      <section v-if="agenda.hidden.length || agenda.muted" class="text-muted">
        <button
          v-if="agenda.hidden.length"
          class="quiet"
          type="button"
          :aria-expanded="withHidden"
          @click="withHidden = !withHidden"
        >
          {{ say`${several(agenda.hidden.length, 'act')} done or skipped for now` }}
        </button>
        <span v-if="agenda.muted"> {{ say` · ${several(agenda.muted, 'act')} muted` }}</span>
        <ul v-if="withHidden" class="panel divide-rule mt-1 divide-y" data-testid="hidden-acts">
          <li
            v-for="{ item, mark } in agenda.hidden"
            :key="mark.id"
            class="flex flex-wrap items-center gap-x-4 px-4 py-1.5"
          >
            <span class="min-w-0 flex-1">
              <b>{{ markWords[mark.mark] }}</b> {{ shortDate(mark.on, yearOf(season.today)) }}:
              {{ item.words.title }}
              <template v-if="mark.reason">({{ mark.reason }})</template>
              {{ say`· asked again from ${shortDate(mark.until, yearOf(season.today))}` }}
            </span>
            <button v-if="session.may('crew')" class="quiet" type="button" @click="book.undo(mark.id)">
              {{ say`Take back` }}
            </button>
          </li>
        </ul>
      </section>
    </div>
    <aside v-if="isOwn && tallies.length" class="lg:pt-12">
      <section class="panel p-4" aria-labelledby="standing">
        <h2 id="standing" class="mb-1 text-lg">{{ say`Standing` }}</h2>
        <p class="mb-3">
          <span class="font-head text-3xl font-semibold">{{ count(standing) }}</span>
          {{ standing === 1 ? say`tree` : say`trees` }}
        </p>
        <table class="w-full">
          <caption class="sr-only">
            {{
              say`Lots and trees by what they are at this date`
            }}
          </caption>
          <tbody>
            <tr v-for="tally in tallies" :key="tally.status" class="border-rule border-t">
              <th class="py-1.5 text-left font-normal" scope="row"><StatusMark :status="tally.status" /></th>
              <td class="py-1.5 text-right">{{ several(tally.lots, 'lot') }}</td>
              <td class="text-muted py-1.5 text-right">{{ count(tally.trees) }}</td>
            </tr>
          </tbody>
        </table>
      </section>
    </aside>
    <MarkDialog v-if="marking" :line="marking.line" :as="marking.as" @close="marking = null" />
    <TodayRulesDialog v-if="sheet === 'rules'" :rates="rates" @close="sheet = null" />
    <CalendarDialog v-if="sheet === 'calendar'" @close="sheet = null" />
  </div>
</template>
