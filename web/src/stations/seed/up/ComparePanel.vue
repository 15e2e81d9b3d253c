<script setup lang="ts">
import {
  chanceMeanHigher,
  chancesBest,
  compareShares,
  warmthToShare,
  type Arm,
  type MeanOf,
  say,
} from '@kauri/core';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSeed } from '../../../stores/seed';
import { count, percent, surely } from '../../../words/numbers';
import { armVerdict } from './verdict';
import type { RisingLot } from './useComingUp';

/** Treatments of one seed lot side by side: how many, how soon, how evenly, how many-stemmed, how tall; and the verdict. */
const props = defineProps<{ arms: readonly RisingLot[] }>();
const nursery = useNursery();
const seed = useSeed();
const { show } = usePreferences();

interface ArmRow extends Arm {
  id: string;
  code: string;
  half: number | null;
  spread: number | null;
  multi: { n: number; k: number } | null;
  height: MeanOf | null;
  /** More of it is to come up yet. */
  coming: boolean;
}
const rows = computed<ArmRow[]>(() =>
  props.arms
    .map(({ lot, sown, outlook }) => {
      const evidence = nursery.evidence.get(lot.row.id)!;
      const counted = evidence.counts.filter((c) => c.multi !== null && c.count > 0).at(-1);
      const height = evidence.sizes.filter((s) => s.what === 'height').at(-1) ?? null;
      const up = outlook?.value.upNow ?? 0;
      const trays = lot.row.stage.trays ?? 1;
      const curve = outlook?.value.fit.middle;
      return {
        id: lot.row.id,
        code: lot.row.code,
        name:
          (lot.row.treatmentId && seed.treatmentById.get(lot.row.treatmentId)?.name) ||
          say`Straight from the bag`,
        n: sown,
        k: up,
        trays,
        half: up && curve ? curve.half : null,
        spread: up && curve ? warmthToShare(curve, 0.9) - warmthToShare(curve, 0.1) : null,
        multi: counted ? { n: counted.count, k: counted.multi! } : null,
        height: height ? { n: height.n, mean: height.mean, sd: height.sd, trays } : null,
        coming:
          lot.view.standing.tally.sown > 0 && outlook !== null && outlook.value.final.p50 > up * 1.05 + 1,
      };
    })
    .sort((a, b) => b.k / b.n - a.k / a.n),
);
const coming = computed(() => rows.value.filter((row) => row.coming));
/** Which is the taller, if it can be told. */
function tallerWords(a: ArmRow, b: ArmRow): string | null {
  const answer = chanceMeanHigher(a.height, b.height);
  if (!answer) return null;
  const sure = Math.max(answer.chance, 1 - answer.chance);
  if (sure < 0.8) return say`Heights: no telling which is the taller.`;
  const taller = answer.chance > 0.5 ? a.name : b.name;
  return say`“${taller}” is the taller by ${show(Math.abs(answer.difference), 'height', 1)}: ${surely(sure)} chance.`;
}
/** Of three arms or more, how likely the first is to be the best of all at once. */
const bestOfAll = computed(() => (rows.value.length > 2 ? chancesBest(rows.value)[0] : null));
/** The best arm against each of the others. */
const pairs = computed(() => {
  const [best, ...others] = rows.value;
  return others.map((other) => {
    const { value, working } = compareShares(best, other);
    return {
      best,
      other,
      value,
      working,
      height: tallerWords(best, other),
      words: armVerdict(best.name, other.name, value, Math.min(best.trays ?? 1, other.trays ?? 1)),
    };
  });
});
</script>

<template>
  <section class="border-rule border-t pt-3" aria-labelledby="compare">
    <h2 id="compare" class="text-lg">{{ say`Which treatment worked?` }}</h2>
    <div class="overflow-x-auto">
      <table class="w-full text-[0.95rem]" data-testid="arms">
        <thead class="text-muted">
          <tr>
            <th scope="col" class="text-left font-normal">{{ say`Treatment` }}</th>
            <th scope="col" class="text-right font-normal">{{ say`Sown` }}</th>
            <th scope="col" class="text-right font-normal">{{ say`Up` }}</th>
            <th scope="col" class="text-right font-normal">{{ say`Half by` }}</th>
            <th scope="col" class="text-right font-normal">{{ say`Evenness` }}</th>
            <th scope="col" class="text-right font-normal">{{ say`Several stems` }}</th>
            <th scope="col" class="text-right font-normal">{{ say`Height` }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.id" class="border-rule border-t">
            <th scope="row" class="py-1 text-left">
              {{ row.name }}
              <RouterLink class="quiet font-normal" :to="{ name: 'seed-up', params: { lot: row.id } }">{{
                row.code
              }}</RouterLink>
            </th>
            <td class="text-right">{{ count(row.n) }}</td>
            <td class="text-right font-bold">{{ percent(row.k / row.n) }}</td>
            <td class="text-right">{{ row.half === null ? '–' : show(row.half, 'warmth') }}</td>
            <td class="text-right">
              {{ row.spread === null ? '–' : say`within ${show(row.spread, 'warmth')}` }}
            </td>
            <td class="text-right">{{ row.multi ? percent(row.multi.k / row.multi.n) : '–' }}</td>
            <td class="text-right">{{ row.height ? show(row.height.mean, 'height') : '–' }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="coming.length" class="mt-2" role="status" data-testid="still-coming">
      {{
        say`Still coming up: ${coming.map((row) => `“${row.name}”`).join(', ')}. This is how they stand at the date looked at, not yet how they end.`
      }}
    </p>
    <p v-if="bestOfAll !== null" class="mt-2">
      {{ say`The chance that “${rows[0].name}” is the best of all ${rows.length}:` }}
      <b>{{ surely(bestOfAll) }}</b>.
    </p>
    <ul class="mt-2 space-y-2">
      <li v-for="pair in pairs" :key="pair.other.id" class="border-ink border-l-4 pl-3" data-testid="verdict">
        <p class="text-lg font-bold">{{ pair.words.headline }}</p>
        <p>{{ pair.words.detail }}</p>
        <p v-if="pair.height">{{ pair.height }}</p>
        <ShowWorking :steps="pair.working" />
      </li>
    </ul>
    <p class="text-muted mt-2 text-sm">
      {{
        say`Finished lots count in the nursery’s own shares at the sowing desk, each treatment by its kind.`
      }}
    </p>
  </section>
</template>
