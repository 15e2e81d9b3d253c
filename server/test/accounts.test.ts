import { randomBytes } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';
import { v7 as newId } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addPerson, openTestServer, setUp, type Caller, type TestServer } from './harness';

let server: TestServer;
let owner: Caller;
let nursery: { nursery: string };
beforeAll(async () => {
  server = await openTestServer();
  ({ owner, nursery } = await setUp(server));
});
afterAll(() => server.close());

const PASSWORD = 'a long password';
const newSecret = () => randomBytes(32).toString('base64url');
let counter = 0;
const somebody = () => {
  const email = `somebody-${++counter}@testing.example`;
  return { id: newId(), name: `Somebody ${counter}`, email, password: PASSWORD };
};
async function invited(role: 'visitor' | 'crew' | 'grower' | 'owner') {
  const secret = newSecret();
  const id = newId();
  const crew = await owner.ok('invite', { params: nursery, body: { id, name: 'New hands', role, secret } });
  expect(crew.invites.map((i) => i.id)).toContain(id);
  return { id, secret };
}
/** Somebody who came by an invitation. */
async function joined(role: 'visitor' | 'crew' | 'grower' | 'owner') {
  const { secret } = await invited(role);
  const person = somebody();
  const caller = server.visitor();
  await caller.ok('join', { body: { secret, person } });
  return { caller, person };
}

describe('an invitation', () => {
  it('says what it is to, makes an account and a place in the nursery, once', async () => {
    const { secret } = await invited('crew');
    expect(await server.visitor().ok('seeInvite', { body: { secret } })).toEqual({
      nurseryName: 'Testing Yard',
      role: 'crew',
      name: 'New hands',
      by: 'Owner',
    });
    const tries = await Promise.all(
      [1, 2, 3].map(() => server.visitor().send('join', { body: { secret, person: somebody() } })),
    );
    expect(tries.filter((t) => t.ok)).toHaveLength(1);
    for (const late of tries.filter((t) => !t.ok)) expect([404, 409]).toContain(late.status);
    // Whoever came too late has no account either.
    const { rows } = await server.owner.query(
      'select (select count(*)::int from person) as people, (select count(*)::int from membership) as members',
    );
    expect(rows[0].people).toBe(rows[0].members);
    expect((await server.visitor().refused('seeInvite', { body: { secret } })).type).toBe(
      '/problems/no-such-invite',
    );
  });
  it('is kept as a digest only, in receipts and journal too', async () => {
    const { secret } = await invited('visitor');
    for (const table of ['invite', 'receipt', 'journal']) {
      const { rows } = await server.owner.query(`select t::text as row from ${table} t`);
      for (const { row } of rows) expect(row).not.toContain(secret);
    }
  });
  it('can be withdrawn, and runs out after seven days', async () => {
    const { id, secret } = await invited('crew');
    await owner.ok('withdrawInvite', { params: { ...nursery, invite: id }, body: { id: newId() } });
    expect((await server.visitor().refused('join', { body: { secret, person: somebody() } })).type).toBe(
      '/problems/no-such-invite',
    );
    const old = await invited('crew');
    await server.owner.query("update invite set ends_at = now() - interval '1 second' where id = $1", [
      old.id,
    ]);
    expect((await owner.ok('crew', { params: nursery })).invites.map((i) => i.id)).not.toContain(old.id);
    expect(
      (await server.visitor().refused('join', { body: { secret: old.secret, person: somebody() } })).status,
    ).toBe(404);
  });
  it('is not used up by somebody who belongs already, nor by an address that is taken', async () => {
    const { secret } = await invited('visitor');
    expect((await owner.refused('join', { body: { secret, person: null } })).type).toBe(
      '/problems/belongs-already',
    );
    const taken = await server
      .visitor()
      .refused('join', { body: { secret, person: { ...somebody(), email: 'owner@testing.example' } } });
    expect(taken).toMatchObject({ status: 409, detail: 'That e-mail address is already in use.' });
    await server.visitor().ok('join', { body: { secret, person: somebody() } });
  });
  it('is an owner’s to make', async () => {
    const grower = await addPerson(server, nursery.nursery, 'grower@testing.example', 'grower');
    expect((await grower.refused('crew', { params: nursery })).status).toBe(403);
    const body = { id: newId(), name: 'x', role: 'owner' as const, secret: newSecret() };
    expect((await grower.refused('invite', { params: nursery, body })).type).toBe('/problems/role');
  });
});

