<script setup lang="ts">
import { say } from '@kauri/core';
import QRCode from 'qrcode';
import { ref, watchEffect } from 'vue';

/** A link shown once, to be given by hand: copied, or read by a phone held up to the screen. */
const props = defineProps<{ link: string; label: string }>();
const code = ref<string | null>(null);
watchEffect(async () => {
  const svg = await QRCode.toString(props.link, { type: 'svg', margin: 2, errorCorrectionLevel: 'M' });
  code.value = `data:image/svg+xml;utf8,${encodeURIComponent(svg)}`;
});
const copied = ref(false);
async function copy() {
  await navigator.clipboard?.writeText(props.link).catch(() => undefined);
  copied.value = true;
}
</script>

<template>
  <div class="flex flex-wrap items-start gap-4">
    <div class="min-w-0 grow basis-64 space-y-3">
      <label class="block">
        <span class="mb-1 block font-bold">{{ label }}</span>
        <input class="field" readonly :value="link" @focus="($event.target as HTMLInputElement).select()" />
      </label>
      <slot />
      <button class="act" type="button" @click="copy">{{ copied ? say`Copied` : say`Copy` }}</button>
    </div>
    <img
      v-if="code"
      class="size-40 rounded bg-white"
      :src="code"
      :alt="say`The same link, for a phone’s camera`"
    />
  </div>
</template>
