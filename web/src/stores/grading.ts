import { usualTrench } from '@kauri/core';
import type { Grading, GradeScheme, KeptGrading } from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { call } from '../api/client';
import { useNursery } from './nursery';

/** By what lifted trees are graded: the nursery's own schemes. */
export const useGrading = defineStore('grading', () => {
  const nursery = useNursery();
  const kept = shallowRef<KeptGrading | null>(null);
  const loadedFor = shallowRef<string | null>(null);
  const askedFor = shallowRef<string | null>(null);
  /** Whether the server was asked and answered or could not: nothing more comes of itself. */
  const settled = computed(() => askedFor.value === nursery.nurseryId);

  async function load(again = false) {
    const { nurseryId } = nursery;
    if (loadedFor.value === nurseryId && !again) return;
    try {
      kept.value = await call('grading', { params: nursery.params });
      loadedFor.value = nurseryId;
    } finally {
      askedFor.value = nurseryId;
    }
  }
  async function keep(version: number, grading: Grading) {
    kept.value = await call('setGrading', { params: nursery.params, body: { version, grading } });
    return kept.value;
  }

  /** How trees are heeled in here; rules of thumb until the nursery keeps its own. */
  const trench = computed(() => kept.value?.grading.trench ?? usualTrench);
  const schemes = computed(() => kept.value?.grading.schemes ?? []);
  /** Schemes for a species: those made for it, then those for all, then the others. */
  function schemesFor(speciesId: string): GradeScheme[] {
    const rank = ({ speciesIds }: GradeScheme) =>
      speciesIds.includes(speciesId) ? 0 : speciesIds.length === 0 ? 1 : 2;
    return [...schemes.value].sort((a, b) => rank(a) - rank(b));
  }
  /** The one thought of first; null where none is for it. */
  const firstFor = (speciesId: string): GradeScheme | null =>
    schemesFor(speciesId).find(
      ({ speciesIds }) => speciesIds.length === 0 || speciesIds.includes(speciesId),
    ) ?? null;

  return { kept, settled, schemes, trench, load, keep, schemesFor, firstFor };
});
