<script setup lang="ts">
import { roleWords } from '../words/people';
import { say, speech } from '@kauri/core';
import { Menu, MenuButton, MenuItems } from '@headlessui/vue';
import {
  CircleHelp,
  Check,
  ChevronDown,
  ChevronUp,
  GraduationCap,
  Keyboard,
  Moon,
  RefreshCw,
  ScanQrCode,
  Search,
  Sun,
  UserRound,
  UsersRound,
} from 'lucide-vue-next';
import { computed, nextTick, ref } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { useNursery } from '../stores/nursery';
import { usePreferences } from '../stores/preferences';
import { useSeason } from '../stores/season';
import { chooseLanguage, languages } from '../language';
import { useSession } from '../stores/session';
import { longDate, shortDate, yearOf } from '../words/dates';
import FindBox from './FindBox.vue';
import MenuRow from '../parts/MenuRow.vue';
import UnsentChip from './UnsentChip.vue';
import { takeNewBuild } from './newBuild';

defineProps<{ ribbon: boolean }>();
const emit = defineEmits<{ keys: []; ribbon: []; unsent: []; leave: [where: 'here' | 'everywhere'] }>();
const nursery = useNursery();
const preferences = usePreferences();
const season = useSeason();
const session = useSession();
const spoken = speech().tag;
const router = useRouter();

const home = computed(() => nursery.catalogue!.nursery);
const dateWords = computed(() => longDate(season.view, yearOf(season.today)));
const others = computed(() => session.real.filter((m) => m.nurseryId !== session.nurseryId));
/** In the hand, the find box lies over the line until it is left. */
const finding = ref(false);
async function find(): Promise<void> {
  finding.value = true;
  await nextTick();
  document.getElementById('find')?.focus();
}
defineExpose({ find });
</script>

