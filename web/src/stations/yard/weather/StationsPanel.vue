<script setup lang="ts">
import { say } from '@kauri/core';
import type { Station } from '@kauri/core/contract';
import { computed, reactive, ref } from 'vue';
import { sentenceOf } from '../../../api/problem';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import { useMessages } from '../../../stores/messages';
import { useNursery } from '../../../stores/nursery';
import { useSession } from '../../../stores/session';
import { useStations } from '../../../stores/stations';
import { dateWords } from '../../../words/dates';
import { count, several } from '../../../words/numbers';
import { flagWords } from '../../../words/weather';

/** Stations and loggers: read, added, and how they have been doing. */
const store = useStations();
const nursery = useNursery();
const session = useSession();
const messages = useMessages();
const busy = ref(false);
const fault = ref<string | null>(null);
const adding = reactive({ open: false, name: '', coverId: '' });
const failing = reactive({ station: '', fault: 'none' as Parameters<typeof store.fail>[1] });

async function doing(work: () => Promise<void>) {
  busy.value = true;
  fault.value = null;
  try {
    await work();
  } catch (error) {
    fault.value = sentenceOf(error);
  } finally {
    busy.value = false;
  }
}
const read = () =>
  doing(async () => {
    const { hours, flagged, days } = await store.read();
    messages.say(
      hours === 0
        ? say`Nothing new since last midnight.`
        : say`${count(hours)} hours read, ${several(days, 'day')} of weather kept${flagged ? say`, ${several(flagged, 'hour')} doubted` : ''}.`,
    );
  });
const add = () =>
  doing(async () => {
    await store.add(adding.name, adding.coverId || null);
    Object.assign(adding, { open: false, name: '', coverId: '' });
  });
const failures: { value: typeof failing.fault; words: string }[] = [
  { value: 'none', words: say`Not at all: mend it` },
  { value: 'gap', words: say`Leaves three days out` },
  { value: 'spike', words: say`A lone jump` },
  { value: 'drift', words: say`Drifts warm` },
  { value: 'stuck', words: say`Sticks` },
  { value: 'dead', words: say`Falls silent` },
];
const fail = () =>
  doing(async () => {
    await store.fail(failing.station || store.stations![0].id, failing.fault);
    messages.say(say`The stand-in will do so from its next reading on.`);
  });
const covers = computed(() => nursery.climate?.climate.covers ?? []);
const coverName = (id: string | null) =>
  id === null ? say`in the open` : say`under ${covers.value.find((c) => c.id === id)?.name ?? say`a cover`}`;
const places = computed(() => [
  { value: '', words: say`In the open` },
  ...covers.value.map((c) => ({ value: c.id, words: say`Under ${c.name}` })),
]);
function stateOf({ lastHour, silentDays, flagged }: Station): string {
  if (lastHour === null) return say`Not read yet.`;
  if (silentDays! > 1)
    return say`Silent for ${several(silentDays!, 'day')}, since ${dateWords(lastHour.slice(0, 10))}. Look at its power and its link; forecasts fill the gap with usual days meanwhile.`;
  const stuck = flagged.find((f) => f.flag === 'stuck' && f.last.slice(0, 10) === lastHour.slice(0, 10));
  if (stuck) return say`Its temperature does not move: the sensor has stopped. Its days are left out.`;
  return say`Read up to ${dateWords(lastHour.slice(0, 10))}.`;
}
const wrong = ({ silentDays, flagged, lastHour }: Station) =>
  (silentDays ?? 0) > 1 ||
  flagged.some((f) => f.flag === 'stuck' && f.last.slice(0, 10) === lastHour?.slice(0, 10));
</script>

<template>
  <section aria-labelledby="stations">
    <h2 id="stations" class="text-lg">{{ say`Stations and loggers` }}</h2>
    <p v-if="store.stations && !store.stations.length" class="text-muted mb-2">
      {{
        say`A station feeds hourly readings, which Kauri looks over and adds up to days. Without one, days come by table under Records. The station that ships with Kauri is a simulated one.`
      }}
    </p>
    <ul class="divide-rule mb-2 divide-y" data-testid="stations">
      <li v-for="s in store.stations ?? []" :key="s.id" class="py-2">
        <p>
          <b>{{ s.name }}</b> <span class="text-muted">{{ coverName(s.coverId) }}</span>
        </p>
        <p :class="wrong(s) ? 'text-wrong font-bold' : ''">
          <span v-if="wrong(s)" aria-hidden="true">▲ </span>{{ stateOf(s) }}
        </p>
        <p v-if="s.flagged.length" class="text-muted text-sm">
          {{
            say`Doubted, kept as they came and left out of sums: ${s.flagged.map((f) => `${several(f.hours, 'hour')} ${flagWords[f.flag]}`).join(', ')}.`
          }}
        </p>
        <p v-if="s.missing.length" class="text-muted text-sm">
          {{
            say`Days it does not fill: ${s.missing
              .map((m) => `${dateWords(m.from)}${m.days > 1 ? say` to ${dateWords(m.to)}` : ''}`)
              .join('; ')}.`
          }}
        </p>
      </li>
    </ul>
    <p v-if="fault" class="text-wrong mb-2 font-bold" role="alert">{{ fault }}</p>
    <div class="flex flex-wrap gap-2">
      <button
        v-if="session.may('crew') && store.stations?.length"
        class="act"
        type="button"
        :disabled="busy"
        @click="read"
      >
        {{ busy ? say`Reading …` : say`Read them now` }}
      </button>
      <button v-if="session.may('grower')" class="act" type="button" @click="adding.open = !adding.open">
        {{ say`Add a station` }}
      </button>
    </div>
    <form v-if="adding.open" class="panel mt-2 space-y-3 p-3" novalidate @submit.prevent="add">
      <FormField
        v-model="adding.name"
        :label="say`Its name`"
        :hint="say`On the barn, logger in the tunnel`"
      />
      <SelectField v-model="adding.coverId" :label="say`Where it hangs`" :options="places" />
      <button class="act-main" type="submit" :disabled="busy">{{ say`Add it` }}</button>
    </form>
    <details v-if="session.may('grower') && store.stations?.length" class="mt-2">
      <summary class="quiet">{{ say`Try a failure` }}</summary>
      <div class="mt-1 flex flex-wrap gap-2">
        <SelectField
          v-model="failing.station"
          class="min-w-44"
          label-hidden
          :label="say`Which station fails`"
          :options="store.stations.map((s, i) => ({ value: i ? s.id : '', words: s.name }))"
        />
        <SelectField
          v-model="failing.fault"
          class="min-w-44"
          label-hidden
          :label="say`How it fails`"
          :options="failures"
        />
        <button class="act" type="button" :disabled="busy" @click="fail">{{ say`Make it so` }}</button>
      </div>
    </details>
  </section>
</template>
