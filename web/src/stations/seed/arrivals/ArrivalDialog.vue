<script setup lang="ts">
import {
  arrivalFaults,
  isoOf,
  sequentialVerdict,
  type ArrivalFault,
  type ArrivalKind,
  say,
} from '@kauri/core';
import { v7 as newId } from 'uuid';
import { computed, onMounted } from 'vue';
import { useRouter } from 'vue-router';
import FormDialog from '../../../parts/FormDialog.vue';
import EntryFields from '../../../parts/EntryFields.vue';
import DateField from '../../../parts/DateField.vue';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import { typedNumber } from '../../../parts/typed';
import { useDraft } from '../../../parts/useDraft';
import { useSaving } from '../../../parts/useSaving';
import { useArrivals } from '../../../stores/arrivals';
import { useMessages } from '../../../stores/messages';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useRoots } from '../../../stores/roots';
import { useSeason } from '../../../stores/season';
import { arrivalWords, faultWords } from '../../../words/arrivals';
import { count, several } from '../../../words/numbers';
import { optionsOf } from '../../../words/planted';
import { nextCode } from '../../grow/newLot';
import StageFields from '../../grow/StageFields.vue';
import { useStage } from '../../grow/useStage';

/** Plants that came: who from, how they are found one after another, how many are taken, and where those stand. */
const emit = defineEmits<{ close: [] }>();
const arrivals = useArrivals();
const nursery = useNursery();
const roots = useRoots();
const season = useSeason();
const messages = useMessages();
const router = useRouter();
const { typed, unit } = usePreferences();
onMounted(() => void roots.load().catch(() => undefined));

const bench =
  nursery.catalogue!.places.find(({ place }) => place.kind === 'bench') ?? nursery.catalogue!.places[0];
const { draft, clear } = useDraft('arrival', {
  on: '',
  note: '',
  speciesId: nursery.catalogue!.species[0]?.id ?? '',
  kind: 'liner' as ArrivalKind,
  supplier: '',
  provenance: '',
  papers: '',
  count: '',
  price: '',
  /** Each plant looked at, in order: its fault, or none. */
  looks: [] as (ArrivalFault | '')[],
  accepted: '',
  quarantine: '',
  code: '',
  heights: '',
  collars: '',
  lotId: newId(),
  stageId: newId(),
  placeId: bench?.id ?? '',
  containerTypeId: nursery.catalogue!.containers[0]?.id ?? '',
  trays: '',
  density: '',
  area: '',
});
const { stageOf } = useStage(draft);
const { busy, save: send, sentence, wrong } = useSaving('arrival');
const on = computed({
  get: () => draft.value.on || isoOf(Math.min(season.view, season.today)),
  set: (day: string) => (draft.value.on = day),
});
const suppliers = computed(() => [...new Set(arrivals.all.map(({ supplier }) => supplier))]);
const speciesOptions = nursery.catalogue!.species.map(({ id, common }) => ({ value: id, words: common }));
const came = computed(() => typedNumber(draft.value.count));
const failing = computed(() => draft.value.looks.filter(Boolean).length);
/** What those looked at say of all: the plan and terms that roots of one's own lots are judged by. */
const verdict = computed(() => {
  const { rules } = roots;
  if (!rules) return null;
  return sequentialVerdict(rules.terms, draft.value.looks.map(Boolean), rules.cap).value;
});
const verdictWords = computed(() => {
  const v = verdict.value;
  if (!v) return '';
  if (v.call === 'accept') return say`Take them: so few fail that it is a good lot by your terms.`;
  if (v.call === 'reject')
    return say`Send them back, or take only those you have looked at: too many fail by your terms.`;
  return say`Look at another, drawn without choosing: ${several(v.soonestAccept, 'good one')} more at least to take them, ${several(v.soonestReject, 'bad one')} to send them back.`;
});
const taken = computed(() => (draft.value.accepted.trim() ? typedNumber(draft.value.accepted) : NaN));
const offered = computed(() => {
  const { speciesId } = draft.value;
  const code = nursery.lookup.species.get(speciesId)?.code;
  return code
    ? nextCode(
        code,
        on.value,
        [...nursery.index.values()].map((lot) => lot.code),
      )
    : '';
});
const figures = (text: string, quantity: 'height' | 'diameter') =>
  text
    .split(/[\s;]+/)
    .filter(Boolean)
    .map((one) => typed(typedNumber(one), quantity));
const faults = computed(() =>
  arrivalFaults.flatMap((fault) => {
    const n = draft.value.looks.filter((one) => one === fault).length;
    return n ? [{ fault, count: n }] : [];
  }),
);

