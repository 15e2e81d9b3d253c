<script setup lang="ts">
import { proposeModules, say } from '@kauri/core';
import { useSessionStorage } from '@vueuse/core';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import FormField from '../../../parts/FormField.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { typedNumber } from '../../../parts/typed';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { percent } from '../../../words/numbers';
import { keptKey } from '../../../stores/kept';

/** Bed sizes for a piece of ground: as wide as a roll, as long as a board, with paths between. */
const nursery = useNursery();
const { show, shown, typed, unit } = usePreferences();
/** A small yard's ground, in what the grower reads. */
const metresShown = (metres: number) => String(Number(shown(metres, 'site').toFixed(1)));
const form = useSessionStorage(keptKey('modules'), {
  length: metresShown(12),
  width: metresShown(8),
  path: metresShown(0.6),
});
const metres = (text: string) => typed(typedNumber(text), 'site');
const found = computed(() => {
  const { rollWidthsMm, boardLengthsMm } = nursery.catalogue!.prices.list;
  try {
    const fits = proposeModules(
      metres(form.value.length),
      metres(form.value.width),
      metres(form.value.path),
      rollWidthsMm,
      boardLengthsMm,
    );
    return {
      fits: fits.slice(0, 6),
      fault: fits.length ? null : say`No bed of these rolls and boards fits that ground.`,
    };
  } catch (error) {
    return { fits: [], fault: (error as Error).message };
  }
});
</script>

<template>
  <div>
    <div class="grid grid-cols-3 gap-2">
      <FormField v-model="form.length" :label="say`Ground long`" :unit="unit('site')" inputmode="decimal" />
      <FormField v-model="form.width" :label="say`wide`" :unit="unit('site')" inputmode="decimal" />
      <FormField v-model="form.path" :label="say`Paths`" :unit="unit('site')" inputmode="decimal" />
    </div>
    <p v-if="found.fault" class="mt-1 font-bold" role="status">{{ found.fault }}</p>
    <ul class="divide-rule mt-1 divide-y text-[0.95rem]" data-testid="modules">
      <li v-for="f in found.fits" :key="`${f.lengthMm}x${f.widthMm}`" class="py-1">
        <span class="flex justify-between gap-2">
          <b>{{ show(f.lengthMm / 1000, 'site', 2) }} × {{ show(f.widthMm / 1000, 'site', 2) }}</b>
          <span>{{ say`${f.count} beds, ${percent(f.bedShare)} of the ground` }}</span>
        </span>
        <span class="text-muted block">
          {{ say`${f.rows} rows of ${f.perRow}.` }}
          <template v-if="f.tiles.length">
            {{
              say` Lid, feet and roll are shared by ${f.tiles
                .map(
                  (t) =>
                    say`${t.per} of ${show(t.lengthMm / 1000, 'site', 2)} × ${show(t.widthMm / 1000, 'site', 2)}`,
                )
                .join(say` or `)}.`
            }}
          </template>
        </span>
        <RouterLink
          class="underline underline-offset-4"
          :to="{ name: 'yard', query: { add: 'bed', length: f.lengthMm, width: f.widthMm } }"
          >{{ say`Design it` }}</RouterLink
        >
      </li>
    </ul>
    <ShowWorking v-if="found.fits.length" :steps="found.fits.flatMap((f) => f.working)" />
  </div>
</template>
