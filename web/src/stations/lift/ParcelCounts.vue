<script setup lang="ts">
import { parcelMeets, say } from '@kauri/core';
import type { OrderLine, Parcel } from '@kauri/core/contract';
import FormField from '../../parts/FormField.vue';
import { useNursery } from '../../stores/nursery';
import { count } from '../../words/numbers';
import { useGradeWords } from './parcelWords';

/** How many of which parcels: for a line of an order, with what of them is not what it asks for, or for nobody named. */
const props = defineProps<{
  offered: readonly Parcel[];
  line: OrderLine | null;
  /** Trees of a parcel that may be taken. */
  most: (parcel: Parcel) => number;
  /** Trees still to be named, beside those of the other parcels; null where nothing sets a bound. */
  wanted: (parcel: Parcel) => number | null;
}>();
const counts = defineModel<Record<string, string>>({ required: true });
const nursery = useNursery();
const gradeWords = useGradeWords();
const species = (id: string) => nursery.lookup.species.get(id)?.common ?? '';
const isOther = (parcel: Parcel) => props.line !== null && !parcelMeets(parcel, props.line);
const set = (parcel: Parcel, text: string) => (counts.value = { ...counts.value, [parcel.id]: text });
const fill = (parcel: Parcel) =>
  set(parcel, String(Math.min(props.most(parcel), props.wanted(parcel) ?? Infinity)));
const asideOf = (parcel: Parcel) => parcel.held - props.most(parcel);
</script>

<template>
  <ul class="divide-rule border-rule divide-y border-y" data-testid="parts">
    <li v-for="one in offered" :key="one.id" class="flex flex-wrap items-end gap-x-4 gap-y-1 py-2">
      <span class="min-w-0 flex-1 basis-56 self-center">
        <b>{{ species(one.speciesId) }}</b>, {{ gradeWords(one) }}
        <span class="text-muted block text-[0.95rem]">
          {{ say`${one.code}, ${count(one.held)} in ${one.place || say`no place said`}`
          }}<template v-if="asideOf(one)">{{ say`, ${count(asideOf(one))} set aside for others` }}</template>
          <b v-if="isOther(one)"> {{ say` · not of the form or size the line asks for, or not graded` }}</b>
        </span>
      </span>
      <FormField
        class="w-44"
        :model-value="counts[one.id] ?? ''"
        :label="`${one.code}, ${gradeWords(one)}`"
        inputmode="numeric"
        @update:model-value="(text: string) => set(one, text)"
      />
      <button class="quiet pb-2" type="button" @click="fill(one)">
        {{ line ? say`As many as it wants` : say`All of them` }}
      </button>
    </li>
  </ul>
</template>
