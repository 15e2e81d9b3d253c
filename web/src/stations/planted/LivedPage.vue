<script setup lang="ts">
import {
  betaMean,
  chanceBetter,
  comparedBy,
  plantedCases,
  seedsToSow,
  sizeClassOf,
  survivalGroups,
  treesToTell,
  Unfit,
  type ComparedBy,
  type PlantedCase,
  type SurvivalGroup,
  say,
} from '@kauri/core';
import { computed, ref, watch } from 'vue';
import IdeaHelp from '../../help/IdeaHelp.vue';
import EmptyState from '../../parts/EmptyState.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import { typedNumber } from '../../parts/typed';
import { useNursery } from '../../stores/nursery';
import { usePlantings } from '../../stores/plantings';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { count, percent, several, surely } from '../../words/numbers';
import { groundWords, guardWords } from '../../words/planted';
import { formWords, sizeWords } from '../plan/orderWords';
import SizeLived from './SizeLived.vue';
import { useBackground, verdictGroups } from './useBackground';

/** What lived, compared by how trees were raised, planted and guarded: small groups do not shout. */
const plantings = usePlantings();
const nursery = useNursery();
const season = useSeason();
const { shown, unit } = usePreferences();
const background = useBackground();
const by = ref<ComparedBy>('species');
const only = ref('');
const target = ref('100');

const byWords: Record<ComparedBy, string> = {
  species: say`species`,
  raised: say`what they were raised in`,
  size: say`size when planted`,
  ground: say`ground`,
  guard: say`guard when planted`,
  planter: say`who planted them`,
  planting: say`planting`,
  lot: say`lot`,
  roots: say`verdict on their roots`,
  supplier: say`whom they came from`,
  season: say`season they were planted`,
};
const speciesName = (id: string) => nursery.lookup.species.get(id)?.common ?? say`a species taken out since`;
const groupOf: Record<ComparedBy, (one: PlantedCase) => string> = {
  species: ({ speciesId }) => speciesName(speciesId),
  raised: ({ form, raisedIn }) => `${formWords[form]}${raisedIn ? `, ${raisedIn}` : ''}`,
  size: (one) => {
    const size = sizeClassOf(one);
    return size ? sizeWords(size, (cm) => shown(cm, 'height'), unit('height')) : say`not graded`;
  },
  ground: ({ ground }) => groundWords[ground],
  guard: ({ guard }) => guardWords[guard],
  planter: ({ planter }) => planter || say`nobody named`,
  planting: ({ planting }) => planting,
  lot: ({ code }) => code,
  roots: ({ lotId }) => background.rootsOf(lotId),
  supplier: ({ lotId }) => background.supplierOf(lotId) ?? say`raised here`,
  season: background.seasonOf,
};
/** What is known of their lots is fetched when it is first asked for. */
const needsLots = computed(() => by.value === 'roots' || by.value === 'supplier');
const isBySize = computed(() => by.value === 'size');
const isHere = computed(() => !needsLots.value || background.ready.value);
watch(
  () => needsLots.value || isBySize.value,
  (needs) => needs && !background.ready.value && void background.load(),
);
const all = computed(() => plantedCases(plantings.kept, season.view));
const ofSpecies = computed(() => [
  { value: '', words: say`all species` },
  ...[...new Set(all.value.map(({ speciesId }) => speciesId))]
    .map((value) => ({ value, words: speciesName(value) }))
    .sort((a, b) => a.words.localeCompare(b.words)),
]);
const chosen = computed(() => all.value.filter(({ speciesId }) => !only.value || speciesId === only.value));
const compared = computed(() =>
  survivalGroups(
    chosen.value.map((one) => ({ group: groupOf[by.value](one), alive: one.alive, dead: one.dead })),
  ),
);
const groups = computed(() => compared.value.groups);
const sized = computed(() =>
  chosen.value.flatMap((one) => {
    const size = background.sizeOf(one);
    return size ? [{ ...size, planting: one.plantingId, alive: one.alive, dead: one.dead }] : [];
  }),
);
const walked = computed(() => chosen.value.reduce((sum, { alive, dead }) => sum + alive + dead, 0));
/** Whether the verdict on roots told who would live here: said also where it did not. */
const rootsSay = computed(() => {
  const of = (name: string) => groups.value.find(({ group }) => group === name);
  const groupNames = verdictGroups();
  const [accepted, rejected] = [of(groupNames.accept), of(groupNames.reject)];
  const culled = say`Lots whose roots were rejected are mostly not planted at all: those that were may be the better of them.`;
  if (!accepted && !rejected)
    return say`No lot whose roots were judged was planted and walked yet: whether a rejected root dies here is not known. ${culled}`;
  if (!accepted || !rejected)
    return say`Trees of lots whose roots were ${accepted ? say`rejected` : say`accepted`} were not planted and walked yet: whether a rejected root dies here is not known. ${culled}`;
  const chance = chanceBetter(accepted.share, rejected.share);
  if (chance >= SURE)
    return say`Here trees with accepted roots live more often: ${surely(chance)}. ${culled}`;
  if (chance <= 1 - SURE)
    return say`Here trees with rejected roots lived more often: ${surely(1 - chance)}. ${culled}`;
  const more = treesToTell(betaMean(accepted.share), betaMean(rejected.share));
  return say`So far the verdict on roots says little of who lives here: accepted roots are the better ones ${surely(chance)}${more ? say`; about ${several(more, 'tree')} of each would tell` : ''}. ${culled}`;
});
/** Surer than this, the better of two is called so. */
const SURE = 0.9;
function againstBest(group: SurvivalGroup): string {
  const best = groups.value[0];
  if (group === best) return groups.value.length > 1 ? say`the best, as far as is known` : '';
  const chance = chanceBetter(best.share, group.share);
  if (chance >= SURE) return say`less than ${best.group}: ${surely(chance)}`;
  const more = treesToTell(betaMean(best.share), betaMean(group.share));
  return say`perhaps less: ${surely(chance)}${more ? say`; about ${several(more, 'tree')} of each would tell` : ''}`;
}
function toPlant({ next }: SurvivalGroup): string {
  try {
    return count(seedsToSow({ target: typedNumber(target.value), probability: 0.9, stages: [next] }).value);
  } catch (error) {
    if (!(error instanceof Unfit)) throw error;
    return '–';
  }
}
const targetFault = computed(() => {
  const n = typedNumber(target.value);
  return Number.isInteger(n) && n >= 1 && n <= 1e6 ? null : say`A whole number from 1 on.`;
});
</script>

