<script setup lang="ts">
import { dayOf, supplierRecords, say } from '@kauri/core';
import type { Arrival } from '@kauri/core/contract';
import { computed, onMounted, ref } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { sentenceOf } from '../../../api/problem';
import EmptyState from '../../../parts/EmptyState.vue';
import { useLived } from '../../../parts/useLived';
import { makePdf, offerFile } from '../../../print/pdf';
import { useArrivals } from '../../../stores/arrivals';
import { useMessages } from '../../../stores/messages';
import { useNursery } from '../../../stores/nursery';
import { useSeason } from '../../../stores/season';
import { useSession } from '../../../stores/session';
import { arrivalWords, faultWords } from '../../../words/arrivals';
import { dateWords } from '../../../words/dates';
import { count, percent, several } from '../../../words/numbers';
import ArrivalDialog from './ArrivalDialog.vue';
import { returnNote } from './returnNote';

/** Plants that came from outside: what was taken of them, what went back, and how suppliers compare. */
const arrivals = useArrivals();
const nursery = useNursery();
const season = useSeason();
const session = useSession();
const messages = useMessages();
const route = useRoute();
const router = useRouter();
const fault = ref<string | null>(null);
onMounted(() => arrivals.load().catch((error: unknown) => (fault.value = sentenceOf(error))));
const may = computed(() => session.may('crew'));
const adding = computed(() => route.query.add !== undefined && may.value);
const species = (id: string) => nursery.lookup.species.get(id)?.common ?? '';
const shown = computed(() => arrivals.all.filter(({ on }) => dayOf(on) <= season.view));
const back = ({ count: came, accepted }: Arrival) => came - accepted;
const faultsOf = ({ faults }: Arrival) =>
  faults.map(({ fault: what, count: n }) => `${faultWords[what]} ${count(n)}`).join(', ');
const isApart = ({ quarantineUntil }: Arrival) =>
  quarantineUntil !== null && dayOf(quarantineUntil) > season.today;
const { cases } = useLived();
const suppliers = computed(() => supplierRecords(shown.value, cases.value));

