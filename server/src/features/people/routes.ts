import { hash, verify } from '@node-rs/argon2';
import type { Me } from '@kauri/core/contract';
import { Refusal } from '../../http/problems';
import type { peopleRoutes } from '@kauri/core/contract';
import type { HandlersOf } from '../../http/context';
import {
  cookieFor,
  endAllSessions,
  endSession,
  personOf,
  sessionCookie,
  startSession,
  type Person,
} from '../../http/sessions';
import type { Server } from '../../http/context';
import { inNursery } from '../../db/tenant';
import { createNursery } from './createNursery';

const NOBODY = '00000000-0000-7000-8000-000000000000';
/** A hash to check against when nobody has the address, so that the answer takes as long either way. */
const decoy = hash('no one has this password');

async function membershipsOf(server: Server, person: Person): Promise<Me> {
  const memberships = await inNursery(server.pool, { nurseryId: NOBODY, personId: person.id }, async (tx) => {
    const { rows } = await tx.$client.query<Me['memberships'][number]>(
      `select m.nursery_id as "nurseryId", n.name as "nurseryName", m.role
       from membership m join nursery n on n.id = m.nursery_id where m.person_id = $1 order by n.name`,
      [person.id],
    );
    return rows;
  });
  return { person: { id: person.id, name: person.name, email: person.email }, memberships };
}

export const peopleHandlers: HandlersOf<typeof peopleRoutes> = {
  async health({ server, res }) {
    try {
      await server.pool.query('select 1');
      return { server: 'up', database: 'up' };
    } catch {
      res.status(503);
      return { server: 'up', database: 'down' };
    }
  },

  async door({ server }) {
    const setUp = await server.pool.query<{ done: boolean }>('select is_set_up() as done');
    const people = await server.pool.query(
      'select name, role, nursery, email, password from demo_person order by place',
    );
    return { needsSetup: !setUp.rows[0].done, demoPeople: people.rows };
  },

  async setup({ server, body, req, res }) {
    const person = await createNursery(server, body);
    res.cookie(sessionCookie, await startSession(server.pool, person.id), cookieFor(req));
    return membershipsOf(server, person);
  },

  async signIn({ server, body, req, res }) {
    const { rows } = await server.pool.query<Person & { hash: string }>(
      'select id, name, email, password_hash as hash from person where email = $1',
      [body.email],
    );
    const found = rows[0];
    const right = await verify(found?.hash ?? (await decoy), body.password);
    if (!found || !right)
      throw new Refusal(401, 'wrong-sign-in', 'The e-mail address or the password is not right.');
    res.cookie(sessionCookie, await startSession(server.pool, found.id), cookieFor(req));
    return membershipsOf(server, found);
  },

  async signOut({ server, req, res }) {
    await endSession(server.pool, req);
    res.clearCookie(sessionCookie, cookieFor(req));
    return { done: true };
  },

  async signOutEverywhere({ server, person, req, res }) {
    await endAllSessions(server.pool, person!.id);
    res.clearCookie(sessionCookie, cookieFor(req));
    return { done: true };
  },

  async me({ server, req }) {
    const person = await personOf(server.pool, req);
    return person && membershipsOf(server, person);
  },
};
