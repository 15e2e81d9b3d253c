<script setup lang="ts">
import { byNature, say } from '@kauri/core';
import type { KeptOrder, OrderLine } from '@kauri/core/contract';
import { X } from 'lucide-vue-next';
import { computed, ref } from 'vue';
import { ProblemError, sentenceOf } from '../../api/problem';
import SelectField from '../../parts/SelectField.vue';
import { useMessages } from '../../stores/messages';
import { useNursery } from '../../stores/nursery';
import { useOrders } from '../../stores/orders';
import { useSession } from '../../stores/session';
import { several } from '../../words/numbers';

/** The lots that are set against a line: they alone serve it. Without any, whatever stands may. */
const props = defineProps<{ order: KeptOrder; line: OrderLine }>();
const nursery = useNursery();
const orders = useOrders();
const session = useSession();
const messages = useMessages();
const fault = ref<string | null>(null);
const busy = ref(false);
const codeOf = (id: string) => nursery.lots.get(id)?.code ?? say`a lot closed since`;
const others = computed(() =>
  [...nursery.lots.values()]
    .filter(
      ({ id, speciesId, held }) =>
        speciesId === props.line.speciesId && held.standing > 0 && !props.line.lots.includes(id),
    )
    .sort((a, b) => byNature(a.code, b.code)),
);
const options = computed(() => [
  { value: '', words: props.line.lots.length ? say`another lot …` : say`any lot that stands` },
  ...others.value.map(({ id, code, held }) => ({
    value: id,
    words: `${code}, ${several(held.standing, 'tree')}`,
  })),
]);
async function set(lots: string[], said: string) {
  const { lots: before, id } = props.line;
  const write = async (to: readonly string[]) => {
    const { version, buyer, reach, note, lines } = orders.all.find((one) => one.id === props.order.id)!;
    await orders.edit(props.order.id, {
      version,
      buyer,
      reach,
      note,
      lines: lines.map((line) => (line.id === id ? { ...line, lots: [...to] } : line)),
    });
  };
  busy.value = true;
  try {
    await write(lots);
    fault.value = null;
    messages.say(said, () => write(before));
  } catch (error) {
    // Somebody changed it meanwhile: told of, and the next try goes on from what stands now.
    if (error instanceof ProblemError && error.kind === 'stale-edit') await orders.load();
    fault.value = sentenceOf(error);
  } finally {
    busy.value = false;
  }
}
const add = computed({
  get: () => '',
  set: (id: string) => {
    if (id) void set([...props.line.lots, id], say`${codeOf(id)} is set against it.`);
  },
});
const drop = (id: string) =>
  set(
    props.line.lots.filter((one) => one !== id),
    say`${codeOf(id)} is set against it no more.`,
  );
</script>

<template>
  <div class="mt-2 flex flex-wrap items-center gap-2" data-testid="line-lots">
    <span v-if="line.lots.length" class="text-muted">{{ say`Served by` }}</span>
    <span
      v-for="id in line.lots"
      :key="id"
      class="border-ink inline-flex items-center gap-1 rounded border pl-2 font-bold"
    >
      {{ codeOf(id) }}
      <button
        v-if="session.may('grower')"
        class="p-1"
        type="button"
        :disabled="busy"
        :aria-label="say`${codeOf(id)} set against it no more`"
        @click="drop(id)"
      >
        <X :size="16" aria-hidden="true" />
      </button>
    </span>
    <SelectField
      v-if="session.may('grower') && others.length"
      v-model="add"
      :label="say`Served by`"
      class="max-w-64"
      :options="options"
    />
    <p v-if="fault" class="text-wrong font-bold" role="alert">{{ fault }}</p>
  </div>
</template>
