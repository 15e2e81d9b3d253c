<script setup lang="ts">
import { say } from '@kauri/core';
import { ref } from 'vue';
import { sentenceOf } from '../../api/problem';
import FormDialog from '../../parts/FormDialog.vue';
import { useTodayBook } from '../../stores/todayBook';

/** A private calendar address for one person: made, shown once, renewed or ended. */
const emit = defineEmits<{ close: [] }>();
const kept = useTodayBook();
const address = ref<string | null>(null);
const fault = ref<string | null>(null);
async function make() {
  try {
    address.value = `${location.origin}${await kept.makeCalendar()}`;
    fault.value = null;
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
async function end() {
  try {
    await kept.dropCalendar();
    address.value = null;
    fault.value = null;
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
const copied = ref(false);
async function copy() {
  await navigator.clipboard?.writeText(address.value!).catch(() => undefined);
  copied.value = true;
}
</script>

<template>
  <FormDialog
    :title="say`Today in your calendar`"
    :subtitle="say`Any calendar that can follow an address shows what is due, and keeps it up to date.`"
    @close="emit('close')"
  >
    <div class="space-y-3">
      <template v-if="address">
        <label for="calendar-address" class="block font-bold">{{ say`Your address` }}</label>
        <input
          id="calendar-address"
          class="field"
          readonly
          :value="address"
          @focus="($event.target as HTMLInputElement).select()"
        />
        <p>
          {{
            say`Whoever has it can read what is due here, without signing in. It is shown this once; make another if it is lost, and the old one ends.`
          }}
        </p>
        <button class="act" type="button" @click="copy">{{ copied ? say`Copied` : say`Copy` }}</button>
      </template>
      <p v-else-if="kept.book?.calendar">
        {{ say`You have an address already. It cannot be shown again; a new one ends the old.` }}
      </p>
      <p v-else>{{ say`You have no address yet. It is yours alone, and tells nothing but what is due.` }}</p>
      <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
      <div class="flex flex-wrap gap-2">
        <button v-if="!address" class="act-main" type="button" @click="make">
          {{ kept.book?.calendar ? say`Make a new address` : say`Make an address` }}
        </button>
        <button v-if="kept.book?.calendar" class="act" type="button" @click="end">{{ say`End it` }}</button>
      </div>
    </div>
  </FormDialog>
</template>