async function save() {
  const { speciesId, kind, supplier, provenance, papers, price, looks, quarantine, note, lotId, stageId } =
    draft.value;
  const code = draft.value.code.trim() || offered.value;
  const body = {
    on: on.value,
    ...{ speciesId, kind, supplier, provenance, papers, note },
    count: came.value,
    price: price.trim() ? typedNumber(price) : null,
    looked: looks.length,
    failing: failing.value,
    faults: faults.value,
    accepted: taken.value,
    quarantineUntil: quarantine || null,
    lot:
      taken.value > 0
        ? {
            id: lotId,
            code,
            stage: stageOf(stageId),
            heightsCm: figures(draft.value.heights, 'height'),
            diametersMm: figures(draft.value.collars, 'diameter'),
          }
        : null,
  };
  let entry = '';
  const kept = await send(body, async (id) => {
    entry = id;
    await arrivals.add({ id, ...body });
    return true;
  });
  if (kept === null) return;
  clear();
  messages.say(
    body.lot ? say`${several(body.accepted, 'plant')} taken as ${code}.` : say`All of them go back.`,
    () => arrivals.takeBack(entry),
  );
  await router.replace({ query: {} });
  emit('close');
}
</script>

<template>
  <FormDialog :title="say`Something came`" wide @close="emit('close')">
    <form class="space-y-4" novalidate @submit.prevent="save">
      <div class="grid gap-3 sm:grid-cols-3">
        <SelectField v-model="draft.speciesId" :label="say`Species`" :options="speciesOptions" />
        <SelectField v-model="draft.kind" :label="say`What`" :options="optionsOf(arrivalWords)" />
        <FormField
          v-model="draft.count"
          :label="say`How many came`"
          inputmode="numeric"
          :fault="wrong('count')"
        />
        <div>
          <FormField
            v-model="draft.supplier"
            :label="say`From`"
            :fault="wrong('supplier')"
            :hint="suppliers.slice(0, 3).join(', ')"
          />
        </div>
        <FormField v-model="draft.provenance" :label="say`Origin of the seed or plant`" />
        <FormField v-model="draft.papers" :label="say`Papers`" :hint="say`Passport or delivery number`" />
      </div>
      <section class="panel space-y-2 p-3" aria-labelledby="looks">
        <h3 id="looks" class="font-bold">
          {{ say`Look at their roots, one drawn after another` }}
          <span class="font-normal" data-testid="looks">{{
            say`${several(draft.looks.length, 'plant')}, ${count(failing)} with faults`
          }}</span>
        </h3>
        <div class="flex flex-wrap gap-1.5">
          <button class="act-main min-h-14" type="button" @click="draft.looks.push('')">
            {{ say`Good` }}
          </button>
          <button
            v-for="what in arrivalFaults"
            :key="what"
            class="act"
            type="button"
            @click="draft.looks.push(what)"
          >
            {{ faultWords[what] }}
          </button>
          <button class="quiet" type="button" :disabled="!draft.looks.length" @click="draft.looks.pop()">
            {{ say`Back one` }}
          </button>
        </div>
        <p v-if="draft.looks.length" aria-live="polite" data-testid="arrival-verdict">{{ verdictWords }}</p>
      </section>
      <div class="grid gap-3 sm:grid-cols-3">
        <FormField
          v-model="draft.accepted"
          :label="say`Taken`"
          inputmode="numeric"
          :hint="taken >= 0 && came >= taken ? say`${count(came - taken)} go back` : say`0 where all go back`"
          :fault="wrong('accepted') ?? wrong('looked')"
        />
        <FormField
          v-model="draft.price"
          :label="say`Price of one`"
          inputmode="decimal"
          :fault="wrong('price')"
        />
        <DateField
          v-model="draft.quarantine"
          :label="say`Quarantine until`"
          :hint="say`Nothing of it leaves before; none where blank`"
          :fault="wrong('quarantineUntil')"
        />
      </div>
      <template v-if="taken > 0">
        <div class="grid gap-3 sm:grid-cols-3">
          <FormField
            v-model="draft.code"
            :label="say`Code of the lot`"
            :hint="say`${offered} where none is typed`"
            :fault="wrong('lot.code')"
          />
          <FormField
            v-model="draft.heights"
            :label="say`Heights of some`"
            :unit="unit('height')"
            :hint="say`Measured, a space between`"
            :fault="wrong('lot.heightsCm')"
          />
          <FormField
            v-model="draft.collars"
            :label="say`Collars of some`"
            :unit="unit('diameter')"
            :hint="say`At the root collar`"
            :fault="wrong('lot.diametersMm')"
          />
        </div>
        <StageFields v-model="draft" :wrong="(path: string) => wrong(`lot.${path}`)" />
      </template>
      <EntryFields
        v-model:on="on"
        v-model:note="draft.note"
        :hint="say`How packed, who brought them`"
        :wrong="wrong"
      />
      <p class="border-ink text-muted border-l-4 pl-3 text-[0.95rem]">
        {{
          say`Keep what came apart from your own until you are sure of it; some pests and diseases must be reported: your plant-health service says which, and which papers have to come along.`
        }}
      </p>
      <SheetActs :act="say`Keep it`" :busy="busy" :sentence="sentence()" @save="save" />
    </form>
  </FormDialog>
</template>
