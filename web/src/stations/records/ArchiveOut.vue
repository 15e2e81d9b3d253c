<script setup lang="ts">
import { say } from '@kauri/core';
import { Download } from 'lucide-vue-next';
import { addressOf } from '../../api/client';
import { useNursery } from '../../stores/nursery';

/** The whole nursery as one file. */
const nursery = useNursery();
</script>

<template>
  <section class="panel p-4" aria-labelledby="take-out">
    <h2 id="take-out" class="mb-1 text-xl">{{ say`The whole nursery, out` }}</h2>
    <p class="mb-3">
      {{
        say`One file with every table as CSV, the plan as GeoJSON, the photos, and a list of digests. It holds no passwords or e-mail addresses of your people. Another Kauri can bring it in, to the last tree; so it is a copy to keep elsewhere, too.`
      }}
    </p>
    <a class="act inline-flex" :href="addressOf('takeOut', { params: nursery.params })" download>
      <Download :size="18" aria-hidden="true" /> {{ say`Take ${nursery.catalogue!.nursery.name} out ` }}
    </a>
  </section>
</template>
