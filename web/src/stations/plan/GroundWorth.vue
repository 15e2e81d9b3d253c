<script setup lang="ts">
import { bedCost, bedGeometry, startingTreePrices, say } from '@kauri/core';
import type { Place } from '@kauri/core/contract';
import { computed, onMounted } from 'vue';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useProposals } from '../../stores/proposals';
import { money } from '../../words/money';
import { useSeasonWords } from './seasonWords';

/** What beds must return for a season, and what a little more ground would be worth in the plan that stands. */
const nursery = useNursery();
const proposals = useProposals();
const { show, typed } = usePreferences();
const { day, placeLike } = useSeasonWords();
// What is short is told where a season was planned; without one there is nothing to say.
onMounted(() => proposals.load().catch(() => undefined));
const prices = computed(() => nursery.catalogue!.prices.list);
const perM2 = computed(() => (prices.value.trees ?? startingTreePrices).placePerM2);
/** By the square metre, or foot, as the grower counts ground. */
const each = (aM2: number) =>
  say`${money(aM2 * typed(1, 'area'), prices.value.currency)} a season for ${show(typed(1, 'area'), 'area', 0)}`;

function yearly({ place }: Place): number | null {
  const medium = place.mediumId ? nursery.lookup.media.get(place.mediumId)?.values : undefined;
  if (place.kind !== 'bed' || !medium) return null;
  const { insideAreaM2 } = bedGeometry(place.design, medium.settling).value;
  return bedCost(place.design, medium, prices.value, 0).value.perSeason / insideAreaM2;
}
const beds = computed(() =>
  [...nursery.lookup.places.values()]
    .flatMap((place) => {
      const of = yearly(place);
      return of === null ? [] : [{ id: place.id, name: place.place.name, of, must: of + perM2.value }];
    })
    .sort((a, b) => b.must - a.must),
);
const planned = computed(() => proposals.all.find(({ chosen }) => chosen) ?? proposals.all.at(-1) ?? null);
const dear = computed(() => planned.value?.result?.dear ?? []);
</script>

<template>
  <section aria-labelledby="ground" class="max-w-3xl space-y-2" data-testid="ground">
    <h2 id="ground" class="text-lg">{{ say`What ground must return` }}</h2>
    <p v-if="beds.length">
      {{ say`Dearest bed:` }} <b>{{ beds[0].name }}</b>, {{ each(beds[0].must)
      }}<template v-if="beds.length > 1"
        >{{ say`; cheapest:` }} <b>{{ beds[beds.length - 1].name }}</b>,
        {{ each(beds[beds.length - 1].must) }}</template
      >{{
        say`. Timber, mesh and filling over their life, and ${each(perM2)} for what else could stand there.`
      }}
    </p>
    <p v-else class="text-muted">
      {{ say`No bed with a filling is in the yard: ${each(perM2)} for what else could stand there.` }}
    </p>
    <ul v-if="dear.length">
      <li v-for="of in dear" :key="of.placeId">
        {{
          say`${show(typed(1, 'area'), 'area', 0)} more of ${placeLike(of.placeId)} ${of.from === of.until ? say`from ${day(of.from)}` : say`from ${day(of.from)} to ${day(of.until)}`} would save about`
        }}
        <b>{{ money(of.perM2 * typed(1, 'area'), prices.currency) }}</b> {{ say`in “${planned!.name}”.` }}
      </li>
    </ul>
    <p v-else-if="planned?.result">
      {{ say`In “${planned.name}” there is ground enough: the last free bench is worth nothing more in it.` }}
    </p>
    <p class="text-muted text-sm">
      {{
        say`What a season’s ground is worth besides is a price of your own; Kauri begins with a rule of thumb.`
      }}
    </p>
  </section>
</template>
