<script setup lang="ts">
import { dayOf, readGermination, say } from '@kauri/core';
import type { SeedLot } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { computed } from 'vue';
import { call } from '../../../api/client';
import { sentenceOf } from '../../../api/problem';
import { useMessages } from '../../../stores/messages';
import { useNursery } from '../../../stores/nursery';
import { useSeed, type RecordOf } from '../../../stores/seed';
import { useSession } from '../../../stores/session';
import { dateWords } from '../../../words/dates';
import { percent } from '../../../words/numbers';
import { passedWords, testWords } from '../../../words/seed';

const props = defineProps<{ lot: SeedLot }>();
const seed = useSeed();
const session = useSession();
const nursery = useNursery();
const messages = useMessages();
const tests = computed(() => seed.recordsOf(props.lot.id, 'test').slice().reverse());

/** What the daily counts tell besides the share. */
function course({ values }: RecordOf<'test'>): string {
  if (!values.counts.length) return values.daysRun ? say`in ${values.daysRun} days` : '';
  const reading = readGermination(values.counts, values.n, values.daysRun ?? 730);
  const half = reading.halfDay === null ? '' : say`half by day ${reading.halfDay}`;
  const early = reading.endedEarly ? say`still coming when it ended` : '';
  return [values.daysRun ? say`in ${values.daysRun} days` : '', half, early].filter(Boolean).join(', ');
}

async function undo(test: RecordOf<'test'>) {
  try {
    seed.take(
      await call('undoSeedRecord', {
        params: { ...nursery.params, record: test.id },
        body: { id: newId() },
      }),
    );
    messages.say(say`${testWords[test.values.test]} of ${dateWords(test.on)} taken back.`);
  } catch (error) {
    messages.say(sentenceOf(error));
  }
}
const age = (on: string) => dayOf(on) - dayOf(props.lot.collectedOn ?? props.lot.receivedOn);
</script>

<template>
  <section aria-labelledby="tests">
    <h2 id="tests" class="text-lg">{{ say`Tests` }}</h2>
    <table v-if="tests.length" class="w-full text-[0.95rem]" data-testid="seed-tests">
      <tbody>
        <tr v-for="test in tests" :key="test.id" class="border-rule border-t align-top">
          <td class="py-1 pr-3 whitespace-nowrap">{{ dateWords(test.on) }}</td>
          <td class="w-full py-1 pr-3">
            <b>{{ testWords[test.values.test] }}</b>{{
              say`: ${test.values.k} of ${test.values.n} ${passedWords[test.values.test]}, ${percent(test.values.k / test.values.n)}`
            }}
            <span class="text-muted">{{
              say`${course(test)} at ${age(test.on)} days old. ${test.note}`
            }}</span>
          </td>
          <td>
            <button
              v-if="session.may('crew')"
              class="quiet whitespace-nowrap"
              type="button"
              @click="undo(test)"
            >
              {{ say`Take back` }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else class="text-muted">
      {{ say`None yet: all rests on the species’ starting value. Fifty seeds on damp paper tell most.` }}
    </p>
  </section>
</template>
