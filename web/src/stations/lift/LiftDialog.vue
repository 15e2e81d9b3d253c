<script setup lang="ts">
import { say } from '@kauri/core';
import FormDialog from '../../parts/FormDialog.vue';
import type { ShownLot } from '../../parts/useLots';
import LiftForm from './LiftForm.vue';

defineProps<{ lot: ShownLot }>();
const emit = defineEmits<{ close: [] }>();
</script>

<template>
  <FormDialog
    :title="say`Lift`"
    :subtitle="`${lot.row.code} · ${lot.species} · ${lot.where}`"
    @close="emit('close')"
  >
    <LiftForm :lot="lot" @done="emit('close')" />
  </FormDialog>
</template>
