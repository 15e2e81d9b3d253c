<script setup lang="ts">
import { say } from '@kauri/core';
import { computed } from 'vue';
import FormField from '../../parts/FormField.vue';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { overlaps, shownPatches } from '../yard/patches';
import { patchOf, type TypedPatch } from './patch';

/** Which part of the bed, so that «what is this row?» is always answered. */
const props = defineProps<{ placeId: string }>();
const draft = defineModel<TypedPatch>({ required: true });
const nursery = useNursery();
const { unit, show, typed } = usePreferences();
const taken = computed(() => shownPatches(nursery.lots.values(), props.placeId));
/** Lots the patch typed would share rows with. */
const shared = computed(() => {
  const patch = patchOf(draft.value, typed);
  return patch ? overlaps(patch, taken.value) : [];
});
</script>

<template>
  <div>
    <div class="grid grid-cols-3 gap-3">
      <FormField
        v-model="draft.patchFrom"
        :label="say`Patch from`"
        :unit="unit('timber')"
        inputmode="decimal"
      />
      <FormField v-model="draft.patchTo" :label="say`to`" :unit="unit('timber')" inputmode="decimal" />
      <FormField v-model="draft.rows" :label="say`Rows`" inputmode="numeric" />
    </div>
    <p class="text-muted mt-1 text-sm">
      {{ say`Measured along the bed from its left end; blank if it has no place of its own.` }}
      <template v-if="taken.length">{{
        say`Sown so far: ${taken
          .map((t) => say`${t.code} ${show(t.patch.fromMm, 'timber')} to ${show(t.patch.toMm, 'timber')}`)
          .join('; ')}.`
      }}</template>
    </p>
    <p v-if="shared.length" class="mt-1 font-bold" role="status" data-testid="patch-overlap">
      {{
        say`${shared.map((t) => say`${show(t.sharedMm, 'timber')} of it is ${t.code}’s`).join('; ')}: check what stands there, or these rows will have two answers.`
      }}
    </p>
  </div>
</template>
