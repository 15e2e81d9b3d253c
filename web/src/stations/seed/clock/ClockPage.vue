<script setup lang="ts">
import { dayOf, say } from '@kauri/core';
import { computed } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import EmptyState from '../../../parts/EmptyState.vue';
import PickRow from '../../../parts/PickRow.vue';
import { useSeed } from '../../../stores/seed';
import { useSeason } from '../../../stores/season';
import { shortDate, yearOf } from '../../../words/dates';
import { several } from '../../../words/numbers';
import BatchPage from './BatchPage.vue';
import PlanBack from './PlanBack.vue';

const seed = useSeed();
const season = useSeason();
const route = useRoute();

const rows = computed(() =>
  seed.known.underWay
    .map((batch) => {
      const lot = seed.lotById.get(batch.seedLotId)!;
      return {
        batch,
        lot,
        species: seed.speciesOf(lot.speciesId),
        clock: seed.clocks.get(batch.id)?.value ?? null,
        act: seed.acts.find((a) => a.subjectId === batch.id) ?? null,
      };
    })
    .sort((a, b) => order(a) - order(b)),
);
function order({
  act,
  clock,
}: {
  act: { rule: string } | null;
  clock: { ready: { p50: number } } | null;
}): number {
  return (
    (act?.rule === 'radicles-out' ? -1e6 : 0) +
    (clock && Number.isFinite(clock.ready.p50) ? clock.ready.p50 : 1e6)
  );
}
const chosen = computed(
  () => rows.value.find((row) => row.batch.id === route.params.batch) ?? rows.value[0] ?? null,
);
const past = computed(() =>
  seed.known.treatments.filter((t) => !rows.value.some((row) => row.batch.id === t.id)),
);
const day = (value: number) => shortDate(value, yearOf(season.view));
/** The bag, when it went in, and when it is done. */
function courseOf({ batch, lot, clock }: (typeof rows.value)[number]): string {
  const went = say`${lot.code}, in since ${day(dayOf(batch.startedOn))}`;
  if (!clock) return went;
  const { p10, p50, p90 } = clock.ready;
  return say`${went}, done ${day(p50)}${p90 > p10 + 1 ? say` (${day(p10)} to ${day(p90)})` : ''}`;
}
const marks: Record<string, string> = {
  'radicles-out': say`sow at once`,
  'sow-batch': say`ready`,
  'check-batch': say`look`,
};
</script>

<template>
  <div class="grid min-h-full lg:grid-cols-[24rem_1fr]">
    <div class="border-rule lg:border-r" :class="route.params.batch ? 'max-lg:hidden' : ''">
      <p class="border-rule text-muted flex min-h-15 items-center border-b px-4 font-bold">
        {{
          rows.length
            ? say`${several(rows.length, 'batch', 'batches')} under treatment`
            : say`Nothing under treatment`
        }}
      </p>
      <ul class="divide-rule divide-y" data-testid="batches">
        <PickRow
          v-for="row in rows"
          :key="row.batch.id"
          :to="{ name: 'seed-clock', params: { batch: row.batch.id } }"
          :chosen="row.batch.id === chosen?.batch.id"
        >
          <span class="flex justify-between gap-2">
            <span
              ><b>{{ row.species.common }}</b> <span>{{ row.batch.name }}</span></span
            >
            <span
              v-if="row.act"
              class="rounded px-1.5 font-bold whitespace-nowrap"
              :class="row.act.when === 'now' ? 'bg-tag text-tag-ink' : 'border-ink border-b-2 rounded-none'"
              >{{ marks[row.act.rule] }}</span
            >
          </span>
          <span class="text-muted block text-[0.93rem]">
            {{ courseOf(row) }}
          </span>
        </PickRow>
      </ul>
      <PlanBack class="p-4" />
      <p v-if="past.length" class="text-muted px-4 pb-4 text-sm">
        {{ say`${several(past.length, 'batch', 'batches')} sown or ended; each stands under its seed lot.` }}
      </p>
    </div>
    <BatchPage
      v-if="chosen"
      :key="chosen.batch.id"
      :batch="chosen.batch"
      :lot="chosen.lot"
      :class="route.params.batch ? '' : 'max-lg:hidden'"
    />
    <EmptyState v-else :title="say`No seed under treatment`">
      {{
        say`Put seed through its cold, warm or soak from the Store, in one batch or in several to compare. Kauri counts the days that count, says when it is ready, and warns before radicles show.`
      }}
      <template #action
        ><RouterLink class="act-main" :to="{ name: 'seed' }">{{ say`To the store` }}</RouterLink></template
      >
    </EmptyState>
  </div>
</template>
