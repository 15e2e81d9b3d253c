<script setup lang="ts">
import { say } from '@kauri/core';
import IdeaHelp from '../../help/IdeaHelp.vue';
import type { Band, LotFacts, LotForecast } from '@kauri/core';
import { computed } from 'vue';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { longDate, shortDate, yearOf } from '../../words/dates';

/** Every date a lot’s forecast gives, early to late, with what each is for. */
const props = defineProps<{ facts: LotFacts; forecast: LotForecast; standing: boolean }>();
const season = useSeason();
const { show } = usePreferences();
const day = (value: number) =>
  Number.isFinite(value) ? shortDate(value, yearOf(season.today)) : say`beyond three years`;

interface Row {
  name: string;
  band?: Band;
  words?: string;
  says: string;
}
const rows = computed<Row[]>(() => {
  const { forecast: f, facts } = props;
  const inCells = facts.home.kind === 'container';
  const list: Row[] = [];
  if (f.emergence.seen === null)
    list.push({ name: say`Up`, band: f.emergence.band, says: say`half of what comes up` });
  if (!props.standing && f.emergence.seen !== null) return list;
  if (f.toTarget)
    list.push({
      name: say`To ${show(facts.targetHeightCm!, 'height')}`,
      band: f.toTarget,
      says: say`the middle of the lot`,
    });
  if (f.leavesMeet)
    list.push({
      name: inCells ? say`Leaves meet: spread by` : say`Canopy closes`,
      band: f.leavesMeet,
      says: inCells
        ? f.apart > 1
          ? say`set apart, ${f.apart} × the room`
          : say`before they go tall and thin`
        : say`weeds are shaded out, water need is full`,
    });
  if (f.lid) list.push({ name: say`Reaches the lid`, band: f.lid, says: say`the tallest tenth` });
  if (f.feedOut) list.push({ name: say`Feed runs out`, band: f.feedOut, says: say`80 % let go` });
  if (inCells) {
    list.push({ name: say`Plug ready`, band: f.ready, says: say`holds its shape when lifted` });
    list.push({
      name: say`Root-bound`,
      band: f.bound,
      says:
        f.bound.p10 > f.ready.p50
          ? say`hold until ${day(f.bound.p10)}: one in ten is bound then`
          : say`no day suits all: one in ten is bound by ${day(f.bound.p10)}, before half hold`,
    });
    if (f.shiftDue !== null)
      list.push({
        name: say`Shift due`,
        words: longDate(f.shiftDue, yearOf(season.today)),
        says: say`one season in one container`,
      });
  } else
    list.push({
      name: say`Lift`,
      words:
        !f.rests || !Number.isFinite(f.lifting.from)
          ? say`to size`
          : Number.isFinite(f.lifting.until)
            ? say`${day(f.lifting.from)} to ${day(f.lifting.until)}`
            : say`from ${day(f.lifting.from)}`,
      says: !f.rests
        ? say`no winter rest here`
        : Number.isFinite(f.lifting.bestBefore)
          ? say`best before ${day(f.lifting.bestBefore)}`
          : say`its end lies beyond the forecast`,
    });
  return list;
});
</script>

<template>
  <section v-if="rows.length" aria-labelledby="odds">
    <div class="flex items-center gap-1">
      <h2 id="odds" class="text-lg">{{ say`Dates and odds` }}</h2>
      <IdeaHelp idea="odds" />
    </div>
    <div class="overflow-x-auto">
      <table class="w-full text-[0.95rem]" data-testid="odds">
        <thead class="text-muted">
          <tr>
            <td></td>
            <th scope="col" class="text-right font-normal">{{ say`1 in 10 by` }}</th>
            <th scope="col" class="text-right font-normal">{{ say`half by` }}</th>
            <th scope="col" class="text-right font-normal">{{ say`9 in 10 by` }}</th>
            <td></td>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.name" class="border-rule border-t">
            <th scope="row" class="py-1 pr-2 text-left font-normal">{{ row.name }}</th>
            <td v-if="row.band && row.band.p90 <= season.view" class="text-right font-bold" colspan="3">
              {{ say`since about ${day(row.band.p50)}` }}
            </td>
            <template v-else-if="row.band">
              <td class="text-right whitespace-nowrap">{{ day(row.band.p10) }}</td>
              <td class="pl-2 text-right font-bold whitespace-nowrap">{{ day(row.band.p50) }}</td>
              <td class="pl-2 text-right whitespace-nowrap">{{ day(row.band.p90) }}</td>
            </template>
            <td v-else class="text-right font-bold" colspan="3">{{ row.words }}</td>
            <td class="text-muted pl-3 text-sm max-sm:hidden">{{ row.says }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>
