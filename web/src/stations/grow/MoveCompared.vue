<script setup lang="ts">
import { say } from '@kauri/core';
import type { Band, LotForecast } from '@kauri/core';
import { computed } from 'vue';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { longDate, shortDate, yearOf } from '../../words/dates';
import { percent } from '../../words/numbers';

/** A lot as it stays and as it would be moved on a day: what the move buys, in dates and odds. */
const props = defineProps<{ stays: LotForecast; moves: LotForecast; from: number }>();
const season = useSeason();
const { show } = usePreferences();
const day = (value: number) =>
  Number.isFinite(value) ? shortDate(value, yearOf(season.today)) : say`not within three years`;
/** Before the horizon ends nobody can tell the later dates apart. */
const bought = computed(() => {
  const { stays, moves } = props;
  if (!Number.isFinite(stays.bound.p50))
    return say`It is not forecast root-bound within three years either way.`;
  if (!Number.isFinite(moves.bound.p50))
    return say`Moved, it is not forecast root-bound within three years; left, it is by ${day(stays.bound.p50)}.`;
  const days = Math.round(moves.bound.p50 - stays.bound.p50);
  return days > 0
    ? say`The move buys about ${days} days of holding.`
    : say`The move buys no holding time: the roots fill it as soon.`;
});
const rows = computed(() => {
  const pair = (pick: (f: LotForecast) => string) => [pick(props.stays), pick(props.moves)] as const;
  const date = (band: (f: LotForecast) => Band | null, q: keyof Band) =>
    pair((f) => {
      const found = band(f);
      return found ? day(found[q]) : '–';
    });
  const at = shortDate(props.stays.state.day, yearOf(season.today));
  return [
    { words: say`Plug holds, half of forecasts`, values: date((f) => f.ready, 'p50') },
    { words: say`Hold until: 1 in 10 root-bound`, values: date((f) => f.bound, 'p10') },
    { words: say`Root-bound, half of forecasts`, values: date((f) => f.bound, 'p50') },
    { words: say`To the height wanted`, values: date((f) => f.toTarget, 'p50') },
    { words: say`Leaves meet, half of forecasts`, values: date((f) => f.leavesMeet, 'p50') },
    { words: say`Root fill on ${at}`, values: pair((f) => f.state.fill.p50.toFixed(2)) },
    { words: say`Height on ${at}`, values: pair((f) => show(f.state.heightCm.p50, 'height')) },
    {
      words: say`Share to size on ${at}`,
      values: pair((f) => (f.state.shareToSize === null ? '–' : percent(f.state.shareToSize))),
    },
  ];
});
</script>

<template>
  <section aria-labelledby="what-if">
    <h3 id="what-if" class="text-lg">{{ say`What it would change` }}</h3>
    <p class="mb-2 font-bold" data-testid="bought">{{ bought }}</p>
    <table class="w-full text-[0.95rem]" data-testid="what-if">
      <thead class="text-muted">
        <tr>
          <td></td>
          <th scope="col" class="text-right font-normal">{{ say`Left` }}</th>
          <th scope="col" class="text-right font-normal">
            {{ say`Moved ${longDate(from, yearOf(season.today))}` }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.words" class="border-rule border-t">
          <th scope="row" class="py-1 text-left font-normal">{{ row.words }}</th>
          <td class="text-right">{{ row.values[0] }}</td>
          <td class="text-right font-bold">{{ row.values[1] }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
