<script setup lang="ts">
import { isoOf, say } from '@kauri/core';
import type { Parcel } from '@kauri/core/contract';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import ShowWorking from '../../parts/ShowWorking.vue';
import { useKeeps } from '../../parts/useKeeps';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { useParcels } from '../../stores/parcels';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { dateWords } from '../../words/dates';
import { count } from '../../words/numbers';
import { buyerOf } from '../plan/orderWords';
import { daysBetweenWords, keepsWords } from './lyingWords';
import { bundleWords, useGradeWords } from './parcelWords';

/** Trees of a parcel where they lie: how many, how long they keep, whom they wait for, and what can be done. */
const props = defineProps<{ parcel: Parcel; asked: boolean }>();
const emit = defineEmits<{ send: []; labels: []; put: []; hold: []; lose: [] }>();
const parcels = useParcels();
const orders = useOrders();
const nursery = useNursery();
const season = useSeason();
const session = useSession();
const gradeWords = useGradeWords();
const { keeps } = useKeeps();
const kept = computed(() => keeps.value?.get(props.parcel.id) ?? null);
/** It is being worked out: its lines are kept free, so that nothing moves when they come. */
const coming = computed(() => !kept.value && nursery.lookup.species.has(props.parcel.speciesId));
const may = computed(() => session.may('crew'));
const species = (id: string) => nursery.lookup.species.get(id)?.common ?? '';
/** Lines that trees of it are set aside for. */
const asides = computed(() =>
  parcels.asides
    .filter(({ parcelId }) => parcelId === props.parcel.id)
    .map(({ orderId, lineId, count: n }) => {
      const order = orders.all.find(({ id }) => id === orderId);
      return { lineId, words: say`${count(n)} set aside for ${order ? buyerOf(order) : say`an order`}` };
    }),
);
</script>

<template>
  <li class="flex flex-wrap items-center gap-x-4 gap-y-1 py-2" :class="asked && 'border-ink border-l-4 pl-3'">
    <span class="min-w-16 text-right text-xl font-bold tabular-nums">{{ count(parcel.held) }}</span>
    <span class="min-w-0 flex-1 basis-56">
      <span class="block">
        <b>{{ species(parcel.speciesId) }}</b>, {{ gradeWords(parcel) }}
        <RouterLink class="quiet ml-1" :to="{ name: 'grow', params: { lot: parcel.lotId } }">{{
          parcel.code
        }}</RouterLink>
      </span>
      <span class="text-muted block text-[0.95rem]">
        {{
          say`${bundleWords(parcel.held, parcel.bundleOf)}; lifted ${dateWords(parcel.since)}, ${daysBetweenWords(parcel.since, season.today)}`
        }}<template v-if="parcel.cameBack">{{ say`; sent, and came back` }}</template
        ><template v-if="parcel.held < parcel.count">{{ say`; ${count(parcel.count)} at first` }}</template>
      </span>
      <span v-if="kept" class="block text-[0.95rem]" data-testid="keeps">
        <b :class="kept.value.until < season.today && 'text-wrong'">{{
          say`Keeps until ${dateWords(isoOf(kept.value.until))}`
        }}</b>
        <span class="text-muted"> ({{ keepsWords[kept.value.by] }})</span>
      </span>
      <span v-else-if="coming" class="text-muted block text-[0.95rem]">{{
        say`Working out until when they keep …`
      }}</span>
      <span
        v-for="{ lineId, words } in asides"
        :key="lineId"
        class="block text-[0.95rem] font-bold"
        data-testid="aside"
        >{{ words }}</span
      >
    </span>
    <span v-if="may" class="flex flex-wrap gap-x-3">
      <button class="act" type="button" @click="emit('send')">{{ say`Send` }}</button>
      <button class="quiet" type="button" @click="emit('labels')">{{ say`Labels` }}</button>
      <button class="quiet" type="button" @click="emit('put')">{{ say`Put elsewhere` }}</button>
      <button class="quiet" type="button" @click="emit('hold')">{{ say`Hold over` }}</button>
      <button class="quiet" type="button" @click="emit('lose')">{{ say`Take out` }}</button>
    </span>
    <ShowWorking
      v-if="kept"
      class="basis-full pl-20 text-[0.95rem]"
      :label="say`Until when they keep`"
      :steps="kept.working"
    />
    <span
      v-else-if="coming"
      class="invisible basis-full pl-20 text-[0.95rem]"
      aria-hidden="true"
      data-testid="coming"
      ><span class="quiet">{{ say`Until when they keep` }}</span></span
    >
  </li>
</template>
