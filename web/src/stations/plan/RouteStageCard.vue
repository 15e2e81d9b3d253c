<script setup lang="ts">
import { ownShareOf, workOfStage, say } from '@kauri/core';
import type { RaisingRoute } from '@kauri/core/contract';
import { computed } from 'vue';
import { useNursery } from '../../stores/nursery';
import { useRoutes } from '../../stores/routes';
import { percent, several } from '../../words/numbers';
import { endWords, useStageWords } from './routeWords';

/** A stage of a route: where it stands, what goes on, and what the nursery's own lots say of that. */
const props = defineProps<{
  route: RaisingRoute;
  at: number;
  /** Whether the nursery wrote it; else its figures are a rule of thumb that own lots and hours move. */
  own: boolean;
  /** Whether what own lots say may be taken over. */
  may: boolean;
}>();
defineEmits<{ take: [goesOn: number] }>();
const nursery = useNursery();
const routes = useRoutes();
const words = useStageWords();

const stage = computed(() => props.route.stages[props.at]);
const share = computed(() => ownShareOf(props.route.speciesId, stage.value, nursery.lookup, routes.learnt));
const hoursFrom = computed(() => {
  const work = workOfStage(props.route.start, props.route.stages[props.at - 1]?.ends ?? null);
  return work === null ? 0 : routes.learnt.paces[work].times;
});
/** What own lots make of a written share; null where they say the same, to the hundredth, or there are none. */
const other = computed(() => {
  const goesOn = Math.round(share.value.goesOn * 100) / 100;
  return props.own && share.value.lots > 0 && Math.abs(goesOn - stage.value.goesOn) >= 0.01 ? goesOn : null;
});
</script>

<template>
  <b>{{ words(stage) }}</b>
  <span class="text-muted block text-sm">
    {{ stage.ends ? endWords[stage.ends] : say`Until they leave` }};
    <span :class="own || share.lots ? '' : 'italic'">
      {{ percent(stage.goesOn) }} {{ stage.ends ? say`go on` : say`leave` }}</span
    >,
    <span :class="own || hoursFrom ? '' : 'italic'">{{ say`${stage.hoursPer100} h a hundred` }}</span>
  </span>
  <span v-if="!own && (share.lots || hoursFrom)" class="text-muted block text-sm">
    {{ say` Rule of thumb, moved by` }}
    <template v-if="share.lots">{{ say`${several(share.lots, 'lot')} of your own` }}</template>
    <template v-if="share.lots && hoursFrom"> {{ say` and ` }} </template>
    <template v-if="hoursFrom">{{ say`hours you recorded ${several(hoursFrom, 'time')}` }}</template>
  </span>
  <span v-if="other !== null" class="block text-sm">
    {{ say` With ${several(share.lots, 'lot')} of your own it would be ${percent(other)}.` }}
    <button v-if="may" class="quiet" type="button" @click="$emit('take', other)">{{ say`Take that` }}</button>
  </span>
</template>