describe('roles', () => {
  it('take effect at the next request, and a stale choice is asked about', async () => {
    const { caller, person } = await joined('visitor');
    const at = { ...nursery, person: person.id };
    await owner.ok('changeRole', { params: at, body: { id: newId(), role: 'grower', was: 'visitor' } });
    expect((await caller.ok('catalogue', { params: nursery })).role).toBe('grower');
    const stale = await owner.refused('changeRole', {
      params: at,
      body: { id: newId(), role: 'crew', was: 'visitor' },
    });
    expect(stale.type).toBe('/problems/stale-edit');
    const { rows } = await server.owner.query(
      "select before, after from journal where act = 'change a role' and subject_id = $1",
      [person.id],
    );
    expect(rows).toEqual([{ before: { role: 'visitor' }, after: { role: 'grower' } }]);
  });
  it('end with the place in the nursery; what was written stays under its name', async () => {
    const { caller, person } = await joined('crew');
    await owner.ok('removePerson', { params: { ...nursery, person: person.id }, body: { id: newId() } });
    expect((await caller.refused('catalogue', { params: nursery })).type).toBe('/problems/no-such-nursery');
    expect((await caller.ok('me'))!.memberships).toEqual([]);
    const { rows } = await server.owner.query(
      "select p.name from journal j join person p on p.id = j.person_id where j.act = 'join' and j.subject_id = $1",
      [person.id],
    );
    expect(rows).toEqual([{ name: person.name }]);
  });
  it('always leave an owner, though two take each other’s away at once', async () => {
    const crew = await owner.ok('crew', { params: nursery });
    const first = crew.people.find((p) => p.email === 'owner@testing.example')!.id;
    const alone = await owner.refused('removePerson', {
      params: { ...nursery, person: first },
      body: { id: newId() },
    });
    expect(alone.type).toBe('/problems/last-owner');
    const { caller, person } = await joined('owner');
    const take = (by: Caller, from: string) =>
      by.send('changeRole', {
        params: { ...nursery, person: from },
        body: { id: newId(), role: 'grower', was: 'owner' },
      });
    const answers = await Promise.all([take(owner, person.id), take(caller, first)]);
    expect(answers.filter((a) => a.ok)).toHaveLength(1);
    const { rows } = await server.owner.query(
      "select count(*)::int as n from membership where role = 'owner'",
    );
    expect(rows[0].n).toBe(1);
    await server.owner.query("update membership set role = 'owner' where person_id = $1", [first]);
    await server.owner.query("update membership set role = 'crew' where person_id = $1", [person.id]);
  });
});

