<script setup lang="ts">
import { MenuItem } from '@headlessui/vue';

/** One act in the menu at the top. */
defineOptions({ inheritAttrs: false });
const emit = defineEmits<{ choose: [] }>();
</script>

<template>
  <MenuItem v-slot="{ active }">
    <button
      v-bind="$attrs"
      class="flex min-h-11 w-full cursor-pointer items-center gap-2 rounded px-3 text-left"
      :class="{ 'bg-leaf-pale': active }"
      type="button"
      @click="emit('choose')"
    >
      <slot />
    </button>
  </MenuItem>
</template>
