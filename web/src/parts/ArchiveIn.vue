<script setup lang="ts">
import { say } from '@kauri/core';
import type { BroughtIn } from '@kauri/core/contract';
import { ref, useTemplateRef } from 'vue';
import { sendArchive } from '../api/client';
import { sentenceOf } from '../api/problem';
import { count } from '../words/numbers';
import { useSession } from '../stores/session';

/** Brings a nursery in from its archive; whoever does becomes its owner. */
const session = useSession();
const file = useTemplateRef('file');
const share = ref<number | null>(null);
const fault = ref<string | null>(null);
const brought = ref<BroughtIn | null>(null);
let stop = new AbortController();

async function bring() {
  const chosen = file.value!.files?.[0];
  if (!chosen) return;
  stop = new AbortController();
  [fault.value, share.value] = [null, 0];
  try {
    brought.value = await sendArchive(chosen, stop.signal, (done) => (share.value = done));
  } catch (error) {
    fault.value = stop.signal.aborted ? say`Stopped. Nothing was taken.` : sentenceOf(error);
  } finally {
    share.value = null;
    if (file.value) file.value.value = '';
  }
}
</script>

<template>
  <div>
    <template v-if="brought">
      <p class="mb-3" role="status">
        {{
          say`${brought.nurseryName} is here: ${count(brought.records)} records, ${count(brought.photos)} photos, and every account adds up to what it did: ${count(brought.trees)} seeds and trees in all, those that are gone among them.`
        }}
      </p>
      <button class="act-main" type="button" @click="session.chooseNursery(brought.nurseryId)">
        {{ say`Go to ${brought.nurseryName}` }}
      </button>
    </template>
    <template v-else-if="share !== null">
      <p class="mb-3" role="status">
        {{
          share < 1 ? say`Sending: ${Math.floor(share * 100)} %` : say`Sent. It is being read and checked …`
        }}
      </p>
      <button class="act" type="button" @click="stop.abort()">{{ say`Stop` }}</button>
    </template>
    <label v-else class="block">
      <span class="mb-1 block font-bold">{{ say`Archive` }}</span>
      <input ref="file" class="field" type="file" accept=".zip,application/zip" @change="bring" />
    </label>
    <p v-if="fault" class="text-wrong mt-2 font-bold" role="alert">{{ fault }}</p>
  </div>
</template>
