import { createHash } from 'node:crypto';
import { lotsOfAny } from '@kauri/core';
import { areaOf, type Role, type Route, type RouteName } from '@kauri/core/contract';
import type { Request, Response } from 'express';
import { tellLanded } from '../db/changes';
import { inNurseryBySession } from '../db/tenant';
import { handlers } from '../features/handlers';
import { mustAct, signedOut } from './access';
import { pageOf } from './changes';
import { ReadyJson, type Call, type Handlers, type NurseryCall, type Server } from './context';
import { answerOnce } from './receipts';
import { storable } from './storable';
import { keepAwake, personOf, tokenHashOf } from './sessions';

/** Answers one call of a route: reads it by the contract, sees who asks, does it, sends what came of it. */
export async function serve(
  server: Server,
  name: RouteName,
  route: Route,
  req: Request,
  res: Response,
): Promise<void> {
  const call = {
    server,
    params: route.params.parse(storable(req.params)),
    query: route.query.parse(storable(req.query)),
    body: route.bodyType || route.method === 'GET' ? {} : route.body.parse(storable(req.body ?? {})),
    person: null,
    req,
    res,
  } as Call<RouteName>;
  const outside = route.access === 'anyone' || route.access === 'signed-in';
  const answer = await (outside
    ? outsideNurseries(server, name, route, call)
    : inTheirNursery(server, name, route, call));
  // What was written is committed: Today follows.
  if (!outside && route.method !== 'GET') server.askToday((call.params as { nursery: string }).nursery);
  if (name === 'propose') server.askSeason();
  // A stream's last line goes out only now, after the transaction is committed.
  // An archive went out as it was made.
  if (route.answerType === 'application/zip') return;
  if (route.answerType === 'application/x-ndjson') return void res.end(`${JSON.stringify(answer)}\n`);
  if (route.answerType) res.type(route.answerType).send(answer);
  else sendJson(req, res, answer instanceof ReadyJson ? answer.text : JSON.stringify(answer));
}

/** Sends an answer, or says that it is the one the caller holds already: who opens a nursery again fetches what changed. */
function sendJson(req: Request, res: Response, text: string): void {
  if (req.method === 'GET') {
    const tag = `"${createHash('sha1').update(text).digest('base64url')}"`;
    res.setHeader('ETag', tag);
    if (req.headers['if-none-match'] === tag) return void res.status(304).end();
  }
  res.type('json').send(text);
}

async function outsideNurseries(
  server: Server,
  name: RouteName,
  route: Route,
  call: Call<RouteName>,
): Promise<unknown> {
  const person = route.access === 'signed-in' ? await personOf(server.pool, call.req) : null;
  if (route.access === 'signed-in' && !person) throw signedOut();
  return (handlers as Handlers)[name as 'me']({ ...call, person } as Call<'me'>);
}

async function inTheirNursery(
  server: Server,
  name: RouteName,
  route: Route,
  call: Call<RouteName>,
): Promise<unknown> {
  const { nursery: nurseryId } = call.params as { nursery: string };
  const tokenHash = tokenHashOf(call.req);
  if (tokenHash === null) throw signedOut();
  return inNurseryBySession(
    server.pool,
    { nurseryId, tokenHash, readOnly: route.method === 'GET' },
    async (tx, who) => {
      mustAct(route, who);
      const { person, role } = who;
      keepAwake(server.pool, call.req, tokenHash);
      const handler = (handlers as Handlers)[name as 'lots'];
      const run = async () => {
        const answer = await handler({
          ...call,
          person,
          tx,
          nurseryId,
          role: role as Role,
        } as NurseryCall<'lots'>);
        if (route.method !== 'GET')
          await tellLanded(tx, nurseryId, {
            area: areaOf(name),
            lots: lotsOfAny(name, call.params, call.body),
            page: pageOf(call.req),
          });
        return answer;
      };
      const id = (call.body as { id?: string }).id;
      if (route.method !== 'POST' || !id) return run();
      const bodyHash = createHash('sha256')
        .update(JSON.stringify([call.params, call.body]))
        .digest('base64url');
      return answerOnce({ tx, nurseryId, id, route: name, bodyHash }, run);
    },
  );
}
