import { say } from '@kauri/core';
import { hash } from '@node-rs/argon2';
import type { Account, peopleRoutes } from '@kauri/core/contract';
import { person as personTable } from '../../db/schema/index';
import type { Call, HandlersOf } from '../../http/context';
import { setLanguage } from '../../nursery/language';
import { Refusal } from '../../http/problems';
import {
  endSession,
  endSessionsOf,
  personOf,
  startSession,
  tokenHashOf,
  type Person,
} from '../../http/sessions';
import { workOf } from '../../nursery/work';
import { note } from '../../db/journal';
import { addNursery, createNursery } from './createNursery';
import * as crew from './crew';
import { membershipsOf, mustBeAtHome } from './memberships';
import * as passwords from './password';
import { askForPractice, practiceOf } from './practice';
import * as factors from './secondFactor';

/** Somebody's own account, as this browser sees it. */
async function accountOf({
  server,
  person,
  req,
}: Call<'account' | 'endBrowser' | 'dropSecondFactor'>): Promise<Account> {
  const { rows } = await server.pool.query<Account['browsers'][number] & { startedAt: Date; seenAt: Date }>(
    `select id, agent, device, token_hash = $2 as here, created_at as "startedAt", seen_at as "seenAt"
     from session where person_id = $1 and expires_at > now() order by seen_at desc, id`,
    [person!.id, tokenHashOf(req)],
  );
  const state = await factors.factorState(server.pool, person!.id);
  return {
    ...state,
    browsers: rows.map((row) => ({
      ...row,
      startedAt: row.startedAt.toISOString(),
      seenAt: row.seenAt.toISOString(),
    })),
  };
}

/** Sign-ins, refusals and what changes who may do what are logged by id: no names, no addresses, no notes. */
type Event =
  | 'sign-in'
  | 'sign-in refused'
  | 'password changed'
  | 'password link made'
  | 'password set by link'
  | 'second factor on'
  | 'second factor off'
  | 'invitation taken'
  | 'role changed'
  | 'taken out';
function tell(
  { server, res, req }: Pick<Call<'me'>, 'server' | 'res' | 'req'>,
  event: Event,
  personId: string | null,
): void {
  server.log.info({ id: res.locals.requestId, event, person: personId, address: req.ip });
}

async function signIn(call: Call<'signIn'>) {
  const { server, body } = call;
  const { rows } = await server.pool.query<Person & { hash: string | null }>(
    'select id, name, email, password_hash as hash from person where email = $1',
    [body.email],
  );
  const found = rows[0];
  if (!(await passwords.isPassword(found?.hash, body.password))) {
    tell(call, 'sign-in refused', found?.id ?? null);
    throw new Refusal(401, 'wrong-sign-in', say`The e-mail address or the password is not right.`);
  }
  try {
    await factors.mustPassFactor(server.pool, found.id, body.code);
  } catch (error) {
    tell(call, 'sign-in refused', found.id);
    throw error;
  }
  tell(call, 'sign-in', found.id);
  await startSession(server.pool, call, found.id, body.device);
  return membershipsOf(server, found);
}

async function join(call: Call<'join'>) {
  const { server, body, req } = call;
  if (body.person) {
    const { id, name, email, password } = body.person;
    const passwordHash = await hash(password);
    await crew.join(server, body.secret, { id, name, email }, async (tx) => {
      await tx.insert(personTable).values({ id, name, email, passwordHash });
    });
    await startSession(server.pool, call, id);
    tell(call, 'invitation taken', id);
    return membershipsOf(server, { id, name, email });
  }
  const person = await personOf(server.pool, req);
  if (!person) throw new Refusal(401, 'signed-out', say`Sign in first, or join as somebody new.`);
  await crew.join(server, body.secret, person);
  tell(call, 'invitation taken', person.id);
  return membershipsOf(server, person);
}

/**
 * @throws Refusal where the person belongs to a nursery that whoever asks does not own: the owner of one nursery
 * must not come into another through somebody who works in both
 */
