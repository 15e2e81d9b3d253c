<script setup lang="ts">
import { say } from '@kauri/core';
import { onMounted, useTemplateRef } from 'vue';
import SignInForm from '../door/SignInForm.vue';
import { useSession } from '../stores/session';

/*
 * Stands over whatever is open, another sheet too. A dialog of the browser's own, beside the application's
 * root: the sheet beneath neither takes its clicks for clicks outside itself nor closes.
 */
const session = useSession();
const dialog = useTemplateRef('dialog');
onMounted(() => dialog.value!.showModal());
</script>

<template>
  <Teleport to="body">
    <dialog
      ref="dialog"
      class="border-rule bg-paper text-ink m-auto w-full max-w-sm rounded-lg border p-6 backdrop:bg-black/60"
      aria-labelledby="sign-in-again"
      @cancel.prevent
    >
      <h2 id="sign-in-again" class="mb-1 text-xl">{{ say`Sign in again` }}</h2>
      <p class="text-muted mb-4">
        {{
          say`Your session has ended. What you typed is kept and will be saved once you are back. Somebody else who signs in here begins at Today, and sees none of it.`
        }}
      </p>
      <SignInForm :email="session.me?.person.email" />
    </dialog>
  </Teleport>
</template>
