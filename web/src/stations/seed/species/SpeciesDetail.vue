<script setup lang="ts">
import { betaMean, startOf, type Beta, type CuttingKind, type StartingSpecies, say } from '@kauri/core';
import type { Species } from '@kauri/core/contract';
import { computed, ref, watch } from 'vue';
import KeptField from '../../../parts/KeptField.vue';
import { typedNumber } from '../../../parts/typed';
import { useSession } from '../../../stores/session';
import { usePreferences } from '../../../stores/preferences';
import { percent } from '../../../words/numbers';
import { cuttingWords, phasesWords, schoolWords } from '../../../words/seed';
import ProtocolsDialog from './ProtocolsDialog.vue';
import { figureName, figureWords, rangeWords, speciesFigures, type SpeciesFigure } from './speciesFigures';
import { useSpeciesList } from './useSpeciesList';

/** A species' starting values, each with its range; those of the nursery's own list can be changed. */
const props = defineProps<{ species: Species | StartingSpecies; own: Species | null }>();
const session = useSession();
const { change, fault } = useSpeciesList();
const may = computed(() => props.own !== null && session.may('grower'));
const start = computed(() => startOf(props.species));
const v = computed(() => props.species.values);

/** Eight chances in ten of a share. */
const shareRange = (share: Beta) => {
  const mean = betaMean(share);
  const sd = Math.sqrt((mean * (1 - mean)) / (share.alpha + share.beta + 1));
  return say`${percent(Math.max(0, mean - 1.28 * sd))} to ${percent(Math.min(1, mean + 1.28 * sd))}`;
};
const shares = computed(
  () =>
    [
      ['viability', say`Alive when fresh`, v.value.viability],
      ['emergence', say`Of live seed, comes up`, v.value.emergence],
      ['establishment', say`Of those up, live on`, v.value.establishment],
      ['grade', say`Of those, make the grade`, v.value.grade],
    ] as const,
);
const habit = computed(() => {
  const roots = { tap: say`A taproot`, heart: say`A heart root`, fibrous: say`Fibrous roots` }[
    start.value.rootHabit
  ];
  const nodules = { none: say`no nodules`, frankia: say`Frankia nodules`, rhizobia: say`rhizobia nodules` }[
    start.value.nodules
  ];
  return `${roots}, ${nodules}.`;
});

/** Kinds of cutting that are known to root. */
const rootings = computed(() =>
  Object.entries(start.value.cuttings).map(([kind, rooting]) => ({
    words: cuttingWords[kind as CuttingKind],
    ...rooting,
  })),
);

const draft = ref(
  Object.fromEntries(
    shares.value.map(([key, , share]) => [key, String(Math.round(betaMean(share) * 100))]),
  ) as Record<(typeof shares.value)[number][0], string>,
);
const preferences = usePreferences();
const { show, unit } = preferences;
/** A figure of the core as a grower reads it, and what a grower types as the core counts it. */
const shownOf =
  ({ measures }: SpeciesFigure) =>
  (value: number) =>
    measures ? preferences.shown(value, measures.quantity) : value;
const typedOf =
  ({ measures }: SpeciesFigure) =>
  (value: number) =>
    measures ? preferences.typed(value, measures.quantity) : value;
const asShown = (figure: SpeciesFigure) => figureWords(shownOf(figure)(figure.value(v.value, start.value)));
const typed = ref(speciesFigures.map(asShown));
watch(
  () => preferences.units,
  () => (typed.value = speciesFigures.map(asShown)),
);
const treating = ref(false);

/** A share typed keeps the weight it had. */
function keepShare(key: 'viability' | 'emergence' | 'establishment' | 'grade') {
  const typed = typedNumber(draft.value[key]) / 100;
  const before = v.value[key];
  if (!props.own || Math.abs(typed - betaMean(before)) < 0.005) return;
  if (!(typed > 0 && typed < 1)) {
    fault.value = say`A share lies between 1 and 99 %.`;
    return;
  }
  const weight = before.alpha + before.beta;
  void change(props.own, {
    ...props.own.values,
    [key]: { alpha: typed * weight, beta: (1 - typed) * weight },
  });
}
function keepFigure(i: number) {
  const figure = speciesFigures[i];
  const to = typedOf(figure)(typedNumber(typed.value[i]));
  if (!props.own || typed.value[i] === asShown(figure)) return;
  if (!(to >= figure.least && to <= figure.most)) {
    const [least, most] = [figure.least, figure.most].map((value) => figureWords(shownOf(figure)(value)));
    fault.value = say`${figure.what}: a number from ${least} to ${most}.`;
    return;
  }
  void change(props.own, figure.set(props.own.values, start.value, to));
}
</script>

