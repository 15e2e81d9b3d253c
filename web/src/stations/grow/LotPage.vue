<script setup lang="ts">
import { roleWords } from '../../words/people';
import { say } from '@kauri/core';
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import type { CareKind, RuleName } from '@kauri/core';
import type { LotDetail } from '@kauri/core/contract';
import { call } from '../../api/client';
import PlantTag from '../../parts/PlantTag.vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import StatusMark from '../../parts/StatusMark.vue';
import type { ShownLot } from '../../parts/useLots';
import { useKeys } from '../../shell/useKeys';
import { useHolds } from '../../stores/holds';
import { useForecasts } from '../../stores/forecasts';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { decisionWords } from '../../words/decision';
import { begunWords } from '../../words/seed';
import { dateWords } from '../../words/dates';
import { useLotAsks } from '../today/useLotAsks';
import LiftDialog from '../lift/LiftDialog.vue';
import CountDialog from './CountDialog.vue';
import EditLotDialog from './EditLotDialog.vue';
import HoldCard from './HoldCard.vue';
import LotFigures from './LotFigures.vue';
import LotLedger from './LotLedger.vue';
import LotOdds from './LotOdds.vue';
import LotRecords from './LotRecords.vue';
import LotSection from './LotSection.vue';
import { sheetOfRule, type LotSheet } from './lotSheets';
import MeasureDialog from './MeasureDialog.vue';
import PullDialog from './PullDialog.vue';
import SecondLook from './SecondLook.vue';
import ShiftDialog from './ShiftDialog.vue';
import WriteOffDialog from './WriteOffDialog.vue';

const GroundLineChart = defineAsyncComponent(() => import('./GroundLineChart.vue'));
const EventDialog = defineAsyncComponent(() => import('./EventDialog.vue'));
const CareDialog = defineAsyncComponent(() => import('./CareDialog.vue'));
const CorrectSowingDialog = defineAsyncComponent(() => import('./CorrectSowingDialog.vue'));
const WhatIfDialog = defineAsyncComponent(() => import('./WhatIfDialog.vue'));

const SplitDialog = defineAsyncComponent(() => import('./SplitDialog.vue'));
const HoldOrMove = defineAsyncComponent(() => import('./HoldOrMove.vue'));

const props = defineProps<{ lot: ShownLot }>();
/** Whether the seasons ahead are asked for. */
const opened = ref(false);
const session = useSession();
const messages = useMessages();
const season = useSeason();
const nursery = useNursery();
const forecasts = useForecasts();
const route = useRoute();
const router = useRouter();

const sheet = ref<LotSheet | null>(null);
const tab = ref<'records' | 'ledger' | 'journal'>('records');
const detail = ref<LotDetail | null>(null);

const standing = computed(() => props.lot.view.standing);
const words = computed(() => decisionWords(standing.value.decision, season.view));
const inBed = computed(() => props.lot.facts.home.kind === 'bed');
const may = computed(() => session.may('crew'));
const held = computed(() => props.lot.row.held);
const wasSown = computed(() => ['seed', 'cuttings'].includes(props.lot.row.origin));
const holds = useHolds();
const holding = ref(false);
const isHeld = computed(() =>
  holds.all.some(({ lotId, ended }) => lotId === props.lot.row.id && ended === null),
);
/** Each key of the page, and why it cannot act; null where it can. */
const acts = computed(() => {
  const { sown, standing: trees } = held.value;
  const { code } = props.lot.row;
  const anything = sown + trees > 0 ? null : say`Nothing of ${code} is left in the ground or standing.`;
  const standing = trees > 0 ? null : say`Nothing of ${code} stands.`;
  const plugs = inBed.value ? say`${code} stands in a bed: it has no plugs to pull.` : standing;
  return [
    { sheet: 'count', words: say`Count`, key: 'C', why: anything },
    { sheet: 'measure', words: say`Measure`, key: 'M', why: standing },
    { sheet: 'pull', words: say`Pull plugs`, key: 'R', why: plugs },
    { sheet: 'shift', words: say`Move on`, key: 'S', why: standing },
    { sheet: 'care', words: say`Work done`, key: 'W', why: anything },
    { sheet: 'event', words: say`What happened`, key: 'E', why: standing },
    { sheet: 'split', words: say`Set part apart`, key: 'P', why: standing },
    { sheet: 'lift', words: say`Lift`, key: 'L', why: standing },
    { sheet: 'write-off', words: say`Write off`, key: 'X', why: anything },
  ] as const;
});
/** The work a sheet begins with: what Today asks for, where it asks for some. */
const work = ref<CareKind | undefined>();
/** Opens a sheet, or says why it cannot. */
function open(name: LotSheet, begin = firstWork.value) {
  const why = may.value
    ? (acts.value.find((act) => act.sheet === name)?.why ?? null)
    : say`Recording needs the role of crew; yours is ${roleWords[session.membership!.role]}.`;
  if (why !== null) return messages.say(why);
  work.value = begin;
  sheet.value = name;
}
const { linesOf } = useLotAsks();
/** What Today asks of this lot, in Today’s order. */
const asked = computed(() =>
  linesOf(props.lot.row.id).map(({ item }) => ({
    words: item.words,
    opens: sheetOfRule[item.rule as RuleName],
  })),
);
const firstWork = computed(() => asked.value.find(({ opens }) => opens?.work)?.opens?.work);
// From a tag, or a link: the sheet is opened once, and going back does not open it again.
watch(
  () => route.query.do,
  async (name) => {
    if (typeof name !== 'string') return;
    const { do: _, work: begin, ...rest } = route.query;
    await router.replace({ query: rest });
    if (acts.value.some((act) => act.sheet === name))
      open(name as LotSheet, typeof begin === 'string' ? (begin as CareKind) : undefined);
  },
  { immediate: true },
);
useKeys({
  c: () => open('count'),
  m: () => open('measure'),
  r: () => open('pull'),
  s: () => open('shift'),
  p: () => open('split'),
  l: () => open('lift'),
  x: () => open('write-off'),
  w: () => open('care'),
  e: () => open('event'),
});

