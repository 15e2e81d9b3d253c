<script setup lang="ts">
import { compareRoots, dayOf, isoOf, say, type Outcome } from '@kauri/core';
import { computed } from 'vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import { useNursery } from '../../stores/nursery';
import { count, percent, several } from '../../words/numbers';

/** What roots looked like as lots were moved on, by what they had stood in until then. */
const props = defineProps<{
  words: string;
  groupOf: (lotId: string, day: number) => string;
  until: number;
}>();
const nursery = useNursery();

interface Seen {
  lots: Map<string, Outcome>;
  rejected: number;
}
const groups = computed(() => {
  const all = new Map<string, Seen>();
  for (const [lotId, { shifts }] of nursery.evidence)
    for (const { on, roots } of shifts) {
      // As they were raised: in the home they leave, which was theirs the day before.
      if (!roots || on > isoOf(props.until)) continue;
      const name = props.groupOf(lotId, dayOf(on) - 1);
      const seen = all.get(name) ?? { lots: new Map<string, Outcome>(), rejected: 0 };
      all.set(name, seen);
      const lot = seen.lots.get(lotId) ?? { k: 0, n: 0 };
      seen.lots.set(lotId, { k: lot.k + roots.looked - roots.circling, n: lot.n + roots.looked });
      seen.rejected += roots.rejected;
    }
  return all;
});
const compared = computed(() =>
  compareRoots([...groups.value].map(([name, { lots }]) => ({ name, lots: [...lots.values()] }))),
);
</script>

<template>
  <section v-if="groups.size" class="space-y-2" :aria-label="say`Seen while moving on`">
    <h2 class="text-xl">{{ say`Seen while moving on` }}</h2>
    <div class="overflow-x-auto">
      <table class="w-full text-[0.95rem]" data-testid="roots-moving-compared">
        <thead class="text-muted">
          <tr>
            <th scope="col" class="text-left font-normal">{{ words }}</th>
            <th scope="col" class="pl-4 text-right font-normal whitespace-nowrap">{{ say`Looked at` }}</th>
            <th scope="col" class="pl-4 text-right font-normal whitespace-nowrap">
              {{ say`None circling` }}
            </th>
            <th scope="col" class="pl-4 text-right font-normal whitespace-nowrap">
              {{ say`In truth, 8 in 10` }}
            </th>
            <th scope="col" class="pl-4 text-right font-normal whitespace-nowrap">{{ say`Rejected` }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in compared.value" :key="row.name" class="border-rule border-t">
            <th scope="row" class="py-1.5 text-left">{{ row.name }}</th>
            <td class="pl-4 text-right whitespace-nowrap">
              {{ count(row.plants) }}, {{ several(row.lots, 'lot') }}
            </td>
            <td class="pl-4 text-right font-bold">{{ percent(row.passing / row.plants) }}</td>
            <td class="pl-4 text-right whitespace-nowrap">
              {{ say`${Math.round(row.share.p10 * 100)} to ${Math.round(row.share.p90 * 100)} %` }}
            </td>
            <td class="pl-4 text-right">{{ count(groups.get(row.name)!.rejected) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="text-muted text-sm">
      {{
        say`Counted by whoever moved them, at a glance: plants on the rosette are looked at more closely, and the two are not added up.`
      }}
    </p>
    <ShowWorking :steps="compared.working" />
  </section>
</template>
