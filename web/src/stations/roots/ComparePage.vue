<script setup lang="ts">
import {
  compareRoots,
  dayOf,
  homeAt,
  homesOf,
  isoOf,
  type Outcome,
  type RootFigure,
  type RootSchool,
  say,
} from '@kauri/core';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import EmptyState from '../../parts/EmptyState.vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import { useNursery } from '../../stores/nursery';
import { useRoots } from '../../stores/roots';
import { useSeason } from '../../stores/season';
import { treatedWords } from '../../words/growing';
import { percent, several, surely } from '../../words/numbers';
import { figureWords, rootSchoolWords } from '../../words/roots';
import SeenInMoving from './SeenInMoving.vue';

/** Which containers, places or species gave which roots, in this nursery. */
const nursery = useNursery();
const roots = useRoots();
const season = useSeason();
const facts = computed(() => nursery.facts);
const by = ref<'container' | 'treatment' | 'species' | 'place'>('container');
const school = ref<RootSchool>(roots.rules!.school);

interface Group {
  lots: Map<string, Outcome>;
  missed: Map<RootFigure, number>;
}
/** What a plant was raised in, on the day it was pulled. */
function groupOf(lotId: string, day: number): string {
  const row = nursery.lots.get(lotId)!;
  if (by.value === 'species') return nursery.lookup.species.get(row.speciesId)?.common ?? '';
  const { stages, care } = nursery.evidence.get(lotId)!;
  if (by.value === 'treatment') return treatedWords(care, isoOf(day));
  const stage = stages.findLast((s) => dayOf(s.startedOn) <= day) ?? row.stage;
  if (by.value === 'place') return nursery.lookup.places.get(stage.placeId)?.place.name ?? '';
  const home = homeAt(homesOf(facts.value.get(lotId)!), day);
  return home.kind === 'container' ? home.name : say`Bed`;
}
const groups = computed(() => {
  const all = new Map<string, Group>();
  for (const lotId of nursery.lots.keys()) {
    for (const { day, score } of roots.verdictOf(lotId, school.value)?.value.plants ?? []) {
      const name = groupOf(lotId, day);
      const group = all.get(name) ?? {
        lots: new Map<string, Outcome>(),
        missed: new Map<RootFigure, number>(),
      };
      all.set(name, group);
      const lot = group.lots.get(lotId) ?? { k: 0, n: 0 };
      group.lots.set(lotId, { k: lot.k + (score.passes ? 1 : 0), n: lot.n + 1 });
      for (const { figure } of score.missed) group.missed.set(figure, (group.missed.get(figure) ?? 0) + 1);
    }
  }
  return all;
});
const compared = computed(() =>
  compareRoots([...groups.value].map(([name, { lots }]) => ({ name, lots: [...lots.values()] }))),
);
const rows = computed(() =>
  compared.value.value.map((g) => ({
    ...g,
    missed: [...groups.value.get(g.name)!.missed]
      .sort((a, b) => b[1] - a[1])
      .slice(0, 3)
      .map(([figure, n]) => `${figureWords[figure].words} (${n})`)
      .join(', '),
  })),
);
const headline = computed(() => {
  const [best, next] = rows.value;
  if (!best) return null;
  if (!next) return say`Only “${best.name}” has been pulled: nothing to compare it with yet.`;
  const chance = best.chanceBest!;
  const worst = rows.value[rows.value.length - 1];
  return chance >= 0.8
    ? say`“${best.name}” gives the best roots: ${surely(chance)} chance against “${next.name}”`
    : say`No telling yet which gives the best roots; “${worst.name}” stands last`;
});
const bys = [
  { value: 'container', words: say`Container` },
  { value: 'treatment', words: say`Treatment` },
  { value: 'species', words: say`Species` },
  { value: 'place', words: say`Place` },
] as const;
const schools = (Object.keys(rootSchoolWords) as RootSchool[]).map((value) => ({
  value,
  words: rootSchoolWords[value],
}));
</script>

<template>
  <article class="space-y-4 p-4 md:p-5">
    <RouterLink class="quiet md:hidden" :to="{ name: 'roots' }">{{ say`All lots` }}</RouterLink>
    <h1 class="text-2xl">{{ say`Which gave which roots?` }}</h1>
    <div class="flex flex-wrap gap-x-6 gap-y-3">
      <ChoiceRow v-model="by" :label="say`Compared by`" :options="bys" />
      <ChoiceRow v-model="school" :label="say`Judged by`" :options="schools" />
    </div>
    <EmptyState v-if="!rows.length" :title="say`No plant has been pulled by this date`">
      {{ say`Once plants of several containers have been laid on the rosette, they are compared here.` }}
    </EmptyState>
    <template v-else>
      <p class="text-lg font-bold" data-testid="roots-best">{{ headline }}</p>
      <div class="overflow-x-auto">
        <table class="w-full text-[0.95rem]" data-testid="roots-compared">
          <thead class="text-muted">
            <tr>
              <th scope="col" class="text-left font-normal">{{ bys.find((b) => b.value === by)!.words }}</th>
              <th scope="col" class="pl-4 text-right font-normal whitespace-nowrap">{{ say`Plants` }}</th>
              <th scope="col" class="pl-4 text-right font-normal whitespace-nowrap">{{ say`Pass` }}</th>
              <th scope="col" class="pl-4 text-right font-normal whitespace-nowrap">
                {{ say`In truth, 8 in 10` }}
              </th>
              <th scope="col" class="pl-4 text-left font-normal">{{ say`What they miss most` }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row.name" class="border-rule border-t">
              <th scope="row" class="py-1.5 text-left">{{ row.name }}</th>
              <td class="pl-4 text-right whitespace-nowrap">
                {{ row.plants }}, {{ several(row.lots, 'lot') }}
              </td>
              <td class="pl-4 text-right font-bold">{{ percent(row.passing / row.plants) }}</td>
              <td class="pl-4 text-right whitespace-nowrap">
                {{ say`${Math.round(row.share.p10 * 100)} to ${Math.round(row.share.p90 * 100)} %` }}
              </td>
              <td class="pl-4">{{ row.missed || say`nothing` }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="text-muted text-sm">
        {{
          say`Plants of one lot share its luck, so a big lot counts for less than its plants. Species and season differ between containers: compare like with like before you change what you buy.`
        }}
      </p>
      <ShowWorking :steps="compared.working" />
    </template>
    <SeenInMoving :words="bys.find((b) => b.value === by)!.words" :group-of="groupOf" :until="season.view" />
  </article>
</template>
