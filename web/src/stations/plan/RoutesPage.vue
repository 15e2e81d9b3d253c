<script setup lang="ts">
import { say, word } from '@kauri/core';
import type { RaisingRoute } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { sentenceOf } from '../../api/problem';
import EmptyState from '../../parts/EmptyState.vue';
import SelectField from '../../parts/SelectField.vue';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { useRoutes } from '../../stores/routes';
import { useSession } from '../../stores/session';
import RouteDialog from './RouteDialog.vue';
import RouteStageCard from './RouteStageCard.vue';
import { startWords } from './routeWords';

/** How each species is raised here: its routes, the best first. */
const nursery = useNursery();
const routes = useRoutes();
const orders = useOrders();
const session = useSession();
const messages = useMessages();
const address = useRoute();
const router = useRouter();

const speciesOptions = computed(() => {
  const wanted = new Set(orders.all.flatMap(({ lines }) => lines.map((line) => line.speciesId)));
  const written = new Set(routes.kept?.routes.routes.map((route) => route.speciesId));
  return nursery
    .catalogue!.species.map((s) => ({
      value: s.id,
      words: `${s.common}${written.has(s.id) ? say` · own routes` : wanted.has(s.id) ? say` · wanted` : ''}`,
    }))
    .sort((a, b) => a.words.localeCompare(b.words));
});
const speciesId = computed({
  get: () => {
    const asked = String(address.query.species ?? '');
    return nursery.lookup.species.has(asked)
      ? asked
      : (orders.all[0]?.lines[0]?.speciesId ?? nursery.catalogue!.species[0].id);
  },
  set: (id) => void router.replace({ query: { species: id } }),
});
const species = computed(() => nursery.lookup.species.get(speciesId.value)!);
const known = computed(() => routes.of(speciesId.value));
const may = computed(() => session.may('grower'));
const fault = ref<string | null>(null);
const changing = ref<RaisingRoute | 'new' | null>(null);

/** Routes as they can be kept: those that a habit suggests become the nursery's own. */
const owned = (): RaisingRoute[] =>
  known.value.own ? known.value.routes : known.value.routes.map((route) => ({ ...route, id: newId() }));

/** @returns what is wrong; null once it is kept */
async function write(list: readonly RaisingRoute[], said: string): Promise<string | null> {
  const id = speciesId.value;
  const before = known.value.own ? known.value.routes : [];
  try {
    await routes.write(id, list);
    messages.say(said, () => routes.write(id, before));
    return null;
  } catch (error) {
    return sentenceOf(error);
  }
}
async function change(list: readonly RaisingRoute[], said: string): Promise<void> {
  fault.value = await write(list, said);
}
/** A route changed stands where it stood; a new one comes last. */
function keep(route: RaisingRoute): Promise<string | null> {
  const at = known.value.routes.findIndex((other) => other === changing.value);
  const list = owned();
  if (at < 0) list.push(route);
  else list[at] = { ...route, id: list[at].id };
  return write(list, at < 0 ? say`Route added.` : say`Route changed.`);
}
function raise(at: number) {
  const list = owned();
  [list[at - 1], list[at]] = [list[at], list[at - 1]];
  void change(list, say`Moved up.`);
}
/** Takes over what own lots say of a stage's share. */
function take(at: number, stageAt: number, goesOn: number) {
  const list = owned();
  const stages = list[at].stages.map((stage, k) => (k === stageAt ? { ...stage, goesOn } : stage));
  list[at] = { ...list[at], stages };
  void change(list, say`Taken over from your lots.`);
}
const remove = (at: number) =>
  change(
    owned().filter((_, i) => i !== at),
    say`Route taken out.`,
  );
</script>

<template>
  <div class="space-y-4 p-4 md:p-6">
    <header class="flex flex-wrap items-end gap-4">
      <h1 class="text-2xl">{{ say`Routes` }}</h1>
      <SelectField
        v-model="speciesId"
        class="w-80 max-w-full"
        :label="say`Species`"
        :options="speciesOptions"
      />
      <button v-if="may" class="act-main ml-auto" type="button" @click="changing = 'new'">
        {{ say`Add a route` }}
      </button>
    </header>
    <p class="text-muted max-w-3xl">
      {{
        say`How ${species.common} may be raised here, the first choice first. When to sow runs each of them ahead.`
      }}
      <template v-if="!known.own">
        {{
          say` None was written yet: these are what its habit suggests with the places and containers of the yard, losses and hours by rule of thumb, moved by what your own lots and recorded hours say.`
        }}
      </template>
    </p>
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
    <ol v-if="known.routes.length" class="space-y-3" data-testid="routes">
      <li v-for="(route, i) in known.routes" :key="route.id" class="panel p-4">
        <p class="flex flex-wrap items-baseline gap-x-3">
          <b class="text-lg">{{ word(route.name) }}</b>
          <span class="text-muted">{{ startWords[route.start] }}</span>
          <span v-if="!known.own" class="text-muted text-sm italic">{{ say`suggested` }}</span>
          <span v-if="may" class="ml-auto flex gap-3">
            <button v-if="i > 0" class="quiet" type="button" @click="raise(i)">{{ say`Move up` }}</button>
            <button class="quiet" type="button" @click="changing = route">{{ say`Change` }}</button>
            <button class="quiet" type="button" @click="remove(i)">{{ say`Take out` }}</button>
          </span>
        </p>
        <ol class="mt-2 flex flex-wrap items-stretch gap-2">
          <li
            v-for="(_, k) in route.stages"
            :key="k"
            class="border-rule bg-paper max-w-72 rounded-md border px-3 py-2"
          >
            <RouteStageCard
              :route="route"
              :at="k"
              :own="known.own"
              :may="may"
              @take="(goesOn) => take(i, k, goesOn)"
            />
          </li>
        </ol>
      </li>
    </ol>
    <EmptyState v-else :title="say`No way to raise it yet`">
      {{
        say`The yard has no bed, and no bench with a container that would do. Add a place first, or write a route.`
      }}
    </EmptyState>
    <RouteDialog
      v-if="changing"
      :species-id="speciesId"
      :route="changing === 'new' ? null : changing"
      :write="keep"
      @close="changing = null"
    />
  </div>
</template>
