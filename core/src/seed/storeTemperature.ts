import type { EpochDay } from '../calendar/day';
import { tempsOn } from '../weather/sums';
import type { Outlook } from '../weather/ensemble';
import type { PhaseKind } from '../species/protocol';

/** Where a batch lies: rooms at fixed temperatures, or out of doors, so much warmer than the station. */
export type BatchStore =
  { kind: 'fixed'; warmC: number; coldC: number } | { kind: 'outdoors'; warmerByC: number };

/** Mean temperature of a batch's store on a day, °C; years beyond the outlook's horizon repeat it. */
export function meanTempOn(
  store: BatchStore,
  kind: PhaseKind | null,
  outlook: Outlook,
  year: number,
  day: EpochDay,
): number {
  if (store.kind === 'fixed') return kind === 'warm' ? store.warmC : store.coldC;
  let within = day;
  while (within > outlook.asOf + outlook.horizonDays) within -= 365;
  while (within < outlook.pastStart) within += 365;
  const { tMinC, tMaxC } = tempsOn(outlook, year, within);
  return (tMinC + tMaxC) / 2 + store.warmerByC;
}
