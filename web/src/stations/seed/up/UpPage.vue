<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, onUnmounted } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import EmptyState from '../../../parts/EmptyState.vue';
import PickRow from '../../../parts/PickRow.vue';
import { count, several } from '../../../words/numbers';
import RisingPage from './RisingPage.vue';
import { useComingUp, type RisingLot } from './useComingUp';

const route = useRoute();
const { shown, fault, everyLot } = useComingUp();
everyLot.value = true;
onUnmounted(() => (everyLot.value = false));
const chosen = computed(
  () => shown.value.find((r) => r.lot.row.id === route.params.lot) ?? shown.value[0] ?? null,
);
const coming = computed(() => shown.value.filter((r) => r.lot.view.standing.tally.sown > 0));
function courseOf({ outlook, sown, lot }: RisingLot): string {
  const up = say`${count(outlook?.value.upNow ?? 0)} up of ${count(sown)}`;
  return outlook && lot.view.standing.tally.sown
    ? say`${up}, about ${count(outlook.value.final.p50)} to come in all`
    : up;
}
</script>

<template>
  <EmptyState v-if="!shown.length" :title="say`Nothing is coming up at this date`">
    {{
      say`Sown lots stand here until their emergence is over: how many are up, how many are to come, and which are late.`
    }}
    <template #action
      ><RouterLink class="act-main" :to="{ name: 'seed-desk' }">{{
        say`To the sowing desk`
      }}</RouterLink></template
    >
  </EmptyState>
  <div v-else class="grid min-h-full lg:grid-cols-[24rem_1fr]">
    <div class="border-rule lg:border-r" :class="route.params.lot ? 'max-lg:hidden' : ''">
      <p class="border-rule text-muted flex min-h-15 items-center border-b px-4 font-bold">
        {{ say`${several(coming.length, 'lot')} with seed still in the ground` }}
      </p>
      <p v-if="fault" class="text-wrong px-4 font-bold">{{ fault }}</p>
      <ul class="divide-rule divide-y" data-testid="rising">
        <PickRow
          v-for="r in shown"
          :key="r.lot.row.id"
          :to="{ name: 'seed-up', params: { lot: r.lot.row.id } }"
          :chosen="r.lot.row.id === chosen?.lot.row.id"
        >
          <span class="flex justify-between gap-2">
            <span
              ><b>{{ r.lot.row.code }}</b> {{ r.lot.species }}</span
            >
            <span
              v-if="r.outlook?.value.late && r.lot.view.standing.tally.sown"
              class="border-ink border-b-2 font-bold"
              >{{ say`late` }}</span
            >
          </span>
          <span class="text-muted block text-[0.93rem]">
            {{ courseOf(r) }}
          </span>
        </PickRow>
      </ul>
    </div>
    <RisingPage
      v-if="chosen"
      :key="chosen.lot.row.id"
      :rising="chosen"
      :all="shown"
      :class="route.params.lot ? '' : 'max-lg:hidden'"
    />
  </div>
</template>
