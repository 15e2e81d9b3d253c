<script setup lang="ts">
import { RouterLink, type RouteLocationRaw } from 'vue-router';

/** A row of the list at the left: leads to a thing, and shows whether it is the one at the right. */
defineProps<{ to: RouteLocationRaw; chosen: boolean }>();
</script>

<template>
  <li>
    <RouterLink
      :to="to"
      class="block border-l-4 px-3 py-2"
      :class="chosen ? 'border-ink bg-card' : 'hover:bg-card border-transparent'"
      :aria-current="chosen ? 'true' : undefined"
    >
      <slot />
    </RouterLink>
  </li>
</template>
