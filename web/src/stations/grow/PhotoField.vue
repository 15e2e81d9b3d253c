<script setup lang="ts">
import { say } from '@kauri/core';
import { ImagePlus, X } from 'lucide-vue-next';
import { v7 as newId } from 'uuid';
import { ref } from 'vue';
import { sentenceOf } from '../../api/problem';
import { usePhotos } from '../../parts/usePhotos';
import { useDevice } from '../../stores/device';
import { useNursery } from '../../stores/nursery';
import { smallPhoto } from './smallPhoto';

/** Photos to a record: made small in the browser, without where they were taken, and sent at once. */
const photos = defineModel<string[]>({ required: true });
const nursery = useNursery();
const device = useDevice();
const { photoAt } = usePhotos();
const busy = ref(false);
const fault = ref<string | null>(null);
const MOST = 6;

async function add(event: Event) {
  const input = event.target as HTMLInputElement;
  const files = [...(input.files ?? [])].slice(0, MOST - photos.value.length);
  input.value = '';
  busy.value = true;
  fault.value = null;
  try {
    for (const file of files) {
      const small = await smallPhoto(file);
      const photo = newId();
      await device.writePhoto({ ...nursery.params, photo }, small);
      photos.value = [...photos.value, photo];
    }
  } catch (error) {
    fault.value = sentenceOf(error);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <div>
    <p class="mb-1 font-bold">{{ say`Photos` }}</p>
    <div class="flex flex-wrap items-center gap-2">
      <span v-for="(id, i) in photos" :key="id" class="relative">
        <img
          class="border-rule size-20 rounded-md border object-cover"
          :src="photoAt(id)"
          :alt="say`Photo ${i + 1}`"
        />
        <button
          class="bg-ink text-paper absolute top-0 right-0 grid size-7 cursor-pointer place-items-center rounded-bl-md"
          type="button"
          :aria-label="say`Leave photo ${i + 1} out`"
          @click="photos = photos.filter((p) => p !== id)"
        >
          <X :size="16" aria-hidden="true" />
        </button>
      </span>
      <label
        v-if="photos.length < MOST"
        class="act has-focus-visible:outline-water has-focus-visible:outline-3"
      >
        <ImagePlus :size="18" aria-hidden="true" />
        {{ busy ? say`Sending …` : say`Add a photo` }}
        <input class="sr-only" type="file" accept="image/*" multiple :disabled="busy" @change="add" />
      </label>
    </div>
    <p v-if="fault" class="text-wrong mt-1 text-sm font-bold" role="alert">{{ fault }}</p>
    <p v-else class="text-muted mt-1 text-sm">
      {{ say`Made small here; where and when it was taken is left out.` }}
    </p>
  </div>
</template>
