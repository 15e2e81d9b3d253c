<script setup lang="ts">
import { say, speech } from '@kauri/core';
import type { Practice } from '@kauri/core/contract';
import { useTimeoutPoll } from '@vueuse/core';
import { v7 as newId } from 'uuid';
import { computed, onMounted, ref } from 'vue';
import { call } from '../../api/client';
import { sentenceOf } from '../../api/problem';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import { useNursery } from '../../stores/nursery';
import { useSession } from '../../stores/session';

/** A nursery of one's own to try things in, entered and left as one likes. */
const session = useSession();
const nursery = useNursery();
const practice = ref<Practice | null>(null);
const fault = ref<string | null>(null);
const anew = ref(false);
const half = ref<'north' | 'south'>(nursery.catalogue!.nursery.latitudeDeg < 0 ? 'south' : 'north');
const halves = [
  { value: 'north' as const, words: say`In the north: three seasons, some 140 lots` },
  { value: 'south' as const, words: say`In the south: small, three lots` },
];
const isIn = computed(() => session.membership!.practice);
const state = computed(() => practice.value?.state ?? null);

const ASK_MS = 1500;
const { resume, pause } = useTimeoutPoll(look, ASK_MS);
async function look() {
  try {
    practice.value = await call('practice');
    fault.value = null;
    if (practice.value.state !== 'making') pause();
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
onMounted(resume);
async function make() {
  try {
    const body = { id: newId(), south: half.value === 'south', language: speech().tag };
    practice.value = await call('makePractice', { body });
    anew.value = false;
    resume();
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
</script>

<template>
  <div class="mx-auto max-w-3xl space-y-5 p-4 md:p-6">
    <h1 class="text-2xl">{{ say`A nursery to practise in` }}</h1>
    <p class="text-lg">
      {{
        say`It comes filled: beds, lots, roots, orders, plantings, and this week’s work. It is yours alone, nobody else sees it, and nothing you do there touches the real one.`
      }}
    </p>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <p v-else-if="state === null" class="text-muted" role="status">
      {{ say`Looking whether you have one …` }}
    </p>
    <section v-if="isIn" class="panel space-y-3 p-4" :aria-label="say`You are in it`">
      <p>
        <b>{{ say`You are in it: nothing here is real.` }}</b>
        {{ say` It stays as you leave it, until you begin it afresh.` }}
      </p>
      <button v-if="session.real.length" class="act-main" type="button" @click="session.leavePractice">
        {{ say`Leave it for ${session.real[0].nurseryName}` }}
      </button>
    </section>
    <section v-if="state !== null" class="panel space-y-4 p-4" data-testid="practice" :data-state="state">
      <p v-if="state === 'making'" role="status">
        {{ say`It is being made, which takes half a minute or so. You can go on with something else.` }}
      </p>
      <template v-else-if="state === 'ready' && !anew">
        <button
          v-if="!isIn"
          class="act-main"
          type="button"
          @click="session.chooseNursery(practice!.nurseryId!)"
        >
          {{ say`Enter it` }}
        </button>
        <p v-if="isIn" class="text-muted">
          {{ say`It is begun afresh from your own nursery: leave it first.` }}
        </p>
        <button v-else class="act ml-3" type="button" @click="anew = true">{{ say`Begin it afresh` }}</button>
      </template>
      <template v-else>
        <p v-if="state === 'failed'" class="text-wrong font-bold" role="alert">
          {{ say`It could not be made. Try once more; the log says what went wrong.` }}
        </p>
        <p v-if="anew">{{ say`What you tried in the one before is done away with.` }}</p>
        <ChoiceRow v-model="half" :label="say`Filled like`" :options="halves" />
        <button class="act-main" type="button" @click="make">{{ say`Make it` }}</button>
        <button v-if="anew" class="quiet ml-3" type="button" @click="anew = false">
          {{ say`Keep the one before` }}
        </button>
      </template>
    </section>
  </div>
</template>
