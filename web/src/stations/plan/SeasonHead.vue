<script setup lang="ts">
import { planChange, staysPut, say } from '@kauri/core';
import type { Proposal } from '@kauri/core/contract';
import { computed, ref } from 'vue';
import { sentenceOf } from '../../api/problem';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { usePlan } from '../../stores/plan';
import { useProposals } from '../../stores/proposals';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { count, percent } from '../../words/numbers';
import { money } from '../../words/money';
import { boundWords, stateWords, useSeasonWords } from './seasonWords';

/** A proposed season in a few figures, and what may be done with it. */
const props = defineProps<{ proposal: Proposal }>();
const nursery = useNursery();
const proposals = useProposals();
const plan = usePlan();
const season = useSeason();
const session = useSession();
const messages = useMessages();
const { day } = useSeasonWords();
const currency = computed(() => nursery.catalogue!.prices.list.currency);
const fault = ref<string | null>(null);
const busy = ref(false);
/** What choosing it would change of the plan that stands; null where there is nothing to choose. */
const change = computed(() => {
  const { result, chosen, state } = props.proposal;
  if (!result || chosen || state === 'working') return null;
  const stay = plan.sowings.filter(
    (sowing) => staysPut(sowing, season.today) || result.kept.includes(sowing.id),
  );
  return planChange(plan.sowings, [...stay, ...result.sowings.map(({ sowing }) => sowing)]);
});
const changeWords = computed(() => {
  if (!change.value) return '';
  const { same, moved, added, gone } = change.value;
  if (!moved.length && !added.length && !gone.length) return say`Chosen, it changes nothing of the plan.`;
  const parts = [
    [same, say`as it is`],
    [moved.length, say`in another week, place or number`],
    [added.length, 'new'],
    [gone.length, say`taken out`],
  ] as const;
  const said = parts.flatMap(([n, words]) => (n ? [`${count(n)} ${words}`] : []));
  return say`Chosen, of the planned sowings: ${said.join(', ')}.`;
});
const may = computed(() => session.may('grower'));
/** What it was planned with. */
const terms = computed(() => {
  const { chance, hoursAWeek, hourCost, treeWorth, buyTimes, spend, seedInStore } = props.proposal.asked;
  const cash = (amount: number) => money(amount, currency.value);
  return [
    say`${percent(chance)} sure, ${hoursAWeek === null ? say`no bound to hours` : say`${hoursAWeek} hours a week`}`,
    say`${cash(hourCost)} an hour, ${cash(treeWorth)} a tree without a price`,
    ...(buyTimes === null ? [] : [say`bought trees at ${buyTimes} of what they fetch`]),
    ...(spend === null ? [] : [say`${cash(spend)} to spend`]),
    ...(seedInStore ? [say`only seed in store`] : []),
  ].join('; ');
});
const sums = computed(() => {
  const { result } = props.proposal;
  if (!result) return null;
  const trees = result.lines.reduce((sum, line) => sum + line.trees, 0);
  const short = result.lines.reduce((sum, line) => sum + line.short, 0);
  return { trees, served: trees - short, whole: result.lines.filter((line) => line.short === 0).length };
});
const bought = computed(() => props.proposal.result?.lines.reduce((sum, line) => sum + line.bought, 0) ?? 0);
const failed = computed(
  () =>
    props.proposal.result?.failed.map((id) => nursery.lots.get(id)?.code ?? say`a lot closed since`) ?? [],
);
async function act(work: () => Promise<void>) {
  busy.value = true;
  try {
    await work();
    fault.value = null;
  } catch (error) {
    fault.value = sentenceOf(error);
  } finally {
    busy.value = false;
  }
}
const choose = () =>
  act(async () => {
    const before = plan.sowings;
    await proposals.choose(props.proposal.id);
    messages.say(say`“${props.proposal.name}” is the plan now.`, () => plan.restore(before));
  });
const stop = () => act(() => proposals.stop(props.proposal.id));
const remove = () => act(() => proposals.remove(props.proposal.id));
const name = ref(props.proposal.name);
const rename = () => {
  if (name.value.trim() && name.value !== props.proposal.name)
    void act(() => proposals.rename(props.proposal.id, name.value.trim()));
  else name.value = props.proposal.name;
};
</script>

