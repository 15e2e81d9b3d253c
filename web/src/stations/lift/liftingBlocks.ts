import type { EpochDay, LiftingOdds } from '@kauri/core';

type Block = LiftingOdds['blocks'][number];

/** Work on a lot shorter than this is no block of its own, where the lot has another: whoever lifts finishes it, h. */
const CRUMB_HOURS = 0.25;

/**
 * Blocks of work by their days, as they are lifted; a crumb that the end of a day left over is done with the lot's block
 * beside it.
 */
export function blocksByDay(blocks: readonly Block[]): ReadonlyMap<EpochDay, Block[]> {
  const whole = blocks.map((block) => ({ ...block }));
  for (const crumb of whole) {
    if (crumb.hours >= CRUMB_HOURS) continue;
    const beside = whole.find((other) => other !== crumb && other.id === crumb.id && other.hours > 0);
    if (!beside) continue;
    beside.hours += crumb.hours;
    crumb.hours = 0;
  }
  const byDay = new Map<EpochDay, Block[]>();
  for (const block of whole)
    if (block.hours > 0) byDay.set(block.day, [...(byDay.get(block.day) ?? []), block]);
  return byDay;
}
