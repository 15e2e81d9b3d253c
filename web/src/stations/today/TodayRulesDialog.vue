<script setup lang="ts">
import { ruleTerms, todayRules, type LearntRate, type TodayRule, type WorkKind, say } from '@kauri/core';
import type { TodayRules } from '@kauri/core/contract';
import { computed } from 'vue';
import FormDialog from '../../parts/FormDialog.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import { useDraft } from '../../parts/useDraft';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { useTodayBook } from '../../stores/todayBook';
import { several } from '../../words/numbers';

/** Which rules of Today are muted and which come up earlier, with the nursery’s own rates of work. */
defineProps<{ rates: Readonly<Record<WorkKind, LearntRate>> }>();
const emit = defineEmits<{ close: [] }>();
const kept = useTodayBook();
const messages = useMessages();
const { version, rules } = kept.book!;
const key = `today.rules.${version}`;
const { draft, clear } = useDraft(key, {
  rules: Object.fromEntries(
    todayRules.map((rule) => [
      rule,
      { muted: rules.rules[rule]?.muted ?? false, lead: String(rules.rules[rule]?.leadDays ?? 0) },
    ]),
  ) as Record<TodayRule, { muted: boolean; lead: string }>,
});
const saving = useSaving(key);
async function save() {
  const next: TodayRules = { schema: 1, rules: {} };
  for (const rule of todayRules) {
    const { muted, lead } = draft.value.rules[rule];
    const leadDays = lead.trim() === '' ? 0 : typedNumber(lead);
    if (muted || leadDays !== 0) next.rules[rule] = { muted, leadDays };
  }
  const taken = await saving.save(next, async () => {
    await kept.setRules(version, next);
    return true;
  });
  if (!taken) return;
  clear();
  messages.say(say`Rules of Today kept.`);
  emit('close');
}
const sentence = computed(() => saving.sentence());
const rateWords = ({ times, factor }: LearntRate) =>
  times === 0
    ? say`starting rate`
    : say`${factor.toFixed(2)} of the starting rate, from ${several(times, 'time')} written down`;
</script>

<template>
  <FormDialog
    :title="say`Rules of Today`"
    :subtitle="say`Mute what you do not want to be told, or be told earlier.`"
    wide
    @close="emit('close')"
  >
    <form novalidate @submit.prevent="save">
      <table class="w-full text-[0.95rem]">
        <thead class="text-muted">
          <tr>
            <th scope="col" class="text-left font-normal">{{ say`Rule` }}</th>
            <th scope="col" class="w-20 font-normal">{{ say`Muted` }}</th>
            <th scope="col" class="w-28 text-left font-normal">{{ say`Days earlier` }}</th>
            <th scope="col" class="text-left font-normal max-sm:hidden">
              {{ say`How long its work takes` }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="rule in todayRules" :key="rule" class="border-rule border-t">
            <th
              scope="row"
              class="py-1 pr-3 text-left font-normal"
              :class="draft.rules[rule].muted ? 'text-muted line-through' : ''"
            >
              {{ ruleTerms[rule].words }}
            </th>
            <td class="text-center">
              <input
                v-model="draft.rules[rule].muted"
                class="accent-ink size-6"
                type="checkbox"
                :aria-label="say`Mute: ${ruleTerms[rule].words}`"
              />
            </td>
            <td class="py-1">
              <input
                v-model="draft.rules[rule].lead"
                class="field w-24"
                inputmode="numeric"
                :aria-label="say`Days earlier: ${ruleTerms[rule].words}`"
                :aria-invalid="saving.wrong(`rules.rules.${rule}.leadDays`) ? true : undefined"
              />
            </td>
            <td class="text-muted pl-2 text-sm max-sm:hidden">
              {{ rateWords(rates[ruleTerms[rule].work]) }}
            </td>
          </tr>
        </tbody>
      </table>
      <SheetActs :act="say`Keep the rules`" :busy="saving.busy.value" :sentence="sentence" @save="save" />
    </form>
  </FormDialog>
</template>
