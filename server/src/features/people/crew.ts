import { say } from '@kauri/core';
import type { BodyOf, Crew, InviteSeen, Role } from '@kauri/core/contract';
import type pg from 'pg';
import { note } from '../../db/journal';
import { inNursery, inNurseryByInvite } from '../../db/tenant';
import type { Server, Work } from '../../http/context';
import { Refusal, staleEdit } from '../../http/problems';
import { digestOf, type Person } from '../../http/sessions';

const INVITE_DAYS = 7;

/** Everybody of the nursery, and the invitations that can still be taken. */
export async function crewOf({ tx, nurseryId }: Pick<Work, 'tx' | 'nurseryId'>): Promise<Crew> {
  const iso = (column: string) => `to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"')`;
  const people = await tx.$client.query<Crew['people'][number]>(
    `select p.id, p.name, coalesce(p.email, '') as email, m.role, ${iso('m.since')} as since,
       ${iso('(select max(s.seen_at) from session s where s.person_id = p.id and s.expires_at > now())')} as "seenAt",
       exists (select from second_factor f where f.person_id = p.id and f.in_force_since is not null) as "secondFactor"
     from membership m join person p on p.id = m.person_id where m.nursery_id = $1 order by p.name, p.id`,
    [nurseryId],
  );
  const invites = await tx.$client.query<Crew['invites'][number]>(
    `select i.id, i.name, i.role, p.name as by, ${iso('i.ends_at')} as "endsAt"
     from invite i join person p on p.id = i.by_person
     where i.nursery_id = $1 and i.taken_by is null and i.withdrawn_at is null and i.ends_at > now() order by i.id`,
    [nurseryId],
  );
  return { people: people.rows, invites: invites.rows };
}

export async function invite(work: Work, { id, name, role, secret }: BodyOf<'invite'>): Promise<Crew> {
  await work.tx.$client.query(
    `insert into invite (nursery_id, id, name, role, token_hash, by_person, ends_at)
     values ($1, $2, $3, $4, $5, $6, now() + make_interval(days => ${INVITE_DAYS}))`,
    [work.nurseryId, id, name, role, digestOf(secret), work.personId],
  );
  await note(work, 'invite', id, null, { name, role });
  return crewOf(work);
}

export async function withdrawInvite(work: Work, id: string): Promise<Crew> {
  const { rowCount } = await work.tx.$client.query(
    'update invite set withdrawn_at = now() where nursery_id = $1 and id = $2 and taken_by is null and withdrawn_at is null',
    [work.nurseryId, id],
  );
  if (!rowCount)
    throw new Refusal(404, 'no-such-invite', say`There is no such invitation, or it was taken already.`);
  await note(work, 'withdraw an invitation', id, null, null);
  return crewOf(work);
}

interface Found extends InviteSeen {
  id: string;
  nurseryId: string;
}

async function findInvite(pool: pg.Pool, secret: string): Promise<Found> {
  const found = await inNurseryByInvite(pool, digestOf(secret));
  if (!found)
    throw new Refusal(
      404,
      'no-such-invite',
      say`This invitation was taken already, was withdrawn, or is older than seven days. Ask for another.`,
    );
  return inNursery(pool, found, async (tx) => {
    const { rows } = await tx.$client.query<Found>(
      `select i.id, i.nursery_id as "nurseryId", n.name as "nurseryName", i.role, i.name, p.name as by
       from invite i join nursery n on n.id = i.nursery_id join person p on p.id = i.by_person
       where i.nursery_id = $1 and i.id = $2`,
      [found.nurseryId, found.id],
    );
    return rows[0];
  });
}

export async function seeInvite(pool: pg.Pool, secret: string): Promise<InviteSeen> {
  const { nurseryName, role, name, by } = await findInvite(pool, secret);
  return { nurseryName, role, name, by };
}

/**
 * Takes an invitation, once. The transaction that joins is the one that makes the account, so that neither is without
 * the other.
 * @param makePerson makes the account of somebody new, in the transaction; left out for whoever is signed in
 * @throws Refusal when it is gone, or whoever takes it belongs to the nursery already
 */
