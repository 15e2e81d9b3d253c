import type { Decision, EpochDay, Status } from '@kauri/core';
import { longDate, shortDate, yearOf } from './dates';
import { odds } from './numbers';

/** Each status as a shape and a word; the shape is drawn by StatusMark. */
export const statusWords: Record<Status, string> = {
  waiting: 'Waiting',
  failed: 'None up',
  filling: 'Filling',
  ready: 'Ready',
  holding: 'Holding',
  bound: 'Root-bound',
  growing: 'Growing',
  lift: 'Lift',
  lifted: 'Lifted',
  ended: 'Ended',
};

export interface DecisionWords {
  headline: string;
  detail: string;
  /** A few words for the list. */
  short: string;
}

/** What to do about a lot and by when, then why. */
export function decisionWords(decision: Decision, view: EpochDay): DecisionWords {
  const year = yearOf(view);
  const long = (day: EpochDay) => longDate(day, year);
  const short = (day: EpochDay) => shortDate(day, year);
  switch (decision.kind) {
    case 'await-emergence':
      return Number.isFinite(decision.around)
        ? {
            headline:
              decision.around > view
                ? `Wait; look from ${long(decision.around - 7)}`
                : 'Look for seedlings now',
            detail: `Half of forecasts have it up by ${short(decision.around)}, nine in ten by ${short(decision.by)}.`,
            short: `up ~ ${short(decision.around)}`,
          }
        : {
            headline: 'Wait',
            detail: 'It is not forecast to come up within the three years ahead.',
            short: 'not within three years',
          };
    case 'write-off':
      return {
        headline: 'Write it off, or keep it a second year',
        detail: `Nothing has come up; the last count was on ${short(decision.since)}. Cut ten seeds: white and firm may yet come.`,
        short: `since ${short(decision.since)}`,
      };
    case 'await-leaves':
      return {
        headline: `Prick out from about ${long(decision.from)}`,
        detail: `First true leaves by warmth about then; roots of neighbours meet about ${short(decision.by)}. Rules of thumb: look.`,
        short: `prick out ~ ${short(decision.from)}`,
      };
    case 'prick-out':
      return {
        headline:
          decision.by <= view ? 'Prick out now: roots are meeting' : `Prick out by ${long(decision.by)}`,
        detail: `First true leaves since about ${short(decision.from)} by warmth (rule of thumb). Hold them by the leaf, never by the stem.`,
        short: `by ${short(decision.by)}`,
      };
    case 'let-fill':
      return Number.isFinite(decision.readyAround)
        ? {
            headline: `Leave it to fill until about ${long(decision.readyAround)}`,
            detail:
              `Pulled now, a plug holds its shape in ${odds(decision.chanceReady)} forecasts.` +
              (decision.bound < decision.readyAround
                ? ` By ${short(decision.bound)} one forecast in ten is root-bound already: pull plugs from then on and move what holds.`
                : ''),
            short: `ready ~ ${short(decision.readyAround)}`,
          }
        : {
            headline: 'Leave it to fill',
            detail: 'The plug is not forecast to hold within the three years ahead.',
            short: 'not within three years',
          };
    case 'move-by':
      return Number.isFinite(decision.by)
        ? {
            headline:
              decision.by <= view ? 'Move it on; pull plugs to be sure' : `Move on by ${long(decision.by)}`,
            detail:
              decision.by <= decision.holdsSince
                ? `No day suits all of them: half hold since ${short(decision.holdsSince)}, and one in ten is root-bound since ${short(decision.by)}. Pull plugs, move what holds.`
                : `Plugs hold since ${short(decision.holdsSince)}. After ${short(decision.by)} more than 1 in 10 forecasts are root-bound` +
                  (Number.isFinite(decision.half) ? `; by ${short(decision.half)} half.` : '.'),
            short: decision.by <= view ? `risk since ${short(decision.by)}` : `until ${short(decision.by)}`,
          }
        : {
            headline: 'Ready whenever wanted',
            detail: `Plugs hold since ${short(decision.holdsSince)}; none is forecast root-bound within the three years ahead.`,
            short: `since ${short(decision.holdsSince)}`,
          };
    case 'move-now':
      return {
        headline:
          decision.chanceBound > 0.8 ? 'Move it on: root-bound' : 'Likely root-bound: pull plugs, move it on',
        detail: `Roots have filled the cell since ${short(decision.boundSince)} in ${odds(decision.chanceBound)} forecasts. Check for circling; cut or tease before the next pot.`,
        short: `since ${short(decision.boundSince)}`,
      };
    case 'raise-lid':
      return {
        headline: 'Raise or take off the lid',
        detail: `The tallest tenth have stood against it since ${short(decision.reached)}; bent leaders stay bent.`,
        short: `lid since ${short(decision.reached)}`,
      };
    case 'grow-on':
      if (!decision.rests || !Number.isFinite(decision.liftFrom))
        return {
          headline: 'Grow on; lift when it is to size',
          detail:
            'No winter rest is forecast here, so no lifting window by chill: lift in the cool of the day and the wet of the year, shade and mist after.',
          short: 'to size',
        };
      return {
        headline:
          decision.missed === null
            ? `Grow on; lift from ${long(decision.liftFrom)}`
            : `It stood through its winter; lift from ${long(decision.liftFrom)}`,
        detail:
          (decision.missed === null
            ? ''
            : `Its window closed ${short(decision.missed)}: another season of the bed, larger trees with coarser roots. `) +
          (Number.isFinite(decision.liftUntil)
            ? `The lifting window runs to about ${short(decision.liftUntil)}, two weeks before buds move.`
            : 'The window’s end lies beyond the forecast.'),
        short: `lift ~ ${short(decision.liftFrom)}`,
      };
    case 'lift':
      return {
        headline: `Lift between ${long(decision.from)} and ${long(decision.until)}`,
        detail: `Best before ${short(decision.bestBefore)}: in one year of ten buds are within two weeks of moving then. Not while the medium is frozen.`,
        short: `until ${short(decision.bestBefore)}`,
      };
    case 'done':
      return {
        headline: 'Nothing stands',
        detail: 'Every seed of this lot is accounted for in its ledger.',
        short: '',
      };
  }
}
