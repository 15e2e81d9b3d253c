import { z } from 'zod';
import { atPhoto, inNursery, route } from '../route';
import { growingPaths as paths } from './paths';
import * as growing from './schemas';
import * as lots from '../lots/schemas';

/** Growing on: events, work done, photos. */
export const growingRoutes = {
  recordEvent: route(paths.recordEvent, 'crew', 'Record what befell lots: how many were hit, how many died', {
    params: inNursery,
    body: growing.RecordEvent,
    answer: z.object({ lots: z.array(lots.LotDetail) }),
  }),
  recordCare: route(paths.recordCare, 'crew', 'Record work done to lots without moving them', {
    params: inNursery,
    body: growing.RecordCare,
    answer: z.object({ lots: z.array(lots.LotDetail) }),
  }),
  carryLots: route(paths.carryLots, 'crew', 'Carry lots in their trays to another place, all or none', {
    params: inNursery,
    body: growing.CarryLots,
    answer: z.object({ lots: z.array(lots.LotDetail) }),
  }),
  keepPhoto: route(paths.keepPhoto, 'crew', 'Keep a photo; sending it again changes nothing', {
    params: atPhoto,
    bodyType: 'image/jpeg',
    answer: growing.KeptPhoto,
  }),
  photo: route(paths.photo, 'visitor', 'A kept photo', {
    params: atPhoto,
    answerType: 'image/jpeg',
    answer: z.unknown(),
  }),
} as const;
