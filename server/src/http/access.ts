import { say, word } from '@kauri/core';
import { Id, mayAct, type Role, type Route } from '@kauri/core/contract';
import type { Request } from 'express';
import { inNurseryBySession, type SignedIn } from '../db/tenant';
import type { Server } from './context';
import { Refusal } from './problems';
import { personOf, tokenHashOf } from './sessions';

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

/** @throws Refusal where nobody is signed in, or who is may not call the route */
export function mustAct(route: Route, who: SignedIn | null): asserts who is SignedIn & { role: string } {
  if (who === null) throw signedOut();
  // A nursery one does not belong to is no different from one that is not there.
  if (who.role === null)
    throw new Refusal(404, 'no-such-nursery', say`There is no such nursery among yours.`);
  if (!mayAct(who.role as Role, route.access as Role))
    throw new Refusal(
      403,
      'role',
      say`This needs the role of ${word(route.access)}; yours is ${word(who.role)}.`,
    );
}

export function signedOut(): Refusal {
  return new Refusal(401, 'signed-out', say`You are signed out. Sign in again; what you typed is kept.`);
}