// The journal is only wanted when its tab is open; it is read again when records change.
watch([tab, () => nursery.evidence.get(props.lot.row.id)], async () => {
  if (tab.value !== 'journal') return;
  detail.value = await call('lot', { params: { ...nursery.params, lot: props.lot.row.id } }).catch(
    () => null,
  );
});
const tabs = [
  { name: 'records', words: say`Records` },
  { name: 'ledger', words: say`Ledger` },
  { name: 'journal', words: say`Journal` },
] as const;
</script>

<template>
  <article class="p-4 md:p-5">
    <div class="mb-3 flex flex-wrap items-baseline gap-x-3">
      <RouterLink class="quiet md:hidden" :to="{ name: 'grow' }">{{ say`All lots` }}</RouterLink>
      <h1 class="text-2xl">{{ lot.row.code }}</h1>
      <p class="text-lg">{{ lot.species }}</p>
      <p class="text-muted">
        {{ lot.where }} · {{ begunWords[lot.row.origin] }} {{ dateWords(lot.row.sownOn) }}
      </p>
      <StatusMark class="ml-auto" :status="standing.status" />
    </div>

    <div class="flex flex-wrap items-stretch gap-3">
      <PlantTag
        class="min-w-72"
        :headline="words.headline"
        :detail="words.detail"
        :urgent="standing.urgent"
      />
      <div v-if="may" class="flex max-w-full flex-wrap content-start gap-2 xl:max-w-96">
        <button
          v-for="act in acts"
          v-show="act.why === null && act.sheet !== 'split'"
          :key="act.sheet"
          class="act"
          type="button"
          @click="open(act.sheet)"
        >
          {{ act.words }} <span class="key" aria-hidden="true">{{ act.key }}</span>
        </button>
      </div>
    </div>
    <ul v-if="asked.length" class="mt-2 flex flex-wrap items-center gap-x-4" data-testid="asked">
      <li class="text-muted">{{ say`${season.isToday ? say`Today` : say`That day`} asks:` }}</li>
      <li v-for="{ words: said, opens } in asked" :key="said.title" :title="said.reason">
        <button
          v-if="may && opens"
          class="quiet"
          data-said
          type="button"
          @click="open(opens.sheet, opens.work)"
        >
          {{ said.title }}
        </button>
        <template v-else>{{ said.title }}</template>
      </li>
    </ul>
    <p class="text-muted mt-1 flex flex-wrap items-center gap-x-3">
      <span v-if="lot.row.note">{{ lot.row.note }}</span>
      <RouterLink class="quiet print:hidden" :to="{ name: 'seed-labels', query: { lot: lot.row.id } }">{{
        say`Label`
      }}</RouterLink>
      <RouterLink
        v-if="held.standing > 0"
        class="quiet print:hidden"
        :to="{ name: 'roots', params: { lot: lot.row.id } }"
        >{{ say`Root bench` }}</RouterLink
      >
      <RouterLink
        v-if="held.sown > 0"
        class="quiet print:hidden"
        :to="{ name: 'seed-up', params: { lot: lot.row.id } }"
        >{{ say`Coming up` }}</RouterLink
      >
      <button v-if="may && held.standing > 0" class="quiet" type="button" @click="open('split')">
        {{ say`Set part apart` }} <span class="key hand:hidden" aria-hidden="true">P</span>
      </button>
      <button v-if="session.may('grower')" class="quiet" type="button" @click="open('edit')">
        {{ say`Edit wanted height, leaf fall, note` }}
      </button>
      <button v-if="session.may('grower') && wasSown" class="quiet" type="button" @click="open('correct')">
        {{ say`Correct the sowing` }}
      </button>
    </p>

    <HoldCard v-model:begins="holding" :lot="lot" />
    <SecondLook :lot="lot" />
    <div class="mt-4 grid grid-cols-1 gap-4 xl:grid-cols-[minmax(0,1fr)_15rem]">
      <GroundLineChart
        v-if="forecasts.selected"
        :facts="lot.facts"
        :forecast="forecasts.selected"
        :standing="standing"
      />
      <div v-else class="h-96" role="status">{{ say`Working out the forecast …` }}</div>
      <div class="grid grid-cols-2 gap-4 xl:grid-cols-1">
        <LotSection :facts="lot.facts" :forecast="lot.view.forecast" :standing="standing" />
        <LotFigures :facts="lot.facts" :forecast="lot.view.forecast" :standing="standing" />
      </div>
    </div>

    <div class="mt-4 max-w-3xl">
      <LotOdds :facts="lot.facts" :forecast="lot.view.forecast" :standing="standing.tally.standing > 0" />
      <button
        v-if="standing.tally.standing > 0"
        class="quiet"
        type="button"
        data-testid="what-if-open"
        @click="sheet = 'what-if'"
      >
        {{ say`What if: apart, fed, moved` }}
      </button>
      <button
        v-if="may && held.standing > 0 && holds.loaded && !isHeld"
        class="quiet ml-4"
        type="button"
        data-testid="hold-open"
        @click="holding = true"
      >
        {{ say`Hold in humid air` }}
      </button>
    </div>

    <details
      v-if="standing.tally.standing > 0"
      class="border-rule mt-4 border-t pt-2"
      @toggle="opened = ($event.target as HTMLDetailsElement).open"
    >
      <summary class="min-h-11 cursor-pointer py-2 font-bold" data-testid="seasons-open">
        {{ say`Seasons ahead: hold, move or let go` }}
      </summary>
      <HoldOrMove v-if="opened" :lot="lot" />
    </details>

    <div class="mt-3 flex flex-wrap items-start gap-x-6">
      <ShowWorking v-if="forecasts.selected" :steps="forecasts.selected.working" />
      <RouterLink class="quiet" :to="{ name: 'held' }">{{ say`How well past forecasts held` }}</RouterLink>
      <RouterLink class="quiet" :to="{ name: 'learnt' }">{{ say`What your lots teach` }}</RouterLink>
    </div>

    <section class="border-rule mt-5 border-t pt-3">
      <div class="mb-2 flex gap-2" role="tablist" :aria-label="say`What is kept of this lot`">
        <button
          v-for="t in tabs"
          :key="t.name"
          type="button"
          role="tab"
          :aria-selected="tab === t.name"
          class="min-h-11 cursor-pointer border-b-3 px-3 font-bold"
          :class="tab === t.name ? 'border-ink' : 'text-muted border-transparent'"
          @click="tab = t.name"
        >
          {{ t.words }}
        </button>
      </div>
      <div role="tabpanel">
        <LotRecords v-if="tab === 'records'" :lot="lot" />
        <LotLedger v-else-if="tab === 'ledger'" :lot="lot" />
        <ul v-else class="space-y-1">
          <li v-for="entry in detail?.journal ?? []" :key="entry.id">
            <span class="text-muted">{{ entry.at.replace('T', ' ').replace('Z', ' UTC') }}</span>
            {{ entry.who }}: <b>{{ entry.act }}</b>
          </li>
          <li v-if="!detail" class="text-muted">{{ say`Reading the journal …` }}</li>
        </ul>
      </div>
    </section>

    <CountDialog v-if="sheet === 'count'" :lot="lot" @close="sheet = null" />
    <MeasureDialog v-if="sheet === 'measure'" :lot="lot" @close="sheet = null" />
    <PullDialog v-if="sheet === 'pull'" :lot="lot" @close="sheet = null" />
    <ShiftDialog v-if="sheet === 'shift'" :lot="lot" @close="sheet = null" />
    <SplitDialog
      v-if="sheet === 'split'"
      :of="{
        lotId: lot.row.id,
        code: lot.row.code,
        speciesId: lot.row.speciesId,
        sownOn: lot.row.sownOn,
        there: held.standing,
      }"
      :seen="lot.row.stage.id"
      @close="sheet = null"
    />
    <LiftDialog v-if="sheet === 'lift'" :lot="lot" @close="sheet = null" />
    <WriteOffDialog v-if="sheet === 'write-off'" :lot="lot" @close="sheet = null" />
    <EventDialog v-if="sheet === 'event'" :lot="lot" @close="sheet = null" />
    <CareDialog v-if="sheet === 'care'" :lot="lot" :begin="work" @close="sheet = null" />
    <WhatIfDialog
      v-if="sheet === 'what-if'"
      :lot="lot"
      @close="sheet = null"
      @move="sheet = may ? 'shift' : null"
    />
    <EditLotDialog v-if="sheet === 'edit'" :lot="lot" @close="sheet = null" />
    <CorrectSowingDialog v-if="sheet === 'correct'" :lot="lot" @close="sheet = null" />
  </article>
</template>
