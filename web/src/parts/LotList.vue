<script setup lang="ts">
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import LotLine from './lots/LotLine.vue';
import type { ShownLot } from './useLots';
import { several } from '../words/numbers';

const props = withDefaults(
  defineProps<{
    lots: readonly ShownLot[];
    chosenId: string | null;
    station?: 'grow' | 'lift';
    title?: string;
  }>(),
  {
    station: 'grow',
    title: undefined,
  },
);
const router = useRouter();
const withEnded = ref(false);

const live = computed(() =>
  props.lots.filter((lot) => !['lifted', 'ended'].includes(lot.view.standing.status)),
);
const shown = computed(() => (withEnded.value ? props.lots : live.value));

/** Up and down go to the next lot, as the arrows of a list do. */
function step(by: number) {
  const at = shown.value.findIndex((lot) => lot.row.id === props.chosenId);
  const next = shown.value[Math.max(0, Math.min(shown.value.length - 1, at + by))];
  if (next) void router.replace({ name: props.station, params: { lot: next.row.id } });
}
</script>

<template>
  <div>
    <div class="border-rule flex min-h-15 items-center justify-between gap-2 border-b px-4 py-2">
      <p class="text-muted font-bold">
        {{
          title ?? (live.length ? `${several(live.length, 'lot')}, most urgent first` : 'No lot stands yet')
        }}
      </p>
      <slot />
    </div>
    <ul
      class="divide-rule divide-y"
      data-testid="lots"
      @keydown.down.prevent="step(1)"
      @keydown.up.prevent="step(-1)"
    >
      <li
        v-for="lot in shown"
        :key="lot.row.id"
        class="[contain-intrinsic-size:auto_5rem] [content-visibility:auto]"
      >
        <LotLine :lot="lot" :chosen="lot.row.id === chosenId" :station="station" />
      </li>
    </ul>
    <button
      v-if="live.length < lots.length"
      class="quiet px-4"
      type="button"
      :aria-expanded="withEnded"
      @click="withEnded = !withEnded"
    >
      {{ withEnded ? 'Hide' : 'Show' }} {{ lots.length - live.length }} lifted or ended
    </button>
  </div>
</template>
