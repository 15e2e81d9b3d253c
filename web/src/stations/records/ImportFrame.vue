<script setup lang="ts" generic="Q">
import { say } from '@kauri/core';
import { computed, ref } from 'vue';
import { dateWords } from '../../words/dates';
import { count, several } from '../../words/numbers';
import TableIn from '../../tables/TableIn.vue';
import PreviewTable from './PreviewTable.vue';
import { previewRows } from './tablePreview';
import type { TableImport } from './useImport';

/** The steps every import goes through: choose, look, check, take. */
const props = defineProps<{
  title: string;
  table: TableImport<Q>;
  /** Whether every column needed has been told. */
  ready: boolean;
  /** How the table is to be read; only looked at with `check`. */
  query: (check: boolean) => Q;
  /** One of what is taken, for example "day". */
  one: string;
  /** Whether this person may take tables in. */
  may: boolean;
  /** Names of what a line is read as, and how it is read; throws a sentence for a line that cannot be. */
  cellNames: readonly string[];
  cells: (row: readonly string[]) => string[];
}>();
const emit = defineEmits<{ taken: [] }>();

const fileName = computed(() => props.table.file?.name ?? null);
const report = computed(() => props.table.report);
const preview = computed(() => (props.ready ? previewRows(props.table.head?.rows ?? [], props.cells) : []));
const taken = computed(() => report.value?.stored === true);
const summary = computed(() => {
  const { first, last, bad } = report.value!;
  const days = first && last ? say`, ${dateWords(first)} to ${dateWords(last)}` : '';
  const lines = bad === 0 ? say`every line reads well` : say`${several(bad, 'line')} left out`;
  return `${taken.value ? say`taken` : say`can be taken`}${days}; ${lines}.`;
});
/** Each table begins with an empty field. */
const begun = ref(0);
function nothing() {
  begun.value++;
  void props.table.choose(null);
}
async function take() {
  if (await props.table.send(props.query(false))) emit('taken');
}
</script>

<template>
  <section class="panel p-4" :aria-label="title">
    <div class="mb-3 flex flex-wrap items-center justify-between gap-3">
      <h2 class="text-xl">{{ title }}</h2>
      <slot name="export" />
    </div>
    <slot name="lead" />
    <TableIn v-if="may" :label="say`Choose a table`" :key="begun" class="mt-2" @file="table.choose" />
    <p v-if="table.fault" class="text-wrong mt-3 font-bold" role="alert">{{ table.fault }}</p>

    <template v-if="fileName && !taken">
      <slot v-if="table.head" name="columns" :header="table.head.header" />
      <PreviewTable
        v-if="preview.length"
        :caption="say`How the first lines are read`"
        :head="cellNames"
        :rows="preview"
      />
      <div v-if="table.progress !== null" class="mt-4 flex items-center gap-3" role="status">
        <progress class="h-3 flex-1" :value="table.progress" max="1" />
        <span>{{ Math.round(table.progress * 100) }} %</span>
        <button class="act" type="button" @click="table.stop">{{ say`Stop` }}</button>
      </div>
      <button
        v-else-if="!report"
        class="act-main mt-4"
        type="button"
        :disabled="!ready || !table.head"
        @click="table.send(query(true))"
      >
        {{ say`Check every line` }}
      </button>
    </template>

    <div v-if="report" class="mt-4" data-testid="report">
      <p class="text-lg">
        <b>{{ several(report.good, one) }}</b> {{ summary }}
      </p>
      <p v-if="report.known" class="mt-1">
        {{
          say`${several(report.known, 'line says', 'lines say')} what is recorded already, plant for plant: left out.`
        }}
      </p>
      <details v-if="report.issues.length" class="mt-2" open>
        <summary class="quiet list-none">{{ say`What is wrong, by line` }}</summary>
        <ul class="border-rule max-h-48 overflow-y-auto border-l-2 pl-4">
          <li v-for="issue in report.issues" :key="issue.line">
            <b>{{ say`line ${count(issue.line)}` }}</b> {{ issue.message }}
          </li>
          <li v-if="report.bad > report.issues.length" class="text-muted">
            {{ say`and ${count(report.bad - report.issues.length)} more` }}
          </li>
        </ul>
      </details>
      <details v-if="report.gaps.length" class="mt-2">
        <summary class="quiet list-none">
          {{ say`${several(report.gaps.length, 'gap')} in its days` }}
        </summary>
        <ul class="border-rule max-h-48 overflow-y-auto border-l-2 pl-4">
          <li v-for="gap in report.gaps" :key="gap.from">
            {{
              gap.from === gap.to ? dateWords(gap.from) : say`${dateWords(gap.from)} to ${dateWords(gap.to)}`
            }}
          </li>
        </ul>
      </details>
      <div v-if="!taken && table.progress === null" class="mt-4 flex gap-3">
        <button class="act-main" type="button" :disabled="report.good === 0" @click="take">
          {{ say`Take ${several(report.good, one)}` }}
        </button>
        <button class="act" type="button" @click="nothing">{{ say`Take nothing` }}</button>
      </div>
    </div>
  </section>
</template>
