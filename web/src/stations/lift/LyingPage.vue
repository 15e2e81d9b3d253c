<script setup lang="ts">
import { byNature, say, inSentence } from '@kauri/core';
import IdeaHelp from '../../help/IdeaHelp.vue';
import type { Parcel } from '@kauri/core/contract';
import { computed, nextTick, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import EmptyState from '../../parts/EmptyState.vue';
import TableOut from '../../tables/TableOut.vue';
import { useKeeps } from '../../parts/useKeeps';
import { useGrading } from '../../stores/grading';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { useParcels } from '../../stores/parcels';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { dateWords } from '../../words/dates';
import { several } from '../../words/numbers';
import { usePreferences } from '../../stores/preferences';
import BayRoom from './BayRoom.vue';
import LookDialog from './LookDialog.vue';
import LyingParcelRow from './LyingParcelRow.vue';
import { signWords } from './lyingWords';
import { parcelTable } from './lyingFiles';
import SentList from './SentList.vue';
import TrenchDialog from './TrenchDialog.vue';
import { useBundleLabels } from './useBundleLabels';
import SplitDialog from '../grow/SplitDialog.vue';
import LoseDialog from './LoseDialog.vue';
import PutDialog from './PutDialog.vue';
import SendDialog from './SendDialog.vue';

/** Lifted trees, place by place: what lies there, since when, and whom it was sent to. */
const parcels = useParcels();
const orders = useOrders();
const grading = useGrading();
const nursery = useNursery();
const season = useSeason();
const session = useSession();
const { show } = usePreferences();
const { print: bundleLabels } = useBundleLabels();
const address = useRoute();
const router = useRouter();
/** A line that somebody came from, to send trees for it. */
const forLine = computed(() => (address.query.line ? String(address.query.line) : undefined));
const sending = ref<Parcel | 'several' | null>(forLine.value ? 'several' : null);
function closeSending() {
  sending.value = null;
  if (forLine.value) void router.replace({ name: 'lift-lying' });
}
const putting = ref<Parcel | null>(null);
const losing = ref<Parcel | null>(null);
const trenching = ref(false);
const holding = ref<Parcel | null>(null);
const may = computed(() => session.may('crew'));
const species = (id: string) => nursery.lookup.species.get(id)?.common ?? '';
/** Place by place, those without a place last. */
const places = computed(() => {
  const byPlace = new Map<string, Parcel[]>();
  for (const parcel of parcels.lying)
    byPlace.set(parcel.place, [...(byPlace.get(parcel.place) ?? []), parcel]);
  return [...byPlace]
    .map(([name, list]) => ({ name, list, trees: list.reduce((sum, { held }) => sum + held, 0) }))
    .sort((a, b) => Number(a.name === '') - Number(b.name === '') || byNature(a.name, b.name));
});
const total = computed(() => places.value.reduce((sum, { trees }) => sum + trees, 0));
/** Rows come once nothing above them is still to come: what would push them down moves them from under a hand. */
const known = computed(() => parcels.loaded && grading.settled);
const { keeps } = useKeeps();
const keepsOf = (parcel: Parcel) => keeps.value?.get(parcel.id)?.value;
/** The day a place was looked at last since anything of it lies there. */
const lastLook = (place: string) => parcels.looks.find((look) => look.place === place);
const looking = ref<string | null>(null);
/** What an act of Today asked about is brought into sight. */
const asked = computed(() => (address.query.parcel ? String(address.query.parcel) : null));
watch(
  [asked, known],
  async ([id]) => {
    if (id === null) return;
    await nextTick();
    document.getElementById(`parcel-${id}`)?.scrollIntoView({ block: 'center' });
  },
  { immediate: true },
);
const fault = ref<string | null>(null);
async function labels(parcel: Parcel) {
  fault.value = null;
  try {
    await bundleLabels([{ parcel, trees: parcel.held, whom: '' }], `labels-${parcel.code}.pdf`);
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
const table = () =>
  parcelTable(parcels.lying, {
    speciesName: species,
    asideOf: parcels.asideOfParcel,
    keepsOf: (parcel) => keepsOf(parcel)?.until ?? null,
  });
</script>

<template>
  <div class="space-y-5 p-4 md:p-6">
    <header class="flex flex-wrap items-baseline gap-x-4">
      <h1 class="text-2xl">{{ say`Lifted, and still here` }}</h1>
      <IdeaHelp idea="parcel" />
      <p v-if="known && total" class="text-lg">
        <b>{{ several(total, 'tree') }}</b> {{ say`in ${several(parcels.lying.length, 'parcel')}` }}
      </p>
      <TableOut
        v-if="known && parcels.lying.length"
        class="ml-auto"
        quiet
        right
        :label="say`Save as a table`"
        :name="`lifted-${season.todayIso}`"
        :table="table"
      />
      <button
        v-if="known && may && parcels.lying.length"
        class="act-main"
        type="button"
        @click="sending = 'several'"
      >
        {{ say`Send trees` }}
      </button>
    </header>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <p v-if="!known" class="text-muted" role="status">{{ say`Looking what lies there …` }}</p>
    <EmptyState v-else-if="!parcels.lying.length" :title="say`Nothing lies in the nursery`">
      {{
        say`Trees that are lifted lie here by grade and place, until they are sent or planted. Write a lift down and say where you put them.`
      }}
    </EmptyState>
    <section
      v-for="{ name, list, trees } in known ? places : []"
      :key="name"
      :aria-label="name || say`No place said`"
    >
      <h2 class="flex flex-wrap items-baseline gap-x-3 text-lg">
        {{ name || say`No place said` }}
        <span class="text-muted text-base"
          >{{ several(trees, 'tree')
          }}<template v-if="lastLook(name)"
            >{{ say`; looked at ${dateWords(lastLook(name)!.on)}`
            }}<template v-if="lastLook(name)!.seen.length"
              >:
              {{
                lastLook(name)!
                  .seen.map((sign) => inSentence(signWords[sign]))
                  .join(', ')
              }}</template
            ><template v-if="lastLook(name)!.tempC !== null"
              >, {{ show(lastLook(name)!.tempC!, 'temperature') }}</template
            ></template
          ></span
        >
        <button v-if="may" class="quiet text-base" type="button" @click="looking = name">
          {{ say`What was seen` }}
        </button>
      </h2>
      <BayRoom :name="name" :may-edit="session.may('grower')" @edit="trenching = true" />
      <ul class="divide-rule border-rule divide-y border-y" :data-testid="`lying-${name}`">
        <LyingParcelRow
          v-for="parcel in list"
          :id="`parcel-${parcel.id}`"
          :key="parcel.id"
          :parcel="parcel"
          :asked="parcel.id === asked"
          @send="sending = parcel"
          @labels="labels(parcel)"
          @put="putting = parcel"
          @hold="holding = parcel"
          @lose="losing = parcel"
        />
      </ul>
    </section>
    <SentList />
    <SendDialog
      v-if="sending && orders.loaded && parcels.loaded"
      :parcel="sending === 'several' ? null : sending"
      :line-id="sending === 'several' ? forLine : undefined"
      @close="closeSending"
    />
    <SplitDialog
      v-if="holding"
      :of="{
        lotId: holding.lotId,
        code: holding.code,
        speciesId: holding.speciesId,
        sownOn: nursery.index.get(holding.lotId)?.sownOn ?? holding.since,
        there: holding.held,
      }"
      :parcel-id="holding.id"
      @close="holding = null"
    />
    <TrenchDialog v-if="trenching" @close="trenching = false" />
    <LookDialog v-if="looking !== null" :place="looking" @close="looking = null" />
    <LoseDialog v-if="losing" :parcel="losing" @close="losing = null" />
    <PutDialog v-if="putting" :parcel="putting" @close="putting = null" />
  </div>
</template>