async function mustStandAlone(server: Call<'me'>['server'], owner: Person, personId: string): Promise<void> {
  const asked = { id: personId, name: '', email: '' };
  const [theirs, mine] = await Promise.all([membershipsOf(server, asked), membershipsOf(server, owner)]);
  const owned = new Set(mine.memberships.filter((m) => m.role === 'owner').map((m) => m.nurseryId));
  if (!theirs.memberships.every((m) => owned.has(m.nurseryId)))
    throw new Refusal(
      422,
      'not-alone',
      say`This account is not in your hands alone, so no link can be made here. Whoever runs the machine can make one: npm run password-link -- their e-mail address.`,
    );
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

  async setup(call) {
    const person = await createNursery(call.server, call.body);
    await startSession(call.server.pool, call, person.id);
    return membershipsOf(call.server, person);
  },

  signIn,

  async signOut(call) {
    await endSession(call.server.pool, call);
    return { done: true };
  },

  async signOutEverywhere(call) {
    await endSessionsOf(call.server.pool, call.person!.id);
    await endSession(call.server.pool, call);
    return { done: true };
  },

  async me({ server, req }) {
    const person = await personOf(server.pool, req);
    return person && membershipsOf(server, person);
  },

  async addNursery({ server, person, body }) {
    await mustBeAtHome(server, person!);
    await addNursery(server, person!, body);
    return membershipsOf(server, person!);
  },

  practice: ({ server, person }) => practiceOf(server, person!.id),
  async makePractice({ server, person, body }) {
    return askForPractice(server, person!.id, body);
  },

  account: accountOf,

  async changePassword(call) {
    const { server, person, body, req } = call;
    await passwords.mustBePassword(server.pool, person!.id, body.current, 'current');
    await passwords.keepPassword(server.pool, person!.id, body.next);
    await endSessionsOf(server.pool, person!.id, tokenHashOf(req));
    tell(call, 'password changed', person!.id);
    return { done: true };
  },

  async endBrowser(call) {
    const { server, person, params } = call;
    await server.pool.query('delete from session where person_id = $1 and id = $2', [
      person!.id,
      params.browser,
    ]);
    return accountOf(call);
  },

  async offerSecondFactor({ server, person, body }) {
    await passwords.mustBePassword(server.pool, person!.id, body.password, 'password');
    return factors.offerFactor(server.pool, person!);
  },

  async confirmSecondFactor(call) {
    const { server, person, body } = call;
    const codes = await factors.confirmFactor(server.pool, person!.id, body.code);
    tell(call, 'second factor on', person!.id);
    return { codes };
  },

  async dropSecondFactor(call) {
    const { server, person, body } = call;
    await passwords.mustBePassword(server.pool, person!.id, body.password, 'password');
    await factors.dropFactor(server.pool, person!.id);
    tell(call, 'second factor off', person!.id);
    return accountOf(call);
  },

  seeInvite: ({ server, body }) => crew.seeInvite(server.pool, body.secret),
  join,

  async seePasswordLink({ server, body }) {
    const { name, email } = await passwords.whoseLink(server.pool, body.secret);
    return { name, email };
  },

  async setPasswordByLink(call) {
    const personId = await passwords.setByLink(call.server.pool, call.body.secret, call.body.password);
    tell(call, 'password set by link', personId);
    return { done: true };
  },

  crew: (call) => crew.crewOf(call),
  async setLanguage(call) {
    await setLanguage(await workOf(call), call.body.language);
    return call.body;
  },
  invite: async (call) => crew.invite(await workOf(call), call.body),
  withdrawInvite: async (call) => crew.withdrawInvite(await workOf(call), call.params.invite),

  async changeRole(call) {
    const after = await crew.changeRole(await workOf(call), call.params.person, call.body);
    tell(call, 'role changed', call.params.person);
    return after;
  },

  async removePerson(call) {
    const after = await crew.removePerson(await workOf(call), call.params.person);
    tell(call, 'taken out', call.params.person);
    return after;
  },

  async makePasswordLink(call) {
    const work = await workOf(call);
    await crew.mustBelong(work, call.params.person);
    await mustStandAlone(call.server, call.person, call.params.person);
    await passwords.makePasswordLink(call.tx.$client, call.params.person, call.body.secret);
    await note(work, 'make a password link', call.params.person, null, null);
    tell(call, 'password link made', call.params.person);
    return { done: true };
  },
};
