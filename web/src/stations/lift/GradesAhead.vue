<script setup lang="ts">
import { say } from '@kauri/core';
import type { GradeScheme } from '@kauri/core/contract';
import type { Band } from '@kauri/core';
import { computed } from 'vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import type { ShownLot } from '../../parts/useLots';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { longDate, yearOf } from '../../words/dates';
import { collarWritten, cullWords, heightsWritten } from '../../words/grades';
import { count, several } from '../../words/numbers';
import { useGradesAhead } from './useGradesAhead';

/** What the bed would give by grade, before the first fork: middles with their bands. */
const props = defineProps<{ lot: ShownLot; scheme: GradeScheme }>();
const season = useSeason();
const { shown, unit } = usePreferences();
const { outlook, looked } = useGradesAhead(
  () => props.lot,
  () => props.scheme,
);

interface Row {
  words: string;
  /** What a grade asks beside its heights. */
  more?: string;
  band: Band;
  culled: boolean;
}
const rows = computed<Row[]>(() => {
  if (!outlook.value) return [];
  const { of, found } = outlook.value;
  const { grades, small, thin, beside, roots } = found.value;
  const sold = of.grades.map((grade, k) => {
    const heights = `${heightsWritten(grade, (cm) => shown(cm, 'height'))} ${unit('height')}`;
    const collar =
      grade.collarMm === null
        ? ''
        : say`collar ${collarWritten(shown(grade.collarMm, 'diameter'), unit('diameter'))}`;
    const more = [grade.name, collar].filter(Boolean).join(', ');
    return { words: heights, more, band: grades[k], culled: false };
  });
  const out = [
    { words: cullWords('small'), band: small },
    { words: cullWords('thin'), band: thin },
    { words: say`in no grade`, band: beside },
    ...(roots ? [{ words: say`out for their roots`, band: roots }] : []),
  ];
  return [...sold, ...out.filter(({ band }) => band.p90 > 0).map((row) => ({ ...row, culled: true }))];
});
const most = computed(() => Math.max(1, ...rows.value.map(({ band }) => band.p90)));
const at = (trees: number) => `${(100 * trees) / most.value}%`;
/** Sizes that the scheme asks for and nobody measured. */
const assumed = computed(() => {
  const isMeasured = (of: 'height' | 'diameter') => props.lot.facts.sizes.some(({ what }) => what === of);
  const asksCollar = props.scheme.grades.some(({ collarMm }) => collarMm !== null);
  return [!isMeasured('height') && 'heights', asksCollar && !isMeasured('diameter') && 'collars'].filter(
    Boolean,
  );
});
</script>

<template>
  <section aria-labelledby="grades-ahead">
    <h2 id="grades-ahead" class="text-lg">
      {{ say`What it would give on ${longDate(outlook?.on ?? season.view, yearOf(season.today))}` }}
    </h2>
    <p class="text-muted mb-2 text-[0.95rem]">
      {{ say`${scheme.name}. The bar is the middle, the line eight chances in ten.` }}
      <template v-if="assumed.length">
        {{
          say` No ${assumed.join(say` or `)} of this lot were measured: they are assumed from its kind.`
        }}</template
      >
      <template v-if="!looked.pulled">
        {{ say` No roots were looked at: none are taken off for them.` }}</template
      >
      <template v-else>
        {{ say` Roots: ${looked.failing} of ${several(looked.pulled, 'plant')} looked at fail.` }}</template
      >
    </p>
    <p v-if="!outlook" class="text-muted" role="status">{{ say`Working it out …` }}</p>
    <table v-else class="w-full" data-testid="grades-ahead">
      <thead class="sr-only">
        <tr>
          <th scope="col">{{ say`Grade` }}</th>
          <th scope="col">{{ say`Share` }}</th>
          <th scope="col">{{ say`Trees, with eight chances in ten` }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="`${row.words} ${row.more}`">
          <th class="py-1 pr-3 text-left font-normal" scope="row">
            <span class="whitespace-nowrap">{{ row.words }}</span>
            {{ ' '
            }}<span v-if="row.more" class="text-muted max-sm:block max-sm:text-sm">{{ row.more }}</span>
          </th>
          <td class="w-1/3 sm:w-2/5" aria-hidden="true">
            <div class="relative h-5">
              <div
                class="absolute inset-y-0.5 left-0 rounded-sm"
                :class="row.culled ? 'bg-leaf-pale border-leaf border' : 'bg-leaf'"
                :style="{ width: at(row.band.p50) }"
              />
              <div
                class="border-ink absolute top-1/2 border-t-2"
                :style="{ left: at(row.band.p10), width: at(row.band.p90 - row.band.p10) }"
              />
            </div>
          </td>
          <td class="pl-3 text-right whitespace-nowrap">
            <b>{{ count(Math.round(row.band.p50)) }}</b>
            <span class="text-muted ml-2 inline-block min-w-16 sm:min-w-20">
              {{ count(Math.round(row.band.p10)) }}–{{ count(Math.round(row.band.p90)) }}
            </span>
          </td>
        </tr>
      </tbody>
    </table>
    <ShowWorking v-if="outlook" class="mt-1" :steps="outlook.found.working" />
  </section>
</template>
