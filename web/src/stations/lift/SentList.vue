<script setup lang="ts">
import { dayOf, say } from '@kauri/core';
import type { Parcel, Sending } from '@kauri/core/contract';
import { computed, ref } from 'vue';
import { call } from '../../api/client';
import { sentenceOf } from '../../api/problem';
import { makePdf, offerFile, type TDocumentDefinitions } from '../../print/pdf';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { useParcels } from '../../stores/parcels';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { dateWords } from '../../words/dates';
import { count, several } from '../../words/numbers';
import { buyerOf, formWords } from '../plan/orderWords';
import { deliveryNote, movementRecord, noteLines, type MovementLine } from './deliveryNote';
import { sentTable } from './lyingFiles';
import TableOut from '../../tables/TableOut.vue';
import PapersDialog from './PapersDialog.vue';
import ReturnDialog from './ReturnDialog.vue';
import { returnedWords, stillOut } from './returnWords';
import { bundleWords, useGradeWords } from './parcelWords';
import { useOrigins } from './useOrigins';

/** What was sent, to whom, with the papers that travel with it. */
const parcels = useParcels();
const orders = useOrders();
const nursery = useNursery();
const season = useSeason();
const session = useSession();
const messages = useMessages();
const gradeWords = useGradeWords();
const origins = useOrigins();
const fault = ref<string | null>(null);
const writing = ref(false);

const may = computed(() => session.may('crew'));
const species = (id: string) => nursery.lookup.species.get(id);
const receiver = (orderId: string | null, to: string) => {
  const order = orders.all.find(({ id }) => id === orderId);
  const whose = order ? buyerOf(order) : orders.loaded ? say`an order taken out since` : say`an order`;
  return [orderId === null ? '' : whose, to].filter(Boolean).join(', ');
};
const byId = computed(() => new Map(parcels.all.map((parcel) => [parcel.id, parcel])));
const partWords = ({ parcelId, lotId, count: n }: { parcelId: string; lotId: string; count: number }) => {
  const parcel = byId.value.get(parcelId);
  return say`${count(n)} of ${parcel?.code ?? nursery.lots.get(lotId)?.code ?? say`a lot`}${parcel?.grade ? `, ${gradeWords(parcel)}` : ''}`;
};
const line = (parcel: Parcel, trees: number): MovementLine => ({
  species: species(parcel.speciesId)?.common ?? '',
  latin: species(parcel.speciesId)?.latin ?? '',
  form: formWords[parcel.form],
  grade: gradeWords(parcel),
  bundles: bundleWords(trees, parcel.bundleOf),
  lot: parcel.code,
  lifted: dateWords(parcel.since),
  origin: origins.of(parcel),
  trees: count(trees),
});
const from = () => {
  const { name, placeName } = nursery.catalogue!.nursery;
  return [name, placeName].filter(Boolean).join(', ');
};
async function table() {
  await origins.load();
  return sentTable(parcels.sendings, {
    receiver: ({ orderId, to }) => receiver(orderId, to),
    parcel: (id) => byId.value.get(id),
    speciesName: (id) => species(id)?.common ?? '',
    origin: origins.of,
  });
}
async function print(name: string, paper: () => Promise<TDocumentDefinitions>) {
  fault.value = null;
  try {
    await origins.load();
    offerFile(name, await makePdf(await paper()), 'application/pdf');
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
const lines = (one: Sending) => noteLines(one, (id) => byId.value.get(id), line);
const note = (one: Sending) =>
  print(`delivery-${one.on}.pdf`, async () => {
    const total = one.parts.reduce((sum, part) => sum + part.count, 0);
    const about = { to: receiver(one.orderId, one.to), on: dateWords(one.on), note: one.note };
    return deliveryNote({ from: from(), ...about, total: several(total, 'tree') }, lines(one));
  });
const record = (one: Sending) =>
  print(`movement-${one.on}.pdf`, async () => {
    const { papers } = await call('papers', { params: nursery.params });
    const about = { to: receiver(one.orderId, one.to), on: dateWords(one.on), id: one.id };
    return movementRecord({ from: from(), ...about, fields: papers.fields }, lines(one));
  });
/** Long ago it has been planted: a slip is noticed within weeks. */
const TAKEN_BACK_DAYS = 60;
const isFresh = (on: string) => season.today - dayOf(on) <= TAKEN_BACK_DAYS;
const returning = ref<Sending | null>(null);
const isOut = (one: Sending) => one.parts.some(({ parcelId }) => stillOut(one, parcelId) > 0);
async function undo(write: () => Promise<void>, said: string) {
  fault.value = null;
  try {
    await write();
    messages.say(said);
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
</script>

<template>
  <section v-if="parcels.sendings.length" aria-labelledby="sent">
    <div class="flex flex-wrap items-baseline gap-x-4">
      <h2 id="sent" class="text-lg">{{ say`Sent` }}</h2>
      <TableOut quiet :label="say`Save as a table`" :name="`sent-${season.todayIso}`" :table="table" />
      <button v-if="session.may('grower')" class="quiet" type="button" @click="writing = true">
        {{ say`What movement records say of us` }}
      </button>
    </div>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <ul class="divide-rule border-rule divide-y border-y" data-testid="sendings">
      <li v-for="one in parcels.sendings" :key="one.id" class="flex flex-wrap items-baseline gap-x-4 py-2">
        <span class="w-28 whitespace-nowrap">{{ dateWords(one.on) }}</span>
        <span class="min-w-0 flex-1 basis-64">
          <b>{{ receiver(one.orderId, one.to) }}</b>: {{ one.parts.map(partWords).join('; ') }}
          <span class="text-muted">({{ one.by }})</span>
          <span v-if="one.note" class="text-muted block text-[0.95rem]">{{ one.note }}</span>
        </span>
        <button class="quiet" type="button" @click="note(one)">{{ say`Delivery note` }}</button>
        <button class="quiet" type="button" @click="record(one)">{{ say`Movement record` }}</button>
        <button v-if="may && isOut(one)" class="quiet" type="button" @click="returning = one">
          {{ say`Came back …` }}
        </button>
        <button
          v-if="may && isFresh(one.on) && !one.returns.length"
          class="quiet"
          type="button"
          @click="undo(() => parcels.takeBack(one.id), say`Taken back: the trees lie where they lay.`)"
        >
          {{ say`Take back` }}
        </button>
        <ul v-if="one.returns.length" class="basis-full pl-4 sm:pl-32">
          <li
            v-for="back in one.returns"
            :key="back.id"
            class="border-ink flex flex-wrap items-baseline gap-x-4 border-l-4 pl-3"
            data-testid="returned"
          >
            <span class="min-w-0 flex-1 basis-64">
              {{ dateWords(back.on) }}: <b>{{ returnedWords(back) }}</b>
              <span class="text-muted"> ({{ back.by }})</span>
              <span v-if="back.note" class="text-muted block text-[0.95rem]">{{ back.note }}</span>
            </span>
            <button
              v-if="may && isFresh(back.on)"
              class="quiet"
              type="button"
              @click="
                undo(
                  () => parcels.takeBackReturn(one.id, back.id),
                  say`Taken back: they are out, as they were.`,
                )
              "
            >
              {{ say`Take back` }}
            </button>
          </li>
        </ul>
      </li>
    </ul>
    <ReturnDialog
      v-if="returning"
      :sending="returning"
      :receiver="receiver(returning.orderId, returning.to)"
      @close="returning = null"
    />
    <PapersDialog v-if="writing" @close="writing = false" />
  </section>
</template>
