<script setup lang="ts">
import { say } from '@kauri/core';
import { CloudOff, CloudUpload, TriangleAlert } from 'lucide-vue-next';
import { computed } from 'vue';
import { useDevice } from '../stores/device';
import { several } from '../words/numbers';

/** What is not sent yet, and whether there is a network: nothing at all while all is well. */
const emit = defineEmits<{ open: [] }>();
const device = useDevice();
const shown = computed(() => {
  const [waiting, refused] = [device.waiting.length, device.refused.length];
  if (refused) return { icon: TriangleAlert, words: say`${several(refused, 'act')} not taken`, now: true };
  if (!device.reachable)
    return {
      icon: CloudOff,
      words: waiting ? say`No network · ${waiting} to send` : say`No network`,
      now: false,
    };
  return waiting ? { icon: CloudUpload, words: say`${waiting} to send`, now: false } : null;
});
</script>

<template>
  <button
    v-if="shown"
    class="act"
    :class="shown.now ? 'bg-tag text-tag-ink' : 'border-dashed'"
    type="button"
    data-testid="network"
    @click="emit('open')"
  >
    <component :is="shown.icon" :size="18" aria-hidden="true" /> {{ shown.words }}
  </button>
</template>
