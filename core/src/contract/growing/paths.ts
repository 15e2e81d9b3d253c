import type { Path } from '../route';

/** Growing on: events, work done, photos: method and path of every route. */
export const growingPaths = {
  recordEvent: ['POST', '/nurseries/:nursery/events'],
  recordCare: ['POST', '/nurseries/:nursery/care'],
  carryLots: ['POST', '/nurseries/:nursery/carried'],
  keepPhoto: ['PUT', '/nurseries/:nursery/photos/:photo'],
  photo: ['GET', '/nurseries/:nursery/photos/:photo'],
} as const satisfies Record<string, Path>;
