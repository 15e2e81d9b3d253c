<script setup lang="ts">
import { say } from '@kauri/core';
import { useId } from 'vue';

/** Rows copied from a spreadsheet or written by hand, headings first. */
const rows = defineModel<string>({ required: true });
const id = useId();
</script>

<template>
  <div>
    <label class="block font-bold" :for="id">{{ say`Or lines pasted, with their headings` }}</label>
    <textarea :id="id" v-model="rows" class="field h-36 font-mono text-sm" spellcheck="false" />
  </div>
</template>
