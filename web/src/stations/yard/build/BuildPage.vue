<script setup lang="ts">
import { say } from '@kauri/core';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import PlantTag from '../../../parts/PlantTag.vue';
import ShowWorking from '../../../parts/ShowWorking.vue';
import { makePdf, offerFile } from '../../../print/pdf';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSession } from '../../../stores/session';
import { count, percent, several } from '../../../words/numbers';
import { money } from '../../../words/money';
import { sizeWords } from '../placeWords';
import { buildCsv, buildPdf, buildWorking, buyLines, type BuildFile } from './buildFiles';
import TableOut from '../../../tables/TableOut.vue';
import CutDiagram from './CutDiagram.vue';
import ModuleFinder from './ModuleFinder.vue';
import PriceForm from './PriceForm.vue';
import { useBuild } from './useBuild';

const nursery = useNursery();
const session = useSession();
const { show } = usePreferences();
const { counts, designs, items, prices, worked, buying, cutting, cutFault } = useBuild();
const cash = (amount: number) => money(amount, prices.value.currency);
const may = computed(() => session.may('grower'));

function add(id: string, by: number) {
  counts.value = { ...counts.value, [id]: Math.max(0, Math.min(60, (counts.value[id] ?? 0) + by)) };
}
const standing = (id: string) =>
  nursery.catalogue!.places.filter((p) => p.place.kind === 'bed' && p.place.builtFrom?.designId === id)
    .length;

const title = computed(
  () => say`Build sheet: ${items.value.map((i) => `${i.count} × ${i.name}`).join(', ')}`,
);
const file = computed<BuildFile | null>(() =>
  worked.value.sheet && buying.value
    ? {
        title: title.value,
        sheet: worked.value.sheet,
        buying: buying.value,
        prices: prices.value,
        length: (mm) => show(mm, 'timber'),
        litres: (l) => show(l, 'volume'),
        area: (m2) => show(m2, 'area'),
      }
    : null,
);
const timberCost = computed(() => (buying.value ?? []).reduce((t, b) => t + b.plan.cost, 0));
const decision = computed(() => {
  if (!file.value) return null;
  const boards = buying.value!.reduce((t, b) => t + b.plan.boards.reduce((n, x) => n + x.count, 0), 0);
  const proven = buying.value!.every((b) => b.plan.optimal);
  const bound = buying.value!.reduce((t, b) => t + b.plan.bound, 0);
  return {
    headline: say`Buy ${several(boards, 'board')} for ${cash(timberCost.value)}`,
    detail: say`${proven ? say`Proven: no cheaper set of boards gives these pieces` : say`Within ${cash(timberCost.value - bound)} of the cheapest there can be`}. With mesh, fixings and feet ${cash(timberCost.value + worked.value.sheet!.sundriesCost)}, before medium.`,
  };
});
const making = ref(false);
const printFault = ref<string | null>(null);
async function pdf() {
  making.value = true;
  printFault.value = null;
  try {
    offerFile('build-sheet.pdf', await makePdf(buildPdf(file.value!)));
  } catch (error) {
    printFault.value = say`The PDF could not be made: ${(error as Error).message}`;
  } finally {
    making.value = false;
  }
}
const csv = () => buildCsv(file.value!);
</script>

