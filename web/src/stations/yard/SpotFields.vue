<script setup lang="ts">
import FormField from '../../parts/FormField.vue';
import { usePreferences } from '../../stores/preferences';

/** Where a place stands on the plan. */
defineProps<{ wrong: (path: string) => string | null; warning: string | null }>();
const east = defineModel<string>('east', { required: true });
const north = defineModel<string>('north', { required: true });
const turned = defineModel<boolean>('turned', { required: true });
const preferences = usePreferences();
</script>

<template>
  <fieldset>
    <legend class="mb-1 font-bold">Where its south-west corner stands</legend>
    <div class="grid grid-cols-2 gap-3">
      <FormField
        v-model="east"
        label="East"
        :unit="preferences.unit('site')"
        inputmode="decimal"
        :fault="wrong('eastM')"
      />
      <FormField
        v-model="north"
        label="North"
        :unit="preferences.unit('site')"
        inputmode="decimal"
        :fault="wrong('northM')"
      />
    </div>
    <label class="flex min-h-11 items-center gap-2"
      ><input v-model="turned" type="checkbox" class="size-5" /> Its length runs north</label
    >
    <p v-if="warning" class="font-bold">{{ warning }}</p>
  </fieldset>
</template>
