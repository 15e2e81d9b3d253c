<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue';
import { say } from '@kauri/core';
import { CircleHelp } from 'lucide-vue-next';
import { RouterLink } from 'vue-router';
import IdeaPicture from './IdeaPicture.vue';
import { ideas, type IdeaKey } from './ideas';

/** A question mark beside an idea: two sentences and a picture, and the way to all of them. */
defineProps<{ idea: IdeaKey }>();
</script>

<template>
  <Popover class="relative inline-block print:hidden">
    <PopoverButton
      class="text-muted inline-grid size-11 cursor-pointer place-items-center"
      :aria-label="say`What is this: ${ideas[idea].name}`"
    >
      <CircleHelp :size="18" aria-hidden="true" />
    </PopoverButton>
    <PopoverPanel
      v-slot="{ close }"
      class="drop desk:left-0 desk:w-72 space-y-2 p-3 text-[0.95rem] font-normal"
      data-testid="idea"
    >
      <p class="font-bold">{{ ideas[idea].name }}</p>
      <IdeaPicture :idea="idea" />
      <p>{{ ideas[idea].is }}</p>
      <p>{{ ideas[idea].use }}</p>
      <RouterLink class="quiet" :to="{ name: 'words', hash: `#${idea}` }" @click="close()">{{
        say`All ideas and words`
      }}</RouterLink>
    </PopoverPanel>
  </Popover>
</template>