export async function join(
  server: Server,
  secret: string,
  person: Person,
  makePerson?: (work: Work['tx']) => Promise<void>,
): Promise<void> {
  const found = await findInvite(server.pool, secret);
  await inNursery(server.pool, { nurseryId: found.nurseryId, personId: person.id }, async (tx) => {
    const { rows } = await tx.$client.query<{ role: Role }>(
      'select role from membership where nursery_id = $1 and person_id = $2',
      [found.nurseryId, person.id],
    );
    if (rows[0])
      throw new Refusal(
        409,
        'belongs-already',
        say`You belong to ${found.nurseryName} already, as ${rows[0].role}. The invitation is not used up: it is for somebody else.`,
      );
    await makePerson?.(tx);
    const { rowCount } = await tx.$client.query(
      'update invite set taken_by = $3 where nursery_id = $1 and id = $2 and taken_by is null and withdrawn_at is null and ends_at > now()',
      [found.nurseryId, found.id, person.id],
    );
    if (!rowCount) throw new Refusal(409, 'invite-taken', say`Somebody took this invitation a moment ago.`);
    await tx.$client.query('insert into membership (nursery_id, person_id, role) values ($1, $2, $3)', [
      found.nurseryId,
      person.id,
      found.role,
    ]);
    const work = { tx, nurseryId: found.nurseryId, personId: person.id, today: '' };
    await note(work, 'join', person.id, null, { role: found.role, invite: found.id });
  });
}

/** Everybody's membership, held until the transaction ends: two owners at once never leave none. */
async function heldMembers({ tx, nurseryId }: Work): Promise<{ person_id: string; role: Role }[]> {
  const { rows } = await tx.$client.query<{ person_id: string; role: Role }>(
    'select person_id, role from membership where nursery_id = $1 order by person_id for update',
    [nurseryId],
  );
  return rows;
}

/** The role somebody has. @throws Refusal where they are the only owner and would be one no more */
async function roleOf(work: Work, personId: string, staysOwner: boolean): Promise<Role> {
  const members = await heldMembers(work);
  const member = members.find((m) => m.person_id === personId);
  if (!member) throw new Refusal(404, 'no-such-person', say`Nobody of this nursery is that.`);
  const others = members.some((m) => m.role === 'owner' && m.person_id !== personId);
  if (member.role === 'owner' && !staysOwner && !others)
    throw new Refusal(
      422,
      'last-owner',
      say`A nursery needs an owner, and there is no other. Make somebody else an owner first.`,
    );
  return member.role;
}

export async function changeRole(
  work: Work,
  personId: string,
  { role, was }: BodyOf<'changeRole'>,
): Promise<Crew> {
  const before = await roleOf(work, personId, role === 'owner');
  if (before !== was)
    throw staleEdit(say`that role`, await crewOf(work), say`Look at it as it stands, and choose again.`);
  await work.tx.$client.query('update membership set role = $3 where nursery_id = $1 and person_id = $2', [
    work.nurseryId,
    personId,
    role,
  ]);
  await note(work, 'change a role', personId, { role: before }, { role });
  return crewOf(work);
}

/** Takes somebody out. What they wrote stays, under their name; their calendar's address ends. */
export async function removePerson(work: Work, personId: string): Promise<Crew> {
  const before = await roleOf(work, personId, false);
  await work.tx.$client.query('delete from calendar_token where nursery_id = $1 and person_id = $2', [
    work.nurseryId,
    personId,
  ]);
  await work.tx.$client.query('delete from membership where nursery_id = $1 and person_id = $2', [
    work.nurseryId,
    personId,
  ]);
  await note(work, 'take somebody out', personId, { role: before }, null);
  return crewOf(work);
}

/** @throws Refusal when they do not belong to this nursery */
export async function mustBelong({ tx, nurseryId }: Work, personId: string): Promise<void> {
  const { rowCount } = await tx.$client.query(
    'select from membership where nursery_id = $1 and person_id = $2',
    [nurseryId, personId],
  );
  if (!rowCount) throw new Refusal(404, 'no-such-person', say`Nobody of this nursery is that.`);
}
