<script setup lang="ts">
import { isoOf, say } from '@kauri/core';
import type { OrderLine, Parcel } from '@kauri/core/contract';
import { computed, watch } from 'vue';
import EntryFields from '../../parts/EntryFields.vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import { useDraft } from '../../parts/useDraft';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { useParcels } from '../../stores/parcels';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { dateWords } from '../../words/dates';
import { count, several } from '../../words/numbers';
import { buyerOf, isOpen, sizeWords } from '../plan/orderWords';
import ParcelCounts from './ParcelCounts.vue';
import { useGradeWords } from './parcelWords';

/** Sends trees out of one parcel or several, for a line of an order or to whoever is named. */
const props = defineProps<{
  parcel: Parcel | null;
  /** The line it is for, where that is known before. */
  lineId?: string;
}>();
const emit = defineEmits<{ close: [] }>();
const gradeWords = useGradeWords();
const parcels = useParcels();
const orders = useOrders();
const nursery = useNursery();
const season = useSeason();
const messages = useMessages();
const { show, shown, unit } = usePreferences();

const key = `send.${props.parcel?.id ?? props.lineId ?? 'several'}`;
const { draft, clear } = useDraft(key, {
  line: props.lineId ?? '',
  to: '',
  on: '',
  note: '',
  counts: {} as Record<string, string>,
});
const { busy, save, sentence, wrong } = useSaving(key);
const on = computed({
  get: () => draft.value.on || isoOf(Math.min(season.view, season.today)),
  set: (day: string) => (draft.value.on = day),
});

const species = (id: string) => nursery.lookup.species.get(id)?.common ?? '';
const left = (line: OrderLine) => line.count - line.sent;
const ofParcels = computed(
  () => new Set((props.parcel ? [props.parcel] : parcels.lying).map((p) => p.speciesId)),
);
/** Lines that still want trees of what lies there, the soonest first. */
const lines = computed(() =>
  orders.all
    .flatMap((order) => order.lines.map((line) => ({ order, line })))
    .filter(({ line }) => isOpen(line) && left(line) > 0 && ofParcels.value.has(line.speciesId))
    .sort((a, b) => a.line.on.localeCompare(b.line.on)),
);
const lineOptions = computed(() => [
  { value: '', words: say`no order` },
  ...lines.value.map(({ order, line }) => ({
    value: line.id,
    words: say`${buyerOf(order)}: ${count(left(line))} ${species(line.speciesId)}, ${sizeWords(line, (cm) => shown(cm, 'height'), unit('height'))}, from ${dateWords(line.on)}`,
  })),
]);
const chosen = computed(() => lines.value.find(({ line }) => line.id === draft.value.line) ?? null);
// Somebody may have sent the last of it meanwhile.
watch(lines, () => {
  if (draft.value.line && !chosen.value) draft.value.line = '';
});
const offered = computed(() =>
  props.parcel
    ? parcels.lying.filter(({ id }) => id === props.parcel!.id)
    : parcels.lying.filter(({ speciesId }) => !chosen.value || speciesId === chosen.value.line.speciesId),
);
const isOffered = (parcelId: string) => offered.value.some(({ id }) => id === parcelId);
const number = (text: string | undefined) => (!text?.trim() ? 0 : typedNumber(text));
const trees = computed(() => offered.value.reduce((sum, { id }) => sum + number(draft.value.counts[id]), 0));
/** What the line still wants once these have gone; below 0 where they are too many. */
const stillWanted = computed(() => (chosen.value ? left(chosen.value.line) - trees.value : null));
/** What of a parcel may leave: not what is set aside for other lines. */
const most = (parcel: Parcel) => parcels.freeFor(parcel, chosen.value?.line.id);
const wantedOf = (parcel: Parcel) =>
  chosen.value && left(chosen.value.line) - trees.value + number(draft.value.counts[parcel.id]);