describe('a password', () => {
  it('is changed by whoever knows it; other browsers are signed out, this one not', async () => {
    const { caller, person } = await joined('crew');
    const other = await server.signIn(person.email, PASSWORD);
    expect(
      (
        await caller.refused('changePassword', {
          body: { current: 'not it at all', next: 'another one here' },
        })
      ).type,
    ).toBe('/problems/wrong-password');
    await caller.ok('changePassword', { body: { current: PASSWORD, next: 'another one here' } });
    expect(await caller.ok('me')).not.toBeNull();
    expect(await other.ok('me')).toBeNull();
    await server.signIn(person.email, 'another one here');
  });
  it('that is forgotten is set by a link of the owner’s, once', async () => {
    const { caller, person } = await joined('crew');
    const secret = newSecret();
    const at = { ...nursery, person: person.id };
    await owner.ok('makePasswordLink', { params: at, body: { id: newId(), secret } });
    const asked = server.visitor();
    expect(await asked.ok('seePasswordLink', { body: { secret } })).toEqual({
      name: person.name,
      email: person.email,
    });
    const tries = await Promise.all(
      ['the first new one', 'the other new one'].map((password) =>
        server.visitor().send('setPasswordByLink', { body: { secret, password } }),
      ),
    );
    expect(tries.map((t) => t.status).sort()).toEqual([200, 404]);
    expect(await caller.ok('me')).toBeNull();
    expect(
      (await server.visitor().refused('signIn', { body: { email: person.email, password: PASSWORD } })).type,
    ).toBe('/problems/wrong-sign-in');
  });
  it('is not put in the hands of an owner of one nursery where its person works in another too', async () => {
    const { person } = await joined('crew');
    const elsewhere = newId();
    await server.owner.query(
      `insert into nursery (id, name, place_name, latitude_deg, longitude_deg, elevation_m, time_zone, units)
       values ($1, 'Another', 'Elsewhere', 1, 1, 1, 'UTC', 'metric')`,
      [elsewhere],
    );
    await server.owner.query(
      "insert into membership (nursery_id, person_id, role) values ($1, $2, 'visitor')",
      [elsewhere, person.id],
    );
    const refused = await owner.refused('makePasswordLink', {
      params: { ...nursery, person: person.id },
      body: { id: newId(), secret: newSecret() },
    });
    expect(refused.type).toBe('/problems/not-alone');
    expect(JSON.stringify(refused)).not.toContain('Another');
  });
});

describe('a second factor', () => {
  const codeAt = (secret: string, stepsOff = 0) =>
    new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: Date.now() + stepsOff * 30_000 });

  it('is asked for once in force; no code is taken twice; a recovery code is taken once', async () => {
    const { caller, person } = await joined('grower');
    const { email } = person;
    const { secret, uri } = await caller.ok('offerSecondFactor', { body: { password: PASSWORD } });
    expect(uri).toContain(secret);
    // Offered is not in force.
    await server.signIn(email, PASSWORD);
    expect((await caller.refused('confirmSecondFactor', { body: { code: '12345' } })).type).toBe(
      '/problems/wrong-code',
    );
    const code = codeAt(secret, -1);
    const { codes } = await caller.ok('confirmSecondFactor', { body: { code } });
    expect(new Set(codes).size).toBe(10);

    const enter = (given?: string) =>
      server.visitor().send('signIn', { body: { email, password: PASSWORD, code: given } });
    const typeOf = async (given?: string) => ((await (await enter(given)).json()) as { type: string }).type;
    expect(await typeOf()).toBe('/problems/code-needed');
    expect(await typeOf(code)).toBe('/problems/wrong-code');
    const next = codeAt(secret, 1);
    const both = await Promise.all([enter(next), enter(next)]);
    expect(both.map((r) => r.status).sort()).toEqual([200, 401]);
    expect((await enter(codes[0].toLowerCase().replaceAll('-', ' '))).status).toBe(200);
    expect(await typeOf(codes[0])).toBe('/problems/wrong-code');
    expect(await caller.ok('account')).toMatchObject({ secondFactor: true, recoveryLeft: 9 });
    const { rows } = await server.owner.query('select f::text as row from second_factor f');
    for (const { row } of rows) expect(row).not.toContain(codes[1].replaceAll('-', ''));
    expect(
      (await owner.ok('crew', { params: nursery })).people.find((p) => p.id === person.id),
    ).toMatchObject({
      secondFactor: true,
    });
    await caller.ok('dropSecondFactor', { body: { password: PASSWORD } });
    expect((await enter()).status).toBe(200);
  });
});

