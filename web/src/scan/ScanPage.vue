<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { RouterLink } from 'vue-router';
import { readTag, type Tagged } from './readTag';
import { useTagged } from './useTagged';
import TagLook from './TagLook.vue';

/** Reads the tags on beds, lots, bags, parcels and plantings, and offers what one is likely to do there. */
const { load, known, shown } = useTagged();
const found = shallowRef<readonly Tagged[]>([]);
const why = ref<string | null>(null);
const loaded = ref(false);
function take(codes: readonly string[]): void {
  const read = codes.map((code) => readTag(code, known.value));
  found.value = read.flatMap((one) => ('found' in one ? one.found : []));
  // Where one of several is ours, the others are of no concern.
  why.value = found.value.length
    ? null
    : (read.map((one) => ('why' in one ? one.why : '')).find(Boolean) ?? null);
  navigator.vibrate?.(found.value.length ? 40 : [40, 60, 40]);
}
/** What somebody takes back while it is shown is gone from here too. */
const cards = computed(() =>
  found.value
    .filter(({ kind, id }) => known.value[kind].has(id))
    .map((tagged) => ({ tagged, ...shown(tagged) })),
);
function choose(lot: string): void {
  found.value = [{ kind: 'lot', id: lot }];
}
function unread(sentence: string): void {
  found.value = [];
  why.value = sentence;
}
onMounted(async () => {
  await load();
  loaded.value = true;
});
</script>

<template>
  <div class="mx-auto grid max-w-4xl gap-4 p-4 md:grid-cols-[22rem_1fr] md:p-5">
    <section aria-labelledby="scan">
      <h1 id="scan" class="mb-2 text-2xl">{{ say`Read a tag` }}</h1>
      <TagLook @codes="take" @unread="unread" />
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
