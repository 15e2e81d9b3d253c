import { z } from 'zod';
import { Id } from './basics';
import type { Role } from './roles';

/** Who may call a route: anyone, anyone signed in, or a member of the nursery with at least this role. */
export type Access = 'anyone' | 'signed-in' | Role;

/** Method and path of a route. */
export type Path = readonly ['GET' | 'POST' | 'PUT', string];

export interface Route<
  Params extends z.ZodType = z.ZodType,
  Query extends z.ZodType = z.ZodType,
  Body extends z.ZodType = z.ZodType,
  Answer extends z.ZodType = z.ZodType,
  Needs extends Access = Access,
> {
  method: 'GET' | 'POST' | 'PUT';
  /** Below `/api`, parameters as `:name`. */
  path: string;
  access: Needs;
  summary: string;
  params: Params;
  query: Query;
  body: Body;
  answer: Answer;
  /** Set where the body or the answer is not JSON. */
  bodyType?: 'text/csv' | 'image/jpeg' | 'application/zip';
  answerType?: 'application/zip' | 'text/csv' | 'application/x-ndjson' | 'image/jpeg' | 'text/calendar';
}

const none = z.object({});
const done = z.object({ done: z.literal(true) });
export const inNursery = z.object({ nursery: Id });
export const atDesign = z.object({ nursery: Id, design: Id });
export const atMedium = z.object({ nursery: Id, medium: Id });
export const atSeedLot = z.object({ nursery: Id, seedLot: Id });
export const atTreatment = z.object({ nursery: Id, treatment: Id });
export const atStockBed = z.object({ nursery: Id, stockBed: Id });
export const atLayer = z.object({ nursery: Id, layer: Id });
export const atStation = z.object({ nursery: Id, station: Id });
export const atPhoto = z.object({ nursery: Id, photo: Id });
export const atOrder = z.object({ nursery: Id, order: Id });
export const atProposal = z.object({ nursery: Id, proposal: Id });
export const atParcel = z.object({ nursery: Id, parcel: Id });
export const atLook = z.object({ nursery: Id, look: Id });
export const atSending = z.object({ nursery: Id, sending: Id });
export const atReturn = z.object({ nursery: Id, sending: Id, returned: Id });
export const atHold = z.object({ nursery: Id, hold: Id });
export const atHoldStep = z.object({ nursery: Id, hold: Id, step: Id });
export const atArrival = z.object({ nursery: Id, arrival: Id });
export const atPlanting = z.object({ nursery: Id, planting: Id });
export const atPlanted = z.object({ nursery: Id, planting: Id, part: Id });
export const atWalk = z.object({ nursery: Id, walk: Id });
export const atLot = z.object({ nursery: Id, lot: Id });

/** A route of the contract, from its method and path and what goes in and out. */
export function route<
  const Needs extends Access,
  Params extends z.ZodType = typeof none,
  Query extends z.ZodType = typeof none,
  Body extends z.ZodType = typeof none,
  Answer extends z.ZodType = typeof done,
>(
  [method, path]: Path,
  access: Needs,
  summary: string,
  parts: Partial<
    Pick<
      Route<Params, Query, Body, Answer>,
      'params' | 'query' | 'body' | 'answer' | 'bodyType' | 'answerType'
    >
  > = {},
): Route<Params, Query, Body, Answer, Needs> {
  return {
    method,
    path,
    access,
    summary,
    params: none as unknown as Params,
    query: none as unknown as Query,
    body: none as unknown as Body,
    answer: done as unknown as Answer,
    ...parts,
  };
}
