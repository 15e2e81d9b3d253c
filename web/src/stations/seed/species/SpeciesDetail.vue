<script setup lang="ts">
import {
  betaMean,
  startOf,
  type Beta,
  type CuttingKind,
  type Spread,
  type StartingSpecies,
} from '@kauri/core';
import type { Species } from '@kauri/core/contract';
import { computed, ref } from 'vue';
import KeptField from '../../../parts/KeptField.vue';
import { typedNumber } from '../../../parts/typed';
import { useSession } from '../../../stores/session';
import { count, percent } from '../../../words/numbers';
import { cuttingWords, phasesWords, schoolWords } from '../../../words/seed';
import { useSpeciesList } from './useSpeciesList';

/** A species' starting values, each with its range; those of the nursery's own list can be changed. */
const props = defineProps<{ species: Species | StartingSpecies; own: Species | null }>();
const session = useSession();
const { change, fault } = useSpeciesList();
const may = computed(() => props.own !== null && session.may('grower'));
const start = computed(() => startOf(props.species));
const v = computed(() => props.species.values);

/** Eight chances in ten of a log-normal spread. */
const range = ({ median, sdLog }: Spread, digits = 0) => {
  const low = median * Math.exp(-1.2816 * sdLog);
  const high = median * Math.exp(1.2816 * sdLog);
  const show = (x: number) => (digits ? x.toFixed(digits) : count(x));
  return `${show(low)} to ${show(high)}`;
};
/** One standard deviation either way of a share. */
const shareRange = (share: Beta) => {
  const mean = betaMean(share);
  const sd = Math.sqrt((mean * (1 - mean)) / (share.alpha + share.beta + 1));
  return `${percent(Math.max(0, mean - 1.28 * sd))} to ${percent(Math.min(1, mean + 1.28 * sd))}`;
};
const shares = computed(
  () =>
    [
      ['viability', 'Alive when fresh', v.value.viability],
      ['emergence', 'Of live seed, comes up', v.value.emergence],
      ['establishment', 'Of those up, live on', v.value.establishment],
      ['grade', 'Of those, make the grade', v.value.grade],
    ] as const,
);
const figures = computed(() => [
  ['Days to lose one probit in store', count(start.value.sigmaDays.median), range(start.value.sigmaDays)],
  ['Warmth to half up, °C·d above 5', count(v.value.emergenceDd.median), range(v.value.emergenceDd)],
  [
    'Warmth to half the radicles, °C·d above 1',
    count(start.value.radicleDd.median),
    range(start.value.radicleDd),
  ],
  ['Height a season tends to, cm', count(v.value.heightCm.median), range(v.value.heightCm)],
  ['Collar a season tends to, mm', v.value.diameterMm.median.toFixed(1), range(v.value.diameterMm, 1)],
  ['Growth rate, per °C·d', String(v.value.growthPerDd.median), range(v.value.growthPerDd, 4)],
  ['Root rate, per °C·d', String(v.value.rootRatePerDd), ''],
  ['Chilling to lift, h at 0 to 7.2 °C', count(v.value.liftChillHours), ''],
  ['Budburst a, b, k', `${v.value.budburst.a}, ${v.value.budburst.b}, ${v.value.budburst.k}`, ''],
  ['Seed thickness, mm', String(start.value.thicknessMm), ''],
  ['Root habit', { tap: 'taproot', heart: 'heart root', fibrous: 'fibrous' }[start.value.rootHabit], ''],
  ['Sturdy up to, height cm ÷ collar mm', String(start.value.sturdinessMost), ''],
  ['Nodules', start.value.nodules === 'none' ? 'none' : start.value.nodules, ''],
]);

/** Kinds of cutting that are known to root. */
const rootings = computed(() =>
  Object.entries(start.value.cuttings).map(([kind, rooting]) => ({
    words: cuttingWords[kind as CuttingKind],
    ...rooting,
  })),
);

