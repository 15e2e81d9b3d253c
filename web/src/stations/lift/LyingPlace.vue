<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, useId } from 'vue';
import { useNursery } from '../../stores/nursery';
import { useParcels } from '../../stores/parcels';

/** Where lifted trees lie, in the grower's words: bays of the yard and places used before are offered. */
defineProps<{ label?: string }>();
const place = defineModel<string>({ required: true });
const nursery = useNursery();
const parcels = useParcels();
const id = useId();
const known = computed(() => [
  ...new Set([
    ...nursery.catalogue!.places.filter((p) => p.place.kind === 'bay').map((p) => p.place.name),
    ...parcels.all.map((parcel) => parcel.place).filter(Boolean),
  ]),
]);
</script>

<template>
  <div>
    <label :for="id" class="mb-1 block font-bold">{{ label ?? say`They lie in` }}</label>
    <input :id="id" v-model="place" class="field" :list="`${id}-known`" maxlength="120" autocomplete="off" />
    <datalist :id="`${id}-known`">
      <option v-for="name in known" :key="name" :value="name" />
    </datalist>
  </div>
</template>
