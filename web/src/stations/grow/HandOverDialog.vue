<script setup lang="ts">
import { roleWords } from '../../words/people';
import { say } from '@kauri/core';
import type { Role } from '@kauri/core/contract';
import { computed } from 'vue';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { useDraft } from '../../parts/useDraft';
import { childOf } from '../../parts/childOf';
import type { ShownLot } from '../../parts/useLots';
import { useSaving } from '../../parts/useSaving';
import { saidOf, useMessages } from '../../stores/messages';
import { useTodayBook } from '../../stores/todayBook';
import { several } from '../../words/numbers';
import { useToday } from '../today/useToday';

/** What several lots ask for, given to one person. */
const props = defineProps<{ lots: readonly ShownLot[] }>();
const emit = defineEmits<{ close: [] }>();
const kept = useTodayBook();
const messages = useMessages();
const { agenda } = useToday();

const people = computed(() => (kept.book?.people ?? []).filter((p) => (p.role as Role) !== 'visitor'));
const chosen = computed(() => new Set(props.lots.map(({ row }) => row.id)));
const lines = computed(() =>
  agenda.value.lines.filter(({ item }) => item.subjectId !== null && chosen.value.has(item.subjectId)),
);
const { draft, clear } = useDraft('hand-over', { to: people.value[0]?.id ?? '', reason: '' });
const saving = useSaving('hand-over');
async function save() {
  const { to, reason } = draft.value;
  const these = lines.value.map(({ item }) => item);
  const said = say`${several(these.length, 'act')} given to ${kept.nameOf(to)}.`;
  let [write, marks]: [string, string[]] = ['', []];
  const body = { to, reason, acts: these.map(({ rule, subjectId }) => `${rule} ${subjectId}`) };
  const outcome = await saving.save(body, (id) => {
    marks = these.map((_, i) => childOf(id, i + 1));
    write = id;
    const together = {
      id,
      marks: these.map(({ rule, subjectId, trees }, i) => ({
        id: marks[i],
        rule,
        subjectId,
        trees: Math.round(trees),
        mark: 'assigned' as const,
        on: kept.on,
        until: null,
        reason,
        minutes: null,
        assignedTo: to,
      })),
    };
    return kept.markTogether(together, said);
  });
  if (outcome === null) return;
  clear();
  messages.say(saidOf(outcome, said), () => kept.undoTogether(write, marks));
  emit('close');
}
</script>

<template>
  <FormDialog
    :title="say`Hand to someone`"
    :subtitle="say`What ${several(lots.length, 'lot')} ask for: ${several(lines.length, 'act')} of Today.`"
    @close="emit('close')"
  >
    <form v-if="lines.length" class="space-y-3" novalidate @submit.prevent="save">
      <SelectField
        v-model="draft.to"
        :label="say`Whose it is`"
        :options="people.map((p) => ({ value: p.id, words: `${p.name}, ${roleWords[p.role]}` }))"
        :fault="saving.wrong('marks')"
      />
      <FormField v-model="draft.reason" :label="say`Note`" :fault="saving.wrong('reason')" />
      <ul class="text-muted max-h-48 overflow-y-auto">
        <li v-for="{ item } in lines" :key="`${item.rule} ${item.subjectId}`">{{ item.words.title }}</li>
      </ul>
      <SheetActs :act="say`Give it`" :busy="saving.busy.value" :sentence="saving.sentence()" @save="save" />
    </form>
    <p v-else>{{ say`Nothing presses of these lots: Today asks for nothing that could be given.` }}</p>
  </FormDialog>
</template>
