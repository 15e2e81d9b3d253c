<script setup lang="ts">
import { balancesAt, dayOf, isoOf, tallyAt, say } from '@kauri/core';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import type { ShownLot } from '../../parts/useLots';
import { useLived } from '../../parts/useLived';
import { useNursery } from '../../stores/nursery';
import { useSeason } from '../../stores/season';
import { accountWords } from '../../words/causes';
import { dateWords } from '../../words/dates';
import { count } from '../../words/numbers';

const props = defineProps<{ lot: ShownLot }>();
const nursery = useNursery();
const season = useSeason();

const movements = computed(() =>
  nursery.evidence.get(props.lot.row.id)!.movements.filter((m) => dayOf(m.on) <= season.view),
);
const balances = computed(() =>
  [...balancesAt(props.lot.facts.movements, season.view)].filter(
    ([account, held]) => account !== 'supply' && held > 0,
  ),
);
/** Where its planted trees stand, as they were found last. */
const { cases } = useLived();
const planted = computed(() => cases.value.filter(({ lotId }) => lotId === props.lot.row.id));
const tally = computed(() => tallyAt(props.lot.facts.movements, season.view));
</script>

<template>
  <div class="grid gap-6 lg:grid-cols-[16rem_1fr]">
    <table class="h-fit w-full" data-testid="balances">
      <caption class="pb-1 text-left font-bold">
        {{
          say`Where they are`
        }}
      </caption>
      <tbody>
        <tr v-for="[account, held] in balances" :key="account" class="border-rule border-t">
          <th scope="row" class="py-1 text-left font-normal">{{ accountWords(account) }}</th>
          <td class="text-right">{{ count(held) }}</td>
        </tr>
        <tr class="border-ink border-t-2 font-bold">
          <th scope="row" class="py-1 text-left">
            {{ tally.balances ? say`Sown, all accounted for` : say`Sown, does not add up` }}
          </th>
          <td class="text-right">{{ count(tally.seeds) }}</td>
        </tr>
        <tr v-for="one in planted" :key="one.partId" class="border-rule border-t">
          <td class="py-1" colspan="2">
            <RouterLink class="quiet" :to="{ name: 'planted', params: { planting: one.plantingId } }">{{
              one.planting
            }}</RouterLink>{{
              say`: ${count(one.alive)} of ${count(one.alive + one.dead)} alive on ${dateWords(isoOf(one.walkedOn))}`
            }}
          </td>
        </tr>
      </tbody>
    </table>
    <table class="w-full">
      <caption class="pb-1 text-left font-bold">
        {{
          say`Movements`
        }}
      </caption>
      <thead class="text-muted text-left">
        <tr>
          <th class="font-normal" scope="col">{{ say`Day` }}</th>
          <th class="font-normal" scope="col">{{ say`From` }}</th>
          <th class="font-normal" scope="col">{{ say`To` }}</th>
          <th class="text-right font-normal" scope="col">{{ say`Count` }}</th>
          <th class="pl-4 font-normal" scope="col">{{ say`Note` }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="m in movements" :key="m.id" class="border-rule border-t">
          <td class="py-1">{{ dateWords(m.on) }}</td>
          <td>{{ accountWords(m.from) }}</td>
          <td>{{ accountWords(m.to) }}</td>
          <td class="text-right">{{ count(m.count) }}</td>
          <td class="text-muted pl-4">{{ m.note }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
