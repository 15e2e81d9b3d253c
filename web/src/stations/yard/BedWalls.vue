<script setup lang="ts">
import { boardNames, say } from '@kauri/core';
import { Plus, X } from 'lucide-vue-next';
import { computed } from 'vue';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import { usePreferences } from '../../stores/preferences';
import type { BedForm } from './bedForm';

/** What holds the medium in: boards of one's own, or a pot, tub or crate that was found. */
defineProps<{ wrong: (path: string) => string | null }>();
const draft = defineModel<BedForm>({ required: true });
const preferences = usePreferences();
const walls = [
  { value: 'boards', words: say`Boards` },
  { value: 'round', words: say`A round tub or pot` },
  { value: 'box', words: say`A crate or box` },
] as const;
const measures = [
  { value: 'outside', words: say`Outside, of the frame` },
  { value: 'inside', words: say`Inside, of the soil` },
] as const;
const tierOptions = computed(() => [...new Set([...boardNames[preferences.units], ...draft.value.tiers])]);
const round = computed(() => draft.value.walls === 'round');
</script>

<template>
  <div class="space-y-3">
    <ChoiceRow v-model="draft.walls" :label="say`Its walls`" :options="walls" />
    <p v-if="draft.walls !== 'boards'" class="text-muted text-sm">
      {{
        say`Its bottom is cut out or open, and it stands on mesh or its own grate over air. Every hole in a wall turns a root.`
      }}
    </p>
    <SelectField v-model="draft.measured" :label="say`Sizes typed are`" :options="measures" />
    <div v-if="draft.walls !== 'boards'" class="grid grid-cols-2 gap-3">
      <FormField
        v-model="draft.floor"
        :label="round ? say`Across, at the floor` : say`Length, at the floor`"
        :unit="preferences.unit('timber')"
        inputmode="decimal"
        :fault="wrong('design.found.taper')"
      />
      <FormField
        v-model="draft.height"
        :label="say`Height`"
        :unit="preferences.unit('timber')"
        inputmode="decimal"
        :fault="wrong('design.found.heightMm')"
      />
      <FormField
        v-model="draft.wall"
        :label="say`Thickness of its wall`"
        :unit="preferences.unit('timber')"
        inputmode="decimal"
        :fault="wrong('design.found.wallMm')"
      />
      <FormField
        v-model="draft.emptyWeight"
        :label="say`Weight, empty`"
        :unit="preferences.unit('mass')"
        inputmode="decimal"
        :fault="wrong('design.found.emptyKg')"
      />
      <FormField
        v-model="draft.seasons"
        :label="say`Seasons it lasts`"
        inputmode="numeric"
        :fault="wrong('design.found.seasons')"
      />
      <FormField
        v-model="draft.ownFloor"
        :label="say`Its own floor covers`"
        unit="%"
        inputmode="decimal"
        :hint="say`0 where the bottom is cut out`"
        :fault="wrong('design.layers')"
      />
    </div>
    <fieldset v-if="draft.walls === 'boards'">
      <legend class="mb-1 font-bold">{{ say`Boards on edge, from the bottom up` }}</legend>
      <div v-for="(_, i) in draft.tiers" :key="i" class="mb-1 flex gap-2">
        <SelectField
          v-model="draft.tiers[i]"
          class="min-w-0 flex-1"
          label-hidden
          :label="say`Tier ${i + 1}`"
          :options="tierOptions.map((board) => ({ value: board, words: board }))"
        />
        <button
          v-if="draft.tiers.length > 1"
          class="act px-2"
          type="button"
          :aria-label="say`Take tier ${i + 1} off`"
          @click="draft.tiers.splice(i, 1)"
        >
          <X :size="20" aria-hidden="true" />
        </button>
      </div>
      <button
        v-if="draft.tiers.length < 6"
        class="quiet"
        type="button"
        @click="draft.tiers.push(draft.tiers[draft.tiers.length - 1])"
      >
        <Plus :size="18" aria-hidden="true" /> {{ say`A tier or riser on top` }}
      </button>
    </fieldset>
  </div>
</template>
