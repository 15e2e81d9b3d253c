<script setup lang="ts">
import { cullReasons, say } from '@kauri/core';
import { Undo2 } from 'lucide-vue-next';
import { computed, ref } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import type { ShownLot } from '../../parts/useLots';
import { usePreferences } from '../../stores/preferences';
import { useSession } from '../../stores/session';
import { useKeys } from '../../shell/useKeys';
import { cullWords, heightsWritten } from '../../words/grades';
import { count } from '../../words/numbers';
import ExposureClock from './ExposureClock.vue';
import { numberIn, takeBackTap, tap, type LiftRow } from './liftDraft';
import LyingPlace from './LyingPlace.vue';
import { useLift } from './useLift';

/** A lift counted at the bed with one thumb: grades, culls with why, the clock of bare roots, and the last tap back. */
const props = defineProps<{ lot: ShownLot }>();
const router = useRouter();
const session = useSession();
const { unit } = usePreferences();
const lift = useLift(() => props.lot);
const { draft, on, busy, sentence, units, lifted, culled, left, heeled } = lift;

/** Trees a tap counts: one, or a bundle that is tied. */
const step = ref(1);
const steps = [1, 10, 25].map((value) => ({ value, words: String(value) }));
const heights = ({ sized }: LiftRow) =>
  sized ? `${heightsWritten(sized, units.height)} ${unit('height')}` : null;
const more = (row: LiftRow) => {
  if (!row.sized) return '';
  return row.grade === heightsWritten(row.sized, units.height) ? '' : row.grade;
};
function hit(at: string, by: number) {
  if (left.value < by) return;
  navigator.vibrate?.(15);
  tap(draft.value, at, by);
}
const lastWords = computed(() => {
  const last = draft.value.taps.at(-1);
  if (!last) return null;
  const row = draft.value.rows.find(({ id }) => id === last.at);
  const what = row ? (heights(row) ?? row.grade ?? '') : cullWords(last.at as (typeof cullReasons)[number]);
  return `${count(last.by)} ${what || say`lifted`}`;
});
/** Keys of the grades in their order; numbers lead to the stations. */
const keys = [...'asdfghjkl'];
useKeys({
  ...Object.fromEntries(
    keys.map((key, i) => [key, () => draft.value.rows[i] && hit(draft.value.rows[i].id, step.value)]),
  ),
  Backspace: () => takeBackTap(draft.value),
});
async function keep() {
  if (await lift.save()) await router.push({ name: 'lift', params: { lot: props.lot.row.id } });
}
</script>

<template>
  <div class="mx-auto flex min-h-full max-w-xl flex-col gap-3 p-3" data-testid="tally">
    <header class="flex items-baseline gap-3">
      <h1 class="text-xl">{{ lot.row.code }}</h1>
      <p class="text-muted min-w-0 flex-1 truncate">{{ lot.where }}</p>
      <RouterLink class="quiet" :to="{ name: 'lift', params: { lot: lot.row.id } }">{{
        say`Write it instead`
      }}</RouterLink>
    </header>
    <p v-if="!session.may('crew')">{{ say`Visitors look, crew record.` }}</p>
    <template v-else>
      <ExposureClock v-if="lift.isBed.value" v-model="draft.outSince" :on="on" />
      <div class="grid grid-cols-2 gap-2" role="group" :aria-label="say`Lifted, good`">
        <button
          v-for="(row, i) in draft.rows"
          :key="row.id"
          class="act-main min-h-24 flex-col justify-center gap-0 text-lg"
          :class="draft.rows.length === 1 ? 'col-span-2' : ''"
          type="button"
          :disabled="left < step"
          :aria-keyshortcuts="keys[i]"
          @click="hit(row.id, step)"
        >
          <span
            >{{ heights(row) ?? (row.grade || say`Lifted, good`) }}
            <span v-if="keys[i]" class="key max-md:hidden" aria-hidden="true">{{ keys[i] }}</span></span
          >
          <span v-if="more(row)" class="text-base font-normal">{{ more(row) }}</span>
          <span class="font-head text-3xl tabular-nums">{{ count(numberIn(row.count) || 0) }}</span>
        </button>
      </div>
      <ChoiceRow v-model="step" :label="say`A tap counts`" :options="steps" />
      <div>
        <h2 class="mb-1 text-base">{{ say`Culled for` }}</h2>
        <div class="grid grid-cols-3 gap-2" role="group" :aria-label="say`Culled for`">
          <button
            v-for="why in cullReasons"
            :key="why"
            class="act min-h-14 flex-col justify-center gap-0 px-1 leading-tight whitespace-normal"
            type="button"
            :disabled="left < 1"
            @click="hit(why, 1)"
          >
            {{ cullWords(why) }}
            <span class="text-lg tabular-nums">{{ count(numberIn(draft.culls[why]) || 0) }}</span>
          </button>
        </div>
      </div>
      <LyingPlace v-model="draft.place" :trees="heeled" />
      <div class="bg-paper border-rule sticky bottom-0 mt-auto space-y-2 border-t py-2">
        <p class="flex items-baseline justify-between" aria-live="polite" data-testid="tallied">
          <span
            ><b>{{ count(lifted) }}</b> {{ say`lifted, ${count(culled)} culled` }}</span
          >
          <span
            ><b>{{ count(Math.max(0, left)) }}</b> {{ say`left standing` }}</span
          >
        </p>
        <p v-if="sentence()" class="text-wrong font-bold" role="alert">{{ sentence() }}</p>
        <div class="flex gap-3">
          <button class="act min-h-14" type="button" :disabled="!lastWords" @click="takeBackTap(draft)">
            <Undo2 :size="20" aria-hidden="true" />
            <span
              >{{ say`Back` }}<template v-if="lastWords">: {{ lastWords }}</template></span
            >
          </button>
          <button
            class="act-main ml-auto min-h-14"
            type="button"
            :disabled="busy || lifted + culled === 0"
            @click="keep"
          >
            {{ busy ? say`Saving …` : say`Keep the lift` }}
          </button>
        </div>
      </div>
    </template>
  </div>
</template>
