import { say, inWords } from '@kauri/core';
import type { Decision, EpochDay, Status } from '@kauri/core';
import { longDate, shortDate, yearOf } from './dates';
import { odds } from './numbers';

/** Each status as a shape and a word; the shape is drawn by StatusMark. */
export const statusWords: Record<Status, string> = inWords({
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
});

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
              decision.from > view
                ? say`Wait; look from ${long(decision.from)}`
                : say`Look for seedlings now`,
            detail: say`Half of forecasts have it up by ${short(decision.around)}, nine in ten by ${short(decision.by)}.`,
            short: say`up ~ ${short(decision.around)}`,
          }
        : {
            headline: say`Wait`,
            detail: say`It is not forecast to come up within the three years ahead.`,
            short: say`not within three years`,
          };
    case 'write-off':
      return {
        headline: say`Write it off, or keep it a second year`,
        detail: say`Nothing has come up; the last count was on ${short(decision.since)}. Cut ten seeds: white and firm may yet come.`,
        short: say`since ${short(decision.since)}`,
      };
    case 'await-leaves':
      return {
        headline: say`Prick out from about ${long(decision.from)}`,
        detail: say`First true leaves by warmth about then; roots of neighbours meet about ${short(decision.by)}. Rules of thumb: look.`,
        short: say`prick out ~ ${short(decision.from)}`,
      };
    case 'prick-out':
      return {
        headline:
          decision.by <= view
            ? say`Prick out now: roots are meeting`
            : say`Prick out by ${long(decision.by)}`,
        detail: say`First true leaves since about ${short(decision.from)} by warmth (rule of thumb). Hold them by the leaf, never by the stem.`,
        short: say`by ${short(decision.by)}`,
      };
    case 'let-fill':
      return Number.isFinite(decision.readyAround)
        ? {
            headline: say`Leave it to fill until about ${long(decision.readyAround)}`,
            detail:
              say`Pulled now, a plug holds its shape in ${odds(decision.chanceReady)} forecasts.` +
              (decision.bound < decision.readyAround
                ? say` By ${short(decision.bound)} one forecast in ten is root-bound already: pull plugs from then on and move what holds.`
                : ''),
            short: say`ready ~ ${short(decision.readyAround)}`,
          }
        : {
            headline: say`Leave it to fill`,
            detail: say`The plug is not forecast to hold within the three years ahead.`,
            short: say`not within three years`,
          };
    case 'move-by':
      return Number.isFinite(decision.by)
        ? {
            headline:
              decision.by <= view
                ? say`Move it on; pull plugs to be sure`
                : say`Move on by ${long(decision.by)}`,
            detail:
              decision.by <= decision.holdsSince
                ? say`No day suits all of them: half hold since ${short(decision.holdsSince)}, and one in ten is root-bound since ${short(decision.by)}. Pull plugs, move what holds.`
                : say`Plugs hold since ${short(decision.holdsSince)}. After ${short(decision.by)} more than 1 in 10 forecasts are root-bound` +
                  (Number.isFinite(decision.half) ? say`; by ${short(decision.half)} half.` : '.'),
            short:
              decision.by <= view ? say`risk since ${short(decision.by)}` : say`until ${short(decision.by)}`,
          }
        : {
            headline: say`Ready whenever wanted`,
            detail: say`Plugs hold since ${short(decision.holdsSince)}; none is forecast root-bound within the three years ahead.`,
            short: say`since ${short(decision.holdsSince)}`,
          };
    case 'move-now':
      return {
        headline:
          decision.chanceBound > 0.8
            ? say`Move it on: root-bound`
            : say`Likely root-bound: pull plugs, move it on`,
        detail: say`Roots have filled the cell since ${short(decision.boundSince)} in ${odds(decision.chanceBound)} forecasts. Check for circling; cut or tease before the next pot.`,
        short: say`since ${short(decision.boundSince)}`,
      };
    case 'raise-lid':
      return {
        headline: say`Raise or take off the lid`,
        detail: say`The tallest tenth have stood against it since ${short(decision.reached)}; bent leaders stay bent.`,
        short: say`lid since ${short(decision.reached)}`,
      };
    case 'grow-on':
      if (!decision.rests || !Number.isFinite(decision.liftFrom))
        return {
          headline: say`Grow on; lift when it is to size`,
          detail: say`No winter rest is forecast here, so no lifting window by chill: lift in the cool of the day and the wet of the year, shade and mist after.`,
          short: say`to size`,
        };
      return {
        headline:
          decision.missed === null
            ? say`Grow on; lift from ${long(decision.liftFrom)}`
            : say`It stood through its winter; lift from ${long(decision.liftFrom)}`,
        detail:
          (decision.missed === null
            ? ''
            : say`Its window closed ${short(decision.missed)}: another season of the bed, larger trees with coarser roots. `) +
          (Number.isFinite(decision.liftUntil)
            ? say`The lifting window runs to about ${short(decision.liftUntil)}, two weeks before buds move.`
            : say`The window’s end lies beyond the forecast.`),
        short: say`lift ~ ${short(decision.liftFrom)}`,
      };
    case 'lift':
      return {
        headline: say`Lift between ${long(decision.from)} and ${long(decision.until)}`,
        detail: say`Best before ${short(decision.bestBefore)}: in one year of ten buds are within two weeks of moving then. Not while the medium is frozen.`,
        short: say`until ${short(decision.bestBefore)}`,
      };
    case 'done':
      return {
        headline: say`Nothing stands`,
        detail: say`Every seed of this lot is accounted for in its ledger.`,
        short: '',
      };
  }
}
