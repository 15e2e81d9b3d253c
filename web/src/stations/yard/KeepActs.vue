<script setup lang="ts">
import { say } from '@kauri/core';
import type { PlaceBody } from '@kauri/core/contract';
import SheetActs from '../../parts/SheetActs.vue';
import { usePreferences } from '../../stores/preferences';
import { sizeWords } from './placeWords';

/** The foot of a place's sheet; where someone else saved meanwhile, theirs is shown before it is saved over. */
defineProps<{ act: string; busy: boolean; sentence: string | null; theirs: PlaceBody | null }>();
const emit = defineEmits<{ save: [] }>();
const preferences = usePreferences();
</script>

<template>
  <div>
    <p v-if="theirs" class="panel p-3" data-testid="theirs">
      <b>{{ say`Saved meanwhile by someone else:` }}</b> {{ theirs.name }},
      {{ sizeWords(theirs, preferences) }}.
    </p>
    <SheetActs
      :act="theirs ? say`Save mine over it` : act"
      :busy="busy"
      :sentence="sentence"
      @save="emit('save')"
    />
  </div>
</template>