describe('a session', () => {
  it('lasts half a day at a desk and thirty days on the yard’s own device, from its last use', async () => {
    const { person } = await joined('crew');
    await server.owner.query('delete from session where person_id = $1', [person.id]);
    const yard = server.visitor();
    const kept = await yard.send('signIn', {
      body: { email: person.email, password: PASSWORD, device: 'yard' },
    });
    expect(kept.headers.getSetCookie()[0]).toMatch(/Max-Age=/);
    const desk = await server.signIn(person.email, PASSWORD);
    const hoursOf = async (device: string) => {
      const { rows } = await server.owner.query(
        'select extract(epoch from expires_at - now()) / 3600 as hours from session where person_id = $1 and device = $2',
        [person.id, device],
      );
      return Number(rows[0].hours);
    };
    expect(await hoursOf('desk')).toBeCloseTo(12, 1);
    expect(await hoursOf('yard')).toBeCloseTo(720, 1);
    // Eleven hours on, a page that asks by itself puts nothing off; somebody at it does.
    await server.owner.query(
      "update session set seen_at = now() - interval '11 hours', expires_at = now() + interval '1 hour' where person_id = $1 and device = 'desk'",
      [person.id],
    );
    await desk.send('day', { params: nursery }, { headers: { 'x-kauri-idle': '1' } });
    expect(await hoursOf('desk')).toBeCloseTo(1, 1);
    await desk.ok('day', { params: nursery });
    await expect.poll(() => hoursOf('desk')).toBeCloseTo(12, 1);
  });
  it('of another browser is seen and ended; nobody else’s is', async () => {
    const { caller, person } = await joined('crew');
    const other = await server.signIn(person.email, PASSWORD);
    const { browsers } = await caller.ok('account');
    expect(browsers.map((b) => b.here).sort()).toEqual([false, true]);
    const theirs = browsers.find((b) => !b.here)!;
    // Somebody else who knows its id ends nothing.
    await owner.ok('endBrowser', { params: { browser: theirs.id }, body: {} });
    expect(await other.ok('me')).not.toBeNull();
    await caller.ok('endBrowser', { params: { browser: theirs.id }, body: {} });
    expect(await other.ok('me')).toBeNull();
  });
});

describe('limits', () => {
  it('count one account however its address is typed', async () => {
    const { person } = await joined('crew');
    const forms = [person.email, ` ${person.email}`, `${person.email} `, person.email.toUpperCase()];
    for (let i = 0; i < 10; i++)
      await server
        .visitor()
        .send('signIn', { body: { email: forms[i % 4], password: `wrong password ${i}` } });
    const after = await server
      .visitor()
      .refused('signIn', { body: { email: person.email, password: PASSWORD } });
    expect(after.status).toBe(429);
  });
  it('see who asks before what is sent is read', async () => {
    const broken = { body: '{ not json', headers: { 'content-type': 'application/json' } };
    const statusOf = async (caller: Caller) =>
      (await caller.send('addPlace', { params: nursery }, broken)).status;
    const crew = await addPerson(server, nursery.nursery, 'crew@testing.example', 'crew');
    expect(await statusOf(server.visitor())).toBe(401);
    expect(await statusOf(crew)).toBe(403);
    expect(await statusOf(owner)).toBe(400);
  });
  it('refuse text that no database keeps, by its field', async () => {
    for (const note of ['a\0b', 'half \ud800 a pair']) {
      const problem = await owner.refused('invite', {
        params: nursery,
        body: { id: newId(), name: note, role: 'crew', secret: newSecret() },
      });
      expect(problem).toMatchObject({ status: 422, fields: [{ path: 'name' }] });
    }
  });
});

describe('a nursery more', () => {
  const yard = {
    name: 'Second Yard',
    placeName: 'Elsewhere',
    latitudeDeg: 40,
    longitudeDeg: -90,
    elevationM: 200,
    timeZone: 'America/Chicago',
    units: 'us' as const,
  };
  it('is set up by an owner, and by nobody who only works here', async () => {
    const me = await owner.ok('addNursery', { body: { id: newId(), ...yard } });
    expect(me.memberships.map((m) => [m.nurseryName, m.role])).toContainEqual(['Second Yard', 'owner']);
    const { caller } = await joined('grower');
    expect((await caller.refused('addNursery', { body: { id: newId(), ...yard } })).status).toBe(403);
  });
  it('is set up by whoever set Kauri up for an archive and has none after all', async () => {
    const fresh = await openTestServer();
    try {
      const alone = fresh.visitor();
      await alone.ok('setup', { body: { nursery: null, person: somebody() } });
      expect((await alone.ok('me'))!.memberships).toEqual([]);
      const me = await alone.ok('addNursery', { body: { id: newId(), ...yard } });
      expect(me.memberships).toHaveLength(1);
    } finally {
      await fresh.close();
    }
  });
});
