<script setup lang="ts">
import { isoOf, lessonsOf, type Lesson, say } from '@kauri/core';
import type { LearntValue } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { computed, onMounted, shallowRef } from 'vue';
import { sentenceOf } from '../../api/problem';
import EmptyState from '../../parts/EmptyState.vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import { useForecasts } from '../../stores/forecasts';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { dateWords } from '../../words/dates';
import { percent, several } from '../../words/numbers';
import { useLearnt } from './useLearnt';

/** What the nursery’s own lots teach of each species in each container: shown, taken or turned down, and taken back. */
const forecasts = useForecasts();
const nursery = useNursery();
const season = useSeason();
const session = useSession();
const { show } = usePreferences();
const taught = shallowRef<Awaited<ReturnType<typeof forecasts.teaching>> | null>(null);
const { keep, fault } = useLearnt();
onMounted(async () => {
  try {
    taught.value = await forecasts.teaching();
  } catch (error) {
    fault.value = sentenceOf(error);
  }
});

interface ShownLesson extends Lesson {
  kept: LearntValue | null;
}
const lessons = computed<ShownLesson[]>(() => {
  const taughtBy = (taught.value ?? []).map(({ lotId, teaching }) => {
    const { speciesId, stage } = nursery.lots.get(lotId)!;
    return { speciesId, containerTypeId: stage.containerTypeId, teaching };
  });
  return lessonsOf(taughtBy).map((lesson) => ({
    ...lesson,
    kept:
      values.value.find(
        (v) =>
          v.speciesId === lesson.speciesId &&
          v.containerTypeId === lesson.containerTypeId &&
          v.figure === lesson.figure,
      ) ?? null,
  }));
});
const values = computed(() => nursery.learnt?.learnt.values ?? []);
const speciesName = (id: string) => nursery.lookup.species.get(id)?.common ?? '';
const containerName = (id: string | null) =>
  id === null ? say`in beds` : say`in ${nursery.lookup.containers.get(id)?.values.name ?? ''}`;
function says({ figure, value, speciesId }: Lesson): string {
  const off = Math.round((value.factor - 1) * 100);
  const amount =
    off === 0
      ? say`as the starting value says`
      : say`${Math.abs(off)} % ${off > 0 ? say`more` : say`less`} than the starting value`;
  if (figure === 'vigour')
    return off === 0
      ? say`Roots fill ${amount}`
      : say`Roots fill ${Math.abs(off)} % ${off > 0 ? say`faster` : say`slower`} than the starting value`;
  const start = nursery.lookup.species.get(speciesId)!.values.heightCm.median;
  return say`Grows to ${show(start * value.factor, 'height')} where the starting value has ${show(start, 'height')}: ${amount}`;
}

const take = (next: LearntValue[], said: string) => keep((now) => ({ ...now, values: next }), said);
const without = (lesson: ShownLesson) => values.value.filter((v) => v.id !== lesson.kept?.id);
function decide(lesson: ShownLesson, state: 'accepted' | 'declined') {
  const { speciesId, containerTypeId, figure, value } = lesson;
  const { factor, sdLog, lots } = value;
  void take(
    [
      ...without(lesson),
      {
        id: newId(),
        speciesId,
        containerTypeId,
        figure,
        factor,
        sdLog,
        lots,
        on: isoOf(season.today),
        state,
      },
    ],
    state === 'accepted'
      ? say`Taken: forecasts go by it from now on.`
      : say`Turned down: the starting value stays.`,
  );
}
</script>

<template>
  <article class="mx-auto max-w-4xl space-y-4 p-4 md:p-6">
    <h1 class="text-2xl">{{ say`What your own lots teach` }}</h1>
    <p>
      {{
        say`Lots that have had their season are put together by species and container, shrunk to the starting value the less they say. Take a figure, and new lots of that kind start from it; either can be taken back.`
      }}
    </p>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <p v-if="!taught && !fault" role="status">{{ say`Asking the lots …` }}</p>
    <EmptyState v-else-if="taught && !lessons.length" :title="say`Nothing to learn yet`">
      {{
        say`It takes two lots of one species in one container, measured or pulled, four months after they came up.`
      }}
    </EmptyState>
    <ul class="space-y-3" data-testid="lessons">
      <li v-for="lesson in lessons" :key="lesson.key" class="panel p-4">
        <p class="flex flex-wrap items-baseline gap-x-3">
          <b class="text-lg">{{ speciesName(lesson.speciesId) }}</b>
          <span class="text-muted">{{ containerName(lesson.containerTypeId) }}</span>
          <span v-if="lesson.kept" class="border-ink ml-auto rounded border px-2 text-sm font-bold">
            {{ lesson.kept.state === 'accepted' ? say`✓ Taken` : say`× Turned down` }}
            {{ dateWords(lesson.kept.on) }}
          </span>
        </p>
        <p class="font-bold">{{ says(lesson) }}.</p>
        <p class="text-muted">
          {{
            say`From ${several(lesson.value.lots, 'lot')}; ${percent(lesson.value.startingShare)} of it still rests on the starting value. A new lot lies within a factor of ${Math.exp(1.28 * lesson.value.sdLog).toFixed(2)} of it, eight times in ten.`
          }}
        </p>
        <div class="flex flex-wrap items-center gap-2">
          <template v-if="session.may('grower')">
            <button
              v-if="lesson.kept?.state !== 'accepted'"
              class="act"
              type="button"
              @click="decide(lesson, 'accepted')"
            >
              {{ say`Take it` }}
            </button>
            <button v-if="!lesson.kept" class="act" type="button" @click="decide(lesson, 'declined')">
              {{ say`Turn it down` }}
            </button>
            <button
              v-if="lesson.kept"
              class="act"
              type="button"
              @click="take(without(lesson), say`Taken back: the starting value stands.`)"
            >
              {{ say`Take back` }}
            </button>
          </template>
          <ShowWorking :steps="lesson.working" />
        </div>
      </li>
    </ul>
  </article>
</template>
