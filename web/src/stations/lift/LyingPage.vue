<script setup lang="ts">
import { dayOf } from '@kauri/core';
import type { Parcel, Sending } from '@kauri/core/contract';
import { computed, ref } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import EmptyState from '../../parts/EmptyState.vue';
import { byNature } from '../../parts/lots/lotFilter';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { useParcels } from '../../stores/parcels';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { daysBetweenWords } from './lyingWords';
import { dateWords } from '../../words/dates';
import { count, several } from '../../words/numbers';
import { makePdf, offerFile } from '../../print/pdf';
import { useSeed } from '../../stores/seed';
import { buyerOf, formWords } from '../plan/orderWords';
import { deliveryNote, noteLines, originOf } from './deliveryNote';
import { bundleWords, useGradeWords } from './parcelWords';
import SplitDialog from '../grow/SplitDialog.vue';
import LoseDialog from './LoseDialog.vue';
import PutDialog from './PutDialog.vue';
import SendDialog from './SendDialog.vue';

/** Lifted trees, place by place: what lies there, since when, and whom it was sent to. */
const parcels = useParcels();
const gradeWords = useGradeWords();
const orders = useOrders();
const seed = useSeed();
const nursery = useNursery();
const season = useSeason();
const session = useSession();
const messages = useMessages();
const address = useRoute();
const router = useRouter();
/** A line that somebody came from, to send trees for it. */
const forLine = computed(() => (address.query.line ? String(address.query.line) : undefined));
const sending = ref<Parcel | 'several' | null>(forLine.value ? 'several' : null);
function closeSending() {
  sending.value = null;
  if (forLine.value) void router.replace({ name: 'lift-lying' });
}
const putting = ref<Parcel | null>(null);
const losing = ref<Parcel | null>(null);
const holding = ref<Parcel | null>(null);
const fault = ref<string | null>(null);

