<script setup lang="ts">
import { dayOf, ringDoubt, ringLength, type LayerOutlook, say } from '@kauri/core';

import { computed, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import FormDialog from '../../../parts/FormDialog.vue';
import DateField from '../../../parts/DateField.vue';
import FormField from '../../../parts/FormField.vue';
import SelectField from '../../../parts/SelectField.vue';
import SheetActs from '../../../parts/SheetActs.vue';
import { typedNumber } from '../../../parts/typed';
import { useNursery } from '../../../stores/nursery';
import { usePreferences } from '../../../stores/preferences';
import { useSeason } from '../../../stores/season';
import { useSeed } from '../../../stores/seed';
import { longDate, yearOf } from '../../../words/dates';
import { surely } from '../../../words/numbers';
import { plain, seedWork } from '../../../workers/seedWork';
import { useSeedAct } from '../useSeedAct';

const emit = defineEmits<{ close: [] }>();
const nursery = useNursery();
const season = useSeason();
const seed = useSeed();
const router = useRouter();
const { show, unit, typed } = usePreferences();
const layered = nursery.catalogue!.species.filter((s) => seed.startFor(s.id).layer);
const species = layered.length ? layered : nursery.catalogue!.species;
const { draft, busy, sentence, wrong, send } = useSeedAct(
  'makeLayer',
  {},
  {
    speciesId: species[0].id,
    tree: '',
    branch: '',
    free: '',
    ring: '',
    pouch: 'sealed' as 'sealed' | 'drained',
    hormone: '',
    madeOn: season.todayIso,
    note: '',
  },
);
const branchMm = computed(() => typed(typedNumber(draft.value.branch), 'diameter'));
const freeMm = computed(() =>
  draft.value.free.trim() === '' ? NaN : typed(typedNumber(draft.value.free), 'timber'),
);
const usualRing = computed(() => {
  if (draft.value.branch.trim() === '') return { mm: NaN, fault: null };
  try {
    return {
      mm: ringLength(branchMm.value, Number.isFinite(freeMm.value) ? freeMm.value : Infinity).value,
      fault: null,
    };
  } catch (error) {
    return { mm: NaN, fault: error instanceof Error ? error.message : String(error) };
  }
});
const ringMm = computed(() =>
  draft.value.ring.trim() === '' ? usualRing.value.mm : typed(typedNumber(draft.value.ring), 'timber'),
);
const ringAsked = computed(() => ringDoubt(branchMm.value, ringMm.value));
const outlook = shallowRef<LayerOutlook | null>(null);
watch(
  [() => draft.value.speciesId, () => draft.value.madeOn, branchMm],
  async () => {
    const { layer } = seed.startFor(draft.value.speciesId);
    if (!layer || !/^\d{4}-\d\d-\d\d$/.test(draft.value.madeOn)) return (outlook.value = null);
    const { budburst } = seed.speciesOf(draft.value.speciesId).values;
    const answer = await (
      await seedWork()
    ).layer(
      plain({ budburst }),
      plain(layer.rootDd),
      branchMm.value > 0 ? branchMm.value : 15,
      dayOf(draft.value.madeOn),
      seed.asOf,
    );
    outlook.value = answer.value;
  },
  { immediate: true },
);
async function save() {
  const d = draft.value;
  const body = {
    speciesId: d.speciesId,
    tree: d.tree,
    branchMm: branchMm.value,
    freeMm: freeMm.value,
    ringMm: ringMm.value,
    pouch: d.pouch,
    hormone: d.hormone,
    madeOn: d.madeOn,
    note: d.note,
  };
  const id = await send(body, say`Layer on ${d.tree} written down.`);
  if (id === null) return;
  emit('close');
  await router.push({ name: 'seed-layers', params: { layer: id } });
}
const day = (value: number) => longDate(value, yearOf(season.view));
const options = species.map((s) => ({ value: s.id, words: s.common }));
const pouches = [
  { value: 'sealed', words: say`Sealed: keeps its water` },
  { value: 'drained', words: say`Drained: a hole below, watered again` },
] as const;
</script>

<template>
  <FormDialog :title="say`Make an air layer`" wide @close="emit('close')">
    <form class="grid gap-x-6 gap-y-3 md:grid-cols-2" novalidate @submit.prevent="save">
      <div class="space-y-3">
        <SelectField v-model="draft.speciesId" :label="say`Species`" :options="options" />
        <FormField
          v-model="draft.tree"
          :label="say`Tree and branch`"
          :hint="say`Lime by the gate, south side`"
          :fault="wrong('tree')"
        />
        <div class="grid grid-cols-2 gap-3">
          <FormField
            v-model="draft.branch"
            :label="say`Branch`"
            :unit="unit('diameter')"
            inputmode="decimal"
            :fault="wrong('branchMm')"
          />
          <FormField
            v-model="draft.free"
            :label="say`Clear length`"
            :unit="unit('timber')"
            inputmode="decimal"
            :fault="wrong('freeMm')"
          />
          <FormField
            v-model="draft.ring"
            :label="say`Ring of bark`"
            :unit="unit('timber')"
            inputmode="decimal"
            :hint="
              Number.isFinite(usualRing.mm)
                ? say`Blank: ${show(usualRing.mm, 'timber')}, twice the branch`
                : undefined
            "
            :fault="wrong('ringMm')"
          />
          <DateField
            v-model="draft.madeOn"
            :label="say`Made on`"
            :max="season.todayIso"
            :fault="wrong('madeOn')"
          />
        </div>
        <p v-if="ringAsked" class="border-ink border-l-4 pl-3" role="status" data-testid="ring-asked">
          {{
            say`Is the ring right? It is ${ringAsked.times.toFixed(1)} times the branch; 1.5 to 3 is usual. ${
              ringAsked.why === 'short'
                ? say`A short one heals over before roots come.`
                : say`A long one starves and breaks the branch.`
            } It is taken as you write it.`
          }}
        </p>
        <p v-if="usualRing.fault" class="font-bold" role="status">{{ usualRing.fault }}</p>
        <SelectField v-model="draft.pouch" :label="say`Pouch`" :options="pouches" />
        <FormField v-model="draft.hormone" :label="say`Hormone`" :fault="wrong('hormone')" />
        <FormField v-model="draft.note" :label="say`Note`" :fault="wrong('note')" />
      </div>
      <div class="space-y-3">
        <div v-if="outlook" class="panel p-3" data-testid="layer-season">
          <p class="font-bold">
            {{
              outlook.season === 'good'
                ? say`A good time to begin`
                : outlook.season === 'early'
                  ? say`Early: best from ${day(outlook.good.from)}, just before the sap moves`
                  : say`Late: best before ${day(outlook.good.to)}`
            }}
          </p>
          <p>
            {{
              say`Roots around ${day(outlook.rooted.p50)}; sever by ${day(outlook.severBy)}. Rooted in time: ${surely(outlook.chanceInTime)}. First pot ${show(outlook.potL, 'volume')}.`
            }}
          </p>
        </div>
        <ol class="list-decimal space-y-1 pl-5">
          <li>
            {{
              say`Ring the bark at both ends and lift it off; scrape every trace of cambium, or it heals over.`
            }}
            <b>{{
              say`Cut away from the palm, with a cut-resistant glove; both feet on the ground or a footed, tied ladder.`
            }}</b>
          </li>
          <li>
            {{ say`Dust the upper edge with hormone.` }} <b>{{ say`Mask and gloves: follow the label.` }}</b>
          </li>
          <li>{{ say`Wrap a handful of soaked, wrung fibre round it; film; tie tight at both ends.` }}</li>
          <li>{{ say`Shade it from the sun and from birds.` }}</li>
        </ol>
        <SheetActs :act="say`Write it down`" :busy="busy" :sentence="sentence()" @save="save" />
      </div>
    </form>
  </FormDialog>
</template>