<template>
  <EmptyState v-if="!all.length" :title="say`No planting was walked yet`">
    {{
      say`Once a planting is walked, this page compares what lived: by species, by what trees were raised in, by their size, their guards and their ground.`
    }}
  </EmptyState>
  <div v-else class="max-w-5xl space-y-5 p-4 md:p-6">
    <div class="flex items-center gap-1">
      <h1 class="text-2xl">{{ say`What lived` }}</h1>
      <IdeaHelp idea="lived" />
    </div>
    <div class="grid max-w-3xl gap-3 sm:grid-cols-3">
      <SelectField
        v-model="by"
        :label="say`Compare by`"
        :options="comparedBy.map((value) => ({ value, words: byWords[value] }))"
      />
      <SelectField v-model="only" :label="say`Of`" :options="ofSpecies" />
      <FormField
        v-model="target"
        :label="say`Trees that are to live`"
        inputmode="numeric"
        :fault="targetFault"
      />
    </div>
    <p v-if="needsLots && background.fault.value" class="text-wrong font-bold" role="alert">
      {{ background.fault.value }}
    </p>
    <p v-else-if="!isHere" class="text-muted" role="status">{{ say`Looking their lots up …` }}</p>
    <div v-else class="overflow-x-auto">
      <table class="w-full" data-testid="lived">
        <thead>
          <tr class="border-rule border-b text-left">
            <th class="py-1.5 pr-3" scope="col">{{ byWords[by] }}</th>
            <th class="pr-3 text-right" scope="col">{{ say`Alive` }}</th>
            <th class="w-2/5 pr-3" scope="col">{{ say`Share that lives, nine times in ten` }}</th>
            <th class="pr-3" scope="col">{{ say`Against the best` }}</th>
            <th class="text-right" scope="col">
              {{ say`Plant for ${targetFault ? say`as many` : count(typedNumber(target))}` }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="group in groups" :key="group.group" class="border-rule border-b align-middle">
            <th class="py-2 pr-3 text-left font-bold" scope="row">
              {{ group.group }}
              <span class="text-muted block text-sm font-normal">{{
                several(group.plantings, 'part of a planting', 'parts of plantings')
              }}</span>
            </th>
            <td class="pr-3 text-right whitespace-nowrap tabular-nums">
              {{ say`${count(group.alive)} of ${count(group.alive + group.dead)}` }}
            </td>
            <td class="pr-3">
              <svg class="h-4 w-full" viewBox="0 0 100 10" preserveAspectRatio="none" aria-hidden="true">
                <rect class="fill-soil" x="0" y="4" width="100" height="2" />
                <rect
                  class="fill-leaf-mid"
                  :x="group.lower * 100"
                  y="2"
                  :width="(group.upper - group.lower) * 100"
                  height="6"
                />
                <rect class="fill-leaf" :x="group.mean * 100 - 0.4" y="0" width="0.8" height="10" />
              </svg>
              <span class="text-sm">{{ say`${percent(group.lower)} to ${percent(group.upper)}` }}</span>
            </td>
            <td class="pr-3 text-[0.95rem]">{{ againstBest(group) }}</td>
            <td class="text-right text-lg tabular-nums">{{ toPlant(group) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="by === 'roots' && isHere" class="max-w-3xl" data-testid="roots-say">
      {{ rootsSay }}
    </p>
    <template v-if="isBySize">
      <SizeLived v-if="background.ready.value" :cases="sized" :walked="walked" />
      <p v-else-if="background.fault.value" class="text-wrong font-bold" role="alert">
        {{ background.fault.value }}
      </p>
      <p v-else class="text-muted" role="status">{{ say`Looking their lots up …` }}</p>
    </template>
    <p class="text-muted max-w-3xl">
      {{
        say`Each part of a planting counts by its last walk. Trees planted together share their luck, so many trees of one planting say less than as many of several; a small group is read beside the others. Other differences between groups (who planted what, where) are not taken out: two species on two grounds compare grounds as well. To plant: as many as leave the number wanted alive nine times in ten, in the next planting of the kind.`
      }}
    </p>
  </div>
</template>
