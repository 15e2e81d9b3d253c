<script setup lang="ts">
import { startingScorecards, type RootFigure, type RootSchool, say } from '@kauri/core';
import type { RootRules } from '@kauri/core/contract';
import { computed } from 'vue';
import { ProblemError } from '../../api/problem';
import FormDialog from '../../parts/FormDialog.vue';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import { typedNumber } from '../../parts/typed';
import { useDraft } from '../../parts/useDraft';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { useRoots } from '../../stores/roots';
import { figureWords, rootSchoolWords, schoolSays } from '../../words/roots';

/** Changes one school’s card, the school the nursery goes by, and how many plants are pulled. */
const props = defineProps<{ school: RootSchool }>();
const emit = defineEmits<{ close: [] }>();
const roots = useRoots();
const messages = useMessages();
const { kept } = roots;
const rules = kept!.rules;
interface TypedCriterion {
  figure: RootFigure;
  least: string;
  most: string;
  weight: string;
  fatal: boolean;
}
const text = (value: number | null) => (value === null ? '' : String(value));
const typedCard = (card: RootRules['cards'][RootSchool]) => ({
  pass: String(Math.round(card.pass * 100)),
  criteria: card.criteria.map((c): TypedCriterion => ({
    ...c,
    least: text(c.least),
    most: text(c.most),
    weight: String(c.weight),
  })),
});
const key = `roots.${props.school}.${kept!.version}`;
const { draft, clear } = useDraft(key, {
  ...typedCard(rules.cards[props.school]),
  goBy: rules.school,
  cap: String(rules.cap),
  acceptable: String(rules.terms.acceptable * 100),
  rejectable: String(rules.terms.rejectable * 100),
  producer: String(rules.terms.producerRisk * 100),
  consumer: String(rules.terms.consumerRisk * 100),
});
const saving = useSaving(key);
const bound = (typed: string) => (typed.trim() === '' ? null : typedNumber(typed));
const share = (typed: string) => typedNumber(typed) / 100;
async function save() {
  const d = draft.value;
  const card = {
    school: props.school,
    pass: share(d.pass),
    criteria: d.criteria.map((c) => ({
      figure: c.figure,
      least: bound(c.least),
      most: bound(c.most),
      weight: typedNumber(c.weight),
      fatal: c.fatal,
    })),
  };
  const next = {
    ...rules,
    school: d.goBy,
    cards: { ...rules.cards, [props.school]: card },
    cap: typedNumber(d.cap),
    terms: {
      acceptable: share(d.acceptable),
      rejectable: share(d.rejectable),
      producerRisk: share(d.producer),
      consumerRisk: share(d.consumer),
    },
  } as RootRules;
  const fault = saving.fault.value;
  const theirs =
    fault instanceof ProblemError && fault.kind === 'stale-edit'
      ? (fault.problem.current as { version?: number } | undefined)?.version
      : undefined;
  if ((await saving.save(next, () => roots.keep(theirs ?? kept!.version, next).then(() => true))) === null)
    return;
  clear();
  messages.say(say`${rootSchoolWords[props.school]}: scorecard kept.`);
  emit('close');
}
const left = computed(() =>
  (Object.keys(figureWords) as RootFigure[]).filter((f) => !draft.value.criteria.some((c) => c.figure === f)),
);
const add = (figure: RootFigure) =>
  draft.value.criteria.push({ figure, least: '', most: '', weight: '1', fatal: false });
const schools = (Object.keys(rootSchoolWords) as RootSchool[]).map((value) => ({
  value,
  words: rootSchoolWords[value],
}));
const { busy, sentence } = saving;
const wrong = (path: string) => saving.wrong(`rules.${path}`);
const at = (i: number, field: string) => wrong(`cards.${props.school}.criteria.${i}.${field}`);
</script>

<template>
  <FormDialog
    :title="say`Scorecard: ${rootSchoolWords[school]}`"
    :subtitle="schoolSays[school]"
    wide
    @close="emit('close')"
  >
    <form class="space-y-4" novalidate @submit.prevent="save">
      <ul class="space-y-2" data-testid="criteria">
        <li
          v-for="(c, i) in draft.criteria"
          :key="c.figure"
          class="panel grid grid-cols-2 items-end gap-3 p-3 sm:grid-cols-[1fr_6rem_6rem_5rem_auto_auto]"
        >
          <p class="self-center font-bold max-sm:col-span-2">{{ figureWords[c.figure].words }}</p>
          <FormField v-model="c.least" :label="say`At least`" inputmode="decimal" :fault="at(i, 'least')" />
          <FormField v-model="c.most" :label="say`At most`" inputmode="decimal" :fault="at(i, 'most')" />
          <FormField v-model="c.weight" :label="say`Weight`" inputmode="decimal" :fault="at(i, 'weight')" />
          <label class="flex min-h-11 items-center gap-2"
            ><input v-model="c.fatal" class="size-5" type="checkbox" /> {{ say`fails alone` }}</label
          >
          <button class="quiet" type="button" @click="draft.criteria.splice(i, 1)">
            {{ say`Leave out` }}
          </button>
        </li>
      </ul>
      <p v-if="left.length" class="flex flex-wrap gap-2">
        <button v-for="f in left" :key="f" class="act text-sm" type="button" @click="add(f)">
          + {{ figureWords[f].words }}
        </button>
      </p>
      <p class="text-muted text-sm">
        {{
          say`Shares are from 0 to 1. A plant passes with the weight below met, and nothing missed that fails alone.`
        }}
      </p>
      <div class="grid grid-cols-2 gap-3 sm:grid-cols-4">
        <FormField
          v-model="draft.pass"
          :label="say`Passes from`"
          unit="% of weight"
          inputmode="decimal"
          :fault="wrong(`cards.${school}.pass`)"
        />
        <SelectField v-model="draft.goBy" :label="say`The nursery goes by`" :options="schools" />
        <FormField
          v-model="draft.cap"
          :label="say`Most plants pulled`"
          inputmode="numeric"
          :fault="wrong('cap')"
        />
        <FormField
          v-model="draft.acceptable"
          :label="say`A good lot may fail`"
          unit="%"
          inputmode="decimal"
          :fault="wrong('terms.acceptable')"
        />
        <FormField
          v-model="draft.rejectable"
          :label="say`A bad lot fails`"
          unit="%"
          inputmode="decimal"
          :fault="wrong('terms.rejectable')"
        />
        <FormField
          v-model="draft.producer"
          :label="say`Risk: good rejected`"
          unit="%"
          inputmode="decimal"
          :fault="wrong('terms.producerRisk')"
        />
        <FormField
          v-model="draft.consumer"
          :label="say`Risk: bad accepted`"
          unit="%"
          inputmode="decimal"
          :fault="wrong('terms.consumerRisk')"
        />
      </div>
      <SheetActs :act="say`Keep it`" :busy="busy" :sentence="sentence()" @save="save">
        <button
          class="quiet"
          type="button"
          @click="Object.assign(draft, typedCard(startingScorecards[school]))"
        >
          {{ say`Back to the starting card` }}
        </button>
      </SheetActs>
    </form>
  </FormDialog>
</template>
