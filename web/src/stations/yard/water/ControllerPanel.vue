<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, reactive } from 'vue';
import { call } from '../../../api/client';
import SelectField from '../../../parts/SelectField.vue';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSession } from '../../../stores/session';
import { dateWords } from '../../../words/dates';
import { percent } from '../../../words/numbers';
import { faultWords, type WaterDesk } from './useWatering';
import type { LaidDrip } from './wateredPlace';

const { show } = usePreferences();

/** What the controller reports: litres, moisture, and which place does not respond. */
const props = defineProps<{ w: WaterDesk; chosen?: LaidDrip; may: boolean }>();
const nursery = useNursery();
const session = useSession();
const { good, watering, busy, faults } = props.w;

const readings = computed(() =>
  (watering.value?.readings ?? []).filter((r) => r.placeId === props.chosen?.drip.placeId).slice(-21),
);
const litres = computed(() => (watering.value?.readings ?? []).reduce((t, r) => t + (r.litres ?? 0), 0));
const failing = reactive({
  place: '',
  fault: 'none' as 'none' | 'stuck-closed' | 'stuck-open' | 'dead-probe' | 'no-supply',
});
const failures: { value: typeof failing.fault; words: string }[] = [
  { value: 'none', words: say`Nothing: mend it` },
  { value: 'stuck-closed', words: say`Valve stuck closed` },
  { value: 'stuck-open', words: say`Valve stuck open` },
  { value: 'dead-probe', words: say`Probe dead` },
  { value: 'no-supply', words: say`No supply` },
];
async function fail() {
  await call('failStandIn', {
    params: nursery.params,
    body: { placeId: failing.place || null, fault: failing.fault },
  });
  await props.w.read();
}
</script>

<template>
  <section aria-labelledby="controller">
    <h2 id="controller" class="text-lg">{{ say`What the controller reports` }}</h2>
    <div class="flex flex-wrap items-center gap-3">
      <button
        v-if="session.may('crew')"
        class="act"
        type="button"
        :disabled="busy || !watering?.programme"
        @click="w.read()"
      >
        {{ say`Read it now` }}
      </button>
      <span v-if="watering?.programme" class="text-muted" data-testid="controller">
        {{ say` Programme sent ${dateWords(watering.programme.from)}; ${show(litres, 'volume', 0)} since. ` }}
      </span>
      <span v-else class="text-muted">{{ say`No programme sent yet.` }}</span>
    </div>
    <ul v-if="faults.size" class="mt-1" data-testid="water-faults">
      <li v-for="[id, what] in faults" :key="id">
        <b>{{ nursery.lookup.places.get(id)?.place.name }}</b>: {{ faultWords[what].what }}.
        {{ faultWords[what].check }}.
      </li>
    </ul>
    <div v-if="readings.length" class="mt-2 overflow-x-auto">
      <table class="text-[0.9rem]" data-testid="readings">
        <caption class="text-muted text-left">
          {{
            say`${chosen?.shown.place.place.name}, last readings`
          }}
        </caption>
        <thead class="text-muted">
          <tr>
            <th scope="col" class="pr-4 text-left font-normal">{{ say`Day` }}</th>
            <th scope="col" class="pr-4 text-right font-normal">{{ say`Asked, L` }}</th>
            <th scope="col" class="pr-4 text-right font-normal">{{ say`Given, L` }}</th>
            <th scope="col" class="pr-4 text-right font-normal">{{ say`Moisture before` }}</th>
            <th scope="col" class="text-right font-normal">{{ say`after` }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in readings.slice(-8)" :key="r.day" class="border-rule border-t">
            <td class="pr-4">{{ r.day }}</td>
            <td class="pr-4 text-right">{{ r.askedLitres.toFixed(0) }}</td>
            <td class="pr-4 text-right">{{ r.litres === null ? say`no reading` : r.litres.toFixed(0) }}</td>
            <td class="pr-4 text-right">{{ r.before === null ? say`no reading` : percent(r.before) }}</td>
            <td class="text-right">{{ r.after === null ? say`no reading` : percent(r.after) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <details v-if="may && watering?.programme" class="mt-2">
      <summary class="quiet">{{ say`Try a failure` }}</summary>
      <p class="text-muted text-sm">
        {{
          say`The controller that ships with Kauri is a simulated one. Make it fail, and see whether Kauri notices.`
        }}
      </p>
      <div class="mt-1 flex flex-wrap gap-2">
        <SelectField
          v-model="failing.place"
          class="min-w-44"
          label-hidden
          :label="say`Where it fails`"
          :options="[
            { value: '', words: say`Everywhere` },
            ...good.map((x) => ({ value: x.drip.placeId, words: x.shown.place.place.name })),
          ]"
        />
        <SelectField
          v-model="failing.fault"
          class="min-w-44"
          label-hidden
          :label="say`What fails`"
          :options="failures"
        />
        <button class="act" type="button" :disabled="busy" @click="fail">{{ say`Fail and read` }}</button>
      </div>
    </details>
  </section>
</template>
