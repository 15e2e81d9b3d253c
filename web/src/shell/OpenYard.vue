<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, onMounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import { sentenceOf } from '../api/problem';
import NoAnswer from '../parts/NoAnswer.vue';
import { useNursery } from '../stores/nursery';
import AppShell from './AppShell.vue';

/** The yard of whoever is signed in: its rows, and the page they came for, before the shell that shows them. */
const nursery = useNursery();
const router = useRouter();
const trouble = ref<string | null>(null);
const arrived = ref(false);
const isOpen = computed(() => arrived.value && nursery.catalogue !== null);
async function open() {
  trouble.value = null;
  try {
    await Promise.all([router.isReady(), nursery.catalogue ?? nursery.load()]);
    arrived.value = true;
  } catch (error) {
    trouble.value = sentenceOf(error);
  }
}
onMounted(open);
</script>

<template>
  <NoAnswer v-if="trouble" :trouble="trouble" @again="open" />
  <AppShell v-else-if="isOpen" />
  <p v-else class="grid h-full place-items-center" role="status">{{ say`Opening the yard …` }}</p>
</template>
