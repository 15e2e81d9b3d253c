<script setup lang="ts">
import { Menu, MenuButton, MenuItems } from '@headlessui/vue';
import { ChevronDown, Keyboard, Moon, Sun } from 'lucide-vue-next';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { useNursery } from '../stores/nursery';
import { usePreferences } from '../stores/preferences';
import { useSeason } from '../stores/season';
import { useSession } from '../stores/session';
import { longDate, yearOf } from '../words/dates';
import FindBox from './FindBox.vue';
import MenuRow from './MenuRow.vue';
import UnsentChip from './UnsentChip.vue';

const emit = defineEmits<{ keys: []; unsent: []; leave: [where: 'here' | 'everywhere'] }>();
const nursery = useNursery();
const preferences = usePreferences();
const season = useSeason();
const session = useSession();
const router = useRouter();

const home = computed(() => nursery.catalogue!.nursery);
const dateWords = computed(() => longDate(season.view, yearOf(season.today)));
const others = computed(() => session.me!.memberships.filter((m) => m.nurseryId !== session.nurseryId));
</script>

<template>
  <header class="border-rule flex flex-wrap items-center gap-x-3 gap-y-1.5 border-b px-4 py-1.5">
    <div class="mr-auto min-w-0 max-md:order-1">
      <p class="font-head truncate text-lg leading-tight font-semibold">{{ home.name }}</p>
      <p class="text-muted text-sm leading-tight">
        {{ home.placeName }} · {{ preferences.show(home.elevationM, 'site', 0) }}
      </p>
    </div>
    <UnsentChip class="max-md:order-3" @open="emit('unsent')" />
    <FindBox class="min-w-40 flex-1 max-md:order-4 md:w-64 md:flex-none" />
    <button
      class="act max-md:order-3"
      :class="season.isToday ? '' : 'border-dashed'"
      type="button"
      :title="season.isToday ? 'Today' : 'Back to today'"
      data-testid="date"
      @click="season.look(season.today)"
    >
      {{ dateWords }}
      <span class="text-muted font-normal">{{ season.isToday ? 'today' : 'back to today' }}</span>
      <span class="key max-md:hidden" aria-hidden="true">.</span>
    </button>
    <button
      class="act max-md:hidden"
      type="button"
      :aria-label="`Units: ${preferences.units === 'metric' ? 'metric' : 'US'}. Switch`"
      @click="preferences.switchUnits"
    >
      {{ preferences.units === 'metric' ? 'cm · L · °C' : 'in · gal · °F' }}
    </button>
    <button
      class="act px-2.5 max-md:hidden"
      type="button"
      :aria-label="preferences.theme === 'light' ? 'Dark scheme' : 'Light scheme'"
      @click="preferences.switchTheme"
    >
      <component :is="preferences.theme === 'light' ? Moon : Sun" :size="20" aria-hidden="true" />
    </button>
    <Menu as="div" class="relative max-md:order-2">
      <MenuButton class="act">
        {{ session.me!.person.name }}, {{ session.membership?.role }}
        <ChevronDown :size="16" aria-hidden="true" />
      </MenuButton>
      <MenuItems class="panel absolute right-0 z-30 mt-1 w-64 p-1 shadow-lg">
        <MenuRow @choose="emit('keys')"
          ><Keyboard :size="18" aria-hidden="true" /> Keys <span class="key ml-auto">?</span></MenuRow
        >
        <MenuRow @choose="router.push({ name: 'records' })">Records in and out</MenuRow>
        <MenuRow class="md:hidden" @choose="preferences.switchUnits">
          {{ preferences.units === 'metric' ? 'US units' : 'Metric units' }}
        </MenuRow>
        <MenuRow class="md:hidden" @choose="preferences.switchTheme">
          {{ preferences.theme === 'light' ? 'Dark scheme' : 'Light scheme' }}
        </MenuRow>
        <MenuRow v-for="m in others" :key="m.nurseryId" @choose="session.chooseNursery(m.nurseryId)">
          Go to {{ m.nurseryName }}
        </MenuRow>
        <MenuRow @choose="emit('leave', 'here')">Sign out</MenuRow>
        <MenuRow @choose="emit('leave', 'everywhere')">Sign out everywhere</MenuRow>
      </MenuItems>
    </Menu>
  </header>
</template>
