<script setup lang="ts">
import { CloudOff, CloudUpload, TriangleAlert } from 'lucide-vue-next';
import { computed } from 'vue';
import { useDevice } from '../stores/device';
import { several } from '../words/numbers';

/** What is not sent yet, and whether there is a network: nothing at all while all is well. */
const emit = defineEmits<{ open: [] }>();
const device = useDevice();
const shown = computed(() => {
  const [waiting, refused] = [device.waiting.length, device.refused.length];
  if (refused) return { icon: TriangleAlert, words: `${several(refused, 'act')} not taken`, now: true };
  if (!device.reachable)
    return { icon: CloudOff, words: waiting ? `No network · ${waiting} to send` : 'No network', now: false };
  return waiting ? { icon: CloudUpload, words: `${waiting} to send`, now: false } : null;
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
