import type { Status } from '@kauri/core';
import type { ShownLot } from './useLots';

const order: Record<Status, number> = {
  bound: 0,
  holding: 1,
  failed: 2,
  lift: 3,
  ready: 4,
  growing: 5,
  filling: 6,
  waiting: 7,
  lifted: 8,
  ended: 9,
};

/** What waits least comes first: by status, then by the date that matters, then by code. */
export function byUrgency(a: ShownLot, b: ShownLot): number {
  return (
    order[a.view.standing.status] - order[b.view.standing.status] ||
    (dueOf(a) === dueOf(b) ? 0 : dueOf(a) - dueOf(b)) ||
    a.row.code.localeCompare(b.row.code)
  );
}

function dueOf({ view: { standing } }: ShownLot): number {
  const d = standing.decision;
  switch (d.kind) {
    case 'move-by':
      return d.by;
    case 'lift':
      return d.bestBefore;
    case 'let-fill':
      return d.readyAround;
    case 'await-emergence':
      return d.around;
    default:
      return 0;
  }
}