<template>
  <div class="space-y-4">
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <p v-for="caution in start.cautions" :key="caution" class="border-ink border-l-4 pl-3">{{ caution }}</p>
    <div class="grid gap-6 xl:grid-cols-2">
      <section aria-labelledby="shares">
        <h2 id="shares" class="mb-1 text-lg">{{ say`Seed` }}</h2>
        <div v-if="may" class="grid grid-cols-2 gap-3">
          <KeptField
            v-for="[key, words, share] in shares"
            :key="key"
            v-model="draft[key]"
            :label="words"
            :unit="`%, ${shareRange(share)}`"
            @keep="keepShare(key)"
          />
        </div>
        <table v-else class="w-full text-[0.95rem]">
          <tbody>
            <tr v-for="[key, words, share] in shares" :key="key" class="border-rule border-t">
              <th scope="row" class="py-1 text-left font-normal">{{ words }}</th>
              <td class="text-right font-bold">{{ percent(betaMean(share)) }}</td>
              <td class="text-muted pl-3 text-right">{{ shareRange(share) }}</td>
            </tr>
          </tbody>
        </table>
        <h3 class="mt-3 font-bold">
          {{ say`Treatments` }}
          <button v-if="may" class="quiet font-normal" type="button" @click="treating = true">
            {{ say`Change` }}
          </button>
        </h3>
        <ul>
          <li v-for="(p, i) in start.protocols" :key="i">
            {{ schoolWords[p.school] }}: {{ phasesWords(p.phases) }}
          </li>
        </ul>
        <template v-if="rootings.length || start.layer">
          <h3 class="mt-3 font-bold">{{ say`Cuttings and layers` }}</h3>
          <ul>
            <li v-for="rooting in rootings" :key="rooting.words">
              {{
                say`${rooting.words}: ${percent(betaMean(rooting.take))} strike, ${show(rooting.rootDd.median, 'warmth')}`
              }}
            </li>
            <li v-if="start.layer">
              {{
                say`air layers: ${percent(betaMean(start.layer.take))} take, ${show(start.layer.rootDd.median, 'warmth')}`
              }}
            </li>
          </ul>
        </template>
      </section>
      <section aria-labelledby="figures">
        <h2 id="figures" class="mb-1 text-lg">{{ say`Growth and habit` }}</h2>
        <table class="w-full text-[0.95rem]">
          <tbody>
            <tr v-for="(figure, i) in speciesFigures" :key="figure.what" class="border-rule border-t">
              <th scope="row" class="py-1 text-left font-normal">{{ figureName(figure, unit, show) }}</th>
              <td class="w-32 text-right font-bold">
                <input
                  v-if="may"
                  v-model="typed[i]"
                  class="field text-right"
                  inputmode="decimal"
                  :aria-label="figureName(figure, unit, show)"
                  @focusout="keepFigure(i)"
                  @keydown.enter="keepFigure(i)"
                />
                <template v-else>{{ asShown(figure) }}</template>
              </td>
              <td class="text-muted pl-3 text-right whitespace-nowrap">
                {{ figure.spread ? rangeWords(figure.spread(v, start), shownOf(figure)) : '' }}
              </td>
            </tr>
          </tbody>
        </table>
        <p class="mt-2">{{ habit }}</p>
        <p class="text-root mt-2 text-sm font-bold">
          {{
            say`Starting values within ordinary published ranges; the range holds eight of ten cases. Your lots sharpen them.`
          }}
        </p>
      </section>
    </div>
    <ProtocolsDialog v-if="treating && own" :species="own" @close="treating = false" />
  </div>
</template>