<template>
  <div class="grid min-h-full lg:grid-cols-[23rem_1fr]">
    <div class="border-rule space-y-5 p-4 lg:border-r">
      <section aria-labelledby="designs">
        <div class="flex items-center justify-between gap-2">
          <h2 id="designs" class="text-lg">{{ say`What to build` }}</h2>
          <RouterLink v-if="may" class="act" :to="{ name: 'yard', query: { add: 'bed' } }">{{
            say`New design`
          }}</RouterLink>
        </div>
        <p v-if="!designs.length" class="text-muted mt-1">
          {{
            say`No design is kept yet. Design a bed and keep it as a design: Kauri then says what to buy, cut and do.`
          }}
        </p>
        <ul class="divide-rule mt-1 divide-y" data-testid="designs">
          <li v-for="d in designs" :key="d.id" class="flex items-center justify-between gap-2 py-2">
            <span>
              <b>{{ d.name }}</b>
              <span class="text-muted block text-sm">
                {{
                  say`${sizeWords({ kind: 'bed', design: d.design } as never, { show })}; version ${d.version}; ${standing(d.id) ? say`${standing(d.id)} standing` : say`none standing`}`
                }}
              </span>
            </span>
            <span class="flex items-center gap-1">
              <button
                class="act px-3"
                type="button"
                :aria-label="say`One fewer of ${d.name}`"
                :disabled="!counts[d.id]"
                @click="add(d.id, -1)"
              >
                −
              </button>
              <output class="min-w-7 text-center font-bold" :aria-label="say`${d.name} to build`">{{
                counts[d.id] ?? 0
              }}</output>
              <button
                class="act px-3"
                type="button"
                :aria-label="say`One more of ${d.name}`"
                @click="add(d.id, 1)"
              >
                +
              </button>
            </span>
          </li>
        </ul>
      </section>
      <details>
        <summary class="quiet">{{ say`Sizes for a piece of ground` }}</summary>
        <ModuleFinder />
      </details>
      <details v-if="may">
        <summary class="quiet">{{ say`Prices and sizes sold` }}</summary>
        <PriceForm />
      </details>
    </div>
    <div class="space-y-5 p-4">
      <p v-if="!items.length">
        {{
          say`Choose how many of which design to build. The sheet then says what to buy, how to cut it with least cost, and in which order to build, with the cautions beside the steps.`
        }}
      </p>
      <p v-else-if="worked.fault || cutFault" class="text-wrong font-bold" role="alert">
        {{ worked.fault ?? cutFault }}
      </p>
      <p v-else-if="cutting" role="status">{{ say`Finding the cheapest boards …` }}</p>
      <template v-else-if="file && decision">
        <PlantTag :headline="decision.headline" :detail="decision.detail" :urgent="false" />
        <div class="flex flex-wrap gap-2">
          <button class="act-main" type="button" :disabled="making" @click="pdf">
            {{ making ? say`Making …` : say`Build sheet, PDF` }}
          </button>
          <TableOut :label="say`As a table`" name="build-sheet" :table="csv" />
          <p v-if="printFault" class="text-wrong font-bold" role="alert">{{ printFault }}</p>
        </div>
        <section aria-labelledby="buy">
          <h2 id="buy" class="text-lg">{{ say`Buy` }}</h2>
          <table class="w-full text-[0.95rem]" data-testid="buy">
            <tbody>
              <tr v-for="(l, i) in buyLines(file)" :key="i" class="border-rule border-b">
                <th scope="row" class="py-1 pr-3 text-left font-normal">{{ l.what }}</th>
                <td class="pr-3">{{ l.size }}</td>
                <td class="pr-3 text-right font-bold">{{ count(l.count) }}</td>
                <td class="text-right whitespace-nowrap">
                  {{ l.each === null ? '' : cash(l.each * l.count) }}
                </td>
              </tr>
            </tbody>
          </table>
          <ShowWorking :steps="buildWorking(file)" />
        </section>
        <section aria-labelledby="diagram">
          <h2 id="diagram" class="text-lg">{{ say`Cutting diagram` }}</h2>
          <div v-for="b in buying" :key="b.board" class="mt-2">
            <p>
              <b>{{ b.board }}</b>{{
                say`: ${cash(b.plan.cost)}, ${percent(b.plan.wasteMm / b.plan.boughtMm)} waste; ${
                  b.plan.optimal
                    ? say`no cheaper way exists`
                    : say`at most ${cash(b.plan.cost - b.plan.bound)} above the cheapest`
                }`
              }}
            </p>
            <CutDiagram :plan="b.plan" :kerf-mm="prices.kerfMm" :board="b.board" />
          </div>
        </section>
        <div class="grid gap-5 xl:grid-cols-2">
          <section aria-labelledby="cut">
            <h2 id="cut" class="text-lg">{{ say`Cut list` }}</h2>
            <table class="w-full text-[0.95rem]" data-testid="cut-list">
              <tbody>
                <tr v-for="(t, i) in worked.sheet!.timber" :key="i" class="border-rule border-b">
                  <td class="text-muted py-1 pr-2">{{ items.length > 1 ? t.bed : '' }}</td>
                  <th scope="row" class="py-1 pr-2 text-left font-normal">{{ t.name }}</th>
                  <td class="pr-2">{{ t.board }}</td>
                  <td class="pr-2 text-right">{{ show(t.lengthMm, 'timber') }}</td>
                  <td class="text-right font-bold">{{ t.count }}</td>
                </tr>
              </tbody>
            </table>
          </section>
          <section aria-labelledby="order">
            <h2 id="order" class="text-lg">{{ say`Build` }}</h2>
            <p class="text-muted text-[0.95rem]">{{ say`Tools: ${worked.sheet!.tools.join('; ')}.` }}</p>
            <ol class="mt-1 list-decimal space-y-2 pl-6" data-testid="steps">
              <li v-for="(s, i) in worked.sheet!.steps" :key="i">
                {{ s.what }}
                <span v-if="s.caution" class="border-ink mt-0.5 block border-l-4 pl-2 text-sm font-bold">{{
                  s.caution
                }}</span>
              </li>
            </ol>
          </section>
        </div>
      </template>
    </div>
  </div>
</template>
