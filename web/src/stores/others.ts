import type { Landed } from '@kauri/core/contract';
import type { Area } from '@kauri/core/contract/paths';
import { useDocumentVisibility } from '@vueuse/core';
import { defineStore } from 'pinia';
import { onScopeDispose, watch } from 'vue';
import { PAGE } from '../api/client';
import { hearLanded } from '../api/landed';
import { useNursery } from './nursery';

/** Writes that come together are taken in together, ms. */
const GATHER_MS = 150;
/** What others wrote is fetched at most this often, ms; where that takes long, ten times as seldom as it takes. */
const LEAST_REST_MS = 1_000;
const REST_FOR_EACH = 10;

/** What landed since it was last taken in: in which areas, and about which lots; null where it may be any. */
export interface Gathered {
  areas: ReadonlySet<Area> | null;
  lots: ReadonlySet<string> | null;
}

/** Several writes as one. */
export function gathered(all: readonly Landed[]): Gathered {
  const anywhere = all.some(({ area }) => area === null);
  const anyLot = all.some(({ lots }) => lots === null);
  return {
    areas: anywhere ? null : new Set(all.map(({ area }) => area!)),
    lots: anyLot ? null : new Set(all.flatMap(({ lots }) => lots!)),
  };
}

/** What others write, as it lands: whoever shows something of it takes it in. */
export const useOthers = defineStore('others', () => {
  const nursery = useNursery();
  const takers = new Set<{ areas: readonly Area[]; take: () => Promise<unknown> }>();
  let heard: Landed[] = [];
  let timer: ReturnType<typeof setTimeout> | undefined;
  let restUntil = 0;

  async function takeIn() {
    timer = undefined;
    const news = gathered(heard);
    heard = [];
    const began = performance.now();
    const wanted = [...takers].filter(
      ({ areas }) => news.areas === null || areas.some((a) => news.areas!.has(a)),
    );
    await Promise.allSettled([nursery.takeIn(news), ...wanted.map(({ take }) => take())]);
    const now = performance.now();
    restUntil = now + Math.max(LEAST_REST_MS, REST_FOR_EACH * (now - began));
    if (heard.length) soon();
  }
  function soon() {
    timer ??= setTimeout(() => void takeIn(), Math.max(GATHER_MS, restUntil - performance.now()));
  }
  function hear(landed: Landed) {
    if (landed.page === PAGE) return;
    heard.push(landed);
    soon();
  }

  /** Hears what lands while the page is seen; comes back to what it missed. Ends with whoever asks for it. */
  function listen(): void {
    const seen = useDocumentVisibility();
    let end: (() => void) | null = null;
    watch(
      () => (seen.value === 'visible' ? nursery.nurseryId : null),
      (nurseryId, before) => {
        end?.();
        end = nurseryId ? hearLanded(nurseryId, hear) : null;
        if (nurseryId && before !== undefined) hear({ area: null, lots: null, page: null });
      },
      { immediate: true },
    );
    onScopeDispose(() => {
      end?.();
      clearTimeout(timer);
      timer = undefined;
    });
  }

  /** Has `take` called whenever others wrote in one of the areas, for as long as whoever asks lives. */
  function follow(areas: readonly Area[], take: () => Promise<unknown>): void {
    const taker = { areas, take };
    takers.add(taker);
    onScopeDispose(() => takers.delete(taker));
  }

  return { listen, follow };
});
