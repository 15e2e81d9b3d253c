<script setup lang="ts">
import { say, type Heeled } from '@kauri/core';
import { computed, useId } from 'vue';
import { useParcels } from '../../stores/parcels';
import { usePreferences } from '../../stores/preferences';
import { count } from '../../words/numbers';
import { useTrench } from './useTrench';

/** Where lifted trees lie, in the grower's words: bays of the yard and places used before are offered. */
const props = defineProps<{
  label?: string;
  /** What is to lie there: what it wants of a bay is said, and what is left. */
  trees?: readonly Heeled[];
  /** The parcel they are already: it is not counted where it lies. */
  parcel?: string;
}>();
const place = defineModel<string>({ required: true });
const parcels = useParcels();
const id = useId();
const { show } = usePreferences();
const { bays, roomOf, isOwn, wantedBy, fitIn } = useTrench();
const wants = computed(() => wantedBy(props.trees ?? []));
const wanted = computed(() => wants.value.metres);
/** The bay named, or the one with most room where none is named yet. */
const bay = computed(() => {
  if (wanted.value === 0) return null;
  const named = bays.value.has(place.value)
    ? [place.value]
    : place.value.trim() === ''
      ? bays.value.keys()
      : [];
  const rooms = [...named].flatMap((name) => {
    const room = roomOf(name, props.parcel);
    return room ? [{ name, left: room.value.left }] : [];
  });
  return rooms.sort((a, b) => b.left - a.left)[0] ?? null;
});
const roomWords = computed(() => {
  if (!bay.value) return '';
  const { name, left } = bay.value;
  const metres = show(wanted.value, 'site');
  if (left >= wanted.value)
    return say`They want ${metres} of trench; ${name} has ${show(left, 'site')} left.`;
  if (left <= 0) return say`They want ${metres} of trench; ${name} is full.`;
  const sized = props.trees!.filter((one) => one.count > 0);
  const fit = sized.length === 1 ? fitIn(left, sized[0]) : null;
  return fit === null
    ? say`They want ${metres} of trench; ${name} has only ${show(left, 'site')} left.`
    : say`They want ${metres} of trench; ${name} has only ${show(left, 'site')} left, for about ${count(fit)} of them.`;
});
const known = computed(() => [
  ...new Set([...bays.value.keys(), ...parcels.all.map((parcel) => parcel.place).filter(Boolean)]),
]);
</script>

<template>
  <div>
    <label :for="id" class="mb-1 block font-bold">{{ label ?? say`They lie in` }}</label>
    <input :id="id" v-model="place" class="field" :list="`${id}-known`" maxlength="120" autocomplete="off" />
    <p v-if="roomWords" class="mt-1 text-sm" data-testid="trench-wanted">
      {{ roomWords }}
      <span v-if="wants.unsized">{{ say`Not in it: ${count(wants.unsized)} of no stated height.` }}</span>
      <span v-if="!isOwn" class="text-muted"> {{ say`By rules of thumb.` }}</span>
    </p>
    <datalist :id="`${id}-known`">
      <option v-for="name in known" :key="name" :value="name" />
    </datalist>
  </div>
</template>
