<script setup lang="ts">
import { bedGeometry, isoOf, say } from '@kauri/core';
import type { Place } from '@kauri/core/contract';
import { computed, reactive, watch } from 'vue';
import { call } from '../../api/client';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { useYard } from '../../stores/yard';
import { dateWords } from '../../words/dates';
import { cameFrom, stoodLast } from './spentMedium';

/** A bed stands empty: the medium in it goes back to a heap, unless roots rotted in it. */
const props = defineProps<{ place: Place }>();
const nursery = useNursery();
const season = useSeason();
const yard = useYard();
const messages = useMessages();
const { shown, typed, unit, show } = usePreferences();

const stood = computed(() => stoodLast(nursery.lots.values(), nursery.evidence, props.place.id));
/** What the bed holds when settled, L; it settles with every season, and is measured when it is taken out. */
const litres = computed(() => {
  const { place } = props.place;
  const medium = nursery.lookup.media.get(place.mediumId ?? '');
  if (place.kind !== 'bed' || !medium) return null;
  const { insideAreaM2, settledDepthMm } = bedGeometry(place.design, medium.values.settling).value;
  return insideAreaM2 * settledDepthMm;
});
/** Brought back since the last of it went. */
const broughtBack = computed(() =>
  yard.stock.find(
    (row) =>
      row.why === 'spent' &&
      stood.value !== null &&
      row.day >= isoOf(stood.value.emptiedOn) &&
      cameFrom(row.note, props.place.place.name),
  ),
);
const heaps = computed(() =>
  nursery.catalogue!.media.map(({ id, values }) => ({ value: id, words: values.name })),
);
const { busy, save, sentence } = useSaving(`spent.${props.place.id}`);
const draft = reactive({ heap: props.place.place.mediumId ?? '', litres: '' });
watch(litres, (value) => (draft.litres = value === null ? '' : String(Math.round(shown(value, 'volume')))), {
  immediate: true,
});
async function bring() {
  const body = {
    day: season.todayIso,
    litres: typed(typedNumber(draft.litres), 'volume'),
    why: 'spent' as const,
    note: say`from ${props.place.place.name}, after ${stood.value!.codes.join(', ')}`,
  };
  const kept = await save({ ...body, heap: draft.heap }, (id) =>
    call('moveStock', { params: { ...nursery.params, medium: draft.heap }, body: { id, ...body } }),
  );
  if (!kept) return;
  yard.stock = [...yard.stock, kept];
  messages.say(say`${show(body.litres, 'volume')} brought back to the heap.`);
}
</script>

<template>
  <details v-if="stood && litres !== null" class="mt-2" data-testid="spent-medium">
    <summary class="quiet">{{ say`Its medium, after ${stood.codes.join(', ')}` }}</summary>
    <p v-if="broughtBack" class="mt-1">
      {{ say`${show(broughtBack.litres, 'volume')} of it went to a heap on ${dateWords(broughtBack.day)}.` }}
    </p>
    <template v-else>
      <p v-if="stood.rotted.length" class="text-wrong mt-1 font-bold">
        {{
          say`Roots of ${stood.rotted.join(', ')} rotted in it: it does not go back to beds. Throw it out, or spread it where no tree is raised, and clean the bed.`
        }}
      </p>
      <p v-else class="text-muted mt-1 text-[0.95rem]">
        {{
          say`Nobody wrote down rot in it. It holds what feed was left and weeds’ seeds: mixed into new medium, not used alone. Damp it before it is turned; mask and gloves.`
        }}
      </p>
      <form class="mt-2 grid max-w-xl grid-cols-2 gap-2" novalidate @submit.prevent="bring">
        <SelectField v-model="draft.heap" :label="say`To the heap of`" :options="heaps" />
        <FormField v-model="draft.litres" :label="say`How much`" :unit="unit('volume')" inputmode="decimal" />
        <SheetActs
          class="col-span-2"
          :act="stood.rotted.length ? say`To the heap all the same` : say`Bring it back`"
          :busy="busy"
          :sentence="sentence()"
          @save="bring"
        />
      </form>
    </template>
  </details>
</template>