async function act(work: () => Promise<unknown>, said: string) {
  fault.value = null;
  try {
    await work();
    messages.say(said);
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
const print = (one: Arrival) =>
  act(
    async () => {
      const { name, placeName } = nursery.catalogue!.nursery;
      const note = returnNote({
        from: [name, placeName].filter(Boolean).join(', '),
        to: one.supplier,
        on: dateWords(one.on),
        what: `${species(one.speciesId)}, ${arrivalWords[one.kind]}`,
        papers: one.papers,
        came: count(one.count),
        looked: count(one.looked),
        faults: one.faults.map(({ fault: what, count: n }) => [faultWords[what], count(n)]),
        taken: count(one.accepted),
        back: count(back(one)),
        note: one.note,
      });
      offerFile(`return-${one.on}.pdf`, await makePdf(note), 'application/pdf');
    },
    say`Written on paper.`,
  );
</script>

<template>
  <p v-if="!arrivals.loaded && !fault" class="text-muted p-4" role="status">{{ say`Looking what came …` }}</p>
  <EmptyState v-else-if="!shown.length" :title="say`Nothing came from outside yet`">
    {{
      say`Liners, rooted cuttings, grafts, plants dug elsewhere: look at their roots before you sign. What is taken becomes a lot at its own size; what is not goes back with a note.`
    }}
    <template v-if="may" #action>
      <RouterLink class="act-main" :to="{ query: { add: '1' } }">{{ say`Something came` }}</RouterLink>
    </template>
  </EmptyState>
  <div v-else class="max-w-5xl space-y-5 p-4 md:p-6">
    <header class="flex flex-wrap items-center gap-3">
      <h1 class="mr-auto text-2xl">{{ say`What came from outside` }}</h1>
      <RouterLink v-if="may" class="act-main" :to="{ query: { add: '1' } }">{{
        say`Something came`
      }}</RouterLink>
    </header>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <ul class="divide-rule border-rule divide-y border-y" data-testid="arrivals">
      <li v-for="one in shown" :key="one.id" class="flex flex-wrap items-baseline gap-x-4 gap-y-1 py-2">
        <span class="w-28 whitespace-nowrap">{{ dateWords(one.on) }}</span>
        <span class="min-w-0 flex-1 basis-72">
          <b>{{ species(one.speciesId) }}</b>{{
            say`: ${count(one.accepted)} of ${count(one.count)} ${arrivalWords[one.kind]} taken, from`
          }}
          <b>{{ one.supplier }}</b>
          <RouterLink
            v-if="one.lotId"
            class="quiet ml-1"
            :to="{ name: 'grow', params: { lot: one.lotId } }"
            >{{ one.code }}</RouterLink
          >
          <span class="text-muted block text-[0.95rem]">
            {{
              say`${
                one.looked
                  ? say`${several(one.looked, 'plant')} looked at, ${count(one.failing)} with faults`
                  : say`none looked at`
              }${one.faults.length ? `: ${faultsOf(one)}` : ''}${one.provenance ? `; ${one.provenance}` : ''}${one.papers ? say`; papers ${one.papers}` : ''}; by ${one.by}`
            }}
          </span>
          <span v-if="one.note" class="text-muted block text-[0.95rem]">{{ one.note }}</span>
          <span v-if="isApart(one)" class="block">
            <b>{{ say`In quarantine until ${dateWords(one.quarantineUntil!)}` }}</b>{{
              say`: nothing of it leaves.`
            }}
            <button
              v-if="session.may('grower')"
              class="quiet"
              type="button"
              @click="act(() => arrivals.keepApart(one.id, null), say`Quarantine ended.`)"
            >
              {{ say`End it` }}
            </button>
          </span>
        </span>
        <button v-if="back(one)" class="quiet" type="button" @click="print(one)">
          {{ say`Note for the ${count(back(one))} that go back` }}
        </button>
        <button
          v-if="may && season.today - dayOf(one.on) < 60"
          class="quiet"
          type="button"
          @click="act(() => arrivals.takeBack(one.id), say`Taken back.`)"
        >
          {{ say`Take back` }}
        </button>
      </li>
    </ul>
    <section aria-labelledby="suppliers">
      <h2 id="suppliers" class="mb-1 text-lg">{{ say`Suppliers` }}</h2>
      <table class="w-full" data-testid="suppliers">
        <thead class="text-muted text-left">
          <tr>
            <th class="font-normal" scope="col">{{ say`From` }}</th>
            <th class="text-right font-normal" scope="col">{{ say`Arrivals` }}</th>
            <th class="pl-6 font-normal" scope="col">{{ say`Taken, nine times in ten` }}</th>
            <th class="pl-6 font-normal" scope="col">{{ say`Lived once planted, nine times in ten` }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in suppliers" :key="one.supplier" class="border-rule border-t">
            <th class="py-1.5 text-left" scope="row">{{ one.supplier }}</th>
            <td class="text-right">{{ count(one.arrivals) }}</td>
            <td class="pl-6">
              {{ say`${percent(one.taken.lower)} to ${percent(one.taken.upper)}` }}
              <span class="text-muted">{{
                say`(${count(one.taken.alive)} of ${count(one.taken.alive + one.taken.dead)})`
              }}</span>
            </td>
            <td class="pl-6">
              <template v-if="one.lived"
                >{{ say`${percent(one.lived.lower)} to ${percent(one.lived.upper)}` }}
                <span class="text-muted">{{
                  say`(${count(one.lived.alive)} of ${count(one.lived.alive + one.lived.dead)})`
                }}</span></template
              >
              <span v-else class="text-muted">{{ say`none walked yet` }}</span>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="text-muted max-w-3xl text-sm">
        {{
          say`Plants that came together share their luck, so one large consignment says less than several: the same reckoning as for what lived.`
        }}
      </p>
    </section>
  </div>
  <ArrivalDialog v-if="adding" @close="router.replace({ query: {} })" />
</template>
