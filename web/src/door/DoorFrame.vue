<script setup lang="ts">
import { say, speech } from '@kauri/core';
import { chooseLanguage, languages } from '../language';
</script>

<template>
  <main class="grid min-h-full place-items-center p-4">
    <div class="grid w-full max-w-4xl items-center gap-8 md:grid-cols-[1fr_26rem]">
      <svg class="mx-auto hidden w-72 md:block" viewBox="0 0 200 240" aria-hidden="true">
        <g fill="none" stroke-linecap="round">
          <path d="M100 118V40" stroke="var(--leaf)" stroke-width="5" />
          <g fill="var(--leaf-mid)" stroke="var(--leaf)" stroke-width="1.5">
            <path
              d="M100 96c-22-2-30-14-32-24 20 0 30 10 32 24zM100 82c22-2 30-14 32-24-20 0-30 10-32 24zM100 62c-18-2-25-12-26-20 16 0 24 8 26 20zM100 50c18-2 25-12 26-20-16 0-24 8-26 20zM100 42c-6-10-4-22 0-28 4 6 6 18 0 28z"
            />
          </g>
          <path
            d="M50 118l14 96h72l14-96z"
            fill="var(--soil)"
            stroke="var(--ink)"
            stroke-width="2.5"
            stroke-dasharray="9 6"
          />
          <path d="M8 118h184" stroke="var(--ink)" stroke-width="3" />
          <g stroke="var(--root)" stroke-width="3">
            <path
              d="M100 120v86M100 126c-14 12-28 18-40 16M100 126c14 12 28 18 40 16M100 138c-10 24-24 34-34 38M100 138c10 24 24 34 34 38M100 150c-6 30-14 44-22 56M100 150c6 30 14 44 22 56"
            />
          </g>
        </g>
      </svg>
      <div class="panel p-6">
        <div class="mb-4 flex items-center gap-3">
          <p class="font-head mr-auto text-xl">Kauri</p>
          <!-- The browser’s own: nobody on a slow line waits at the door for the parts of the house. -->
          <select
            class="field !w-auto"
            :aria-label="say`Language`"
            :value="speech().tag"
            @change="chooseLanguage(($event.target as HTMLSelectElement).value)"
          >
            <option v-for="{ value, words } in languages" :key="value" :value="value" :lang="value">
              {{ words }}
            </option>
          </select>
        </div>
        <slot />
      </div>
    </div>
  </main>
</template>
