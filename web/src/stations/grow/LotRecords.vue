<script setup lang="ts">
import { dayOf, say, inSentence } from '@kauri/core';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import type { ShownLot } from '../../parts/useLots';
import { usePhotos } from '../../parts/usePhotos';
import { useTakeBack } from '../../parts/useTakeBack';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { dateWords } from '../../words/dates';
import { recordLines, type RecordLine } from './recordLines';

const props = defineProps<{ lot: ShownLot }>();
const nursery = useNursery();
const season = useSeason();
const session = useSession();
const messages = useMessages();
const preferences = usePreferences();

const lines = computed(() =>
  recordLines(nursery.evidence.get(props.lot.row.id)!, preferences.show).filter(
    (line) => dayOf(line.on) <= season.view,
  ),
);

const { photoAt } = usePhotos();
const { takeBack } = useTakeBack();

async function undo(line: RecordLine) {
  try {
    const said = say`${line.what} of ${dateWords(line.on)}`;
    await takeBack(props.lot.row.id, line.entry, said);
    messages.say(say`${said} taken back.`);
  } catch (error) {
    messages.say(sentenceOf(error));
  }
}
</script>

<template>
  <table v-if="lines.length" class="w-full" data-testid="records">
    <thead class="sr-only">
      <tr>
        <th scope="col">{{ say`Day` }}</th>
        <th scope="col">{{ say`Record` }}</th>
        <th scope="col">{{ say`Figures` }}</th>
        <th scope="col">{{ say`Undo` }}</th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="line in lines"
        :key="line.entry"
        class="border-rule border-t max-sm:grid max-sm:grid-cols-[auto_1fr_auto] max-sm:items-center"
      >
        <td class="py-1 pr-4 whitespace-nowrap">{{ dateWords(line.on) }}</td>
        <td class="pr-4 font-bold">{{ line.what }}</td>
        <td class="max-sm:order-last max-sm:col-span-3 max-sm:pb-2 sm:w-full">
          {{ line.words }} <span class="text-muted">{{ line.note }}</span>
          <span v-if="line.photos.length" class="mt-1 flex flex-wrap gap-2">
            <a
              v-for="(photo, i) in line.photos"
              :key="photo"
              :href="photoAt(photo)"
              target="_blank"
              rel="noopener"
              ><img
                class="border-rule size-16 rounded-md border object-cover"
                :src="photoAt(photo)"
                :alt="say`Photo ${i + 1} of ${inSentence(line.what)}, ${dateWords(line.on)}`"
                loading="lazy"
            /></a>
          </span>
        </td>
        <td>
          <RouterLink v-if="line.isSending" class="quiet whitespace-nowrap" :to="{ name: 'lift-lying' }">
            {{ say` What was sent` }}
          </RouterLink>
          <button
            v-else-if="session.may('crew')"
            class="quiet whitespace-nowrap"
            type="button"
            @click="undo(line)"
          >
            {{ say`Take back` }}
          </button>
        </td>
      </tr>
    </tbody>
  </table>
  <p v-else class="text-muted py-2">
    {{ say`No records yet at this date. Count what comes up first; measure and pull plugs as it grows.` }}
  </p>
</template>
