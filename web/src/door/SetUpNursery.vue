<script setup lang="ts">
import { readAngle, say, speech } from '@kauri/core';
import { v7 as newId } from 'uuid';
import { computed, onMounted, reactive, ref, useTemplateRef } from 'vue';
import { call } from '../api/client';
import { fieldFault, sentenceOf } from '../api/problem';
import FormField from '../parts/FormField.vue';
import SelectField from '../parts/SelectField.vue';
import { toFault } from '../parts/toFault';
import { typedAngle, typedNumber } from '../parts/typed';
import { useWhere } from '../parts/useWhere';
import { useSession } from '../stores/session';
import DoorFrame from './DoorFrame.vue';

const session = useSession();
const ids = { nursery: newId(), person: newId() };
const form = reactive({
  name: '',
  placeName: '',
  latitude: '',
  longitude: '',
  elevation: '',
  timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  units: (navigator.language === 'en-US' ? 'us' : 'metric') as 'metric' | 'us',
  personName: '',
  email: '',
  password: '',
});
const systems = [
  { value: 'metric', words: say`Metric: cm, L, °C` },
  { value: 'us', words: say`US: in, gal, °F` },
] as const;
/** The first nursery is to come from an archive: only its owner is set up here. */
const fromArchive = ref(false);
const fault = ref<unknown>(null);
const sheet = useTemplateRef('sheet');
onMounted(() => sheet.value?.querySelector('input')?.focus());
const busy = ref(false);
/** What is wrong with degrees as they were typed; null where they can be read. */
const angles = computed(() => ({
  latitude: wrongAngle(form.latitude, 'latitude'),
  longitude: wrongAngle(form.longitude, 'longitude'),
}));
function wrongAngle(text: string, axis: 'latitude' | 'longitude'): string | null {
  if (text.trim() === '') return null;
  try {
    readAngle(text, axis);
    return null;
  } catch (error) {
    return sentenceOf(error);
  }
}

/** Ten minutes ago one was at the same nursery, ms. */
const OLDEST_MS = 600_000;
const where = useWhere((at) => {
  form.latitude = at.latitude.toFixed(3);
  form.longitude = at.longitude.toFixed(3);
  if (at.altitude !== null) form.elevation = String(Math.round(at.altitude));
}, OLDEST_MS);
const { asking: locating, trouble: unlocated } = where;

const nurseryBody = () => ({
  id: ids.nursery,
  name: form.name,
  placeName: form.placeName,
  latitudeDeg: typedAngle(form.latitude, 'latitude') ?? NaN,
  longitudeDeg: typedAngle(form.longitude, 'longitude') ?? NaN,
  elevationM: typedNumber(form.elevation),
  timeZone: form.timeZone,
  units: form.units,
  language: speech().tag,
});

async function save() {
  busy.value = true;
  fault.value = null;
  try {
    if (session.me) {
      await session.take(await call('addNursery', { body: nurseryBody() }));
      return;
    }
    const me = await call('setup', {
      body: {
        nursery: fromArchive.value ? null : nurseryBody(),
        person: { id: ids.person, name: form.personName, email: form.email, password: form.password },
      },
    });
    await session.take(me);
  } catch (error) {
    fault.value = error;
    void toFault(sheet.value);
  } finally {
    busy.value = false;
  }
}
/** Somebody with an account sends the nursery alone. */
const wrong = (path: string) => fieldFault(fault.value, session.me ? path.replace('nursery.', '') : path);
</script>

<template>
  <DoorFrame>
    <h1 class="mb-1 text-2xl">{{ say`Set up your nursery` }}</h1>
    <p v-if="fromArchive" class="text-muted mb-4">
      {{ say`First who you are: you will be the owner of the nursery you bring in.` }}
    </p>
    <p v-else class="text-muted mb-4">
      {{ say`Latitude and height tell Kauri the seasons until your own weather is in.` }}
    </p>
    <form ref="sheet" class="space-y-3" novalidate @submit.prevent="save">
      <template v-if="!fromArchive">
        <FormField v-model="form.name" :label="say`Nursery`" :fault="wrong('nursery.name')" />
        <FormField v-model="form.placeName" :label="say`Place`" :fault="wrong('nursery.placeName')" />
        <div class="grid grid-cols-3 gap-3">
          <FormField
            v-model="form.latitude"
            :label="say`Latitude °`"
            inputmode="text"
            :hint="say`52.5 or 52° 30′ N`"
            :fault="angles.latitude ?? wrong('nursery.latitudeDeg')"
          />
          <FormField
            v-model="form.longitude"
            :label="say`Longitude °`"
            inputmode="text"
            :hint="say`−2.4 or 2° 24′ W`"
            :fault="angles.longitude ?? wrong('nursery.longitudeDeg')"
          />
          <FormField
            v-model="form.elevation"
            :label="say`Height, m`"
            inputmode="decimal"
            :hint="say`above sea`"
            :fault="wrong('nursery.elevationM')"
          />
        </div>
        <p class="text-muted">
          <button v-if="where.has" class="quiet" type="button" :disabled="locating" @click="where.ask">
            {{ locating ? say`Asking the device …` : say`Where this device is` }}
          </button>
          <span v-if="unlocated" role="status">{{ unlocated }}</span>
        </p>
        <div class="grid grid-cols-2 gap-3">
          <FormField v-model="form.timeZone" :label="say`Time zone`" :fault="wrong('nursery.timeZone')" />
          <SelectField v-model="form.units" :label="say`Units`" :options="systems" />
        </div>
      </template>
      <div v-if="!session.me" class="border-rule space-y-3 border-t pt-3">
        <FormField
          v-model="form.personName"
          :label="say`Your name`"
          autocomplete="name"
          :fault="wrong('person.name')"
        />
        <FormField
          v-model="form.email"
          :label="say`E-mail`"
          type="email"
          autocomplete="username"
          :fault="wrong('person.email')"
        />
        <FormField
          v-model="form.password"
          :label="say`Password`"
          type="password"
          autocomplete="new-password"
          :hint="say`10 characters or more`"
          :fault="wrong('person.password')"
        />
      </div>
      <p v-if="fault" class="text-wrong font-bold" role="alert">{{ sentenceOf(fault) }}</p>
      <div class="flex flex-wrap gap-3">
        <button class="act-main" type="submit" :disabled="busy">
          {{ fromArchive ? say`Go on to the archive` : say`Open the yard` }}
        </button>
        <button v-if="!session.me" class="act" type="button" @click="fromArchive = !fromArchive">
          {{ fromArchive ? say`Set up a new one instead` : say`I have an archive of one` }}
        </button>
      </div>
    </form>
  </DoorFrame>
</template>
