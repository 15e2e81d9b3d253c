<script setup lang="ts">
import { serviceLife, type BedDesign, say, inSentence } from '@kauri/core';
import { conditions } from '@kauri/core/contract';
import { computed, reactive } from 'vue';
import { call } from '../../api/client';
import FormField from '../../parts/FormField.vue';
import SelectField from '../../parts/SelectField.vue';
import SheetActs from '../../parts/SheetActs.vue';
import ShowWorking from '../../parts/ShowWorking.vue';
import { useSaving } from '../../parts/useSaving';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useSeason } from '../../stores/season';
import { useSession } from '../../stores/session';
import { useYard } from '../../stores/yard';
import { dateWords } from '../../words/dates';
import type { ShownPlace } from './usePlaces';

/** The condition a place was found in, its repairs, and how long it will last. */
const props = defineProps<{ shown: ShownPlace }>();
const yard = useYard();
const nursery = useNursery();
const session = useSession();
const season = useSeason();
const messages = useMessages();
const words = {
  sound: say`● Sound`,
  watch: say`◐ Watch`,
  repair: say`◑ Repair`,
  unsafe: say`○ Unsafe: keep off`,
} as const;
const options = conditions.map((value) => ({ value, words: words[value].slice(2) }));
const here = computed(() =>
  yard.checks.filter((c) => c.placeId === props.shown.place.id && c.day <= season.viewIso),
);
const life = computed(() =>
  props.shown.place.place.kind === 'bed' ? serviceLife(props.shown.place.place.design as BedDesign) : null,
);
/** Years in which the frame is due, where it is known when it was built. */
const ends = computed(() => {
  const { place } = props.shown.place;
  if (place.kind !== 'bed' || !place.builtOn || !life.value) return null;
  const year = Number(place.builtOn.slice(0, 4));
  const { early, median, late } = life.value.value;
  return {
    on: place.builtOn,
    early: year + Math.floor(early),
    median: year + Math.round(median),
    late: year + Math.ceil(late),
  };
});
const built = computed(() => {
  const { place } = props.shown.place;
  if (place.kind !== 'bed' || !place.builtFrom) return null;
  const design = nursery.catalogue!.designs.find((d) => d.id === place.builtFrom!.designId);
  return design ? { name: design.name, version: place.builtFrom.version, latest: design.version } : null;
});
const form = reactive({ condition: 'sound' as (typeof conditions)[number], repaired: false, note: '' });
const { busy, save, sentence } = useSaving(`check.${props.shown.place.id}`);
async function keep() {
  const body = { day: season.todayIso, ...form };
  const kept = await save(body, (id) =>
    call('checkPlace', {
      params: { ...nursery.params, place: props.shown.place.id },
      body: { id, ...body },
    }),
  );
  if (!kept) return;
  yard.checks = [kept, ...yard.checks];
  form.note = '';
  form.repaired = false;
  messages.say(say`Check kept.`);
}
</script>

<template>
  <section aria-labelledby="condition">
    <h2 id="condition" class="text-lg">{{ say`Condition` }}</h2>
    <p v-if="here.length" data-testid="condition">
      <b>{{ words[here[0].condition] }}</b>, {{ dateWords(here[0].day)
      }}{{ here[0].note ? `: ${here[0].note}` : '.' }}
    </p>
    <p v-else class="text-muted">{{ say`Not checked yet.` }}</p>
    <p v-if="built" class="text-muted">
      {{ say`Built from ${built.name}, version ${built.version}`
      }}<template v-if="built.latest > built.version">{{
        say`; the design is now at version ${built.latest}, this bed is as it was built`
      }}</template
      >.
    </p>
    <template v-if="life">
      <p v-if="ends" data-testid="end-of-life">
        {{
          say`Built ${dateWords(ends.on)}: to be replaced about ${ends.median}, at the earliest ${ends.early}, at the latest ${ends.late}.`
        }}
      </p>
      <p v-else>
        {{
          say`Lasts ${life.value.early.toFixed(0)} to ${life.value.late.toFixed(0)} seasons in this timber over this ground.`
        }}
      </p>
      <ShowWorking :steps="life.working" />
    </template>
    <details v-if="session.may('crew')">
      <summary class="quiet">{{ say`Record a check or a repair` }}</summary>
      <form class="mt-1 grid max-w-xl grid-cols-2 items-end gap-2" novalidate @submit.prevent="keep">
        <SelectField v-model="form.condition" :label="say`Found`" :options="options" />
        <label class="flex min-h-11 items-center gap-2"
          ><input v-model="form.repaired" type="checkbox" class="size-5" /> {{ say`Repaired` }}</label
        >
        <FormField v-model="form.note" class="col-span-2" :label="say`Note`" />
        <SheetActs
          class="col-span-2"
          :act="say`Record the check`"
          :busy="busy"
          :sentence="sentence()"
          @save="keep"
        />
      </form>
    </details>
    <ul v-if="here.length > 1" class="text-muted text-[0.95rem]">
      <li v-for="c in here.slice(1, 6)" :key="c.id">
        {{ dateWords(c.day) }}: {{ inSentence(words[c.condition].slice(2))
        }}{{ c.repaired ? say`, repaired` : '' }}{{ c.note ? `, ${c.note}` : '' }} ({{ c.by }})
      </li>
    </ul>
  </section>
</template>
