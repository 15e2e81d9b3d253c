<script setup lang="ts">
import { say } from '@kauri/core';
import { computed } from 'vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import { usePreferences } from '../../stores/preferences';
import { count } from '../../words/numbers';
import { useTrench } from './useTrench';

/** How much of a bay's trench is taken; nothing where the place is no bay. */
const props = defineProps<{ name: string; mayEdit: boolean }>();
defineEmits<{ edit: [] }>();
const { roomOf, isOwn } = useTrench();
const { show } = usePreferences();
const room = computed(() => roomOf(props.name));
const share = computed(() => Math.min(1, room.value!.value.taken / room.value!.value.metres));
</script>

<template>
  <div v-if="room" class="mb-1" data-testid="bay-room">
    <div class="border-rule bg-panel mb-1 h-3 max-w-md overflow-hidden rounded border" aria-hidden="true">
      <div
        class="h-full"
        :class="room.value.left < 0 ? 'bg-wrong' : 'bg-root'"
        :style="{ width: `${share * 100}%` }"
      />
    </div>
    <p :class="room.value.left < 0 && 'text-wrong font-bold'">
      {{
        room.value.left < 0
          ? say`${show(room.value.taken, 'site')} of trench wanted where there are ${show(room.value.metres, 'site')}: ${show(-room.value.left, 'site')} too much.`
          : say`${show(room.value.taken, 'site')} of ${show(room.value.metres, 'site')} of trench taken, ${show(room.value.left, 'site')} left.`
      }}
      <span v-if="room.value.unsized" class="text-muted">{{
        say`Not in it: ${count(room.value.unsized)} of no stated height.`
      }}</span>
      <span v-if="!isOwn" class="text-muted"> {{ say`By rules of thumb.` }}</span>
    </p>
    <div class="flex flex-wrap items-start gap-x-4">
      <button v-if="mayEdit" class="quiet" type="button" @click="$emit('edit')">
        {{ say`How closely they lie` }}
      </button>
      <ShowWorking :steps="room.working" />
    </div>
  </div>
</template>
