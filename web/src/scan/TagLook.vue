<script setup lang="ts">
import { say } from '@kauri/core';
import { Flashlight, FlashlightOff, ScanQrCode } from 'lucide-vue-next';
import { onMounted, ref, useTemplateRef } from 'vue';
import { sentenceOf } from '../api/problem';
import FormField from '../parts/FormField.vue';
import { useTagReader } from './useTagReader';

/** Codes of tags: through the camera, of a photo, or typed. */
const emit = defineEmits<{ codes: [read: readonly string[]]; unread: [why: string] }>();
const video = useTemplateRef<HTMLVideoElement>('video');
const typed = ref('');
/** Codes seen last: one that is held before the camera is told once. */
let seen = '';

const reader = useTagReader((codes) => {
  const now = [...codes].sort().join('\n');
  if (now === seen) return;
  seen = now;
  emit('codes', codes);
});
const { trouble, starting, stream, torch } = reader;

/** A code that was typed or photographed is what one wants to see: the camera, which may look at another, rests. */
function byHand(codes: readonly string[]): void {
  reader.stop();
  emit('codes', codes);
}
async function photo(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (!file) return;
  reader.stop();
  try {
    emit('codes', await reader.readPhoto(file));
  } catch (error) {
    emit('unread', sentenceOf(error));
  }
}
function look(): void {
  seen = '';
  if (video.value) void reader.start(video.value);
}
onMounted(look);
</script>

<template>
  <div>
    <div
      class="bg-rail relative aspect-[4/3] w-full overflow-hidden rounded-lg"
      :class="trouble ? 'hidden' : ''"
    >
      <video
        ref="video"
        class="size-full object-cover"
        muted
        playsinline
        :aria-label="say`What the camera sees`"
      />
      <p v-if="starting" class="text-rail-ink absolute inset-0 grid place-items-center" role="status">
        {{ say`Opening the camera …` }}
      </p>
      <p v-else-if="!stream" class="absolute inset-0 grid place-items-center">
        <button class="act" type="button" @click="look">{{ say`Look through the camera` }}</button>
      </p>
      <button
        v-if="torch !== 'none'"
        class="act absolute right-2 bottom-2"
        type="button"
        :aria-pressed="torch === 'on'"
        @click="reader.light"
      >
        <component :is="torch === 'on' ? FlashlightOff : Flashlight" :size="20" aria-hidden="true" />
        {{ torch === 'on' ? say`Lamp off` : say`Lamp` }}
      </button>
    </div>
    <p v-if="trouble" class="border-ink border-l-4 pl-3" role="status">
      {{ trouble }}
      <button class="quiet" type="button" @click="look">{{ say`Try the camera again` }}</button>
    </p>
    <p v-else class="text-muted mt-1 text-sm">
      {{ say`Hold the tag square before the camera, a hand away.` }}
    </p>
    <form class="mt-3 flex items-end gap-2" @submit.prevent="byHand([typed])">
      <FormField v-model="typed" class="grow" :label="say`Or type its code`" autocapitalize="characters" />
      <button class="act" type="submit">{{ say`Look it up` }}</button>
    </form>
    <label class="act mt-2 cursor-pointer focus-within:outline-3">
      <ScanQrCode :size="18" aria-hidden="true" /> {{ say`Read a photo of a tag` }}
      <input class="sr-only" type="file" accept="image/*" @change="photo" />
    </label>
  </div>
</template>
