<script setup lang="ts">
import { roleWords } from '../words/people';
import { say } from '@kauri/core';
import { useTemplateRef } from 'vue';
import { useSession } from '../stores/session';
import DoorFrame from './DoorFrame.vue';
import SignInForm from './SignInForm.vue';

const session = useSession();
const form = useTemplateRef('form');
</script>

<template>
  <DoorFrame>
    <h1 class="mb-1 text-2xl">{{ say`Sign in` }}</h1>
    <p class="text-muted mb-4">
      {{ say`Kauri keeps count of young trees, and says when each lot should move.` }}
    </p>
    <SignInForm ref="form" />
    <section
      v-if="session.door?.demoPeople.length"
      class="border-rule mt-6 border-t pt-4"
      aria-labelledby="demo"
    >
      <h2 id="demo" class="mb-2 text-lg">{{ say`Or look round the demo as` }}</h2>
      <ul class="space-y-2">
        <li v-for="p in session.door.demoPeople" :key="p.email">
          <button class="act w-full justify-between text-left" type="button" @click="form?.signIn(p)">
            <span>{{ p.name }}, {{ roleWords[p.role] }}</span>
            <span class="text-muted font-normal">{{ p.nursery }}</span>
          </button>
        </li>
      </ul>
    </section>
  </DoorFrame>
</template>
