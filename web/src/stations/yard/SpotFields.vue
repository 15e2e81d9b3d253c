<script setup lang="ts">
import { say } from '@kauri/core';
import FormField from '../../parts/FormField.vue';
import { usePreferences } from '../../stores/preferences';

/** Where a place stands on the plan. */
defineProps<{ wrong: (path: string) => string | null; warning: string | null }>();
const east = defineModel<string>('east', { required: true });
const north = defineModel<string>('north', { required: true });
const angle = defineModel<string>('angle', { required: true });
const preferences = usePreferences();
</script>

<template>
  <fieldset>
    <legend class="mb-1 font-bold">{{ say`Where the south-west corner of its ground lies` }}</legend>
    <div class="grid grid-cols-3 items-end gap-3">
      <FormField
        v-model="east"
        :label="say`East`"
        :unit="preferences.unit('site')"
        inputmode="decimal"
        :fault="wrong('eastM')"
      />
      <FormField
        v-model="north"
        :label="say`North`"
        :unit="preferences.unit('site')"
        inputmode="decimal"
        :fault="wrong('northM')"
      />
      <FormField
        v-model="angle"
        :label="say`Angle`"
        unit="°"
        inputmode="decimal"
        :fault="wrong('angleDeg')"
      />
    </div>

    <p v-if="warning" class="font-bold">{{ warning }}</p>
  </fieldset>
</template>
