import { inNursery, route } from '../route';
import { waterPaths as paths } from './paths';
import * as water from './schemas';

/** Water. */
export const waterRoutes = {
  water: route(paths.water, 'visitor', 'Supply, drip and zones', {
    params: inNursery,
    answer: water.KeptWater,
  }),
  setWater: route(paths.setWater, 'grower', 'Change supply, drip or zones', {
    params: inNursery,
    body: water.EditedWater,
    answer: water.KeptWater,
  }),
  watering: route(paths.watering, 'visitor', 'The programme sent and what the controller reported', {
    params: inNursery,
    answer: water.Watering,
  }),
  sendProgramme: route(paths.sendProgramme, 'grower', 'Send the controller its programme', {
    params: inNursery,
    body: water.ProgrammeSchema,
    answer: water.Watering,
  }),
  readController: route(paths.readController, 'crew', 'Read the controller and its probes up to today', {
    params: inNursery,
    answer: water.Watering,
  }),
  failStandIn: route(paths.failStandIn, 'grower', 'Make the controller’s stand-in fail, or mend it', {
    params: inNursery,
    body: water.StandInFault,
  }),
} as const;