const draft = ref({
  seedsPerKg: String(v.value.seedsPerKg),
  ...Object.fromEntries(
    shares.value.map(([key, , share]) => [key, String(Math.round(betaMean(share) * 100))]),
  ),
} as Record<'seedsPerKg' | 'viability' | 'emergence' | 'establishment' | 'grade', string>);

/** A share typed keeps the weight it had. */
function keepShare(key: 'viability' | 'emergence' | 'establishment' | 'grade') {
  const typed = typedNumber(draft.value[key]) / 100;
  const before = v.value[key];
  if (!props.own || Math.abs(typed - betaMean(before)) < 0.005) return;
  if (!(typed > 0 && typed < 1)) {
    fault.value = 'A share lies between 1 and 99 %.';
    return;
  }
  const weight = before.alpha + before.beta;
  void change(props.own, {
    ...props.own.values,
    [key]: { alpha: typed * weight, beta: (1 - typed) * weight },
  });
}
function keepSeeds() {
  const typed = typedNumber(draft.value.seedsPerKg);
  if (!props.own || typed === v.value.seedsPerKg) return;
  if (!(typed >= 5 && typed <= 5e7)) {
    fault.value = 'Seeds a kilogram: from 5 to 50 000 000.';
    return;
  }
  void change(props.own, { ...props.own.values, seedsPerKg: typed });
}
</script>

<template>
  <div class="space-y-4">
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <p v-for="caution in start.cautions" :key="caution" class="border-ink border-l-4 pl-3">{{ caution }}</p>
    <div class="grid gap-6 xl:grid-cols-2">
      <section aria-labelledby="shares">
        <h2 id="shares" class="mb-1 text-lg">Seed</h2>
        <div v-if="may" class="grid grid-cols-2 gap-3">
          <KeptField v-model="draft.seedsPerKg" label="Seeds a kilogram" @keep="keepSeeds" />
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
            <tr class="border-rule border-t">
              <th scope="row" class="py-1 text-left font-normal">Seeds a kilogram</th>
              <td class="text-right font-bold">{{ count(v.seedsPerKg) }}</td>
              <td />
            </tr>
            <tr v-for="[key, words, share] in shares" :key="key" class="border-rule border-t">
              <th scope="row" class="py-1 text-left font-normal">{{ words }}</th>
              <td class="text-right font-bold">{{ percent(betaMean(share)) }}</td>
              <td class="text-muted pl-3 text-right">{{ shareRange(share) }}</td>
            </tr>
          </tbody>
        </table>
        <h3 class="mt-3 font-bold">Treatments</h3>
        <ul>
          <li v-for="(p, i) in start.protocols" :key="i">
            {{ schoolWords[p.school] }}: {{ phasesWords(p.phases) }}
          </li>
        </ul>
        <template v-if="rootings.length || start.layer">
          <h3 class="mt-3 font-bold">Cuttings and layers</h3>
          <ul>
            <li v-for="rooting in rootings" :key="rooting.words">
              {{ rooting.words }}: {{ percent(betaMean(rooting.take)) }} strike,
              {{ count(rooting.rootDd.median) }} °C·d
            </li>
            <li v-if="start.layer">
              air layers: {{ percent(betaMean(start.layer.take)) }} take,
              {{ count(start.layer.rootDd.median) }} °C·d
            </li>
          </ul>
        </template>
      </section>
      <section aria-labelledby="figures">
        <h2 id="figures" class="mb-1 text-lg">Growth and habit</h2>
        <table class="w-full text-[0.95rem]">
          <tbody>
            <tr v-for="[what, value, spread] in figures" :key="what" class="border-rule border-t">
              <th scope="row" class="py-1 text-left font-normal">{{ what }}</th>
              <td class="text-right font-bold">{{ value }}</td>
              <td class="text-muted pl-3 text-right whitespace-nowrap">{{ spread }}</td>
            </tr>
          </tbody>
        </table>
        <p class="text-root mt-2 text-sm font-bold">
          Starting values within ordinary published ranges; the range holds eight of ten cases. Your lots
          sharpen them.
        </p>
      </section>
    </div>
  </div>
</template>
