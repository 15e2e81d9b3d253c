<script setup lang="ts">
import { roleWords } from '../../words/people';
import { dayOf, isoOf, restUntil, type AgendaLine, say } from '@kauri/core';
import type { Role } from '@kauri/core/contract/roles';
import { computed } from 'vue';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import FormDialog from '../../parts/FormDialog.vue';
import DateField from '../../parts/DateField.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import { useDraft } from '../../parts/useDraft';
import { useSaving } from '../../parts/useSaving';
import { saidOf, useMessages } from '../../stores/messages';
import { useSeason } from '../../stores/season';
import { useTodayBook } from '../../stores/todayBook';
import { longDate, yearOf } from '../../words/dates';
import { minutesWords } from './todayWords';
import type { TodayItem } from '@kauri/core';

/** What was done about an act: done with the time it took, put off with a reason, or given to someone. */
const props = defineProps<{ line: AgendaLine<TodayItem>; as: 'done' | 'skipped' | 'assigned' }>();
const emit = defineEmits<{ close: [] }>();
const season = useSeason();
const kept = useTodayBook();
const messages = useMessages();

const { item } = props.line;
const key = `mark.${item.rule}.${item.subjectId ?? ''}`;
const people = computed(() => (kept.book?.people ?? []).filter((p) => (p.role as Role) !== 'visitor'));
const { draft, clear } = useDraft(key, {
  as: props.as,
  minutes: '',
  reason: '',
  until: isoOf(dayOf(kept.on) + 7),
  to: people.value[0]?.id ?? '',
});
draft.value.as = props.as;
const saving = useSaving(key);
const marks = [
  { value: 'done', words: say`Done` },
  { value: 'skipped', words: say`Skip` },
  { value: 'assigned', words: say`Give to someone` },
] as const;
const again = computed(() => longDate(restUntil(item.rule, dayOf(kept.on)), yearOf(season.today)));

async function save() {
  const { as, minutes, reason, until, to } = draft.value;
  const body = {
    rule: item.rule,
    subjectId: item.subjectId,
    trees: Math.round(item.trees),
    mark: as,
    on: kept.on,
    until: as === 'skipped' ? until : null,
    reason,
    minutes: as === 'done' && minutes.trim() !== '' ? typedNumber(minutes) : null,
    assignedTo: as === 'assigned' ? to : null,
  };
  const marked = {
    done: say`Done`,
    skipped: say`Skipped for now`,
    assigned: say`Given to ${kept.nameOf(to)}`,
  }[as];
  const said = `${marked}: ${item.words.title}.`;
  let mark = '';
  const outcome = await saving.save(body, (id) => {
    mark = id;
    return kept.mark({ ...body, id }, said);
  });
  if (outcome === null) return;
  clear();
  messages.say(saidOf(outcome, said), () => kept.undo(mark));
  emit('close');
}
const sentence = computed(() => saving.sentence());
</script>

<template>
  <FormDialog :title="item.words.title" :subtitle="item.words.reason" @close="emit('close')">
    <form class="space-y-3" novalidate @submit.prevent="save">
      <ChoiceRow v-model="draft.as" :label="say`What is done about it`" :options="marks" />
      <FormField
        v-if="draft.as === 'done'"
        v-model="draft.minutes"
        :label="say`Time it took`"
        unit="minutes"
        inputmode="numeric"
        :hint="
          say`Reckoned: ${minutesWords(line.minutes)}. What you write makes the next reckoning truer; blank is fine.`
        "
        :fault="saving.wrong('minutes')"
      />
      <template v-else-if="draft.as === 'skipped'">
        <FormField
          v-model="draft.reason"
          :label="say`Why`"
          :hint="say`No pots left, too wet, sold next week`"
          :fault="saving.wrong('reason')"
        />
        <DateField v-model="draft.until" :label="say`Ask again from`" :fault="saving.wrong('until')" />
      </template>
      <SelectField
        v-else
        v-model="draft.to"
        :label="say`Whose it is`"
        :options="people.map((p) => ({ value: p.id, words: `${p.name}, ${roleWords[p.role]}` }))"
        :fault="saving.wrong('assignedTo')"
      />
      <FormField
        v-if="draft.as !== 'skipped'"
        v-model="draft.reason"
        :label="say`Note`"
        :fault="saving.wrong('reason')"
      />
      <p v-if="draft.as === 'done'" class="text-muted text-sm">
        {{
          say`It is not asked for again before ${again}. Counts, moves and measurements are written on the lot itself.`
        }}
      </p>
      <SheetActs
        :act="{ done: say`Done`, skipped: say`Skip it`, assigned: say`Give it` }[draft.as]"
        :busy="saving.busy.value"
        :sentence="sentence"
        @save="save"
      />
    </form>
  </FormDialog>
</template>
