<script setup lang="ts">
import { parcelMeets, say } from '@kauri/core';
import type { KeptOrder, OrderLine, Parcel } from '@kauri/core/contract';
import { computed } from 'vue';
import FormDialog from '../../parts/FormDialog.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import { useDraft } from '../../parts/useDraft';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useParcels, type Part } from '../../stores/parcels';
import { usePreferences } from '../../stores/preferences';
import { count, several } from '../../words/numbers';
import { buyerOf, sizeWords } from '../plan/orderWords';
import ParcelCounts from './ParcelCounts.vue';

/** Sets lifted trees aside for a line of an order: nobody else is sent or promised them. */
const props = defineProps<{ order: KeptOrder; line: OrderLine }>();
const emit = defineEmits<{ close: [] }>();
const parcels = useParcels();
const nursery = useNursery();
const messages = useMessages();
const { shown, unit } = usePreferences();

const before = computed<Part[]>(() =>
  parcels.asides
    .filter(({ lineId }) => lineId === props.line.id)
    .map(({ parcelId, count: trees }) => ({ parcelId, count: trees })),
);
const key = `aside.${props.line.id}`;
const { draft, clear } = useDraft(key, {
  counts: Object.fromEntries(before.value.map((one) => [one.parcelId, String(one.count)])) as Record<
    string,
    string
  >,
});
const { busy, save, sentence } = useSaving(key);

const left = computed(() => props.line.count - props.line.sent);
const most = (parcel: Parcel) => parcels.freeFor(parcel, props.line.id);
/** What it asks for first; what all lies aside for others is left out. */
const offered = computed(() => {
  const fits = (parcel: Parcel) => Number(!parcelMeets(parcel, props.line));
  return parcels.lying
    .filter((parcel) => parcel.speciesId === props.line.speciesId && most(parcel) > 0)
    .sort((a, b) => fits(a) - fits(b) || a.since.localeCompare(b.since));
});
const number = (text: string | undefined) => (!text?.trim() ? 0 : typedNumber(text));
const trees = computed(() => offered.value.reduce((sum, { id }) => sum + number(draft.value.counts[id]), 0));
const stillWanted = computed(() => left.value - trees.value);
const wantedOf = (parcel: Parcel) => stillWanted.value + number(draft.value.counts[parcel.id]);

async function write() {
  const parts = offered.value
    .map(({ id }) => ({ parcelId: id, count: number(draft.value.counts[id]) }))
    .filter((part) => part.count !== 0);
  const order = { id: props.order.id, lineId: props.line.id };
  const was = before.value;
  const kept = await save({ order, parts }, async (id) => {
    await parcels.setAside(id, order, parts);
    return true;
  });
  if (kept === null) return;
  clear();
  const whose = buyerOf(props.order);
  messages.say(
    trees.value
      ? say`${several(trees.value, 'tree')} set aside for ${whose}.`
      : say`Nothing is set aside for ${whose} any more.`,
    () => parcels.setAside(null, order, was),
  );
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="say`Set aside`"
    :subtitle="`${buyerOf(order)}: ${count(left)} ${nursery.lookup.species.get(line.speciesId)?.common ?? ''}, ${sizeWords(line, (cm) => shown(cm, 'height'), unit('height'))}`"
    wide
    @close="emit('close')"
  >
    <form class="space-y-4" novalidate @submit.prevent="write">
      <p v-if="!offered.length" class="text-muted">
        {{ say`All that lies here of them is set aside for others.` }}
      </p>
      <ParcelCounts
        v-else
        v-model="draft.counts"
        :offered="offered"
        :line="line"
        :most="most"
        :wanted="wantedOf"
      />
      <p class="text-lg" aria-live="polite" data-testid="aside-sum">
        <b>{{ Number.isNaN(trees) ? '–' : count(trees) }}</b> {{ say`set aside; the line wants` }}
        <b v-if="!(stillWanted < 0)">{{ say`${count(stillWanted)} more` }}</b>
        <b v-else class="text-wrong">{{ say`${count(-stillWanted)} fewer than that` }}</b>
      </p>
      <SheetActs :act="say`Set them aside`" :busy="busy" :sentence="sentence()" @save="write" />
    </form>
  </FormDialog>
</template>
