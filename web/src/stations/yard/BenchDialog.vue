<script setup lang="ts">
import { cornersOf, freeSpot, nextSpot, traysOnBench, say } from '@kauri/core';
import type { Place, PlaceBody } from '@kauri/core/contract';
import { computed } from 'vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import { typedNumber } from '../../parts/typed';
import { useDraft } from '../../parts/useDraft';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useYard } from '../../stores/yard';
import { count, several } from '../../words/numbers';
import KeepActs from './KeepActs.vue';
import SpotFields from './SpotFields.vue';
import { spotWarning } from './spotWarning';
import { useKeepPlace } from './useKeepPlace';
import type { ShownPlace } from './usePlaces';

const props = defineProps<{ places: readonly ShownPlace[]; place?: Place }>();
const emit = defineEmits<{ close: []; kept: [id: string] }>();
const nursery = useNursery();
const yard = useYard();
const preferences = usePreferences();
const metres = (value: number) => String(Number(preferences.shown(value, 'site').toFixed(2)));
const media = nursery.catalogue!.media;
const soilless = media.find((m) => m.values.note.includes('container')) ?? media[media.length - 1];

function initial() {
  const grounds = props.places.map((p) => ({
    id: p.place.id,
    name: p.place.place.name,
    corners: cornersOf(p.place.place),
  }));
  const spot =
    freeSpot(3, 1.5, grounds, yard.elements) ??
    nextSpot(
      props.places.map((p) => p.footprint),
      1.5,
    );
  const now = props.place?.place;
  const rated = now && now.kind !== 'bed' ? (now.design.ratedKg ?? null) : null;
  return {
    name: now?.name ?? '',
    length: metres(now ? now.design.lengthMm / 1000 : 3),
    width: metres(now ? now.design.widthMm / 1000 : 1.5),
    mediumId: now?.mediumId ?? soilless.id,
    containerId: nursery.catalogue!.containers[0].id,
    east: metres(now?.eastM ?? spot.eastM),
    north: metres(now?.northM ?? spot.northM),
    angle: String(now?.angleDeg ?? 0),
    rated: rated === null ? '' : String(Number(preferences.shown(rated, 'mass').toFixed(1))),
  };
}
const key = props.place
  ? `bench.${props.place.id}.${props.place.version}.${preferences.units}`
  : `bench.new.${preferences.units}`;
const { draft, clear } = useDraft(key, initial());
const { keep, busy, theirs, sentence, wrong } = useKeepPlace(
  props.place,
  props.place ? `bench.${props.place.id}` : 'bench.new',
);

const mm = (text: string) => Math.round(preferences.typed(typedNumber(text), 'site') * 1000);
const body = computed<PlaceBody>(() => ({
  kind: (props.place?.place.kind ?? 'bench') as 'bench',
  name: draft.value.name,
  eastM: preferences.typed(typedNumber(draft.value.east), 'site'),
  northM: preferences.typed(typedNumber(draft.value.north), 'site'),
  angleDeg: ((typedNumber(draft.value.angle) % 360) + 360) % 360,
  mediumId: draft.value.mediumId,
  design: {
    schema: 1,
    lengthMm: mm(draft.value.length),
    widthMm: mm(draft.value.width),
    ratedKg: draft.value.rated.trim() ? preferences.typed(typedNumber(draft.value.rated), 'mass') : null,
  },
}));
const fits = computed(() => {
  const container = nursery.lookup.containers.get(draft.value.containerId);
  if (!container) return null;
  const { trayLengthMm, trayWidthMm, cellsPerTray } = container.values;
  try {
    const trays = traysOnBench(body.value.design, { lengthMm: trayLengthMm, widthMm: trayWidthMm });
    return { trays: trays.value, cells: trays.value * cellsPerTray, working: trays.working, fault: null };
  } catch (error) {
    return { trays: 0, cells: 0, working: [], fault: error instanceof Error ? error.message : String(error) };
  }
});
const warning = computed(() => spotWarning(body.value, props.place?.id, props.places, yard.elements));

async function save() {
  const kept = await keep(body.value);
  if (!kept) return;
  clear();
  emit('kept', kept.id);
}
</script>

<template>
  <FormDialog :title="place ? say`Edit ${place.place.name}` : say`Add a bench`" @close="emit('close')">
    <form class="space-y-3" novalidate @submit.prevent="save">
      <FormField v-model="draft.name" :label="say`Name`" :fault="wrong('name')" />
      <div class="grid grid-cols-2 gap-3">
        <FormField
          v-model="draft.length"
          :label="say`Length`"
          :unit="preferences.unit('site')"
          inputmode="decimal"
          :fault="wrong('design.lengthMm')"
        />
        <FormField
          v-model="draft.width"
          :label="say`Width`"
          :unit="preferences.unit('site')"
          inputmode="decimal"
          :fault="wrong('design.widthMm')"
        />
      </div>
      <FormField
        v-model="draft.rated"
        :label="say`Rated load, if someone qualified has said`"
        :unit="preferences.unit('mass')"
        inputmode="decimal"
        :fault="wrong('design.ratedKg')"
      />
      <SelectField
        v-model="draft.mediumId"
        :label="say`Containers filled with`"
        :options="media.map((m) => ({ value: m.id, words: m.values.name }))"
      />
      <SelectField
        v-model="draft.containerId"
        :label="say`For example, in`"
        :options="nursery.catalogue!.containers.map((c) => ({ value: c.id, words: c.values.name }))"
      />
      <div v-if="fits" class="panel p-3">
        <p v-if="fits.fault">{{ fits.fault }}</p>
        <template v-else>
          <p class="text-lg" data-testid="fits">
            {{ say`Takes` }} <b>{{ several(fits.trays, 'tray') }}</b>, <b>{{ count(fits.cells) }}</b>
            {{ say`cells` }}
          </p>
          <ShowWorking :steps="fits.working" />
        </template>
      </div>
      <SpotFields
        v-model:east="draft.east"
        v-model:north="draft.north"
        v-model:angle="draft.angle"
        :wrong="wrong"
        :warning="warning"
      />
      <KeepActs
        :act="place ? say`Save` : say`Add the bench`"
        :busy="busy"
        :sentence="sentence()"
        :theirs="theirs"
        @save="save"
      />
    </form>
  </FormDialog>
</template>
