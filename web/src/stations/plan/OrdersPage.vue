<script setup lang="ts">
import { isoOf, say } from '@kauri/core';
import type { OrderLine } from '@kauri/core/contract';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import EmptyState from '../../parts/EmptyState.vue';
import PickRow from '../../parts/PickRow.vue';
import { useOrders } from '../../stores/orders';
import { useSession } from '../../stores/session';
import { dateWords } from '../../words/dates';
import { several } from '../../words/numbers';
import OrderDialog from './OrderDialog.vue';
import OrderDetail from './OrderDetail.vue';
import OrderFiles from './OrderFiles.vue';
import { buyerOf, isOpen, nextOf } from './orderWords';

const orders = useOrders();
const session = useSession();
const route = useRoute();
const router = useRouter();
const closedToo = ref(false);

/** What is wanted next comes first; what is done comes last. */
const sorted = computed(() =>
  [...orders.all].sort((a, b) => nextOf(a) - nextOf(b) || buyerOf(a).localeCompare(buyerOf(b))),
);
const open = computed(() => sorted.value.filter((order) => order.lines.some(isOpen)));
const shown = computed(() => (closedToo.value ? sorted.value : open.value));
const chosen = computed(
  () => sorted.value.find((order) => order.id === route.params.order) ?? shown.value[0] ?? null,
);
const adding = computed(() => route.query.add !== undefined && session.may('grower'));
const trees = (lines: readonly OrderLine[]) =>
  lines.filter(isOpen).reduce((t, line) => t + line.count - line.sent, 0);
const stopAdding = () => void router.replace({ query: {} });
</script>

<template>
  <EmptyState v-if="!orders.all.length && !adding" :title="say`Nothing is asked for yet`">
    {{
      say`Orders stand here, and hopes: what you would grow for sale or plant yourself. Kauri says from what stands whether they can be met, and what can still be promised.`
    }}
    <template #action>
      <span v-if="session.may('grower')" class="flex justify-center gap-3">
        <RouterLink class="act-main" :to="{ query: { add: '1' } }">{{ say`Write an order` }}</RouterLink>
        <OrderFiles />
      </span>
    </template>
  </EmptyState>
  <div v-else-if="orders.all.length" class="grid min-h-full md:grid-cols-[23.5rem_1fr]">
    <div class="border-rule md:border-r" :class="route.params.order ? 'hidden md:block' : ''">
      <div class="flex flex-wrap items-center gap-2 px-4 py-3">
        <h2 class="text-muted mr-auto font-bold">{{ several(open.length, 'open order') }}</h2>
        <OrderFiles />
        <RouterLink v-if="session.may('grower')" class="act" :to="{ query: { add: '1' } }">{{
          say`Write an order`
        }}</RouterLink>
      </div>
      <ul class="divide-rule divide-y" data-testid="orders">
        <PickRow
          v-for="order in shown"
          :key="order.id"
          :to="{ name: 'plan', params: { order: order.id } }"
          :chosen="order.id === chosen?.id"
        >
          <span class="flex items-baseline justify-between gap-2">
            <b>{{ buyerOf(order) }}</b>
            <span v-if="Number.isFinite(nextOf(order))" class="whitespace-nowrap">{{
              dateWords(isoOf(nextOf(order)))
            }}</span>
            <span v-else class="text-muted">{{ say`closed` }}</span>
          </span>
          <span class="text-muted block text-[0.93rem]">
            {{ several(order.lines.length, 'line')
            }}<template v-if="trees(order.lines)">{{
              say`, ${several(trees(order.lines), 'tree')} to come`
            }}</template>
          </span>
        </PickRow>
      </ul>
      <button
        v-if="open.length < orders.all.length"
        class="quiet m-4"
        type="button"
        @click="closedToo = !closedToo"
      >
        {{ closedToo ? say`Only open orders` : say`And ${orders.all.length - open.length} closed` }}
      </button>
    </div>
    <div :class="route.params.order ? '' : 'hidden md:block'">
      <OrderDetail v-if="chosen" :key="chosen.id" :order="chosen" />
    </div>
  </div>
  <OrderDialog v-if="adding" @close="stopAdding" />
</template>
