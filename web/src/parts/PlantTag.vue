<script setup lang="ts">
/** The decision, written on a plant tag. Yellow only where it is to be acted on now. */
defineProps<{ headline: string; detail: string; urgent: boolean }>();
</script>

<template>
  <div
    class="relative flex-1 rounded-r-md border py-3 pr-4 pl-12 [clip-path:polygon(22px_0,100%_0,100%_100%,22px_100%,0_74%,0_26%)]"
    :class="urgent ? 'border-tag bg-tag text-tag-ink' : 'border-rule bg-card text-ink'"
    data-testid="decision"
  >
    <span
      class="bg-paper absolute top-1/2 left-4 size-3.5 -translate-y-1/2 rounded-full border border-current"
      aria-hidden="true"
    />
    <p class="font-head text-xl leading-tight font-semibold">{{ headline }}</p>
    <p class="mt-1">{{ detail }}</p>
  </div>
</template>
