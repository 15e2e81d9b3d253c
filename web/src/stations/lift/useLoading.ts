import { byNature } from '@kauri/core';
import type { KeptOrder, OrderLine, Parcel } from '@kauri/core/contract';
import { computed, type Ref } from 'vue';
import { useWay } from '../../parts/useWay';
import { useOrders } from '../../stores/orders';
import { useParcels } from '../../stores/parcels';

/** Trees of a parcel that are to be loaded for a line. */
export interface LoadRow {
  key: string;
  parcel: Parcel;
  order: KeptOrder;
  line: OrderLine;
  trees: number;
}
/** A place where one stops to load, in the order they are walked. */
export interface LoadStop {
  place: string;
  rows: LoadRow[];
  trees: number;
}

/**
 * What is set aside for lines of orders, as it is loaded: place after place by a short way through the yard, those that are no
 * place of the yard last.
 * @param chosen lines that are loaded for
 */
export function useLoading(chosen: Ref<ReadonlySet<string>>) {
  const asWalked = useWay();
  const orders = useOrders();
  const parcels = useParcels();

  /** Lines that something is set aside for, the soonest first. */
  const lines = computed(() =>
    orders.all
      .flatMap((order) => order.lines.map((line) => ({ order, line, trees: parcels.asideOfLine(line.id) })))
      .filter(({ trees }) => trees > 0)
      .sort((a, b) => a.line.on.localeCompare(b.line.on)),
  );
  const rows = computed<LoadRow[]>(() => {
    const byLine = new Map(lines.value.map((one) => [one.line.id, one]));
    const byId = new Map(parcels.lying.map((parcel) => [parcel.id, parcel]));
    return parcels.asides.flatMap(({ parcelId, lineId, count }) => {
      const of = byLine.get(lineId);
      const parcel = byId.get(parcelId);
      return of && parcel && chosen.value.has(lineId)
        ? [{ key: `${parcelId} ${lineId}`, parcel, order: of.order, line: of.line, trees: count }]
        : [];
    });
  });
  const stops = computed<LoadStop[]>(() => {
    const byPlace = new Map<string, LoadRow[]>();
    for (const row of rows.value)
      byPlace.set(row.parcel.place, [...(byPlace.get(row.parcel.place) ?? []), row]);
    return asWalked([...byPlace.keys()]).map((place) => {
      const of = byPlace.get(place)!;
      return {
        place,
        rows: of.sort((a, b) => byNature(a.parcel.code, b.parcel.code)),
        trees: of.reduce((sum, { trees }) => sum + trees, 0),
      };
    });
  });
  return { lines, rows, stops };
}
