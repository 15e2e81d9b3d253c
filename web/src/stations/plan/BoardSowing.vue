<script setup lang="ts">
import { dayOf, say, word } from '@kauri/core';
import type { PlannedSowing } from '@kauri/core/contract';
import { X } from 'lucide-vue-next';
import { computed, ref } from 'vue';
import { sentenceOf } from '../../api/problem';
import SelectField from '../../parts/SelectField.vue';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { usePlan } from '../../stores/plan';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { longDate, yearOf } from '../../words/dates';
import { count, percent, several, surely } from '../../words/numbers';
import { buyerOf } from './orderWords';
import { useStageWords } from './routeWords';

/** A planned sowing: what for, where it stands in turn, how sure; moved to another week or place, or taken out. */
const props = defineProps<{ sowing: PlannedSowing; busy: boolean }>();
const emit = defineEmits<{ shift: [weeks: number]; close: [] }>();
const nursery = useNursery();
const orders = useOrders();
const plan = usePlan();
const season = useSeason();
const session = useSession();
const messages = useMessages();
const words = useStageWords();
const { show } = usePreferences();
const fault = ref<string | null>(null);

const species = computed(() => nursery.lookup.species.get(props.sowing.speciesId)?.common ?? '?');
const order = computed(() =>
  orders.all.find(({ lines }) => lines.some((line) => line.id === props.sowing.lineId)),
);
const day = (iso: string) => longDate(dayOf(iso), yearOf(season.today));
const may = computed(() => session.may('grower'));
/** Places that a stage may stand in: beds, or what carries trays. */
const placesFor = ({ containerTypeId }: PlannedSowing['stages'][number]) =>
  nursery
    .catalogue!.places.filter(({ place }) =>
      containerTypeId === null ? place.kind === 'bed' : place.kind === 'bench' || place.kind === 'ground',
    )
    .map(({ id, place }) => ({ value: id, words: place.name }));
async function put(sowing: PlannedSowing, said: string) {
  const before = props.sowing;
  try {
    await plan.put(sowing);
    messages.say(said, () => plan.put(before));
    fault.value = null;
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
const place = (at: number, placeId: string) =>
  put(
    {
      ...props.sowing,
      pinned: true,
      stages: props.sowing.stages.map((stage, i) => (i === at ? { ...stage, placeId } : stage)),
    },
    say`Put in another place.`,
  );
async function remove(said = say`Taken out of the plan.`) {
  const before = props.sowing;
  try {
    await plan.remove(before.id);
    messages.say(said, () => plan.put(before));
    emit('close');
  } catch (error) {
    fault.value = sentenceOf(error);
  }
}
/** A lot sown so near the planned week may be the one, days. */
const NEAR_DAYS = 60;
const sownLots = computed(() => {
  const { speciesId, stages } = props.sowing;
  const on = dayOf(stages[0].from);
  const near = [...nursery.lots.values()].filter(
    (lot) =>
      lot.speciesId === speciesId &&
      Math.abs(dayOf(lot.sownOn) - on) <= NEAR_DAYS &&
      lot.held.sown + lot.held.standing > 0,
  );
  return [
    { value: '', words: say`not yet` },
    ...near.map(({ id, code, sownOn }) => ({ value: id, words: say`${code}, sown ${day(sownOn)}` })),
  ];
});
/** Once it is sown the lot stands for it, and the plan has done its part. */
const sownAs = computed({
  get: () => '',
  set: (id) => {
    if (id) void remove(say`Sown as ${nursery.lots.get(id)?.code}: the lot stands for it from now on.`);
  },
});
const room = ({ trays, areaM2 }: PlannedSowing['stages'][number]) =>
  trays === null ? show(areaM2!, 'area', 1) : several(trays, 'tray');
const isUnsure = computed(() => props.sowing.chance < props.sowing.wanted.chance);
</script>

<template>
  <section
    class="panel mx-4 mb-3 max-h-72 space-y-3 overflow-y-auto p-4"
    aria-labelledby="sowing"
    data-testid="sowing"
  >
    <header class="flex flex-wrap items-baseline gap-x-4">
      <h2 id="sowing" class="text-lg">{{ species }}, {{ word(sowing.route) }}</h2>
      <span class="text-muted">
        {{ say`${several(sowing.wanted.trees, 'tree')} by ${day(sowing.wanted.until)}`
        }}<template v-if="order">, {{ buyerOf(order) }}</template>
      </span>
      <b :class="isUnsure ? 'text-wrong' : ''"
        >{{ say`in time in ${surely(sowing.chance)} of forecasts`
        }}<template v-if="isUnsure">{{ say`, ${percent(sowing.wanted.chance)} wanted` }}</template></b
      >
      <button class="act ml-auto px-3" type="button" :aria-label="say`Close`" @click="emit('close')">
        <X :size="18" aria-hidden="true" />
      </button>
    </header>
    <ol class="flex flex-wrap gap-3">
      <li v-for="(stage, i) in sowing.stages" :key="i" class="border-rule rounded-md border px-3 py-2">
        <b>{{ day(stage.from) }}</b>
        <span class="block">{{ say`${count(stage.plants)} in ${words(stage)}: ${room(stage)}` }}</span>
        <SelectField
          v-if="may"
          :label="say`Stands in`"
          :model-value="stage.placeId"
          :options="placesFor(stage)"
          @update:model-value="(id) => place(i, id)"
        />
      </li>
    </ol>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <div v-if="may" class="flex flex-wrap gap-3">
      <button class="act" type="button" :disabled="busy" @click="emit('shift', -1)">
        {{ say`A week earlier` }}
      </button>
      <button class="act" type="button" :disabled="busy" @click="emit('shift', 1)">
        {{ say`A week later` }}
      </button>
      <button class="quiet" type="button" @click="remove()">{{ say`Take it out of the plan` }}</button>
      <SelectField
        v-if="sownLots.length > 1"
        v-model="sownAs"
        :label="say`It is sown, as`"
        :options="sownLots"
      />
      <span v-if="busy" class="text-muted self-center" role="status">{{ say`Working it out anew …` }}</span>
    </div>
  </section>
</template>
