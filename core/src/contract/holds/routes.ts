import { atHold, atHoldStep, atLot, inNursery, route } from '../route';
import { JustId } from '../basics';
import { holdPaths as paths } from './paths';
import * as holds from './schemas';

/** Plants held in humid air until their roots feed them, opened by steps. */
export const holdRoutes = {
  holds: route(paths.holds, 'visitor', 'Plants held in humid air', {
    params: inNursery,
    answer: holds.Holds,
  }),
  beginHold: route(paths.beginHold, 'crew', 'Begin to hold a lot in humid air', {
    params: atLot,
    body: holds.BeginHold,
    answer: holds.Holds,
  }),
  noteHold: route(paths.noteHold, 'crew', 'Note what was seen or done of plants held in humid air', {
    params: atHold,
    body: holds.NoteHold,
    answer: holds.Holds,
  }),
  takeBackHoldStep: route(paths.takeBackHoldStep, 'crew', 'Take a step of a hold back', {
    params: atHoldStep,
    body: JustId,
    answer: holds.Holds,
  }),
  endHold: route(paths.endHold, 'crew', 'End a hold, with how many came through', {
    params: atHold,
    body: holds.EndHold,
    answer: holds.Holds,
  }),
  takeBackHold: route(paths.takeBackHold, 'crew', 'Take a hold back, or its end', {
    params: atHold,
    body: JustId,
    answer: holds.Holds,
  }),
} as const;
