<script setup lang="ts">
import { byNature, say } from '@kauri/core';
import { computed, ref } from 'vue';
import { useRoute } from 'vue-router';
import FormField from '../parts/FormField.vue';
import IdeaPicture from './IdeaPicture.vue';
import { ideas, terms, type IdeaKey } from './ideas';

/** Every idea Kauri works with, and the words of the trade. */
const route = useRoute();
const sought = ref('');
const has = (...texts: string[]) =>
  texts.some((text) => text.toLocaleLowerCase().includes(sought.value.trim().toLocaleLowerCase()));
const shownIdeas = computed(() =>
  (Object.keys(ideas) as IdeaKey[]).filter((key) => has(ideas[key].name, ideas[key].is, ideas[key].use)),
);
const shownTerms = computed(() =>
  terms.filter(({ name, is }) => has(name, is)).sort((a, b) => byNature(a.name, b.name)),
);
const chosen = computed(() => route.hash.slice(1));
</script>

<template>
  <div class="max-w-4xl space-y-4 p-4 md:p-6">
    <h1 class="text-2xl">{{ say`Ideas and words` }}</h1>
    <FormField v-model="sought" class="max-w-sm" :label="say`Find a word`" type="search" />
    <p v-if="shownIdeas.length + shownTerms.length === 0" role="status">{{ say`Nothing here says that.` }}</p>
    <dl v-if="shownIdeas.length" class="grid gap-3 md:grid-cols-2" data-testid="ideas">
      <div
        v-for="key in shownIdeas"
        :id="key"
        :key="key"
        class="panel p-3"
        :class="chosen === key ? 'ring-ink ring-2' : ''"
        :aria-current="chosen === key ? 'true' : undefined"
      >
        <dt class="font-bold">{{ ideas[key].name }}</dt>
        <dd>
          <IdeaPicture class="my-1" :idea="key" />
          {{ ideas[key].is }} {{ ideas[key].use }}
        </dd>
      </div>
    </dl>
    <section v-if="shownTerms.length" aria-labelledby="trade">
      <h2 id="trade" class="mb-1 text-lg">{{ say`Words of the trade` }}</h2>
      <dl data-testid="terms">
        <div
          v-for="term in shownTerms"
          :key="term.name"
          class="border-rule grid border-t py-1 md:grid-cols-[12rem_1fr]"
        >
          <dt class="font-bold">{{ term.name }}</dt>
          <dd>{{ term.is }}</dd>
        </div>
      </dl>
    </section>
  </div>
</template>
