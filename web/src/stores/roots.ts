import { dayOf, isoOf, lotVerdict, type LotVerdict, type RootSchool, type Worked } from '@kauri/core';
import type { KeptRootRules, RootRules } from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { call } from '../api/client';
import { useNursery } from './nursery';
import { useOthers } from './others';
import { useSeason } from './season';

/** Scorecards and terms of pulling, and what they say of each lot’s plants by the date looked at. */
export const useRoots = defineStore('roots', () => {
  const nursery = useNursery();
  const season = useSeason();
  const kept = shallowRef<KeptRootRules | null>(null);
  let loaded: string | null = null;

  async function load(again = false) {
    if (loaded === nursery.nurseryId && !again) return;
    kept.value = await call('rootRules', { params: nursery.params });
    loaded = nursery.nurseryId;
  }
  useOthers().follow(['roots'], async () => void (loaded !== null && (await load(true))));
  async function keep(version: number, rules: RootRules) {
    kept.value = await call('setRootRules', { params: nursery.params, body: { version, rules } });
  }

  const rules = computed(() => kept.value?.rules ?? null);
  /** Plants of a lot by the date looked at, in the order they were pulled. */
  function plantsOf(lotId: string) {
    const iso = isoOf(season.view);
    return (nursery.evidence.get(lotId)?.roots ?? []).filter((r) => r.on <= iso);
  }
  /** Verdicts last worked out: while the ribbon is dragged the same plants are judged over and over. */
  const known = new Map<string, { rules: RootRules; plants: string; verdict: Worked<LotVerdict> }>();
  function verdictOf(lotId: string, school?: RootSchool): Worked<LotVerdict> | null {
    if (!rules.value) return null;
    const { cards, terms, cap } = rules.value;
    const by = school ?? rules.value.school;
    const records = plantsOf(lotId);
    // Of lots of which nothing was pulled all that can be said is the same.
    const of = records.length ? lotId : '';
    const plants = records.map((r) => r.entry).join();
    const key = `${of}.${by}`;
    const kept = known.get(key);
    if (kept?.rules === rules.value && kept.plants === plants) return kept.verdict;
    const pulled = records.map((r) => ({ id: r.entry, day: dayOf(r.on), plant: r.plant }));
    const verdict = lotVerdict(pulled, cards[by], terms, cap);
    known.set(key, { rules: rules.value, plants, verdict });
    return verdict;
  }
  return { kept, rules, load, keep, plantsOf, verdictOf };
});
