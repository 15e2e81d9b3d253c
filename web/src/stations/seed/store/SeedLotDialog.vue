<script setup lang="ts">
import { stores, type Store, say } from '@kauri/core';
import type { SeedLot } from '@kauri/core/contract';
import { computed, watch } from 'vue';
import { useRouter } from 'vue-router';
import FormDialog from '../../../parts/FormDialog.vue';
import DateField from '../../../parts/DateField.vue';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import { keptUnlessTyped, typedAngle, typedNumber } from '../../../parts/typed';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSeason } from '../../../stores/season';
import { useSeed } from '../../../stores/seed';
import { count } from '../../../words/numbers';
import { storageWords, storeWords, storageNames } from '../../../words/seed';
import { nextCode } from '../../grow/newLot';
import { useSeedAct } from '../useSeedAct';
import { useSeedEdit } from '../useSeedEdit';
import { bagWords } from './bagWords';

/** Receives a bag of seed, or changes what is written on one. */
const props = defineProps<{ lot?: SeedLot }>();
const emit = defineEmits<{ close: [] }>();
const nursery = useNursery();
const seed = useSeed();
const season = useSeason();
const preferences = usePreferences();
const router = useRouter();

const { lot } = props;
const text = (value: number | null | undefined) =>
  value === null || value === undefined ? '' : String(value);
const inUnits = (value: number | null | undefined, of: 'temperature' | 'site') =>
  value === null || value === undefined ? '' : String(Number(preferences.shown(value, of).toFixed(1)));
const fields = {
  speciesId: lot?.speciesId ?? nursery.catalogue!.species[0].id,
  code: lot?.code ?? '',
  collectedOn: lot?.collectedOn ?? '',
  receivedOn: lot?.receivedOn ?? season.todayIso,
  grams: '',
  seeds: '',
  seedsPerKg: text(lot?.seedsPerKg),
  moisture: text(lot?.moisturePct),
  store: lot?.store ?? ('fridge' as Store),
  temp: inUnits(lot?.storeTempC, 'temperature'),
  price: text(lot?.price),
  place: lot?.provenance.place ?? '',
  latitude: text(lot?.provenance.latitudeDeg),
  longitude: text(lot?.provenance.longitudeDeg),
  altitude: inUnits(lot?.provenance.altitudeM, 'site'),
  zone: lot?.provenance.zone ?? '',
  collector: lot?.provenance.collector ?? '',
  parents: text(lot?.provenance.parents),
  note: lot?.note ?? '',
};
const changes = lot && useSeedEdit('editSeedLot', { seedLot: lot.id }, lot, fields, bagWords);
const receipt = changes ? null : useSeedAct('receiveSeed', {}, fields);
const { draft, busy, sentence, wrong } = (changes ?? receipt)!;
/** What somebody else wrote meanwhile, where it is not what is typed here. */
const theirs = computed(() => changes?.theirWords.value ?? '');

const start = computed(() => seed.startFor(draft.value.speciesId));
const perKg = computed(() =>
  draft.value.seedsPerKg.trim() === ''
    ? seed.speciesOf(draft.value.speciesId).values.seedsPerKg
    : typedNumber(draft.value.seedsPerKg),
);
const grams = computed(() => preferences.typed(typedNumber(draft.value.grams), 'seedMass'));
const code = computed(
  () =>
    draft.value.code.trim() ||
    nextCode(
      `S-${seed.speciesOf(draft.value.speciesId).code}`,
      draft.value.receivedOn,
      seed.room.lots.map((l) => l.code),
    ),
);
watch(
  () => draft.value.speciesId,
  () => (draft.value.store = start.value.storage === 'recalcitrant' ? 'cool-moist' : 'fridge'),
);
const inMetric = (words: string, was: number | null | undefined, of: 'temperature' | 'site') =>
  keptUnlessTyped(
    words,
    was,
    (value) => inUnits(value, of),
    (value) => preferences.typed(value, of),
  );
const optional = (words: string) => (words.trim() === '' ? null : typedNumber(words));

async function save() {
  const d = draft.value;
  const values = {
    code: code.value,
    speciesId: d.speciesId,
    collectedOn: d.collectedOn || null,
    receivedOn: d.receivedOn,
    seedsPerKg: perKg.value,
    moisturePct: optional(d.moisture),
    store: d.store,
    storeTempC: inMetric(d.temp, lot?.storeTempC, 'temperature'),
    price: optional(d.price),
    provenance: {
      place: d.place,
      latitudeDeg: typedAngle(d.latitude, 'latitude'),
      longitudeDeg: typedAngle(d.longitude, 'longitude'),
      altitudeM: inMetric(d.altitude, lot?.provenance.altitudeM, 'site'),
      zone: d.zone,
      collector: d.collector,
      parents: optional(d.parents),
    },
    note: d.note,
  };
  if (changes) {
    if (await changes.edit(values, say`${values.code} changed`)) emit('close');
    return;
  }
  const id = await receipt!.send(
    { ...values, grams: grams.value, seeds: optional(d.seeds) },
    say`${values.code} received.`,
  );
  if (id !== null) await router.replace({ name: 'seed', params: { seedLot: id } });
}
const speciesOptions = nursery.catalogue!.species.map((s) => ({
  value: s.id,
  words: `${s.common}, ${s.latin}`,
}));
const storeOptions = stores.map((value) => ({ value, words: storeWords[value] }));
</script>

