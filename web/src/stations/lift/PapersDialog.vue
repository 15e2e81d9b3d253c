<script setup lang="ts">
import { say } from '@kauri/core';
import type { Papers } from '@kauri/core/contract';
import { Plus, X } from 'lucide-vue-next';
import { onMounted, ref } from 'vue';
import { call } from '../../api/client';
import { ProblemError, sentenceOf } from '../../api/problem';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';

/** The nursery's own names and numbers that plant movement records carry: which are asked for, local rules say. */
const emit = defineEmits<{ close: [] }>();
const nursery = useNursery();
const messages = useMessages();
const { busy, save, fault, sentence, wrong } = useSaving('papers');
const fields = ref<Papers['fields'] | null>(null);
const version = ref(0);
const trouble = ref<string | null>(null);
onMounted(() => load().catch((error: unknown) => (trouble.value = sentenceOf(error))));

async function load() {
  const kept = await call('papers', { params: nursery.params });
  version.value = kept.version;
  fields.value = kept.papers.fields.length
    ? kept.papers.fields
    : [{ name: say`Registration number`, value: '' }];
}
async function write() {
  const papers = { schema: 1 as const, fields: fields.value!.filter(({ name, value }) => name || value) };
  const kept = await save(papers, () =>
    call('setPapers', { params: nursery.params, body: { version: version.value, papers } }),
  );
  if (kept === null) {
    // Somebody else wrote them meanwhile: kept again, these take their place.
    const error = fault.value;
    if (error instanceof ProblemError && error.kind === 'stale-edit')
      version.value = (error.problem.current as { version: number }).version;
    return;
  }
  messages.say(say`Kept: movement records carry them from now on.`);
  emit('close');
}
</script>

<template>
  <FormDialog :title="say`What movement records say of us`" @close="emit('close')">
    <p v-if="trouble" class="text-wrong font-bold" role="alert">{{ trouble }}</p>
    <form v-else-if="fields" class="space-y-3" novalidate @submit.prevent="write">
      <p class="text-muted">
        {{
          say`Registration, inspector, treatment: whatever your plant-health service asks for on the way. They stand on every record, with each lot traced back to its seed.`
        }}
      </p>
      <div v-for="(field, i) in fields" :key="i" class="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
        <FormField
          v-model="field.name"
          :label="say`Line ${i + 1}`"
          :fault="wrong(`papers.fields.${i}.name`)"
        />
        <FormField v-model="field.value" :label="say`says`" :fault="wrong(`papers.fields.${i}.value`)" />
        <button
          class="quiet pb-2"
          type="button"
          :aria-label="say`Take line ${i + 1} out`"
          @click="fields.splice(i, 1)"
        >
          <X :size="20" aria-hidden="true" />
        </button>
      </div>
      <button
        v-if="fields.length < 20"
        class="act"
        type="button"
        @click="fields.push({ name: '', value: '' })"
      >
        <Plus :size="18" aria-hidden="true" /> {{ say`Another line` }}
      </button>
      <SheetActs :act="say`Keep them`" :busy="busy" :sentence="sentence()" @save="write" />
    </form>
    <p v-else class="text-muted" role="status">{{ say`Fetching them …` }}</p>
  </FormDialog>
</template>
