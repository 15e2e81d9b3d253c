<script setup lang="ts">
/** What goes here, why, and one button. */
defineProps<{ title: string }>();
</script>

<template>
  <div class="mx-auto max-w-md px-6 py-12 text-center">
    <h2 class="mb-2 text-xl">{{ title }}</h2>
    <div class="text-muted mb-4"><slot /></div>
    <slot name="action" />
  </div>
</template>