<template>
  <FormDialog :title="lot ? say`Change ${lot.code}` : say`Receive seed`" wide @close="emit('close')">
    <form class="grid gap-x-6 gap-y-3 md:grid-cols-2" novalidate @submit.prevent="save">
      <div class="space-y-3">
        <SelectField
          v-model="draft.speciesId"
          :label="say`Species`"
          :options="speciesOptions"
          :fault="wrong('speciesId')"
        />
        <div class="grid grid-cols-2 gap-3">
          <DateField
            v-model="draft.receivedOn"
            :label="say`Received on`"
            :max="season.todayIso"
            :fault="wrong('receivedOn')"
          />
          <DateField
            v-model="draft.collectedOn"
            :label="say`Collected on`"
            :max="season.todayIso"
            :fault="wrong('collectedOn')"
          />
          <template v-if="!lot">
            <FormField
              v-model="draft.grams"
              :label="say`Mass`"
              :unit="preferences.unit('seedMass')"
              inputmode="decimal"
              :fault="wrong('grams')"
            />
            <FormField
              v-model="draft.seeds"
              :label="say`Seeds`"
              inputmode="numeric"
              :hint="
                grams > 0 && perKg > 0
                  ? say`Blank: about ${count((grams / 1000) * perKg)}`
                  : say`If they were counted`
              "
              :fault="wrong('seeds')"
            />
          </template>
          <FormField
            v-model="draft.seedsPerKg"
            :label="say`Seeds a kilogram`"
            inputmode="decimal"
            :hint="draft.seedsPerKg.trim() ? undefined : say`Blank: ${count(perKg)}, starting value`"
            :fault="wrong('seedsPerKg')"
          />
          <FormField
            v-model="draft.moisture"
            :label="say`Moisture`"
            unit="%"
            inputmode="decimal"
            :fault="wrong('moisturePct')"
          />
          <SelectField v-model="draft.store" :label="say`Store`" :options="storeOptions" />
          <FormField
            v-model="draft.temp"
            :label="say`Its temperature`"
            :unit="preferences.unit('temperature')"
            inputmode="decimal"
            :fault="wrong('storeTempC')"
          />
        </div>
        <p class="text-muted text-sm">
          {{ say`This seed is ${storageNames[start.storage]}: it ${storageWords[start.storage]}.` }}
        </p>
      </div>
      <div class="space-y-3">
        <FormField
          v-model="draft.place"
          :label="say`Where it was collected`"
          :fault="wrong('provenance.place')"
        />
        <div class="grid grid-cols-2 gap-3">
          <FormField
            v-model="draft.latitude"
            :label="say`Latitude`"
            unit="°"
            inputmode="text"
            :hint="say`52.5 or 52° 30′ N`"
            :fault="wrong('provenance.latitudeDeg')"
          />
          <FormField
            v-model="draft.longitude"
            :label="say`Longitude`"
            unit="°"
            inputmode="text"
            :hint="say`−2.4 or 2° 24′ W`"
            :fault="wrong('provenance.longitudeDeg')"
          />
          <FormField
            v-model="draft.altitude"
            :label="say`Altitude`"
            :unit="preferences.unit('site')"
            inputmode="decimal"
            :fault="wrong('provenance.altitudeM')"
          />
          <FormField v-model="draft.zone" :label="say`Seed zone`" :fault="wrong('provenance.zone')" />
          <FormField
            v-model="draft.collector"
            :label="say`Collected by`"
            :fault="wrong('provenance.collector')"
          />
          <FormField
            v-model="draft.parents"
            :label="say`Parent plants`"
            inputmode="numeric"
            :fault="wrong('provenance.parents')"
          />
          <FormField
            v-model="draft.code"
            :label="say`Code`"
            :hint="draft.code.trim() ? undefined : say`Blank: ${code}`"
            :fault="wrong('code')"
          />
          <FormField
            v-model="draft.price"
            :label="say`Price a kilogram`"
            inputmode="decimal"
            :fault="wrong('price')"
          />
        </div>
        <FormField v-model="draft.note" :label="say`Note`" :fault="wrong('note')" />
        <p class="text-muted text-sm">
          {{ say`Collect with the owner’s leave, and within local plant-health and movement rules.` }}
        </p>
        <p v-if="theirs" class="panel p-3" data-testid="theirs">
          <b>{{ say`Somebody else wrote meanwhile` }}</b>
          {{ say`${theirs}. Saving again puts yours over it.` }}
        </p>
        <SheetActs
          :act="lot ? say`Save` : say`Receive it`"
          :busy="busy"
          :sentence="sentence()"
          @save="save"
        />
      </div>
    </form>
  </FormDialog>
</template>
