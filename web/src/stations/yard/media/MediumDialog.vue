<script setup lang="ts">
import { materials, mixOf, type MediumPart, say, materialWords } from '@kauri/core';
import type { Medium } from '@kauri/core/contract';
import { Plus, X } from 'lucide-vue-next';
import { computed } from 'vue';
import { call } from '../../../api/client';
import FormDialog from '../../../parts/FormDialog.vue';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { typedNumber } from '../../../parts/typed';
import { useDraft } from '../../../parts/useDraft';
import { useSaving } from '../../../parts/useSaving';
import { useMessages } from '../../../stores/messages';
import { usePreferences } from '../../../stores/preferences';
import { useNursery } from '../../../stores/nursery';
import { percent } from '../../../words/numbers';
import { money } from '../../../words/money';

const { show, shown, unit } = usePreferences();

/** A recipe by parts; what it weighs, holds and costs follows from its materials. */
const props = defineProps<{ medium?: Medium }>();
const emit = defineEmits<{ close: [] }>();
const nursery = useNursery();
const messages = useMessages();
const key = props.medium ? `medium.${props.medium.id}.${props.medium.version}` : 'medium.new';
const { draft, clear } = useDraft(key, {
  name: props.medium?.values.name ?? '',
  parts: (props.medium?.values.parts ?? [{ material: 'compost', parts: 1 }]).map((p) => ({
    material: p.material,
    parts: String(p.parts),
  })),
});
const { busy, save, sentence, wrong } = useSaving(key);
const parts = computed<MediumPart[]>(() =>
  draft.value.parts.map((p) => ({ material: p.material, parts: typedNumber(p.parts) })),
);
const mix = computed(() => {
  try {
    return { ...mixOf(draft.value.name, parts.value), fault: null };
  } catch (error) {
    return { value: null, working: [], fault: (error as Error).message };
  }
});
async function keep() {
  const values = mix.value.value;
  if (!values) return;
  const body = { ...values, parts: [...values.parts!] } as Medium['values'];
  const kept = await save(body, (id) =>
    props.medium
      ? call('editMedium', {
          params: { ...nursery.params, medium: props.medium.id },
          body: { version: props.medium.version, values: body },
        })
      : call('addMedium', { params: nursery.params, body: { id, values: body } }),
  );
  if (!kept) return;
  const others = nursery.catalogue!.media;
  nursery.takeCatalogue({
    media: props.medium ? others.map((m) => (m.id === kept.id ? kept : m)) : [...others, kept],
  });
  messages.say(say`${kept.values.name} kept.`);
  clear();
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="medium ? say`Recipe of ${medium.values.name}` : say`Add a recipe`"
    @close="emit('close')"
  >
    <form class="space-y-3" novalidate @submit.prevent="keep">
      <FormField v-model="draft.name" :label="say`Name`" :fault="wrong('values.name')" />
      <fieldset>
        <legend class="mb-1 font-bold">{{ say`Parts by volume` }}</legend>
        <div v-for="(p, i) in draft.parts" :key="i" class="mb-1 flex gap-2">
          <SelectField
            v-model="p.material"
            class="min-w-0 flex-1"
            label-hidden
            :label="say`Material ${i + 1}`"
            :options="materials.map(({ name }) => ({ value: name, words: materialWords[name] }))"
          />
          <input
            v-model="p.parts"
            class="field !w-24"
            inputmode="decimal"
            :aria-label="say`Parts of material ${i + 1}`"
          />
          <button
            v-if="draft.parts.length > 1"
            class="act px-2"
            type="button"
            :aria-label="say`Take ${p.material} out`"
            @click="draft.parts.splice(i, 1)"
          >
            <X :size="20" aria-hidden="true" />
          </button>
        </div>
        <button
          v-if="draft.parts.length < 12"
          class="quiet"
          type="button"
          @click="draft.parts.push({ material: 'coir', parts: '1' })"
        >
          <Plus :size="18" aria-hidden="true" /> {{ say`A material` }}
        </button>
      </fieldset>
      <p v-if="mix.fault" class="font-bold" role="status">{{ mix.fault }}</p>
      <div v-else-if="mix.value" class="panel p-3" data-testid="mix">
        <p>
          {{ say`Weighs` }} <b>{{ show(mix.value.wetKgPerM3, 'bulk') }}</b>
          {{
            say`watered, ${show(mix.value.dryKgPerM3, 'bulk')} dry; air ${percent(mix.value.airShare)}, water held ${percent(mix.value.heldShare!)}, settles by ${percent(mix.value.settling)} a season; pH about ${mix.value.ph}; ${money(shown(mix.value.costPerM3!, 'perVolume'), nursery.catalogue!.prices.list.currency)}${unit('perVolume')}.`
          }}
        </p>
        <p v-if="mix.value.note" class="border-ink mt-1 border-l-4 pl-2 text-sm font-bold">
          {{ mix.value.note }}
        </p>
        <ShowWorking :steps="mix.working" />
      </div>
      <SheetActs
        :act="medium ? say`Save` : say`Add the recipe`"
        :busy="busy"
        :off="!!mix.fault"
        :sentence="sentence()"
        @save="keep"
      />
    </form>
  </FormDialog>
</template>
