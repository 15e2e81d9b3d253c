<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue';
import SignInForm from '../door/SignInForm.vue';
import { useSession } from '../stores/session';

const session = useSession();
</script>

<template>
  <Dialog :open="true" class="relative z-50" @close="() => undefined">
    <div class="fixed inset-0 bg-black/60" aria-hidden="true" />
    <div class="fixed inset-0 grid place-items-center p-4">
      <DialogPanel class="border-rule bg-paper text-ink w-full max-w-sm rounded-lg border p-6">
        <DialogTitle as="h2" class="mb-1 text-xl">Sign in again</DialogTitle>
        <p class="text-muted mb-4">
          Your session has ended. What you typed is kept and will be saved once you are back.
        </p>
        <SignInForm :email="session.me?.person.email" />
      </DialogPanel>
    </div>
  </Dialog>
</template>
