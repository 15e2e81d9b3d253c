<script setup lang="ts">
import {
  canJudge,
  radialBalance,
  rootFigures,
  scorePlant,
  type RootFigure,
  type RootPlant,
  type RootSchool,
  say,
} from '@kauri/core';
import { Check, X } from 'lucide-vue-next';
import { computed } from 'vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import { useRoots } from '../../stores/roots';
import { percent } from '../../words/numbers';
import { boundWords, figureWords, rootSchoolWords } from '../../words/roots';

/** What a plant comes to, as it is drawn: its figures, and each school’s judgement with what fails it. */
const props = defineProps<{ plant: RootPlant }>();
const roots = useRoots();
const figures = computed(() => rootFigures(props.plant));
const rows = computed(() =>
  (Object.keys(figureWords) as RootFigure[])
    .filter((f) => figures.value[f] !== null)
    .map((f) => ({ f, words: figureWords[f].words, value: figureWords[f].show(figures.value[f]!) })),
);
const cards = computed(() => {
  const rules = roots.rules;
  if (!rules) return [];
  const judged = (Object.keys(rules.cards) as RootSchool[]).filter((s) =>
    canJudge(figures.value, rules.cards[s]),
  );
  return judged.map((school) => ({
    school,
    own: school === rules.school,
    ...scorePlant(figures.value, rules.cards[school]).value,
  }));
});
const steps = computed(() =>
  props.plant.kind === 'drawn' ? radialBalance(props.plant.laterals.map((l) => l.azimuthDeg)).working : [],
);
</script>

<template>
  <div class="space-y-3">
    <ul class="space-y-1.5" data-testid="plant-cards">
      <li
        v-for="c in cards"
        :key="c.school"
        class="border-l-4 pl-2"
        :class="c.own ? 'border-ink' : 'border-rule'"
      >
        <p class="flex items-center gap-1.5 font-bold">
          <component :is="c.passes ? Check : X" :size="18" aria-hidden="true" />
          {{ rootSchoolWords[c.school] }}: {{ c.passes ? say`passes` : say`fails` }}
          <span class="text-muted font-normal">{{ percent(c.score) }}</span>
        </p>
        <p v-if="c.missed.length" class="text-[0.93rem]">
          {{
            c.missed
              .map(
                (m) =>
                  say`${figureWords[m.figure].words} ${figureWords[m.figure].show(figures[m.figure]!)}, wants ${boundWords(m)}`,
              )
              .join('; ')
          }}
        </p>
      </li>
    </ul>
    <table class="w-full text-[0.95rem]" data-testid="plant-figures">
      <tbody>
        <tr v-for="row in rows" :key="row.f" class="border-rule border-t">
          <th class="py-0.5 text-left font-normal" scope="row">{{ row.words }}</th>
          <td class="py-0.5 text-right font-bold">{{ row.value }}</td>
        </tr>
      </tbody>
    </table>
    <ShowWorking v-if="steps.length" :steps="steps" />
  </div>
</template>
