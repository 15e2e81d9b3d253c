<script setup lang="ts">
import { say } from '@kauri/core';
import { Flashlight, FlashlightOff, ScanQrCode } from 'lucide-vue-next';
import { computed, onMounted, ref, shallowRef, useTemplateRef } from 'vue';
import { RouterLink } from 'vue-router';
import { sentenceOf } from '../api/problem';
import FormField from '../parts/FormField.vue';
import { readTag, type Tagged } from './readTag';
import { useTagged } from './useTagged';
import { useTagReader } from './useTagReader';

/** Reads the tags on beds, lots, bags, parcels and plantings, and offers what one is likely to do there. */
const { load, known, shown } = useTagged();
const video = useTemplateRef<HTMLVideoElement>('video');
const found = shallowRef<readonly Tagged[]>([]);
const why = ref<string | null>(null);
const typed = ref('');
const loaded = ref(false);
/** Codes seen last: one that is held before the camera is told once. */
let seen = '';

const reader = useTagReader((codes) => {
  const now = [...codes].sort().join('\n');
  if (now === seen) return;
  seen = now;
  take(codes);
  navigator.vibrate?.(found.value.length ? 40 : [40, 60, 40]);
});
const { trouble, starting, stream, torch } = reader;

function take(codes: readonly string[]): void {
  const read = codes.map((code) => readTag(code, known.value));
  found.value = read.flatMap((one) => ('found' in one ? one.found : []));
  // Where one of several is ours, the others are of no concern.
  why.value = found.value.length
    ? null
    : (read.map((one) => ('why' in one ? one.why : '')).find(Boolean) ?? null);
}
/** What somebody takes back while it is shown is gone from here too. */
const cards = computed(() =>
  found.value
    .filter(({ kind, id }) => known.value[kind].has(id))
    .map((tagged) => ({ tagged, ...shown(tagged) })),
);
/** A code that was typed or photographed is what one wants to see: the camera, which may look at another, rests. */
function byHand(codes: readonly string[]): void {
  reader.stop();
  take(codes);
}
function choose(lot: string): void {
  found.value = [{ kind: 'lot', id: lot }];
}
async function photo(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (!file) return;
  reader.stop();
  try {
    take(await reader.readPhoto(file));
  } catch (error) {
    found.value = [];
    why.value = sentenceOf(error);
  }
}
function look(): void {
  seen = '';
  if (video.value) void reader.start(video.value);
}
onMounted(async () => {
  look();
  await load();
  loaded.value = true;
});
</script>

<template>
  <div class="mx-auto grid max-w-4xl gap-4 p-4 md:grid-cols-[22rem_1fr] md:p-5">
    <section aria-labelledby="scan">
      <h1 id="scan" class="mb-2 text-2xl">{{ say`Read a tag` }}</h1>
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
    </section>

    <section aria-live="polite" :aria-label="say`What the tag stands on`" data-testid="tagged">
      <p v-if="why" class="border-ink border-l-4 pl-3 font-bold" role="alert">
        {{ why }}{{ loaded ? '' : say` Not everything is here yet: try again in a moment.` }}
      </p>
      <p v-else-if="!cards.length" class="text-muted">
        {{
          say`A lot, a bed or bench, a bag of seed, lifted trees, a planting: what is written down there, and what one is likely to do.`
        }}
      </p>
      <article v-for="card in cards" :key="card.tagged.id" class="panel mb-3 p-4">
        <h2 class="text-xl">
          <RouterLink class="quiet" :to="card.page">{{ card.title }}</RouterLink>
        </h2>
        <p class="text-muted">{{ card.what }}</p>
        <ul v-if="card.lots.length" class="mt-3 grid gap-2">
          <li v-for="lot in card.lots" :key="lot.id">
            <button class="act min-h-12 w-full justify-start" type="button" @click="choose(lot.id)">
              {{ lot.words }}
            </button>
          </li>
        </ul>
        <ul v-if="card.acts.length" class="mt-3 grid gap-2">
          <li v-for="(act, i) in card.acts" :key="act.words">
            <RouterLink
              class="min-h-12 w-full justify-start"
              :class="i === 0 && card.tagged.kind === 'lot' ? 'act-main' : 'act'"
              :to="act.to"
              >{{ act.words }}</RouterLink
            >
          </li>
        </ul>
      </article>
    </section>
  </div>
</template>