<template>
  <section class="space-y-2" :aria-label="proposal.name">
    <header class="flex flex-wrap items-baseline gap-2">
      <input
        v-if="may"
        v-model="name"
        class="font-head border-rule w-full min-w-0 border-b bg-transparent text-lg font-semibold"
        :aria-label="say`Name of ${proposal.name}`"
        maxlength="200"
        @change="rename"
      />
      <h2 v-else class="text-lg">{{ proposal.name }}</h2>
      <b v-if="proposal.chosen" class="bg-leaf-pale rounded px-1.5 text-sm">{{ say`the plan now` }}</b>
    </header>
    <p
      class="text-sm"
      :class="proposal.state === 'failed' ? 'text-wrong font-bold' : 'text-muted'"
      role="status"
    >
      {{ stateWords(proposal)
      }}<template v-if="proposal.state === 'done'">, {{ day(proposal.madeOn) }}</template>
    </p>
    <p class="text-muted text-sm">{{ terms }}</p>
    <div
      v-if="proposal.state === 'working'"
      class="bg-rule h-1.5 overflow-hidden rounded"
      role="progressbar"
      :aria-valuenow="Math.round(100 * proposal.share)"
      aria-valuemin="0"
      aria-valuemax="100"
      :aria-label="say`How far ${proposal.name} is`"
    >
      <div class="bg-leaf-mid h-full" :style="{ width: percent(proposal.share).replace(/\s/g, '') }" />
    </div>
    <dl
      v-if="sums && proposal.result"
      class="grid grid-cols-[1fr_auto] gap-x-3 text-[0.95rem]"
      data-testid="figures"
    >
      <dt class="text-muted">{{ say`Trees served` }}</dt>
      <dd class="text-right font-bold">{{ say`${count(sums.served)} of ${count(sums.trees)}` }}</dd>
      <dt class="text-muted">{{ say`Lines whole` }}</dt>
      <dd class="text-right">{{ say`${sums.whole} of ${proposal.result.lines.length}` }}</dd>
      <dt class="text-muted">{{ say`New lots` }}</dt>
      <dd class="text-right">{{ proposal.result.sowings.length }}</dd>
      <template v-if="bought">
        <dt class="text-muted">{{ say`Bought in` }}</dt>
        <dd class="text-right">{{ count(bought) }}</dd>
      </template>
      <template v-if="proposal.result.spent !== null">
        <dt class="text-muted">{{ say`Costs` }}</dt>
        <dd class="text-right">{{ money(Math.round(proposal.result.spent), currency) }}</dd>
        <dt class="text-muted">{{ say`of it paid out` }}</dt>
        <dd class="text-right">{{ money(Math.round(proposal.result.paid ?? 0), currency) }}</dd>
      </template>
      <dt class="text-muted">
        {{ proposal.result.spent === null ? say`Trees less work` : say`Trees less costs` }}
      </dt>
      <dd class="text-right">{{ money(Math.round(proposal.result.returns.p50), currency) }}</dd>
      <dd class="text-muted col-span-2 text-sm">
        {{
          say`${money(Math.round(proposal.result.returns.p10), currency)} to ${money(Math.round(proposal.result.returns.p90), currency)} in eight of ten of ${proposal.result.seasons} simulated seasons${proposal.result.spent === null ? say`; seed, medium and land are not in it` : ''}`
        }}
      </dd>
      <dd class="text-muted col-span-2 text-sm">
        {{ say`Of the routes and weeks weighed, ${boundWords(proposal)}.` }}
      </dd>
    </dl>
    <p v-if="failed.length" class="text-wrong text-sm" data-testid="failed">
      {{
        say`The forecast of ${failed.join(', ')} failed: planned as if ${failed.length > 1 ? say`they stay where they are and serve` : say`it stays where it is and serves`} nothing.`
      }}
    </p>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <div v-if="may" class="flex flex-wrap gap-2">
      <button v-if="proposal.state === 'working'" class="act" type="button" :disabled="busy" @click="stop">
        {{ say`Stop` }}
      </button>
      <template v-else>
        <button
          v-if="proposal.result && !proposal.chosen"
          class="act"
          type="button"
          :disabled="busy"
          @click="choose"
        >
          {{ say`Choose it` }}
        </button>
        <button class="quiet" type="button" :disabled="busy" @click="remove">{{ say`Throw it away` }}</button>
      </template>
    </div>
    <p v-if="may && change" class="text-muted text-sm" data-testid="change">{{ changeWords }}</p>
  </section>
</template>