const may = computed(() => session.may('crew'));
const species = (id: string) => nursery.lookup.species.get(id)?.common ?? '';
/** Place by place, those without a place last. */
const places = computed(() => {
  const byPlace = new Map<string, Parcel[]>();
  for (const parcel of parcels.lying)
    byPlace.set(parcel.place, [...(byPlace.get(parcel.place) ?? []), parcel]);
  return [...byPlace]
    .map(([name, list]) => ({ name, list, trees: list.reduce((sum, { held }) => sum + held, 0) }))
    .sort((a, b) => Number(a.name === '') - Number(b.name === '') || byNature(a.name, b.name));
});
const total = computed(() => places.value.reduce((sum, { trees }) => sum + trees, 0));
const receiver = (orderId: string | null, to: string) => {
  const order = orders.all.find(({ id }) => id === orderId);
  const whose = order ? buyerOf(order) : orders.loaded ? 'an order taken out since' : 'an order';
  return [orderId === null ? '' : whose, to].filter(Boolean).join(', ');
};
const byId = computed(() => new Map(parcels.all.map((parcel) => [parcel.id, parcel])));
const partWords = ({ parcelId, lotId, count: n }: { parcelId: string; lotId: string; count: number }) => {
  const parcel = byId.value.get(parcelId);
  return `${count(n)} of ${parcel?.code ?? nursery.lots.get(lotId)?.code ?? 'a lot'}${parcel?.grade ? `, ${gradeWords(parcel)}` : ''}`;
};
async function print(one: Sending) {
  fault.value = null;
  try {
    await Promise.all([seed.load(), nursery.lookBack()]);
    const { name, placeName } = nursery.catalogue!.nursery;
    const total = one.parts.reduce((sum, part) => sum + part.count, 0);
    const lines = noteLines(
      one,
      (id) => byId.value.get(id),
      (parcel, trees) => ({
        species: species(parcel.speciesId),
        latin: nursery.lookup.species.get(parcel.speciesId)?.latin ?? '',
        form: formWords[parcel.form],
        grade: gradeWords(parcel),
        bundles: bundleWords(trees, parcel.bundleOf),
        lot: parcel.code,
        origin: originOf(parcel.lotId, {
          lot: (id) => nursery.lots.get(id),
          seedLot: (id) => seed.lotById.get(id),
        }),
        trees: count(trees),
      }),
    );
    const note = deliveryNote(
      {
        from: [name, placeName].filter(Boolean).join(', '),
        to: receiver(one.orderId, one.to),
        on: dateWords(one.on),
        note: one.note,
        total: several(total, 'tree'),
      },
      lines,
    );
    offerFile(`delivery-${one.on}.pdf`, await makePdf(note), 'application/pdf');
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
/** Long ago it has been planted: a slip is noticed within weeks. */
const TAKEN_BACK_DAYS = 60;
const isFresh = (on: string) => season.today - dayOf(on) <= TAKEN_BACK_DAYS;
async function takeBack(id: string) {
  fault.value = null;
  try {
    await parcels.takeBack(id);
    messages.say('Taken back: the trees lie where they lay.');
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
</script>

<template>
  <div class="space-y-5 p-4 md:p-6">
    <header class="flex flex-wrap items-baseline gap-x-4">
      <h1 class="text-2xl">Lifted, and still here</h1>
      <p v-if="parcels.loaded && total" class="text-lg">
        <b>{{ several(total, 'tree') }}</b> in {{ several(parcels.lying.length, 'parcel') }}
      </p>
      <button
        v-if="may && parcels.lying.length"
        class="act-main ml-auto"
        type="button"
        @click="sending = 'several'"
      >
        Send trees
      </button>
    </header>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <p v-if="!parcels.loaded" class="text-muted" role="status">Looking what lies there …</p>
    <EmptyState v-else-if="!parcels.lying.length" title="Nothing lies in the nursery">
      Trees that are lifted lie here by grade and place, until they are sent or planted. Write a lift down and
      say where you put them.
    </EmptyState>
    <section v-for="{ name, list, trees } in places" :key="name" :aria-label="name || 'No place said'">
      <h2 class="flex flex-wrap items-baseline gap-x-3 text-lg">
        {{ name || 'No place said' }} <span class="text-muted text-base">{{ several(trees, 'tree') }}</span>
      </h2>
      <ul class="divide-rule border-rule divide-y border-y" :data-testid="`lying-${name}`">
        <li v-for="parcel in list" :key="parcel.id" class="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
          <span class="min-w-16 text-right text-xl font-bold tabular-nums">{{ count(parcel.held) }}</span>
          <span class="min-w-0 flex-1 basis-56">
            <span class="block">
              <b>{{ species(parcel.speciesId) }}</b>, {{ gradeWords(parcel) }}
              <RouterLink class="quiet ml-1" :to="{ name: 'grow', params: { lot: parcel.lotId } }">{{
                parcel.code
              }}</RouterLink>
            </span>
            <span class="text-muted block text-[0.95rem]">
              {{ bundleWords(parcel.held, parcel.bundleOf) }}; lifted {{ dateWords(parcel.since) }},
              {{ daysBetweenWords(parcel.since, season.today)
              }}<template v-if="parcel.held < parcel.count">; {{ count(parcel.count) }} at first</template>
            </span>
          </span>
          <span v-if="may" class="flex gap-3">
            <button class="act" type="button" @click="sending = parcel">Send</button>
            <button class="quiet" type="button" @click="putting = parcel">Put elsewhere</button>
            <button class="quiet" type="button" @click="holding = parcel">Hold over</button>
            <button class="quiet" type="button" @click="losing = parcel">Take out</button>
          </span>
        </li>
      </ul>
    </section>
    <section v-if="parcels.sendings.length" aria-labelledby="sent">
      <h2 id="sent" class="text-lg">Sent</h2>
      <ul class="divide-rule border-rule divide-y border-y" data-testid="sendings">
        <li v-for="one in parcels.sendings" :key="one.id" class="flex flex-wrap items-baseline gap-x-4 py-2">
          <span class="w-28 whitespace-nowrap">{{ dateWords(one.on) }}</span>
          <span class="min-w-0 flex-1 basis-64">
            <b>{{ receiver(one.orderId, one.to) }}</b>: {{ one.parts.map(partWords).join('; ') }}
            <span class="text-muted">({{ one.by }})</span>
            <span v-if="one.note" class="text-muted block text-[0.95rem]">{{ one.note }}</span>
          </span>
          <button class="quiet" type="button" @click="print(one)">Delivery note</button>
          <button v-if="may && isFresh(one.on)" class="quiet" type="button" @click="takeBack(one.id)">
            Take back
          </button>
        </li>
      </ul>
    </section>
    <SendDialog
      v-if="sending && orders.loaded && parcels.loaded"
      :parcel="sending === 'several' ? null : sending"
      :line-id="sending === 'several' ? forLine : undefined"
      @close="closeSending"
    />
    <SplitDialog
      v-if="holding"
      :of="{
        lotId: holding.lotId,
        code: holding.code,
        speciesId: holding.speciesId,
        sownOn: nursery.index.get(holding.lotId)?.sownOn ?? holding.since,
        there: holding.held,
      }"
      :parcel-id="holding.id"
      @close="holding = null"
    />
    <LoseDialog v-if="losing" :parcel="losing" @close="losing = null" />
    <PutDialog v-if="putting" :parcel="putting" @close="putting = null" />
  </div>
</template>
