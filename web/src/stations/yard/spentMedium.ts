import { dayOf, type EpochDay } from '@kauri/core';
import type { Evidence, LotRow } from '@kauri/core/contract';

/** What stood in a place last and is gone from it, as its medium remembers. */
export interface StoodHere {
  /** The day the last of it went. */
  emptiedOn: EpochDay;
  codes: string[];
  /** Of those, the ones whose roots rotted there. */
  rotted: string[];
}

/** Lots that leave a place within so many days of its last are one crop of it. */
const ONE_CROP_DAYS = 180;

/**
 * The last crop of a place that nothing stands in; null where nothing ever stood there.
 * @param lots all of them, and what was recorded of each
 */
export function stoodLast(
  lots: Iterable<LotRow>,
  evidence: ReadonlyMap<string, Pick<Evidence, 'stages' | 'movements' | 'events'>>,
  placeId: string,
): StoodHere | null {
  const crops = [...lots].flatMap(({ id, code }) => {
    const of = evidence.get(id);
    const at = of?.stages.findLastIndex((stage) => stage.placeId === placeId) ?? -1;
    if (!of || at < 0) return [];
    const { startedOn, endedOn } = of.stages[at];
    const went = of.movements.filter(({ from }) => from === 'standing').map(({ on: day }) => day);
    const on = endedOn ?? went.sort().at(-1);
    if (!on) return [];
    const rotted = of.events.some(({ what, on: day }) => what === 'rot' && day >= startedOn && day <= on);
    return [{ code, on: dayOf(on), rotted }];
  });
  if (!crops.length) return null;
  const emptiedOn = Math.max(...crops.map(({ on }) => on));
  const last = crops.filter(({ on }) => on >= emptiedOn - ONE_CROP_DAYS);
  return {
    emptiedOn,
    codes: last.map(({ code }) => code),
    rotted: last.filter((one) => one.rotted).map(({ code }) => code),
  };
}

/** Whether a heap's note says that medium came from a place: the whole of its name, “Bed 1” and not “Bed 10”. */
export const cameFrom = (note: string, place: string): boolean => ` ${note}`.includes(` ${place},`);
