<script setup lang="ts">
import { say } from '@kauri/core';
import { computed } from 'vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { count } from '../../words/numbers';
import { useStage, type FreeRoom, type StageStarts, type TypedStage } from './useStage';

/** Where a lot is to stand: the place, then cells on a bench or a density in a bed, with the room there is. */
const props = defineProps<{
  wrong: (path: string) => string | null;
  /** A lot that is moved: what it empties is free for it. */
  moving?: string;
  /** What blank fields stand for, by the room there is. */
  startsIn?: (free: FreeRoom) => StageStarts;
}>();
const draft = defineModel<TypedStage>({ required: true });
const nursery = useNursery();
const preferences = usePreferences();
const { show } = preferences;
const { places, container, room, onBench, holds, starts } = useStage(draft, props.moving, props.startsIn);
/** What a field left blank stands for, and what else is said below it. */
const below = (text: string, start: string | undefined, more?: string) =>
  [start !== undefined && text.trim() === '' ? say`Blank: ${start}` : '', more ?? '']
    .filter(Boolean)
    .join(', ') || undefined;
const placeOptions = computed(() =>
  places.value.map((p) => ({ value: p.place.id, words: p.place.place.name })),
);
const containerOptions = nursery.catalogue!.containers.map((c) => ({ value: c.id, words: c.values.name }));
</script>

<template>
  <SelectField
    v-model="draft.placeId"
    :label="say`Place`"
    :options="placeOptions"
    :fault="wrong('stage.placeId')"
    :hint="room?.words"
  />
  <template v-if="onBench">
    <SelectField
      v-model="draft.containerTypeId"
      :label="say`Container`"
      :options="containerOptions"
      :fault="wrong('stage.containerTypeId')"
    />
    <FormField
      v-model="draft.trays"
      :label="say`Trays`"
      inputmode="numeric"
      :hint="
        below(
          draft.trays,
          starts ? count(starts.trays) : undefined,
          holds > 0 ? say`${count(holds)} cells` : say`${container.values.cellsPerTray} cells a tray`,
        )
      "
      :fault="wrong('stage.trays')"
    />
  </template>
  <div v-else class="grid grid-cols-2 gap-3">
    <FormField
      v-model="draft.density"
      :label="say`Density`"
      :unit="preferences.unit('density')"
      inputmode="decimal"
      :hint="below(draft.density, starts ? show(starts.densityPerM2, 'density', 0) : undefined)"
      :fault="wrong('stage.densityPerM2')"
    />
    <FormField
      v-model="draft.area"
      :label="say`Area of bed`"
      :unit="preferences.unit('area')"
      inputmode="decimal"
      :hint="
        below(
          draft.area,
          starts ? show(starts.areaM2, 'area') : undefined,
          holds > 0 ? say`room for ${count(holds)} trees` : undefined,
        )
      "
      :fault="wrong('stage.areaM2')"
    />
  </div>
  <slot />
  <p v-if="room?.over" class="font-bold" role="status">{{ room.over }}</p>
</template>