<template>
  <header
    class="print:hidden border-rule hand:flex-nowrap hand:gap-x-1.5 hand:px-2 hand:py-1 relative flex flex-wrap items-center gap-x-3 gap-y-1.5 border-b px-4 py-1.5"
  >
    <div class="hand:sr-only mr-auto min-w-0">
      <p class="font-head truncate text-lg leading-tight font-semibold">{{ home.name }}</p>
      <p class="text-muted text-sm leading-tight">
        {{ home.placeName }} · {{ preferences.show(home.elevationM, 'site', 0) }}
      </p>
    </div>
    <button
      v-if="session.membership!.practice"
      class="act border-dashed hand:order-2 hand:px-2"
      type="button"
      data-testid="leave-practice"
      @click="session.real.length ? session.leavePractice() : router.push({ name: 'practice' })"
    >
      <GraduationCap :size="18" aria-hidden="true" />
      <span
        >{{ say`Practice`
        }}<span class="text-muted hand:sr-only font-normal">{{ say`, leave it` }}</span></span
      >
    </button>
    <button v-if="takeNewBuild" class="act hand:order-2" type="button" @click="takeNewBuild()">
      <RefreshCw :size="18" aria-hidden="true" />
      <span class="hand:sr-only">{{ say`Take the new Kauri` }}</span>
    </button>
    <UnsentChip class="hand:order-2 hand:mr-auto" @open="emit('unsent')" />
    <FindBox
      class="desk:w-64 hand:absolute hand:inset-x-2 hand:top-1 hand:z-20"
      :class="finding ? '' : 'hand:hidden'"
      @focusout="finding = false"
    />
    <button
      class="act desk:hidden order-1 px-3"
      :class="season.isToday ? '' : 'border-dashed'"
      type="button"
      :aria-expanded="ribbon"
      data-testid="ribbon-fold"
      @click="emit('ribbon')"
    >
      {{ shortDate(season.view) }}
      <component :is="ribbon ? ChevronDown : ChevronUp" :size="16" aria-hidden="true" />
      <span class="sr-only">{{ ribbon ? say`Fold the season away` : say`Open the season` }}</span>
    </button>
    <button
      class="act hand:order-1"
      :class="season.isToday ? 'hand:hidden' : 'border-dashed'"
      type="button"
      :title="season.isToday ? say`Today` : say`Back to today`"
      data-testid="date"
      @click="season.look(season.today)"
    >
      <span class="hand:hidden">{{ dateWords }}</span>
      <span class="text-muted font-normal">{{ season.isToday ? say`today` : say`back to today` }}</span>
      <span class="key hand:hidden" aria-hidden="true">.</span>
    </button>
    <button
      class="act hand:hidden"
      type="button"
      :aria-label="say`Units: ${preferences.units === 'metric' ? say`metric` : 'US'}. Switch`"
      @click="preferences.switchUnits"
    >
      {{ preferences.units === 'metric' ? say`cm · L · °C` : say`in · gal · °F` }}
    </button>
    <button
      class="act hand:hidden px-3"
      type="button"
      :aria-label="preferences.theme === 'light' ? say`Dark scheme` : say`Light scheme`"
      @click="preferences.switchTheme"
    >
      <component :is="preferences.theme === 'light' ? Moon : Sun" :size="20" aria-hidden="true" />
    </button>
    <RouterLink
      class="act desk:hidden order-3 ml-auto px-3"
      :to="{ name: 'scan' }"
      :aria-label="say`Read a tag`"
    >
      <ScanQrCode :size="20" aria-hidden="true" />
    </RouterLink>
    <button class="act desk:hidden order-3 px-3" type="button" :aria-label="say`Find`" @click="find">
      <Search :size="20" aria-hidden="true" />
    </button>
    <Menu as="div" class="hand:order-4 relative">
      <MenuButton class="act hand:px-3">
        <span class="hand:sr-only"
          >{{ session.me!.person.name }}, {{ roleWords[session.membership!.role] }}</span
        >
        <UserRound class="desk:hidden" :size="20" aria-hidden="true" />
        <ChevronDown class="hand:hidden" :size="16" aria-hidden="true" />
      </MenuButton>
      <MenuItems class="panel absolute right-0 z-30 mt-1 max-h-[80vh] w-64 overflow-y-auto p-1 shadow-lg">
        <p class="desk:hidden text-muted px-3 py-2 text-sm">
          {{ session.me!.person.name }}, {{ roleWords[session.membership!.role] }}, {{ home.name }}
        </p>
        <MenuRow @choose="emit('keys')"
          ><Keyboard :size="18" aria-hidden="true" /> {{ say`Keys` }}
          <span class="key ml-auto">?</span></MenuRow
        >
        <MenuRow @choose="router.push({ name: 'scan' })">
          <ScanQrCode :size="18" aria-hidden="true" /> {{ say`Read a tag` }}
          <span class="key ml-auto">Q</span>
        </MenuRow>
        <MenuRow @choose="router.push({ name: 'words' })">
          <CircleHelp :size="18" aria-hidden="true" /> {{ say`Ideas and words` }}
        </MenuRow>
        <MenuRow @choose="router.push({ name: 'records' })">{{ say`Records in and out` }}</MenuRow>
        <MenuRow v-if="session.may('owner')" @choose="router.push({ name: 'people' })">
          <UsersRound :size="18" aria-hidden="true" /> {{ say`People of ${home.name}` }}
        </MenuRow>
        <MenuRow @choose="router.push({ name: 'practice' })">
          <GraduationCap :size="18" aria-hidden="true" /> {{ say`A nursery to practise in` }}
        </MenuRow>
        <MenuRow @choose="router.push({ name: 'account' })">
          <UserRound :size="18" aria-hidden="true" /> {{ say`Your account` }}
        </MenuRow>
        <MenuRow class="desk:hidden" @choose="preferences.switchUnits">
          {{ preferences.units === 'metric' ? say`US units` : say`Metric units` }}
        </MenuRow>
        <MenuRow class="desk:hidden" @choose="preferences.switchTheme">
          {{ preferences.theme === 'light' ? say`Dark scheme` : say`Light scheme` }}
        </MenuRow>
        <fieldset class="border-rule my-1 border-y py-1">
          <legend class="text-muted px-3 text-sm">{{ say`Language` }}</legend>
          <MenuRow
            v-for="{ value, words } in languages"
            :key="value"
            :lang="value"
            @choose="chooseLanguage(value)"
          >
            <Check :class="value === spoken ? '' : 'invisible'" :size="18" aria-hidden="true" />
            {{ words }}<span v-if="value === spoken" class="sr-only"> ✓</span>
          </MenuRow>
        </fieldset>
        <MenuRow v-for="m in others" :key="m.nurseryId" @choose="session.chooseNursery(m.nurseryId)">
          {{ say`Go to ${m.nurseryName}` }}
        </MenuRow>
        <MenuRow @choose="emit('leave', 'here')">{{ say`Sign out` }}</MenuRow>
        <MenuRow @choose="emit('leave', 'everywhere')">{{ say`Sign out everywhere` }}</MenuRow>
      </MenuItems>
    </Menu>
  </header>
</template>
