<script setup lang="ts">
import { usePreferences } from '../../stores/preferences';
import { computed } from 'vue';
import EntryFields from '../../parts/EntryFields.vue';
import FormField from '../../parts/FormField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import type { ShownLot } from '../../parts/useLots';
import { useRecording } from '../../parts/useRecording';
import { count, several } from '../../words/numbers';

const props = defineProps<{ lot: ShownLot }>();
const emit = defineEmits<{ done: [] }>();
const { draft, on, record, busy, sentence, wrong } = useRecording('liftLot', () => props.lot, {
  lifted: '',
  culled: '',
});

const standing = computed(() => props.lot.row.held.standing);
const number = (text: string) => (text.trim() === '' ? 0 : typedNumber(text));
const lifted = computed(() => number(draft.value.lifted));
const culled = computed(() => number(draft.value.culled));
const left = computed(() => standing.value - lifted.value - culled.value);
const bed = computed(() => props.lot.facts.home.kind === 'bed');

async function save() {
  const said = `${several(lifted.value, 'tree')} of ${props.lot.row.code} lifted${culled.value ? `, ${count(culled.value)} culled` : ''}.`;
  if (await record({ lifted: lifted.value, culled: culled.value }, said)) emit('done');
}
const preferences = usePreferences();
</script>

<template>
  <form class="space-y-3" novalidate @submit.prevent="save">
    <div class="grid grid-cols-2 gap-3">
      <FormField v-model="draft.lifted" label="Lifted, good" inputmode="numeric" :fault="wrong('lifted')" />
      <FormField v-model="draft.culled" label="Culled" inputmode="numeric" :fault="wrong('culled')" />
    </div>
    <div class="flex flex-wrap items-center justify-between gap-x-3">
      <p class="text-lg" aria-live="polite" data-testid="left">
        <b>{{ Number.isNaN(left) ? '–' : count(Math.max(0, left)) }}</b> left standing of
        {{ count(standing) }}
        <span v-if="left < 0" class="text-wrong font-bold">: {{ count(-left) }} more than stand</span>
      </p>
      <button
        class="quiet"
        type="button"
        @click="draft.lifted = String(Math.max(0, standing - (culled || 0)))"
      >
        All that stand
      </button>
    </div>
    <EntryFields
      v-model:on="on"
      v-model:note="draft.note"
      hint="Bundles, where heeled in, how roots looked"
      :wrong="wrong"
    />
    <p class="border-ink text-muted border-l-4 pl-3 text-[0.95rem]">
      <template v-if="bed">
        Not while the medium is frozen. Fork under a block, tease apart, never pull. Fine roots die in minutes
        in sun and wind: shade, wet cover, small batches. Wet medium is heavier than it looks; loads above
        {{ preferences.show(25, 'mass') }} are for two people or a machine.
      </template>
      <template v-else
        >Wet racks are heavier than they look; above {{ preferences.show(25, 'mass') }} they are for two
        people or a trolley. Pack just before it travels.</template
      >
    </p>
    <SheetActs act="Keep the lift" :busy="busy" :sentence="sentence()" @save="save" />
  </form>
</template>