/** What is set aside for a line is what leaves for it, unless something else was typed. */
watch(
  () => draft.value.line,
  (line) => {
    const aside = parcels.asides.filter(({ lineId, parcelId }) => lineId === line && isOffered(parcelId));
    const nothingTyped = Object.values(draft.value.counts).every((text) => !text.trim());
    if (aside.length && nothingTyped)
      draft.value.counts = Object.fromEntries(aside.map((one) => [one.parcelId, String(one.count)]));
  },
  { immediate: true },
);

/** What was typed for parcels that somebody else sent or lost meanwhile: it is asked for until it is left out, and never left out without a word. */
const gone = computed(() =>
  !parcels.loaded
    ? []
    : Object.entries(draft.value.counts).filter(
        ([id, text]) => text.trim() && !parcels.lying.some((parcel) => parcel.id === id),
      ),
);
function leaveOut() {
  const ids = new Set(gone.value.map(([id]) => id));
  draft.value.counts = Object.fromEntries(Object.entries(draft.value.counts).filter(([id]) => !ids.has(id)));
}

async function send() {
  const asked = new Set([...offered.value.map(({ id }) => id), ...gone.value.map(([id]) => id)]);
  const parts = Object.entries(draft.value.counts)
    .filter(([id]) => asked.has(id))
    .map(([parcelId, text]) => ({ parcelId, count: number(text) }))
    .filter((part) => part.count !== 0);
  const { to, note } = draft.value;
  const order = chosen.value ? { id: chosen.value.order.id, lineId: chosen.value.line.id } : null;
  const whom = chosen.value ? buyerOf(chosen.value.order) : to;
  const said = say`${several(trees.value, 'tree')} sent to ${whom}.`;
  let entry = '';
  const sent = await save({ on: on.value, order, to, note, parts }, async (id) => {
    entry = id;
    await parcels.send({ id, on: on.value, order, to, note, parts });
    return true;
  });
  if (sent === null) return;
  clear();
  messages.say(said, () => parcels.takeBack(entry));
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="say`Send trees`"
    :subtitle="parcel ? `${parcel.code}, ${gradeWords(parcel)}` : undefined"
    wide
    @close="emit('close')"
  >
    <form class="space-y-4" novalidate @submit.prevent="send">
      <div class="grid gap-3 sm:grid-cols-2">
        <SelectField v-model="draft.line" :label="say`For`" :options="lineOptions" />
        <FormField
          v-model="draft.to"
          :label="chosen ? say`To, where it is not the buyer` : say`To`"
          :fault="wrong('to')"
        />
      </div>
      <ParcelCounts
        v-model="draft.counts"
        :offered="offered"
        :line="chosen?.line ?? null"
        :most="most"
        :wanted="wantedOf"
      />
      <p v-if="gone.length" class="panel flex flex-wrap items-center gap-x-3 p-3" data-testid="gone">
        {{
          say`${gone.map(([, text]) => text).join(say` and `)} typed for what lies there no more: somebody sent it, or took it out, meanwhile.`
        }}
        <button class="act" type="button" @click="leaveOut">{{ say`Leave it out` }}</button>
      </p>
      <p class="text-lg" aria-live="polite" data-testid="leaving">
        <b>{{ Number.isNaN(trees) ? '–' : count(trees) }}</b> {{ say`leave`
        }}<template v-if="stillWanted !== null"
          >{{ say`; the line then wants` }}
          <b v-if="stillWanted >= 0">{{ say`${count(stillWanted)} more` }}</b>
          <b v-else class="text-wrong">{{ say`${count(-stillWanted)} fewer than that` }}</b></template
        >
      </p>
      <EntryFields
        v-model:on="on"
        v-model:note="draft.note"
        :hint="say`Who carried them, how packed`"
        :wrong="wrong"
      />
      <p class="border-ink text-muted border-l-4 pl-3 text-[0.95rem]">
        {{
          say`Roots stay wet and covered until they are in the ground; lift loads with your legs, and two to a load above ${show(25, 'mass')}. Where papers are asked for on the way, they travel with the trees: your plant-health service says which.`
        }}
      </p>
      <SheetActs :act="say`Send them`" :busy="busy" :sentence="sentence()" @save="send" />
    </form>
  </FormDialog>
</template>
