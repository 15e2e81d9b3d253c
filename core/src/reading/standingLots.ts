import { dayOf, type EpochDay } from '../calendar/day';
import type { LotRow } from '../contract';
import { apartAt } from '../forecast/careSeen';
import type { LotForecast } from '../forecast/forecast';
import type { LotFacts } from '../forecast/lotFacts';
import type { Standing } from '../forecast/standing';
import type { Stay } from './board';
import { shareLeft, type Occupant } from './occupancy';

/** A lot as it stands on a day: its row, what was known of it then, and how it was judged. */
export interface StandingLot {
  row: Pick<LotRow, 'id' | 'stage'>;
  facts: LotFacts;
  standing: Standing;
}

/** Whether a lot takes up room on a day. */
export function takesRoom({ row, standing }: Pick<StandingLot, 'row' | 'standing'>, day: EpochDay): boolean {
  const { status } = standing;
  return status !== 'lifted' && status !== 'ended' && dayOf(row.stage.startedOn) <= day;
}

/** A lot as it takes room on a day: set apart it takes more, half lifted less. */
export const occupantOf = ({ row, facts, standing }: StandingLot, day: EpochDay): Occupant => ({
  lotId: row.id,
  stage: row.stage,
  apart: apartAt(facts, day),
  share: shareLeft(standing.tally),
});

/** What stands, by a forecast made today, is thought to stay where it is at least so long, days. */
const STAYS_DAYS = 7;

/**
 * Where a lot stands from a day, and until when it is thought to: a plug until it is bound, a bed lot until its lifting window
 * closes, or, where nothing rests, until it is as tall as was meant; null where it takes no room.
 * @param end first day that is not looked at
 */
export function standingStay(
  lot: StandingLot,
  forecast: Pick<LotForecast, 'bound' | 'ready' | 'lifting' | 'rests' | 'toTarget'>,
  today: EpochDay,
  from: EpochDay,
  end: EpochDay,
): Stay | null {
  if (!takesRoom(lot, today)) return null;
  const { bound, ready, lifting, rests, toTarget } = forecast;
  const inBed = lot.row.stage.containerTypeId === null;
  const leaves = !inBed ? bound.p50 : rests ? lifting.until : (toTarget?.p50 ?? Infinity);
  return {
    id: lot.row.id,
    placeId: lot.row.stage.placeId,
    from,
    until: Number.isFinite(leaves) ? Math.min(end, Math.max(today + STAYS_DAYS, Math.ceil(leaves))) : end,
    isPlanned: false,
    occupant: occupantOf(lot, today),
    mayLeaveFrom: inBed ? lifting.from : ready.p50,
  };
}
