<script setup lang="ts">
import { dayOf, isoOf, stateOfHold, throughHolds, type HoldNote, say } from '@kauri/core';
import type { Hold } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { computed, onMounted, ref } from 'vue';
import { sentenceOf } from '../../api/problem';
import type { ShownLot } from '../../parts/useLots';
import { useHolds } from '../../stores/holds';
import { useMessages } from '../../stores/messages';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { dateWords, shortDate, yearOf } from '../../words/dates';
import { holdCauseWords, holdCoverWords, holdNoteWords } from '../../words/holds';
import { count, percent, several } from '../../words/numbers';
import EndHoldDialog from './EndHoldDialog.vue';
import HoldDialog from './HoldDialog.vue';
import HoldDrop from './HoldDrop.vue';

/** A lot in humid air: how far it is opened, what comes next, and the one act that does it. */
const props = defineProps<{ lot: ShownLot }>();
const holds = useHolds();
const season = useSeason();
const session = useSession();
const messages = useMessages();
const fault = ref<string | null>(null);
/** Whether one is being begun: the lot's page offers it. */
const begins = defineModel<boolean>('begins', { required: true });
const ends = ref(false);
onMounted(
  () => holds.loaded || void holds.load().catch((error: unknown) => (fault.value = sentenceOf(error))),
);

const may = computed(() => session.may('crew') && season.view >= season.today);
const mine = computed(() =>
  holds.all.filter(({ lotId, begunOn }) => lotId === props.lot.row.id && dayOf(begunOn) <= season.view),
);
const current = computed(() => mine.value.find(({ ended }) => ended === null) ?? null);
const past = computed(() => mine.value.filter(({ ended }) => ended !== null));
const state = computed(() => (current.value ? stateOfHold(current.value, season.view) : null));
const date = (day: number) => shortDate(day, yearOf(season.today));
const phaseWords = computed(() => {
  const s = state.value!;
  if (s.phase === 'shut')
    return say`Shut, ${several(s.flushes, 'flush', 'flushes')} of new leaves seen: it opens after two, or after one and three weeks.`;
  if (s.phase === 'opening')
    return say`Opening: ${count(s.opened)} of 7 steps${s.wilted ? say`, back one for wilting` : ''}.`;
  if (s.phase === 'light') return say`Open; ${count(s.light)} of 3 steps from shade to sun.`;
  return say`Through: count what lives, and end it.`;
});
const nextWords = computed(() => {
  const { what, on } = state.value!.next;
  const day = on <= season.view ? 'now' : say`from ${date(on)}`;
  return {
    look: say`Look in ${day}.`,
    open: say`Open a little more ${day}.`,
    light: say`To more light ${day}.`,
    end: '',
  }[what];
});
/** What may be noted in each phase, the one that is due as the filled key. */
const acts = computed((): { what: HoldNote; due: boolean }[] => {
  const { phase, next } = state.value!;
  const due = next.on <= season.view;
  if (phase === 'shut')
    return [
      { what: 'flush', due: false },
      { what: 'wilted', due: false },
    ];
  if (phase === 'opening')
    return [
      { what: 'opened', due },
      { what: 'wilted', due: false },
      { what: 'flush', due: false },
    ];
  if (phase === 'light')
    return [
      { what: 'light', due },
      { what: 'wilted', due: false },
    ];
  return [{ what: 'wilted', due: false }];
});
/** How holds of this species, and for this reason, came through. */
const before = computed(() => {
  const hold = current.value;
  if (!hold) return null;
  const ofCause = throughHolds(holds.all, hold.speciesId).groups.find(({ group }) => group === hold.cause);
  return ofCause ?? null;
});
async function act(work: () => Promise<unknown>, said: string, undo?: () => Promise<unknown>) {
  fault.value = null;
  try {
    await work();
    messages.say(said, undo && (async () => void (await undo())));
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
function note(hold: Hold, what: HoldNote) {
  const id = newId();
  const on = isoOf(Math.min(season.view, season.today));
  return act(
    () => holds.note(hold.id, { id, on, what, note: '' }),
    `${hold.code}: ${holdNoteWords[what]}.`,
    () => holds.takeBackStep(hold.id, id),
  );
}
</script>

<template>
  <section v-if="current && state" class="panel mt-4 max-w-3xl p-4" aria-labelledby="hold" data-testid="hold">
    <div class="flex items-start gap-4">
      <HoldDrop :state="state" />
      <div class="min-w-0 flex-1">
        <h2 id="hold" class="text-lg">
          {{ say`In humid air, ${holdCoverWords[current.cover]}, since ${dateWords(current.begunOn)}` }}
        </h2>
        <p>
          {{ phaseWords }} <b>{{ nextWords }}</b>
        </p>
        <p v-if="before" class="text-muted text-[0.95rem]">
          {{
            say`Of this species, ${holdCauseWords[current.cause]}: ${percent(before.lower)} to ${percent(before.upper)} came through, nine times in ten (${several(before.plantings, 'hold')}).`
          }}
        </p>
      </div>
    </div>
    <p v-if="fault" class="text-wrong mt-2 font-bold" role="alert">{{ fault }}</p>
    <div v-if="may" class="mt-3 flex flex-wrap gap-2">
      <button
        v-for="{ what, due } in acts"
        :key="what"
        :class="due ? 'act-main' : 'act'"
        type="button"
        @click="note(current, what)"
      >
        <span class="first-letter:uppercase">{{ holdNoteWords[what] }}</span>
      </button>
      <button :class="state.phase === 'through' ? 'act-main' : 'quiet'" type="button" @click="ends = true">
        {{ say`End it` }}
      </button>
    </div>
    <details v-if="current.steps.length" class="mt-2">
      <summary class="quiet list-none">{{ say`What was seen and done` }}</summary>
      <ul>
        <li v-for="step in current.steps" :key="step.id">
          {{ dateWords(step.on) }}: {{ holdNoteWords[step.what] }}
          <span class="text-muted">({{ step.by }})</span>
        </li>
      </ul>
    </details>
  </section>
  <p v-else-if="past.length" class="mt-2 flex flex-wrap items-center gap-x-4">
    <span v-for="one in past" :key="one.id" class="text-muted">{{
      say`Held in humid air until ${dateWords(one.ended!.on)}: ${count(one.ended!.alive)} of ${count(one.count)} came through.`
    }}</span>
  </p>
  <HoldDialog v-if="begins" :lot="lot" @close="begins = false" />
  <EndHoldDialog
    v-if="ends && current"
    :hold="current"
    :standing="lot.row.held.standing"
    @close="ends = false"
  />
</template>
