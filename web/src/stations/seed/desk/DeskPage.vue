<script setup lang="ts">
import { betaMean, betaProduct, sowingOutlook, say } from '@kauri/core';
import { computed } from 'vue';
import IdeaHelp from '../../../help/IdeaHelp.vue';
import FormField from '../../../parts/FormField.vue';
import PlantTag from '../../../parts/PlantTag.vue';
import SelectField from '../../../parts/SelectField.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { livedWords, useLived } from '../../../parts/useLived';
import { useMass } from '../../../parts/useMass';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSeed } from '../../../stores/seed';
import { count, percent, surely, several } from '../../../words/numbers';
import { money } from '../../../words/money';
import DeskCurve from './DeskCurve.vue';
import SowInto from './SowInto.vue';
import { useDesk } from './useDesk';

const nursery = useNursery();
const seed = useSeed();
const mass = useMass();
const desk = useDesk();
const { asked, chooseSpecies, species, lots, lot, batch, batchesOf, chain, held, plan, fault, seedsPerKg } =
  desk;
const { stages, given, target } = desk;
const preferences = usePreferences();

const speciesOptions = nursery.catalogue!.species.map((s) => ({ value: s.id, words: s.common }));
const lotOptions = computed(() => [
  { value: '', words: say`No lot in particular` },
  ...lots.value.map((l) => ({ value: l.id, words: `${l.code}, ${mass(seed.held.get(l.id)!.grams)}` })),
]);
const batchOptions = computed(() => [
  { value: '', words: say`Straight from the bag` },
  ...(lot.value ? batchesOf(lot.value.id) : []).map((b) => ({
    value: b.id,
    words: `${b.name}, ${mass(b.grams)}`,
  })),
]);
const seeds = computed(() => given.value ?? asked.value.seeds ?? plan.value?.value.seeds ?? 0);
const starts = [
  { value: 'trees', words: say`Trees wanted` },
  { value: 'seed', words: say`Seed that must go in` },
] as const;
/** All that lies in the bag or batch, as it would be typed. */
function allOfIt() {
  const grams = ((held.value ?? 0) / seedsPerKg.value) * 1000;
  asked.value.mass = String(Number(preferences.shown(grams, 'seedMass').toPrecision(6)));
}
const outlook = computed(() =>
  seeds.value > 0 && target.value >= 1 ? sowingOutlook(seeds.value, target.value, stages.value) : null,
);
const { by } = useLived();
const lived = computed(() => by(({ speciesId }) => speciesId).get(asked.value.speciesId) ?? null);
const grams = computed(() => (seeds.value / seedsPerKg.value) * 1000);
const links = computed(() => [
  { words: say`alive`, share: chain.value.viability },
  { words: say`of them come up`, share: chain.value.emergence },
  { words: say`of them live on`, share: chain.value.establishment },
  { words: say`of them make the grade`, share: chain.value.grade },
]);
/** What a share rests on. */
function restsOn({ words: what, share }: (typeof links.value)[number]): string {
  if (share.origin === 'starting') return say`starting value`;
  const own = what === 'alive' ? several(share.lots, 'test') : several(share.lots, 'lot');
  return say`${own} of yours; starting value ${percent(share.startingShare)}`;
}
const standingShare = computed(() => betaMean(betaProduct(stages.value)));
const currency = computed(() => nursery.catalogue!.prices.list.currency);
/** How far the batch is: radicles seen or likely within the week, or not ready yet; null where there is nothing to say. */
const waking = computed(() => {
  const clock = batch.value ? seed.clocks.get(batch.value.id)?.value : null;
  if (!clock) return null;
  const { readyNow, radiclesSeenOn, weeks, ready } = clock;
  const soon = weeks[0].chance;
  // With radicles out or at the door it is sown at once, ready or not.
  if (radiclesSeenOn !== null || soon > 0.5)
    return { out: true, seen: radiclesSeenOn !== null, soon, readyNow };
  return ready.p50 <= seed.asOf ? null : { out: false, seen: false, soon, readyNow };
});
const words = computed(() => {
  if (!plan.value || !outlook.value) return null;
  const short = Math.max(0, seeds.value - (held.value ?? Infinity));
  if (given.value !== null)
    return {
      headline: say`${count(seeds.value)} seeds, ${mass(grams.value)}: at least ${several(target.value, 'good tree')}`,
      detail: say`${surely(outlook.value.chance)} chance of that many; ${count(outlook.value.expectedTrees)} to expect.${
        short > 0 ? say` ${count(short)} seeds more than you hold.` : ''
      }`,
      urgent: false,
    };
  return {
    headline: say`Sow ${count(seeds.value)} seeds, ${mass(grams.value)}`,
    detail: say`${surely(outlook.value.chance)} chance of ${count(target.value)} good trees; ${count(outlook.value.expectedTrees)} to expect.${
      short > 0 ? say` ${count(short)} more than you hold.` : ''
    }`,
    urgent: false,
  };
});
</script>

