import { createHash } from 'node:crypto';
import { Id, mayAct, type Role, type Route, type RouteName } from '@kauri/core/contract';
import type { Request, Response } from 'express';
import { inNurseryBySession, type SignedIn } from '../db/tenant';
import { handlers } from '../features/handlers';
import { ReadyJson, type Call, type Handlers, type NurseryCall, type Server } from './context';
import { Refusal } from './problems';
import { answerOnce } from './receipts';
import { storable } from './storable';
import { keepAwake, personOf, tokenHashOf } from './sessions';

/** A call with neither session nor role for its route is told so before any of what it sends is read. */
export async function mustHaveAccess(server: Server, route: Route, req: Request): Promise<void> {
  if (route.access === 'anyone') return;
  const tokenHash = tokenHashOf(req);
  if (tokenHash === null) throw signedOut();
  const { nursery } = req.params;
  if (route.access === 'signed-in') {
    if (!(await personOf(server.pool, req))) throw signedOut();
  } else {
    const nurseryId = Id.parse(nursery);
    await inNurseryBySession(server.pool, { nurseryId, tokenHash, readOnly: true }, (_, who) =>
      Promise.resolve(mustAct(route, who)),
    );
  }
}

function mustAct(route: Route, who: SignedIn | null): asserts who is SignedIn & { role: string } {
  if (who === null) throw signedOut();
  // A nursery one does not belong to is no different from one that is not there.
  if (who.role === null) throw new Refusal(404, 'no-such-nursery', 'There is no such nursery among yours.');
  if (!mayAct(who.role as Role, route.access as Role))
    throw new Refusal(403, 'role', `This needs the role of ${route.access}; yours is ${who.role}.`);
}

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
  else if (answer instanceof ReadyJson) res.type('json').send(answer.text);
  else res.json(answer);
}

function signedOut(): Refusal {
  return new Refusal(401, 'signed-out', 'You are signed out. Sign in again; what you typed is kept.');
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
      const run = () =>
        handler({ ...call, person, tx, nurseryId, role: role as Role } as NurseryCall<'lots'>);
      const id = (call.body as { id?: string }).id;
      if (route.method !== 'POST' || !id) return run();
      const bodyHash = createHash('sha256')
        .update(JSON.stringify([call.params, call.body]))
        .digest('base64url');
      return answerOnce({ tx, nurseryId, id, route: name, bodyHash }, run);
    },
  );
}
