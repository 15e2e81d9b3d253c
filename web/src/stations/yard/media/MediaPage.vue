<script setup lang="ts">
import { say, materialWords } from '@kauri/core';
import { useSessionStorage } from '@vueuse/core';
import { computed } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { keptKey } from '../../../stores/kept';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSession } from '../../../stores/session';
import { useYard } from '../../../stores/yard';
import { percent } from '../../../words/numbers';
import { money } from '../../../words/money';
import BatchPanel from './BatchPanel.vue';
import FeedPanel from './FeedPanel.vue';
import HeapPanel from './HeapPanel.vue';
import MediumDialog from './MediumDialog.vue';

/** The nursery’s media: recipes, what a batch takes, what lies on the heap, and which feed lasts a season. */
const nursery = useNursery();
const session = useSession();
const yard = useYard();
const route = useRoute();
const router = useRouter();
const { show, shown, unit } = usePreferences();
const may = computed(() => session.may('grower'));
const media = computed(() => nursery.catalogue!.media);
const currency = computed(() => nursery.catalogue!.prices.list.currency);

const chosenId = useSessionStorage(keptKey('media.chosen'), '');
const chosen = computed(() => media.value.find((m) => m.id === chosenId.value) ?? media.value[0]);
const editing = computed(() => media.value.find((m) => m.id === route.query.edit));
const close = () => void router.replace({ query: {} });
</script>

<template>
  <div class="grid min-h-full lg:grid-cols-[24rem_1fr]">
    <div class="border-rule p-4 lg:border-r">
      <div class="mb-1 flex items-center justify-between">
        <h2 class="text-lg">{{ say`Media` }}</h2>
        <RouterLink v-if="may" class="act" :to="{ query: { add: '1' } }">{{ say`Add a recipe` }}</RouterLink>
      </div>
      <ul class="divide-rule divide-y" data-testid="media">
        <li v-for="m in media" :key="m.id">
          <button
            class="block w-full py-2 text-left"
            type="button"
            :aria-current="m.id === chosen.id ? 'true' : undefined"
            @click="chosenId = m.id"
          >
            <span class="flex justify-between gap-2">
              <span :class="m.id === chosen.id ? 'font-bold' : ''">{{ m.values.name }}</span>
              <b>{{ show(yard.litresOf(m.id), 'volume') }}</b>
            </span>
            <span class="text-muted block text-sm">
              {{
                say`${show(m.values.wetKgPerM3, 'bulk')} watered, air ${percent(m.values.airShare)}, settles ${percent(m.values.settling)}`
              }}<template v-if="m.values.ph">{{ say`, pH ${m.values.ph}` }}</template
              ><template v-if="m.values.costPerM3 !== undefined"
                >, {{ money(shown(m.values.costPerM3, 'perVolume'), currency)
                }}{{ unit('perVolume') }}</template
              >
            </span>
          </button>
        </li>
      </ul>
    </div>
    <div class="space-y-5 p-4">
      <div class="flex flex-wrap items-baseline gap-3">
        <h1 class="text-2xl">{{ chosen.values.name }}</h1>
        <RouterLink v-if="may" class="quiet" :to="{ query: { edit: chosen.id } }">{{
          say`Recipe`
        }}</RouterLink>
      </div>
      <p v-if="chosen.values.parts">
        {{
          say`${chosen.values.parts.map((p) => `${p.parts} ${materialWords[p.material] ?? p.material}`).join(' : ')}, by volume. ${chosen.values.note}`
        }}
      </p>
      <div class="grid gap-5 xl:grid-cols-2">
        <BatchPanel :medium="chosen" />
        <HeapPanel :key="chosen.id" :medium="chosen" />
      </div>
      <FeedPanel />
    </div>
    <MediumDialog v-if="may && route.query.add" @close="close" />
    <MediumDialog v-if="may && editing" :key="editing.id" :medium="editing" @close="close" />
  </div>
</template>
