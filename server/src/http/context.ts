import type { AnswerOf, BodyOf, ParamsOf, QueryOf, RouteName, Role, Routes } from '@kauri/core/contract';
import type { Request, Response } from 'express';
import type { Logger } from 'pino';
import type pg from 'pg';
import type { Tx } from '../db/tenant';
import type { Person } from './sessions';

/** What the server as a whole is given: no state of its own, only the way to it. */
export interface Server {
  pool: pg.Pool;
  log: Pick<Logger, 'info' | 'error'>;
  /** Today's plain date in a time zone: the one clock. */
  today: (timeZone: string) => string;
  /** Where irrigation controllers answer: the stand-in that ships with Kauri, or a gateway on the yard. */
  irrigationUrl: string;
  /** Has Today of a nursery worked out anew after a change. */
  askToday: (nurseryId: string) => void;
  /** Has seasons that wait to be planned taken up. */
  askSeason: () => void;
  /** Has a nursery that somebody asked to practise in made. */
  askPractice: (personId: string) => void;
  /** Where weather stations answer, likewise. */
  stationUrl: string;
  /** Where calipers and height sticks answer, likewise. */
  instrumentUrl: string;
}

/** An answer that is JSON already: made once and sent as it is to everyone who asks. */
export class ReadyJson {
  constructor(readonly text: string) {}
}

/** A call of a route outside any nursery. */
export interface Call<N extends RouteName> {
  server: Server;
  params: ParamsOf<N>;
  query: QueryOf<N>;
  body: BodyOf<N>;
  person: Person | null;
  req: Request;
  res: Response;
}

/** A call within a nursery, by a member, in a transaction. */
export interface NurseryCall<N extends RouteName> extends Call<N> {
  person: Person;
  tx: Tx;
  nurseryId: string;
  role: Role;
}

/** Answers a route outside nurseries. */
type Handler<N extends RouteName> = (call: Call<N>) => Promise<AnswerOf<N>>;
/** Answers a route within a nursery. A stream writes its progress itself and returns its last line. */
type NurseryHandler<N extends RouteName> = (call: NurseryCall<N>) => Promise<AnswerOf<N>>;

/** One handler for each route: outside nurseries or within one, as the access the contract names says. */
export type HandlersOf<Area> = {
  [N in keyof Area & RouteName]: Routes[N]['access'] extends 'anyone' | 'signed-in'
    ? Handler<N>
    : NurseryHandler<N>;
};
/** A handler for every route of the contract. */
export type Handlers = HandlersOf<Routes>;

/** What a piece of work on a nursery's rows needs, whether asked over HTTP or by the demo. */
export interface Work {
  tx: Tx;
  nurseryId: string;
  personId: string;
  today: string;
}