<template>
  <div class="grid min-h-full lg:grid-cols-[22rem_1fr]">
    <div class="border-rule space-y-3 p-4 lg:border-r">
      <h2 class="text-lg">{{ say`What is wanted` }}</h2>
      <SelectField
        :model-value="asked.speciesId"
        :label="say`Species`"
        :options="speciesOptions"
        @update:model-value="chooseSpecies"
      />
      <SelectField v-model="asked.seedLotId" :label="say`Seed lot`" :options="lotOptions" />
      <SelectField
        v-if="lot && batchesOf(lot.id).length"
        v-model="asked.batchId"
        :label="say`Batch`"
        :options="batchOptions"
      />
      <SelectField v-model="asked.from" :label="say`Start from`" :options="starts" />
      <FormField
        v-if="asked.from !== 'seed'"
        v-model="asked.target"
        :label="say`Good trees wanted`"
        inputmode="numeric"
        :hint="lived ? say`Of yours ${livedWords(lived)}` : undefined"
      />
      <div v-else>
        <FormField
          v-model="asked.mass"
          :label="say`Seed to sow`"
          :unit="preferences.unit('seedMass')"
          inputmode="decimal"
          :hint="given ? say`About ${count(given)} seeds` : say`How many trees from it?`"
        />
        <button v-if="held" class="quiet" type="button" @click="allOfIt">
          {{ say`All of the ${batch ? say`batch` : say`bag`}` }}
        </button>
      </div>
      <div>
        <label class="mb-1 block font-bold" for="chance"
          >{{ say`Chance of having them` }}
          <span class="font-normal">{{ percent(asked.chance) }}</span></label
        >
        <input
          id="chance"
          v-model.number="asked.chance"
          class="accent-ink h-11 w-full"
          type="range"
          min="0.5"
          max="0.99"
          step="0.01"
        />
      </div>
      <p v-if="species.values.start?.cautions.length" class="border-ink text-muted border-l-4 pl-3 text-sm">
        {{ species.values.start.cautions.join(' ') }}
      </p>
    </div>
    <div class="space-y-4 p-4 md:p-5">
      <h1 class="text-2xl">{{ species.common }}</h1>
      <p v-if="fault" class="font-bold" role="status">{{ fault }}</p>
      <PlantTag v-if="words" v-bind="words" />
      <p v-if="waking?.out" class="border-ink border-l-4 pl-3" data-testid="radicles">
        <b>{{
          waking.seen
            ? say`Radicles are out: sow at once.`
            : say`Radicles are likely within the week: sow now.`
        }}</b>
        {{
          say`About ${percent(waking.readyNow)} of the living seed is likely to come up soon; what is left sleeps on.`
        }}
      </p>
      <p v-else-if="waking" class="border-ink border-l-4 pl-3" data-testid="not-ready">
        <b>{{ say`${batch!.name} is not ready:` }}</b>
        {{
          say`sown now, about ${percent(waking.readyNow)} of the living seed would come up soon; about ${percent(1 - waking.readyNow)} would lie over or not come at all.`
        }}
      </p>
      <div v-if="plan && outlook" class="grid gap-5 xl:grid-cols-2">
        <section aria-labelledby="chain">
          <div class="flex items-center gap-1">
            <h2 id="chain" class="text-lg">{{ say`From a hundred seeds to a tree` }}</h2>
            <IdeaHelp idea="share" />
          </div>
          <table class="w-full" data-testid="chain">
            <tbody>
              <tr v-for="link in links" :key="link.words" class="border-rule border-t">
                <td class="py-1 pr-3 text-right font-bold">{{ percent(betaMean(link.share.beta)) }}</td>
                <th scope="row" class="pr-3 text-left font-normal">{{ link.words }}</th>
                <td
                  class="text-sm"
                  :class="link.share.origin === 'starting' ? 'text-root font-bold' : 'text-muted'"
                >
                  {{ restsOn(link) }}
                </td>
              </tr>
              <tr class="border-ink border-t-2">
                <td class="py-1 pr-3 text-right font-bold">{{ percent(standingShare, 1) }}</td>
                <th scope="row" class="text-left" colspan="2">{{ say`of the seeds make a good tree` }}</th>
              </tr>
            </tbody>
          </table>
          <p class="mt-2" data-testid="one-more-test">
            <template v-if="plan.value.test.seeds > 0">
              {{
                say` One more germination test of 50 would save ${count(plan.value.test.seeds)} seeds on average`
              }}<template v-if="plan.value.test.cost !== null"
                >, {{ money(plan.value.test.cost, currency) }}</template
              >.
            </template>
            <template v-else>{{
              say`One more germination test of 50 would save less seed than it uses.`
            }}</template>
          </p>
          <ShowWorking :steps="plan.working" />
        </section>
        <DeskCurve
          v-if="given === null"
          :plan="plan.value"
          :target="target"
          :seeds="seeds"
          :chance="outlook.chance"
          :surplus="outlook.expectedSurplus"
          @seeds="asked.seeds = $event"
        />
      </div>
      <SowInto v-if="plan && outlook" :desk="desk" :seeds="seeds" />
    </div>
  </div>
</template>
