import type { Path } from '../route';

/** Plants held in humid air: method and path of every route. */
export const holdPaths = {
  holds: ['GET', '/nurseries/:nursery/holds'],
  beginHold: ['POST', '/nurseries/:nursery/lots/:lot/holds'],
  noteHold: ['POST', '/nurseries/:nursery/holds/:hold/steps'],
  takeBackHoldStep: ['POST', '/nurseries/:nursery/holds/:hold/steps/:step/undo'],
  endHold: ['POST', '/nurseries/:nursery/holds/:hold/end'],
  takeBackHold: ['POST', '/nurseries/:nursery/holds/:hold/undo'],
} as const satisfies Record<string, Path>;
