import type { TableLine } from '@kauri/core';
import type { BodyInputOf } from '@kauri/core/contract';
import { v7 as newId } from 'uuid';

export type NewOrderBody = BodyInputOf<'addOrders'>['orders'][number];

/** Orders of the lines of a table: those of one buyer make one order, each without a buyer one hope together. */
export function ordersFrom(lines: readonly (TableLine & { speciesId: string })[]): NewOrderBody[] {
  const byBuyer = new Map<string, NewOrderBody>();
  for (const { buyer, reach, species: _, ...line } of lines) {
    const of = byBuyer.get(buyer) ?? { id: newId(), buyer, reach, note: '', lines: [] };
    byBuyer.set(buyer, { ...of, reach: of.reach || reach, lines: [...of.lines, { ...line, id: newId() }] });
  }
  return [...byBuyer.values()];
}
