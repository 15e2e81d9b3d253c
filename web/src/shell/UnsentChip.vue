<script setup lang="ts">
import { say } from '@kauri/core';
import { CloudDownload, CloudOff, CloudUpload, TriangleAlert } from 'lucide-vue-next';
import { computed } from 'vue';
import { useDevice } from '../stores/device';
import { several } from '../words/numbers';
import { momentWords } from '../words/people';

/** What is not sent yet, whether there is a network, and how old what is shown is: nothing at all while all is well. */
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
  if (waiting) return { icon: CloudUpload, words: say`${waiting} to send`, now: false };
  if (device.seenAt === null) return null;
  return { icon: CloudDownload, words: say`As seen ${momentWords(device.seenAt)}`, now: false };
});
</script>

<template>
  <button
    v-if="shown"
    class="act hand:min-w-0 hand:px-2 hand:text-left hand:text-sm hand:leading-4 hand:whitespace-normal"
    :class="shown.now ? 'bg-tag text-tag-ink' : 'border-dashed'"
    type="button"
    data-testid="network"
    @click="emit('open')"
  >
    <component :is="shown.icon" class="flex-none" :size="18" aria-hidden="true" /> {{ shown.words }}
  </button>
</template>
