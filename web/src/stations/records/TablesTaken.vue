<script setup lang="ts">
import { say } from '@kauri/core';
import { onMounted, ref } from 'vue';
import type { TableTaken } from '@kauri/core/contract';
import { sentenceOf } from '../../api/problem';
import { useMessages } from '../../stores/messages';
import { useSession } from '../../stores/session';
import { dateWords } from '../../words/dates';
import { several } from '../../words/numbers';
import { oneOf, useTablesTaken } from './useTablesTaken';

/** What came in as tables: who brought it, and back out as a whole where it was the wrong one. */
const { tables, load, takeBack } = useTablesTaken();
const session = useSession();
const messages = useMessages();
const fault = ref<string | null>(null);
const busy = ref(false);
onMounted(() => load().catch((error: unknown) => (fault.value = sentenceOf(error))));

async function back(table: TableTaken) {
  busy.value = true;
  fault.value = null;
  try {
    messages.say(await takeBack(table.id, table.kind));
  } catch (error) {
    fault.value = sentenceOf(error);
  } finally {
    busy.value = false;
  }
}
const kinds = { weather: say`Weather`, measurements: say`Measurements` } as const;
const span = ({ first, last }: TableTaken) =>
  first && last
    ? `, ${first === last ? dateWords(first) : say`${dateWords(first)} to ${dateWords(last)}`}`
    : '';
</script>

<template>
  <section v-if="tables?.length || fault" class="panel p-4" aria-labelledby="taken-in">
    <h2 id="taken-in" class="mb-1 text-xl">{{ say`Taken in` }}</h2>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <ul class="divide-rule divide-y" data-testid="tables-taken">
      <li v-for="table in tables ?? []" :key="table.id" class="flex flex-wrap items-center gap-x-4 py-1">
        <span class="mr-auto">
          <b>{{ kinds[table.kind] }}</b>: {{ several(table.good, oneOf[table.kind]) }}{{ span(table) }}
          <span class="text-muted">· {{ table.by }}, {{ dateWords(table.at.slice(0, 10)) }}</span>
        </span>
        <button
          v-if="session.may('grower')"
          class="quiet"
          type="button"
          :disabled="busy"
          @click="back(table)"
        >
          {{ say`Take it back` }}
        </button>
      </li>
    </ul>
  </section>
</template>
