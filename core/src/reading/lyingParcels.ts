import { dayOf } from '../calendar/day';
import type { Aside, KeptOrder, Parcel } from '../contract';
import type { ColdStore } from '../lifting/storeClock';
import type { WantedLine } from '../plan/orderLine';
import type { LyingParcel } from '../plan/parcelStock';

/** Sums of what is set aside, by something of each. */
function summed(asides: readonly Aside[], key: (aside: Aside) => string): ReadonlyMap<string, number> {
  const sums = new Map<string, number>();
  for (const aside of asides) sums.set(key(aside), (sums.get(key(aside)) ?? 0) + aside.count);
  return sums;
}

/** Lifted trees set aside for each line of an order. */
export const asideByLine = (asides: readonly Aside[]): ReadonlyMap<string, number> =>
  summed(asides, ({ lineId }) => lineId);
/** Trees of each parcel that are set aside for somebody. */
export const asideByParcel = (asides: readonly Aside[]): ReadonlyMap<string, number> =>
  summed(asides, ({ parcelId }) => parcelId);

/** Lifted trees that still lie there, and how many of each are set aside for nobody, as promises are worked out from them. */
export function lyingParcels(
  parcels: readonly Parcel[],
  asides: readonly Aside[],
  stores: ReadonlyMap<string, ColdStore>,
): LyingParcel[] {
  const taken = asideByParcel(asides);
  return parcels
    .filter(({ held }) => held > 0)
    .map(({ id, lotId, code, speciesId, form, grade, fromCm, toCm, since, held, place }) => ({
      id,
      lotId,
      code,
      speciesId,
      form,
      grade,
      fromCm,
      toCm,
      since: dayOf(since),
      store: stores.get(place) ?? null,
      free: Math.max(0, held - (taken.get(id) ?? 0)),
    }));
}

/** Every line of orders as promises are worked out from it; one may be left out. */
export function wantedLines(
  orders: readonly KeptOrder[],
  asides: readonly Aside[],
  but?: string,
): WantedLine[] {
  const aside = asideByLine(asides);
  return orders.flatMap(({ lines }) =>
    lines
      .filter((line) => line.id !== but)
      .map((line) => ({
        ...line,
        on: dayOf(line.on),
        until: dayOf(line.until),
        aside: aside.get(line.id) ?? 0,
      })),
  );
}
