<script setup lang="ts">
import { deathCauses, treeStateNames, type TreeState, say } from '@kauri/core';
import type { Planting, WalkSheet } from '@kauri/core/contract';
import { Undo2 } from 'lucide-vue-next';
import { computed, ref } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import SelectField from '../../parts/SelectField.vue';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { usePlantings } from '../../stores/plantings';
import { useKeys } from '../../shell/useKeys';
import { count, several } from '../../words/numbers';
import { deathWords, treeStateWords } from '../../words/planted';
import { useWalk, type WalkTree } from './useWalk';

/** One tree after another, with one thumb: how it is found, and what it died of where that can be told. */
const props = defineProps<{ sheet: WalkSheet; planting: Planting }>();
const plantings = usePlantings();
const nursery = useNursery();
const messages = useMessages();
const router = useRouter();
const walk = useWalk(props.sheet, props.planting);
const { trees, current, at, done, asked, unsent, fault, lastMarked } = walk;
const { busy, save, sentence } = useSaving(`walk-end.${props.sheet.walk.id}`);
const ended = computed(() => props.sheet.walk.endedAt !== null);

const parts = new Map(props.planting.parts.map((part) => [part.id, part]));
const speciesOf = ({ partId }: WalkTree) => {
  const part = parts.get(partId);
  return part ? `${nursery.lookup.species.get(part.speciesId)?.common ?? ''}, ${part.code}` : '';
};
const nameOf = ({ at: place, number }: WalkTree) =>
  place ? say`Row ${count(place.row)}, tree ${count(place.at)}` : say`Tree ${count(number)}`;

/** Where one may begin or go on: the first tree of each row, or of each part. */
const starts = computed(() => {
  const seen = new Set<string>();
  return trees.flatMap((tree, index) => {
    const key = tree.at ? say`row ${tree.at.row}` : tree.partId;
    if (seen.has(key)) return [];
    seen.add(key);
    return [{ value: String(index), words: tree.at ? say`Row ${count(tree.at.row)}` : speciesOf(tree) }];
  });
});
const here = computed(() => {
  const begun = starts.value.filter(({ value }) => Number(value) <= at.value);
  return begun[begun.length - 1]?.value ?? '0';
});
const causeAsked = computed(() => {
  const tree = lastMarked.value;
  const state = tree && walk.stateOf(tree);
  return tree && (state === 'dead' || state === 'dying') ? tree : null;
});
const moreCauses = ref(false);
const shownCauses = computed(() => (moreCauses.value ? deathCauses : deathCauses.slice(0, 5)));

const keyFor: Record<TreeState, string> = {
  alive: 'a',
  'leader dead': 'l',
  dying: 'y',
  dead: 'd',
  missing: 'm',
};
useKeys({
  ...Object.fromEntries(
    treeStateNames.map((state) => [keyFor[state], () => ended.value || walk.mark(state)]),
  ),
  Backspace: () => ended.value || walk.back(),
});

async function end() {
  await walk.flush();
  if (unsent.value.length) {
    fault.value ??= say`Some marks are not sent yet: the walk is ended once the network is back.`;
    return;
  }
  const kept = await save({}, async (id) => {
    await plantings.endWalk(props.sheet.walk.id, { id, note: '' });
    return true;
  });
  if (kept === null) return;
  messages.say(say`Walk through ${props.planting.name} ended: ${several(done.value, 'tree')} looked at.`);
  await router.push({ name: 'planted', params: { planting: props.planting.id } });
}
async function giveUp() {
  try {
    await plantings.takeBackWalk(props.sheet.walk.id);
  } catch {
    // It stays under way, and the planting shows it.
  }
  await router.push({ name: 'planted', params: { planting: props.planting.id } });
}
</script>

