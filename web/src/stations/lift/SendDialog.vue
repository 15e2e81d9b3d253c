<script setup lang="ts">
import { isoOf } from '@kauri/core';
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
  { value: '', words: 'no order' },
  ...lines.value.map(({ order, line }) => ({
    value: line.id,
    words: `${buyerOf(order)}: ${count(left(line))} ${species(line.speciesId)}, ${sizeWords(line, (cm) => shown(cm, 'height'), unit('height'))}, from ${dateWords(line.on)}`,
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
const number = (text: string | undefined) => (!text?.trim() ? 0 : typedNumber(text));
const trees = computed(() => offered.value.reduce((sum, { id }) => sum + number(draft.value.counts[id]), 0));
/** What the line still wants once these have gone; below 0 where they are too many. */
const stillWanted = computed(() => (chosen.value ? left(chosen.value.line) - trees.value : null));
const isOther = (parcel: Parcel) => {
  const line = chosen.value?.line;
  if (!line) return false;
  const within = (cm: number | null, from: number | null, to: number | null) =>
    cm === null || ((from === null || cm >= from) && (to === null || cm <= to));
  const sized = parcel.fromCm !== null || parcel.toCm !== null;
  return (
    parcel.form !== line.form ||
    !sized ||
    !within(parcel.fromCm, line.fromCm, line.toCm) ||
    !within(parcel.toCm, line.fromCm, line.toCm)
  );
};

/** As many as lie there, or as the line still wants. */
function fill(parcel: Parcel) {
  const others = trees.value - number(draft.value.counts[parcel.id]);
  const wanted = chosen.value ? Math.max(0, left(chosen.value.line) - others) : parcel.held;
  draft.value.counts[parcel.id] = String(Math.min(parcel.held, wanted));
}
async function send() {
  const parts = offered.value
    .map(({ id }) => ({ parcelId: id, count: number(draft.value.counts[id]) }))
    .filter((part) => part.count !== 0);
  const { to, note } = draft.value;
  const order = chosen.value ? { id: chosen.value.order.id, lineId: chosen.value.line.id } : null;
  const whom = chosen.value ? buyerOf(chosen.value.order) : to;
  const said = `${several(trees.value, 'tree')} sent to ${whom}.`;
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
    title="Send trees"
    :subtitle="parcel ? `${parcel.code}, ${gradeWords(parcel)}` : undefined"
    wide
    @close="emit('close')"
  >
    <form class="space-y-4" novalidate @submit.prevent="send">
      <div class="grid gap-3 sm:grid-cols-2">
        <SelectField v-model="draft.line" label="For" :options="lineOptions" />
        <FormField
          v-model="draft.to"
          :label="chosen ? 'To, where it is not the buyer' : 'To'"
          :fault="wrong('to')"
        />
      </div>
      <ul class="divide-rule border-rule divide-y border-y" data-testid="parts">
        <li v-for="one in offered" :key="one.id" class="flex flex-wrap items-end gap-x-4 gap-y-1 py-2">
          <span class="min-w-0 flex-1 basis-56 self-center">
            <b>{{ species(one.speciesId) }}</b>, {{ gradeWords(one) }}
            <span class="text-muted block text-[0.95rem]">
              {{ one.code }}, {{ count(one.held) }} in {{ one.place || 'no place said' }}
              <b v-if="isOther(one)">· not of the form or size the line asks for, or not graded</b>
            </span>
          </span>
          <FormField
            class="w-44"
            :model-value="draft.counts[one.id] ?? ''"
            :label="`${one.code}, ${gradeWords(one)}`"
            inputmode="numeric"
            @update:model-value="(text: string) => (draft.counts[one.id] = text)"
          />
          <button class="quiet pb-2" type="button" @click="fill(one)">
            {{ chosen ? 'As many as it wants' : 'All of them' }}
          </button>
        </li>
      </ul>
      <p class="text-lg" aria-live="polite" data-testid="leaving">
        <b>{{ Number.isNaN(trees) ? '–' : count(trees) }}</b> leave<template v-if="stillWanted !== null"
          >; the line then wants
          <b v-if="stillWanted >= 0">{{ count(stillWanted) }} more</b>
          <b v-else class="text-wrong">{{ count(-stillWanted) }} fewer than that</b></template
        >
      </p>
      <EntryFields
        v-model:on="on"
        v-model:note="draft.note"
        hint="Who carried them, how packed"
        :wrong="wrong"
      />
      <p class="border-ink text-muted border-l-4 pl-3 text-[0.95rem]">
        Roots stay wet and covered until they are in the ground; lift loads with your legs, and two to a load
        above {{ show(25, 'mass') }}. Where papers are asked for on the way, they travel with the trees: your
        plant-health service says which.
      </p>
      <SheetActs act="Send them" :busy="busy" :sentence="sentence()" @save="send" />
    </form>
  </FormDialog>
</template>
