import type { Landed } from '@kauri/core/contract';
import { areaOf, type Area } from '@kauri/core/contract/paths';
import { useDocumentVisibility } from '@vueuse/core';
import { defineStore } from 'pinia';
import { onScopeDispose, watch } from 'vue';
import { PAGE, written } from '../api/client';
import { hearLanded } from '../api/landed';
import { useDevice } from './device';
import { useNursery } from './nursery';

/** Writes that come together are taken in together, ms. */
const GATHER_MS = 150;
/**
 * What others wrote is fetched at most this often, ms; where that takes long, ten times as seldom as it takes, but never so
 * seldom that somebody works on what was changed long ago.
 */
const LEAST_REST_MS = 1_000;
const REST_FOR_EACH = 10;
const MOST_REST_MS = 8_000;

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

/**
 * Takes in what is heard, some together and one taking-in after another: resting in between, longer where it took long.
 * What was written here meanwhile may be older in what came: then it is taken in once more.
 * @param written counts what this page wrote
 */
export function takingTurns(takeIn: (news: Gathered) => Promise<unknown>, written: () => number) {
  let heard: Landed[] = [];
  let timer: ReturnType<typeof setTimeout> | undefined;
  let taking = false;
  let restMs = 0;
  async function turn() {
    timer = undefined;
    taking = true;
    const these = heard;
    heard = [];
    const [began, before] = [performance.now(), written()];
    await takeIn(gathered(these)).catch(() => undefined);
    taking = false;
    if (written() !== before) heard.push(...these);
    restMs = Math.min(MOST_REST_MS, Math.max(LEAST_REST_MS, REST_FOR_EACH * (performance.now() - began)));
    if (heard.length) soon();
    else timer = setTimeout(rested, restMs);
  }
  function rested() {
    timer = undefined;
    restMs = 0;
    if (heard.length) soon();
  }
  function soon() {
    if (!taking) timer ??= setTimeout(() => void turn(), Math.max(GATHER_MS, restMs));
  }
  return {
    hear(landed: Landed) {
      heard.push(landed);
      soon();
    },
    stop() {
      clearTimeout(timer);
      timer = undefined;
      heard = [];
    },
  };
}

/** What others write, as it lands: whoever shows something of it takes it in. */
export const useOthers = defineStore('others', () => {
  const nursery = useNursery();
  const device = useDevice();
  const takers = new Set<{ areas: readonly Area[]; take: () => Promise<unknown> }>();
  const turns = takingTurns((news) => {
    const wanted = [...takers].filter(
      ({ areas }) => news.areas === null || areas.some((area) => news.areas!.has(area)),
    );
    return Promise.allSettled([nursery.takeIn(news), ...wanted.map(({ take }) => take())]);
  }, written);
  const hear = (landed: Landed) => {
    if (landed.page !== PAGE) turns.hear(landed);
  };

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
    // Opened as it was last seen: what the server says otherwise is as if others had just written it.
    watch(
      () => device.changed,
      (changed) => {
        if (!changed.length) return;
        for (const area of new Set(changed.map(areaOf))) turns.hear({ area, lots: null, page: null });
        device.takenIn();
        nursery.catchUp().catch(() => undefined);
      },
      { immediate: true },
    );
    onScopeDispose(() => {
      end?.();
      turns.stop();
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
