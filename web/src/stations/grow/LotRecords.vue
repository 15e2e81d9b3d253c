<script setup lang="ts">
import { dayOf, plugScores, summarise } from '@kauri/core';
import { v7 as newId } from 'uuid';
import { computed } from 'vue';
import { call } from '../../api/client';
import { sentenceOf } from '../../api/problem';
import type { ShownLot } from '../../parts/useLots';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { dateWords } from '../../words/dates';
import { count, several } from '../../words/numbers';

const props = defineProps<{ lot: ShownLot }>();
const nursery = useNursery();
const season = useSeason();
const session = useSession();
const messages = useMessages();
const preferences = usePreferences();

interface Line {
  entry: string;
  on: string;
  what: string;
  words: string;
  note: string;
}
const lines = computed(() => {
  const evidence = nursery.evidence.get(props.lot.row.id)!;
  const reversed = new Set(evidence.movements.filter((m) => m.note === 'taken back').map((m) => m.entry));
  const found = new Map<string, Line>();
  const add = (entry: string, on: string, what: string, words: string, note: string) => {
    const line = found.get(entry);
    if (line) line.words += `; ${words}`;
    else found.set(entry, { entry, on, what, words, note });
  };
  for (const c of evidence.counts) add(c.entry, c.on, 'Count', `${count(c.count)} standing`, c.note);
  for (const s of evidence.sizes) {
    const quantity = s.what === 'height' ? 'height' : 'diameter';
    add(s.entry, s.on, 'Measure', `${s.what === 'height' ? 'height' : 'collar'} ${preferences.show(s.mean, quantity, 1)} ± ${preferences.show(s.sd, quantity, 1)}, ${s.n} plants`, '');
  }
  for (const p of evidence.pulls) {
    add(p.entry, p.on, 'Pull', `${p.scores.map((score) => `${score} ${plugScores[score]}`).join(', ')}${p.spoiled ? `; ${p.spoiled} spoiled` : ''}`, p.note);
  }
  for (const m of evidence.movements) {
    if (found.has(m.entry) || reversed.has(m.entry) || m.entry === props.lot.row.id) continue;
    if (isReversed(m.entry)) continue;
    const gone = m.to.startsWith('out:') ? m.to.slice(4).replace('-', ' ') : m.to;
    found.set(`${m.entry}`, { entry: m.entry, on: m.on, what: m.to === 'lifted' ? 'Lift' : 'Out', words: `${several(m.count, 'tree')}: ${gone}`, note: m.note });
  }
  return [...found.values()].filter((line) => dayOf(line.on) <= season.view).sort((a, b) => (a.on < b.on ? 1 : a.on > b.on ? -1 : 0));

  /** Whether every movement of an entry has a movement the other way that takes it back. */
  function isReversed(entry: string): boolean {
    const own = evidence.movements.filter((m) => m.entry === entry);
    return own.every((m) => evidence.movements.some((back) => back.note === 'taken back' && back.from === m.to && back.to === m.from && back.count === m.count && back.on >= m.on));
  }
});

async function undo(line: Line) {
  try {
    const { nurseryId } = nursery;
    nursery.takeLot(
      await call('undoEntry', { params: { nursery: nurseryId, lot: props.lot.row.id, entry: line.entry }, body: { id: newId(), on: season.todayIso } }),
    );
    messages.say(`${line.what} of ${dateWords(line.on)} taken back.`);
  } catch (error) {
    messages.say(sentenceOf(error));
  }
}
void summarise;
</script>

<template>
  <table v-if="lines.length" class="w-full" data-testid="records">
    <thead class="sr-only">
      <tr>
        <th scope="col">Day</th>
        <th scope="col">Record</th>
        <th scope="col">Figures</th>
        <th scope="col">Undo</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="line in lines" :key="line.entry" class="border-rule border-t">
        <td class="py-1 pr-4 whitespace-nowrap">{{ dateWords(line.on) }}</td>
        <td class="pr-4 font-bold">{{ line.what }}</td>
        <td class="w-full">{{ line.words }} <span class="text-muted">{{ line.note }}</span></td>
        <td><button v-if="session.may('crew')" class="quiet" type="button" @click="undo(line)">Take back</button></td>
      </tr>
    </tbody>
  </table>
  <p v-else class="text-muted py-2">No records yet at this date. Count what comes up first; measure and pull plugs as it grows.</p>
</template>
