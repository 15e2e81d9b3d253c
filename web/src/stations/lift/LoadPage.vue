<script setup lang="ts">
import { dayOf, isoOf, say } from '@kauri/core';
import { v7 as newId } from 'uuid';
import { ScanQrCode } from 'lucide-vue-next';
import { computed, defineAsyncComponent, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { ProblemError, sentenceOf } from '../../api/problem';
import EmptyState from '../../parts/EmptyState.vue';
import EntryFields from '../../parts/EntryFields.vue';
import { useDraft } from '../../parts/useDraft';
import { useSaving } from '../../parts/useSaving';
import { makePdf, offerFile } from '../../print/pdf';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { useParcels } from '../../stores/parcels';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { dateWords } from '../../words/dates';
import { count, several } from '../../words/numbers';
import { buyerOf, sizeWords } from '../plan/orderWords';
import PackingPart from './PackingPart.vue';
import { bundleWords, useGradeWords } from './parcelWords';
import { isCode, taggedAt } from '../../scan/readTag';
import { pickList } from './pickList';
import { useBundleLabels } from './useBundleLabels';
import { useLoading, type LoadRow } from './useLoading';

const TagLook = defineAsyncComponent(() => import('../../scan/TagLook.vue'));

/** What was set aside, loaded place after place on a way through the yard, and sent. */
const nursery = useNursery();
const orders = useOrders();
const parcels = useParcels();
const season = useSeason();
const session = useSession();
const messages = useMessages();
const gradeWords = useGradeWords();
const bundleLabels = useBundleLabels();
const { show, shown, unit } = usePreferences();

/** Lines wanted from so soon on are loaded for, unless somebody says otherwise; days. */
const SOON_DAYS = 14;
const { draft, clear } = useDraft('load', {
  chosen: {} as Record<string, boolean>,
  loaded: {} as Record<string, boolean>,
  on: '',
  note: '',
  ids: {} as Record<string, string>,
});
const { busy, save, sentence, wrong, fault } = useSaving('load');
const chosen = computed(
  () =>
    new Set(
      lines.value
        .filter(({ line }) => draft.value.chosen[line.id] ?? dayOf(line.on) - season.today <= SOON_DAYS)
        .map(({ line }) => line.id),
    ),
);
const { lines, rows, stops } = useLoading(chosen);
const on = computed({
  get: () => draft.value.on || isoOf(season.today),
  set: (day: string) => (draft.value.on = day),
});
const species = (id: string) => nursery.lookup.species.get(id)?.common ?? '';
const total = computed(() => rows.value.reduce((sum, { trees }) => sum + trees, 0));
const loaded = computed(() => rows.value.filter(({ key }) => draft.value.loaded[key]));
const loadedTrees = computed(() => loaded.value.reduce((sum, { trees }) => sum + trees, 0));
const what = ({ parcel }: LoadRow) => `${species(parcel.speciesId)}, ${gradeWords(parcel)}`;

async function paper(make: () => Promise<void>) {
  fault.value = null;
  try {
    await make();
  } catch (error) {
    messages.say(sentenceOf(error));
  }
}
const list = () =>
  paper(async () => {
    const document = pickList(
      {
        nursery: nursery.catalogue!.nursery.name,
        on: dateWords(on.value),
        total: several(total.value, 'tree'),
      },
      stops.value.map(({ place, trees, rows: of }) => ({
        place: place || say`No place said`,
        trees: several(trees, 'tree'),
        lines: of.map((row) => ({
          trees: count(row.trees),
          bundles: bundleWords(row.trees, row.parcel.bundleOf),
          what: what(row),
          lot: row.parcel.code,
          whom: buyerOf(row.order),
        })),
      })),
    );
    offerFile(`to-load-${on.value}.pdf`, await makePdf(document), 'application/pdf');
  });
const labels = () =>
  paper(() =>
    bundleLabels.print(
      rows.value.map(({ parcel, trees, order }) => ({ parcel, trees, whom: say`for ${buyerOf(order)}` })),
      `labels-${on.value}.pdf`,
    ),
  );

/** Whether bundles are read by their labels as they are loaded, and what was read last. */
const scanning = ref(false);
const scanned = ref<{ words: string; ok: boolean } | null>(null);
/** A label read ticks what it stands on: the first that is not loaded yet, where it is for several. */
function tick(codes: readonly string[]) {
  for (const code of codes) {
    const tagged = taggedAt(code);
    const here = rows.value.filter(({ parcel }) =>
      tagged ? tagged.kind === 'parcel' && parcel.id === tagged.id : isCode(code, parcel.code),
    );
    const row = here.find(({ key }) => !draft.value.loaded[key]) ?? here.at(0);
    if (row) draft.value.loaded[row.key] = true;
    scanned.value = row
      ? { ok: true, words: say`Loaded: ${count(row.trees)} ${what(row)}, for ${buyerOf(row.order)}` }
      : { ok: false, words: say`That is not to be loaded: leave it where it lies.` };
  }
  navigator.vibrate?.(scanned.value?.ok ? 40 : [40, 60, 40]);
}
const unread = (words: string) => (scanned.value = { ok: false, words });

/** One sending for each line, in turn: one that is refused leaves those before it sent, and says why. */
async function send() {
  const byLine = new Map<string, LoadRow[]>();
  for (const row of loaded.value) byLine.set(row.line.id, [...(byLine.get(row.line.id) ?? []), row]);
  const sendings = [...byLine].map(([lineId, of]) => ({
    order: { id: of[0].order.id, lineId },
    parts: of.map(({ parcel, trees }) => ({ parcelId: parcel.id, count: trees })),
  }));
  const trees = loadedTrees.value;
  const { note } = draft.value;
  const sent: string[] = [];
  const done = await save({ on: on.value, note, sendings }, async () => {
    for (const { order, parts } of sendings) {
      // The same id until it is taken, so that a lost answer sends nothing twice.
      const entry = (draft.value.ids[order.lineId] ??= newId());
      await parcels.send({ id: entry, on: on.value, order, to: '', note, parts });
      sent.push(entry);
    }
    return true;
  });
  if (done === null) {
    if (fault.value instanceof ProblemError) draft.value.ids = {};
    return;
  }
  clear();
  messages.say(
    say`${several(trees, 'tree')} sent for ${several(sendings.length, 'line')} of orders.`,
    async () => {
      for (const entry of sent.reverse()) await parcels.takeBack(entry);
    },
  );
}
</script>

<template>
  <div class="space-y-5 p-4 md:p-6">
    <header class="flex flex-wrap items-baseline gap-x-4">
      <h1 class="text-2xl">{{ say`To load` }}</h1>
      <p v-if="rows.length" class="text-lg">
        <b>{{ several(total, 'tree') }}</b> {{ say`in ${several(stops.length, 'place')}` }}
      </p>
      <template v-if="rows.length">
        <button class="act ml-auto" type="button" @click="list">{{ say`Pick list` }}</button>
        <button class="act" type="button" @click="labels">{{ say`Bundle labels` }}</button>
      </template>
    </header>
    <p v-if="!orders.loaded || !parcels.loaded" class="text-muted" role="status">
      {{ say`Looking what is set aside …` }}
    </p>
    <EmptyState v-else-if="!lines.length" :title="say`Nothing is set aside`">
      {{
        say`Set lifted trees aside for a line of an order: nobody else is sent or promised them, and here they are listed place by place as you walk to load them.`
      }}
      <RouterLink class="quiet" :to="{ name: 'plan' }">{{ say`To the orders` }}</RouterLink>
    </EmptyState>
    <template v-else>
      <fieldset data-testid="load-lines">
        <legend class="mb-1 font-bold">{{ say`For` }}</legend>
        <div class="flex flex-wrap gap-1.5">
          <label v-for="{ order, line, trees } in lines" :key="line.id" class="pill">
            <input
              class="sr-only"
              type="checkbox"
              :checked="chosen.has(line.id)"
              @change="draft.chosen[line.id] = ($event.target as HTMLInputElement).checked"
            />
            <span
              ><b>{{ buyerOf(order) }}</b
              >{{
                say`: ${count(trees)} ${species(line.speciesId)}, ${sizeWords(line, (cm) => shown(cm, 'height'), unit('height'))}, from ${dateWords(line.on)}`
              }}</span
            >
          </label>
        </div>
      </fieldset>
      <p v-if="!rows.length" class="text-muted">{{ say`Choose whom to load for.` }}</p>
      <section v-else-if="session.may('crew')" :aria-label="say`Read labels while loading`">
        <button class="act" type="button" :aria-expanded="scanning" @click="scanning = !scanning">
          <ScanQrCode :size="20" aria-hidden="true" />
          {{ scanning ? say`Enough of reading labels` : say`Read labels while loading` }}
        </button>
        <TagLook v-if="scanning" class="mt-2 max-w-sm" @codes="tick" @unread="unread" />
        <p
          v-if="scanned"
          class="mt-2 border-l-4 pl-3 text-lg font-bold"
          :class="scanned.ok ? 'border-leaf' : 'border-wrong text-wrong'"
          role="status"
        >
          {{ scanned.words }}
        </p>
      </section>
      <ol class="space-y-4" data-testid="stops">
        <li v-for="(stop, i) in stops" :key="stop.place">
          <h2 class="flex flex-wrap items-baseline gap-x-3 text-lg">
            <span>{{ i + 1 }}. {{ stop.place || say`No place said` }}</span>
            <span class="text-muted text-base">{{ several(stop.trees, 'tree') }}</span>
          </h2>
          <ul class="divide-rule border-rule divide-y border-y">
            <li v-for="row in stop.rows" :key="row.key">
              <label class="flex min-h-14 cursor-pointer items-center gap-4 py-2">
                <input
                  class="accent-ink size-7 shrink-0"
                  type="checkbox"
                  :disabled="!session.may('crew')"
                  :checked="draft.loaded[row.key] ?? false"
                  @change="draft.loaded[row.key] = ($event.target as HTMLInputElement).checked"
                />
                <span class="min-w-10 text-right text-2xl font-bold tabular-nums">{{
                  count(row.trees)
                }}</span>
                <span class="min-w-0 flex-1" :class="draft.loaded[row.key] && 'line-through'">
                  <b>{{ what(row) }}</b>
                  <span class="text-muted block"
                    >{{ bundleWords(row.trees, row.parcel.bundleOf) }}; {{ row.parcel.code }}</span
                  >
                  <span class="block sm:hidden">{{ say`for ${buyerOf(row.order)}` }}</span>
                </span>
                <span class="text-right max-sm:hidden">{{ buyerOf(row.order) }}</span>
              </label>
            </li>
          </ul>
        </li>
      </ol>
      <PackingPart v-if="rows.length" :rows="rows" />
      <form v-if="rows.length && session.may('crew')" class="space-y-3" novalidate @submit.prevent="send">
        <EntryFields
          v-model:on="on"
          v-model:note="draft.note"
          :hint="say`Who carried them, how packed`"
          :wrong="wrong"
        />
        <p class="border-ink text-muted border-l-4 pl-3 text-[0.95rem]">
          {{
            say`Cells are packed tight just before they travel; roots stay wet and covered. Lift with your legs, two to a load above ${show(25, 'mass')}.`
          }}
        </p>
        <p v-if="sentence()" class="text-wrong font-bold" role="alert">{{ sentence() }}</p>
        <button class="act-main" type="submit" :disabled="busy || !loaded.length">
          {{
            busy
              ? say`Saving …`
              : loaded.length
                ? say`Send the ${several(loadedTrees, 'tree')} loaded`
                : say`Tick what is loaded, then send it`
          }}
        </button>
      </form>
    </template>
  </div>
</template>