<template>
  <div class="mx-auto flex h-full max-w-xl flex-col gap-3 p-3" data-testid="walk">
    <header class="flex items-baseline gap-3">
      <RouterLink class="quiet" :to="{ name: 'planted', params: { planting: planting.id } }">{{
        planting.name
      }}</RouterLink>
      <p class="ml-auto text-lg tabular-nums" aria-live="polite" data-testid="walked">
        <b>{{ count(done) }}</b> {{ say`of ${count(trees.length)}` }}
      </p>
    </header>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <p v-if="unsent.length" class="flex items-center gap-3" role="status" data-testid="unsent">
      {{ say`${several(unsent.length, 'mark')} kept here, not sent yet` }}
      <button class="quiet" type="button" @click="walk.flush">{{ say`Send now` }}</button>
    </p>
    <p v-if="ended">{{ say`This walk was ended.` }}</p>
    <template v-else-if="current">
      <div class="flex items-end gap-3">
        <div class="min-w-0 flex-1">
          <h1 class="text-2xl" data-testid="tree">{{ nameOf(current) }}</h1>
          <p>
            {{ speciesOf(current)
            }}<template v-if="walk.beforeOf(current)"
              >{{ say`; was` }} <b>{{ treeStateWords[walk.beforeOf(current)!] }}</b>
              {{ say`before` }}</template
            >
          </p>
        </div>
        <SelectField
          class="w-32"
          :model-value="here"
          :label="say`Go to`"
          :options="starts"
          @update:model-value="(value: string) => walk.goTo(Number(value))"
        />
      </div>
      <div
        v-if="asked"
        class="bg-tag text-tag-ink rounded-md p-3"
        role="alertdialog"
        :aria-label="say`Alive after all?`"
      >
        <p class="mb-2 font-bold">{{ say`This tree was found dead before. Is it alive after all?` }}</p>
        <span class="flex gap-3">
          <button class="act-main" type="button" @click="walk.mark(asked!, true)">{{ say`It lives` }}</button>
          <button class="act" type="button" @click="asked = null">{{ say`Look again` }}</button>
        </span>
      </div>
    </template>
    <p v-else class="text-xl">{{ say`Every tree was looked at.` }}</p>
    <div v-if="causeAsked" data-testid="cause">
      <p class="mb-1 text-[0.95rem]">
        {{
          say`${nameOf(causeAsked)} ${treeStateWords[walk.stateOf(causeAsked)!]}; of what, if you can tell?`
        }}
      </p>
      <span class="flex gap-1.5 overflow-x-auto pb-1 sm:flex-wrap">
        <button
          v-for="cause in shownCauses"
          :key="cause"
          class="act"
          type="button"
          :aria-pressed="walk.causeOf(causeAsked) === cause"
          :class="walk.causeOf(causeAsked) === cause ? '!bg-ink !text-paper' : ''"
          @click="walk.because(cause)"
        >
          {{ deathWords[cause] }}
        </button>
        <button v-if="!moreCauses" class="quiet" type="button" @click="moreCauses = true">
          {{ say`more` }}
        </button>
      </span>
    </div>
    <div class="mt-auto space-y-2 pb-1">
      <div
        v-if="!ended && current"
        class="grid grid-cols-2 gap-2"
        role="group"
        :aria-label="say`How it is found`"
      >
        <button
          v-for="state in treeStateNames"
          :key="state"
          class="justify-center text-xl"
          :class="state === 'alive' ? 'act-main col-span-2 min-h-20 md:min-h-28' : 'act min-h-14 md:min-h-20'"
          type="button"
          :aria-keyshortcuts="keyFor[state]"
          @click="walk.mark(state)"
        >
          {{ treeStateWords[state] }}
          <span class="key max-md:hidden" aria-hidden="true">{{ keyFor[state] }}</span>
        </button>
      </div>
      <p v-if="sentence()" class="text-wrong font-bold" role="alert">{{ sentence() }}</p>
      <div v-if="!ended" class="flex flex-wrap items-center gap-3">
        <button class="act" type="button" :disabled="!lastMarked" @click="walk.back">
          <Undo2 :size="20" aria-hidden="true" /> {{ say`Back one` }}
        </button>
        <button
          class="ml-auto"
          :class="current ? 'act' : 'act-main'"
          type="button"
          :disabled="busy || done === 0"
          @click="end"
        >
          {{ current ? say`End the walk here` : say`End the walk` }}
        </button>
        <button v-if="done === 0" class="quiet" type="button" @click="giveUp">
          {{ say`Do not walk it now` }}
        </button>
      </div>
    </div>
  </div>
</template>
