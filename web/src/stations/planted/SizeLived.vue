<script setup lang="ts">
import {
  SAMPLE_TELLS_DAYS,
  SIZED_TREES,
  survivalAt,
  survivalBySize,
  type SizedCase,
  type SurvivalBySize,
  say,
} from '@kauri/core';
import { computed } from 'vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import { shareAxis } from '../../parts/chart/axes';
import type { Chart } from '../../parts/chart/chart';
import DrawnChart from '../../parts/chart/DrawnChart.vue';
import { usePreferences } from '../../stores/preferences';
import { count, percent, several, surely } from '../../words/numbers';

/** What own plantings tell of collar and height: who lives by size, as far as it is known. */
const props = defineProps<{
  cases: readonly SizedCase[];
  /** Trees walked, of which these are those whose lots were measured. */
  walked: number;
}>();
const { show } = usePreferences();
const POINTS = 30;
/** Room beside the outermost rings, of the breadth. */
const RIM = 0.03;
/** Surer than this, one is said to live more often. */
const SURE = 0.9;

const told = computed(() => survivalBySize(props.cases));
const known = computed(() => ('value' in told.value ? told.value.value : null));
const why = computed(() => {
  if ('value' in told.value) return '';
  const { untold, trees } = told.value;
  const of = say`${count(trees)} of ${several(props.walked, 'walked tree')} are of lots whose heights and collars were measured within ${SAMPLE_TELLS_DAYS} days before they were planted`;
  const because: Record<typeof untold, string> = {
    few: say`from ${SIZED_TREES} on it is worked out.`,
    'one planting': say`all of one planting, whose luck cannot be told from their size.`,
    alike: say`and their collars were all alike.`,
  };
  return say`Of collar and height nothing is said yet: ${of}; ${because[untold]}`;
});
const collarSays = ({ thicker }: SurvivalBySize) =>
  thicker >= SURE
    ? say`As tall for their collar, the thicker live more often here: ${surely(thicker)}.`
    : thicker <= 1 - SURE
      ? say`As tall for their collar, the thinner live more often here: ${surely(1 - thicker)}.`
      : say`Whether thicker collars live more often here is not known yet: chance ${surely(thicker)}.`;
const heightSays = ({ stockier }: SurvivalBySize) =>
  stockier >= SURE
    ? say`Of one collar, the less tall live more often: ${surely(stockier)}.`
    : stockier <= 1 - SURE
      ? say`Of one collar, the taller live more often: ${surely(1 - stockier)}.`
      : say`Whether, of one collar, the less tall do is not known yet: chance ${surely(stockier)}.`;
const middleCollar = ({ middle }: SurvivalBySize) => Math.exp(middle.lnCollar);
const middleHeight = (one: SurvivalBySize) => one.middle.sturdiness * middleCollar(one);

const chart = computed<Chart | null>(() => {
  if (!known.value) return null;
  const { collarsMm, middle } = known.value;
  const mm = (at: number) => show(at, 'diameter');
  const points = Array.from({ length: POINTS + 1 }, (_, i) => {
    const collarMm = collarsMm.from + ((collarsMm.to - collarsMm.from) * i) / POINTS;
    const { lower, mean, upper } = survivalAt(known.value!, {
      collarMm,
      heightCm: middle.sturdiness * collarMm,
    });
    return { x: collarMm, y: mean, low: lower, high: upper };
  });
  const { from, to } = collarsMm;
  const rim = (to - from) * RIM;
  return {
    x: {
      ...{ from: from - rim, to: to + rim, name: say`Collar when planted`, tell: mm },
      ticks: [from, (from + to) / 2, to].map((at) => ({ at, words: mm(at) })),
    },
    y: shareAxis(say`Alive`, [0, 0.5, 1], percent),
    lines: [{ name: say`alive`, ink: 'leaf', band: 'leaf-pale', points }],
    marks: [
      {
        name: say`a part of a planting`,
        ink: 'ink',
        shape: 'ring',
        points: props.cases
          .filter(({ alive, dead }) => alive + dead > 0)
          .map(({ collarMm, alive, dead }) => ({ x: collarMm, y: alive / (alive + dead) })),
      },
    ],
  };
});
</script>

<template>
  <section class="max-w-3xl space-y-2" data-testid="size-lived">
    <h2 class="text-lg">{{ say`By collar and height` }}</h2>
    <p v-if="!known">{{ why }}</p>
    <template v-else>
      <p>{{ collarSays(known) }} {{ heightSays(known) }}</p>
      <DrawnChart
        :chart="chart!"
        :height="220"
        :label="say`Share that lives against the collar when planted`"
        :caption="
          say`Trees with ${show(middleHeight(known), 'height')} of height to a collar of ${show(middleCollar(known), 'diameter')}, and in that proportion, in a planting neither better nor worse than others; the band holds nine times in ten. Rings are parts of plantings as they were found, whatever their height and their ground.`
        "
      />
      <p class="text-muted">
        {{
          say`From ${several(known.trees, 'tree')} of ${several(walked, 'walked tree')}: those whose lots were measured within ${SAMPLE_TELLS_DAYS} days before they were planted. Graded trees are taken in the middle of their heights, with collars as they usually go with heights (rule of thumb). Species, ground and guard are not taken out: choose a species above to compare its own.`
        }}
      </p>
      <ShowWorking v-if="'value' in told" :steps="told.working" />
    </template>
  </section>
</template>
