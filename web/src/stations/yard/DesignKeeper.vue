<script setup lang="ts">
import { say } from '@kauri/core';
import type { BedDesign } from '@kauri/core';
import type { KeptDesign } from '@kauri/core/contract';
import { computed, ref } from 'vue';
import { call } from '../../api/client';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';

/** Starts a bed from a kept design, and keeps what is typed as one: anew, or as the next version. */
const props = defineProps<{ design: BedDesign; name: string; buildable: boolean }>();
const emit = defineEmits<{ start: [design: BedDesign] }>();
const nursery = useNursery();
const messages = useMessages();
const { busy, save, sentence } = useSaving('design');
const designs = computed(() => nursery.catalogue!.designs);
const from = ref<KeptDesign | null>(null);
const keeping = ref(false);
const title = ref('');

const starts = computed(() => [
  { value: '', words: say`as typed below` },
  ...designs.value.map((d) => ({ value: d.id, words: say`${d.name}, version ${d.version}` })),
]);
function start(id: string) {
  from.value = designs.value.find((d) => d.id === id) ?? null;
  if (from.value) emit('start', from.value.design as BedDesign);
}
function open() {
  title.value = from.value?.name ?? (props.name || say`Bed design`);
  keeping.value = true;
}
async function keep(asNew: boolean) {
  const body = { name: title.value, design: props.design as KeptDesign['design'] };
  const kept = await save({ ...body, asNew }, (id) =>
    asNew || !from.value
      ? call('addDesign', { params: nursery.params, body: { id, ...body } })
      : call('editDesign', {
          params: { ...nursery.params, design: from.value.id },
          body: { version: from.value.version, ...body },
        }),
  );
  if (!kept) return;
  const others = designs.value.filter((d) => d.id !== kept.id);
  nursery.takeCatalogue({
    designs: [...others, kept].sort((a, b) => a.name.localeCompare(b.name)),
  });
  from.value = kept;
  keeping.value = false;
  messages.say(say`${kept.name}, version ${kept.version}, kept.`);
}
</script>

<template>
  <div class="panel space-y-2 p-3">
    <div class="flex flex-wrap items-end gap-2">
      <SelectField
        class="min-w-0 flex-1"
        :model-value="from?.id ?? ''"
        :label="say`Start from a kept design`"
        :options="starts"
        @update:model-value="start"
      />
      <button class="act" type="button" :disabled="!buildable" @click="open">
        {{ say`Keep as a design` }}
      </button>
    </div>
    <div v-if="keeping" class="flex flex-wrap items-end gap-2">
      <FormField v-model="title" class="flex-1" :label="say`Design’s name`" />
      <button v-if="from" class="act" type="button" :disabled="busy" @click="keep(false)">
        {{ say`Next version of ${from.name}` }}
      </button>
      <button class="act" type="button" :disabled="busy" @click="keep(true)">
        {{ say`Keep as a new design` }}
      </button>
    </div>
    <p v-if="sentence()" class="text-wrong font-bold" role="alert">{{ sentence() }}</p>
  </div>
</template>
