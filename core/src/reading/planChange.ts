import type { PlannedSowing } from '../contract';

/** What another plan changes. */
export interface PlanChange {
  /** Sowings that stay as they are. */
  same: number;
  /** Sown for the same line by the same route, but in another week, place or number. */
  moved: { from: PlannedSowing; to: PlannedSowing }[];
  added: PlannedSowing[];
  gone: PlannedSowing[];
}

/** What a plan changes of another: sowings are the same where line, route, week, place and trees are, whatever they are called. */
export function planChange(before: readonly PlannedSowing[], after: readonly PlannedSowing[]): PlanChange {
  const left = [...before];
  const take = (is: (one: PlannedSowing) => boolean) => {
    const at = left.findIndex(is);
    return at < 0 ? null : left.splice(at, 1)[0];
  };
  const others = after.filter((one) => take((other) => detailOf(other) === detailOf(one)) === null);
  const change: PlanChange = { same: after.length - others.length, moved: [], added: [], gone: [] };
  for (const to of others) {
    const from = take((other) => aimOf(other) === aimOf(to));
    if (from) change.moved.push({ from, to });
    else change.added.push(to);
  }
  change.gone = left;
  return change;
}

const aimOf = ({ lineId, speciesId, route }: PlannedSowing): string => `${lineId} ${speciesId} ${route}`;
const detailOf = (sowing: PlannedSowing): string =>
  `${aimOf(sowing)} ${sowing.wanted.trees} ${sowing.stages.map(({ from, placeId }) => `${from} ${placeId}`).join(' ')}`;
