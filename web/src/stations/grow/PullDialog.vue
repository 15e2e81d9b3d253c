<script setup lang="ts">
import { plugScoreWords } from '../../words/roots';
import { SCORE_FILL, say } from '@kauri/core';
import { useEventListener } from '@vueuse/core';
import { computed } from 'vue';
import EntryFields from '../../parts/EntryFields.vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import type { ShownLot } from '../../parts/useLots';
import { useRecording } from '../../parts/useRecording';
import { several } from '../../words/numbers';

const props = defineProps<{ lot: ShownLot }>();
const emit = defineEmits<{ close: [] }>();
const { draft, on, record, busy, sentence, wrong } = useRecording('pullRoots', () => props.lot, {
  scores: [] as number[],
  spoiled: '0',
});

const signs = [
  say`falls apart in the hand`,
  say`comes out whole, then drops medium`,
  say`keeps its shape when lifted by the stem`,
  say`firm all through, few gaps left`,
  say`hard; long roots lie matted outside`,
];
const mean = computed(
  () => draft.value.scores.reduce((sum, s) => sum + SCORE_FILL[s], 0) / draft.value.scores.length,
);
const add = (score: number) => draft.value.scores.push(score);

/** Where the last plug was scored by its key, Enter keeps them all; what was reached by Tab is pressed as ever. */
let byKey = false;
useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  if ((event.target as HTMLElement).closest('input, textarea, [role="listbox"]')) return;
  if (/^[0-4]$/.test(event.key)) add(Number(event.key));
  else if (event.key === 'Backspace') draft.value.scores.pop();
  else if (event.key === 'Enter' && byKey) {
    event.preventDefault();
    void save();
  }
  byKey = /^[0-4]$/.test(event.key);
});

async function save() {
  const { scores } = draft.value;
  const said = say`${several(scores.length, 'plug')} of ${props.lot.row.code} scored.`;
  if (await record({ scores, spoiled: typedNumber(draft.value.spoiled) }, said)) emit('close');
}
</script>

<template>
  <FormDialog
    :title="say`Pull and score plugs`"
    :subtitle="`${lot.row.code} · ${lot.species} · ${lot.where}`"
    @close="emit('close')"
  >
    <p class="text-muted mb-3">
      {{
        say`Pull three from different trays, lift each by the stem, and say how the plug holds. Keys 0 to 4 score, Enter keeps.`
      }}
    </p>
    <div class="grid gap-1.5" role="group" :aria-label="say`Score of this plug`">
      <button
        v-for="(word, score) in plugScoreWords"
        :key="word"
        class="act w-full text-left whitespace-normal"
        type="button"
        @click="add(score)"
      >
        <span class="key">{{ score }}</span>
        <span class="w-20 shrink-0">{{ word }}</span>
        <span class="text-muted text-[0.93rem] font-normal">{{ signs[score] }}</span>
      </button>
    </div>
    <p
      class="panel my-3 flex min-h-12 flex-wrap items-center gap-2 p-2"
      aria-live="polite"
      data-testid="scores"
    >
      <span v-if="!draft.scores.length" class="text-muted">{{ say`No plug scored yet.` }}</span>
      <template v-else>
        <span v-for="(score, i) in draft.scores" :key="i" class="border-rule rounded border px-2"
          >{{ score }} {{ plugScoreWords[score] }}</span
        >
        <span class="text-muted ml-auto">{{ say`read as fill ${mean.toFixed(2)}` }}</span>
        <button class="quiet" type="button" @click="draft.scores.pop()">{{ say`Take the last off` }}</button>
      </template>
    </p>
    <div class="space-y-3">
      <FormField
        v-model="draft.spoiled"
        :label="say`Plants spoiled by pulling`"
        inputmode="numeric"
        :hint="say`They leave the lot’s count; the others go back in.`"
        :fault="wrong('spoiled')"
      />
      <EntryFields
        v-model:on="on"
        v-model:note="draft.note"
        :hint="say`White tips, circling, smell, nodules`"
        :wrong="wrong"
      />
    </div>
    <SheetActs
      :act="say`Keep the scores`"
      :busy="busy"
      :off="!draft.scores.length"
      :sentence="sentence()"
      @save="save"
    />
  </FormDialog>
</template>
