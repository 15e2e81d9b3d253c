<script setup lang="ts">
import {
  benchLoad,
  containerAirShare,
  containerFigures,
  containerVolume,
  traysOnBench,
  type Step,
  say,
  inSentence,
} from '@kauri/core';
import { computed } from 'vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { count, percent } from '../../words/numbers';
import type { ShownPlace } from './usePlaces';

const props = defineProps<{ shown: ShownPlace }>();
const nursery = useNursery();
const { show } = usePreferences();

const bench = computed(() => props.shown.place.place.design);
/** Watered weight of what stands here against what it is rated for. */
const load = computed(() => {
  const { place } = props.shown.place;
  if (place.kind === 'bed') return null;
  const wet = nursery.lookup.media.get(place.mediumId ?? '')?.values.wetKgPerM3 ?? 620;
  const trays = props.shown.lots.flatMap(({ row }) => {
    const container = nursery.lookup.containers.get(row.stage.containerTypeId ?? '');
    return container && row.stage.trays
      ? [{ count: row.stage.trays, wetKg: containerFigures(container.values, wet).trayWetKg }]
      : [];
  });
  return { ...benchLoad(trays, place.design.ratedKg ?? null), rated: place.design.ratedKg ?? null };
});
const loadSteps = computed<Step[]>(() => load.value?.working ?? []);
const free = computed(() =>
  props.shown.occupancy.kind === 'bench' ? Math.max(0, props.shown.occupancy.layout.freeLengthMm) : 0,
);
const rows = computed(() =>
  nursery.catalogue!.containers.map(({ id, values }) => {
    const tray = { lengthMm: values.trayLengthMm, widthMm: values.trayWidthMm };
    const whole = traysOnBench(bench.value, tray);
    const more =
      free.value > 0 ? traysOnBench({ lengthMm: free.value, widthMm: bench.value.widthMm }, tray).value : 0;
    return {
      id,
      name: values.name,
      ml: show(containerVolume(values).value, 'cell'),
      depth: show(values.depthMm, 'timber'),
      air: percent(containerAirShare(values).value),
      trays: whole.value,
      more,
      cells: more * values.cellsPerTray,
      working: [...whole.working, ...containerAirShare(values).working],
    };
  }),
);
</script>

<template>
  <section aria-labelledby="what-fits">
    <p v-if="load" class="mb-2" data-testid="bench-load">
      {{ say`Watered trays weigh` }} <b>{{ show(load.value.kg, 'mass') }}</b><template
        v-if="load.rated !== null"
      >
        {{
          say` of ${show(load.rated, 'mass')} it is rated for${load.value.over ? say`: ⚠ more than that, take trays off` : ''}.`
        }}</template
      ><template v-else>{{
        say`; no rated load is recorded: stack only within a rating given by someone qualified.`
      }}</template>
    </p>
    <h2 id="what-fits" class="mb-2 text-lg">{{ say`What fits in the room left` }}</h2>
    <div class="overflow-x-auto">
      <table class="w-full min-w-[38rem] text-[0.95rem]" data-testid="bench-fits">
        <thead class="text-muted text-left">
          <tr>
            <th class="py-1 font-normal" scope="col">{{ say`Container` }}</th>
            <th class="text-right font-normal" scope="col">{{ say`Cell` }}</th>
            <th class="text-right font-normal" scope="col">{{ say`Depth` }}</th>
            <th class="text-right font-normal" scope="col">{{ say`Air share` }}</th>
            <th class="text-right font-normal" scope="col">{{ say`Trays, empty bench` }}</th>
            <th class="text-right font-normal" scope="col">{{ say`More trays now` }}</th>
            <th class="text-right font-normal" scope="col">{{ say`Cells` }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.id" class="border-rule border-t">
            <th scope="row" class="py-1.5 text-left">{{ row.name }}</th>
            <td class="text-right">{{ row.ml }}</td>
            <td class="text-right">{{ row.depth }}</td>
            <td class="text-right">{{ row.air }}</td>
            <td class="text-right">{{ count(row.trays) }}</td>
            <td class="text-right">{{ count(row.more) }}</td>
            <td class="text-right font-bold">{{ count(row.cells) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <ShowWorking
      :steps="[
        ...shown.occupancy.working,
        ...loadSteps,
        ...rows.flatMap((row) =>
          row.working.map((step) => ({ ...step, what: `${row.name}: ${inSentence(step.what)}` })),
        ),
      ]"
    />
  </section>
</template>
