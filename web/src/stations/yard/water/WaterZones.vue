<script setup lang="ts">
import { zonesFor, say, inSentence } from '@kauri/core';
import { v7 as newId } from 'uuid';
import { computed, ref } from 'vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { shortDate } from '../../../words/dates';
import type { WaterDesk } from './useWatering';
import { flowOf } from './wateredPlace';

const { shown, unit } = usePreferences();

/** Zones within what the tap gives, and the timer's programme for each, week by week. */
const props = defineProps<{ w: WaterDesk; may: boolean }>();
const nursery = useNursery();
const { plan, supply, good, zones, busy } = props.w;
const over = computed(() => zones.value.some((z) => z.over));

const zoneFault = ref<string | null>(null);
/** Zones anew from what each bed draws, so that none exceeds the tap. */
function makeZones() {
  zoneFault.value = null;
  try {
    const made = zonesFor(
      good.value.map((x) => ({ placeId: x.drip.placeId, flowLph: flowOf(x) })),
      supply.value!.value,
      (id) => nursery.lookup.places.get(id)?.place.name ?? id,
    );
    void props.w.keep({
      ...plan.value!,
      zones: made.map((z, i) => ({ id: newId(), name: say`Zone ${i + 1}`, placeIds: z.placeIds })),
    });
  } catch (error) {
    zoneFault.value = (error as Error).message;
  }
}
/** Weeks to show in the programme: every fourth keeps the table narrow. */
const weeks = computed(
  () => good.value[0]?.plan?.weeks.map((x) => x.monday).filter((_, i) => i % 4 === 0) ?? [],
);
</script>

<template>
  <section aria-labelledby="zones">
    <h2 id="zones" class="text-lg">{{ say`Zones and the timer’s programme` }}</h2>
    <p v-if="zoneFault" class="text-wrong font-bold" role="alert">{{ zoneFault }}</p>
    <div v-if="zones.length" class="overflow-x-auto">
      <table class="w-full text-[0.9rem]" data-testid="zones">
        <thead class="text-muted text-left">
          <tr>
            <th scope="col" class="font-normal">{{ say`Zone` }}</th>
            <th scope="col" class="font-normal">{{ say`Places` }}</th>
            <th scope="col" class="text-right font-normal">{{ unit('flow') }}</th>
            <th v-for="m in weeks" :key="m" scope="col" class="px-1 text-right font-normal whitespace-nowrap">
              {{ shortDate(m) }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="z in zones" :key="z.zone.id" class="border-rule border-t align-top">
            <th scope="row" class="py-1 pr-2 text-left whitespace-nowrap">{{ z.zone.name }}</th>
            <td class="min-w-40">{{ z.members.map((m) => m.shown.place.place.name).join(', ') }}</td>
            <td class="text-right" :class="z.over ? 'font-bold' : ''">
              {{ z.over ? '⚠ ' : '' }}{{ shown(z.flowLph, 'flow').toFixed(0) }}
            </td>
            <td v-for="(m, i) in weeks" :key="m" class="px-1 text-right whitespace-nowrap">
              <template v-if="z.byWeek[i * 4].minutes"
                >{{ z.byWeek[i * 4].minutes }}′ / {{ z.byWeek[i * 4].everyDays }} d</template
              >
              <template v-else>{{ say`rain` }}</template>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="zones.length" class="text-muted text-sm">
      {{ say`Minutes a run, and days between runs, from the week of each Monday.` }}
    </p>
    <div v-if="may" class="mt-2 flex flex-wrap gap-2">
      <button class="act" type="button" :disabled="busy || !good.length" @click="makeZones">
        {{ say`Make zones within the tap` }}
      </button>
      <button class="act-main" type="button" :disabled="busy || !zones.length || over" @click="w.send()">
        {{ say`Send this week’s programme` }}
      </button>
    </div>
    <ShowWorking
      v-if="zones.length"
      :steps="
        zones.flatMap((z) =>
          z.run.working.map((s) => ({ ...s, what: `${z.zone.name}: ${inSentence(s.what)}` })),
        )
      "
    />
  </section>
</template>
