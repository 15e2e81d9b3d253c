import type { LotRow, Patch } from '@kauri/core/contract';

/** Lots with a part of a bed of their own that still stand or lie there, from one end to the other. */
export function shownPatches(
  lots: Iterable<LotRow>,
  placeId: string,
): { id: string; code: string; sownOn: string; speciesId: string; patch: Patch }[] {
  return [...lots]
    .filter(
      (lot) => lot.stage.placeId === placeId && lot.patch !== null && lot.held.sown + lot.held.standing > 0,
    )
    .map((lot) => ({
      id: lot.id,
      code: lot.code,
      sownOn: lot.sownOn,
      speciesId: lot.speciesId,
      patch: lot.patch!,
    }))
    .sort((a, b) => a.patch.fromMm - b.patch.fromMm);
}

/** Lots already in a part of a bed, with how much of it each has, mm. */
export function overlaps<T extends { patch: Patch }>(
  { fromMm, toMm }: Pick<Patch, 'fromMm' | 'toMm'>,
  taken: readonly T[],
): (T & { sharedMm: number })[] {
  return taken
    .map((t) => ({ ...t, sharedMm: Math.min(toMm, t.patch.toMm) - Math.max(fromMm, t.patch.fromMm) }))
    .filter((t) => t.sharedMm > 0);
}
